import { MM_PER_STUD, type Rect } from '@quarry/core/grid';
import { TABLE_KINDS, displayOf, type Scene } from '@quarry/core/document';
import { currentContents, frameOf, rectToRoom, tableInStuds } from '@quarry/core/venue';
import { field } from '../../ui/fieldSpec.ts';
import { drawTables, tableLabels } from '../drawGround.ts';
import type { BoardKind } from './kind.ts';

export const tableBoard: BoardKind = {
  drawings: [{ rank: 0, draw: drawTables }],
  labels: (picture) => tableLabels(picture),

  layer: 'tables',
  picked: 210,
  list: (scene) => currentContents(scene, 'table'),
  hit: (scene, id, { at }) => {
    const table = scene.table[id];
    if (!table) return false;
    const { x, y, w, d } = tableInStuds(scene, table);
    return at.x >= x && at.y >= y && at.x < x + w && at.y < y + d;
  },
  // Whole centimetres.
  step: 10 / MM_PER_STUD,
  tool: {
    draws: 'area',
    key: 'l',
    more: true,
    planners: true,
    make: (scene, rect, name) => ({
      words: 'a table',
      data: {
        name: name('Table'),
        ...tableFields(scene, rect),
        height: currentContents(scene, 'table')[0]?.height ?? 740,
        place: displayOf(scene).place,
      },
    }),
  },
  fields: [
    field.text('name', 'Name'),
    field.choice('kind', 'Kind', TABLE_KINDS),
    ...field.roomArea(),
    field.mm('height', 'Height', 0, 3000),
    field.number('ratedKg', 'Rated load', 0, 5000, { unit: 'kg', optional: 'not known' }),
    field.number('leaves', 'Leaves', 1, 12, { whole: true }),
    field.mm('leafGap', 'Gap between leaves', 0, 500, ({ leaves }) => leaves !== 1),
  ],
};

/** A rectangle of studs as a table's place in the room, whole millimetres. */
export function tableFields(scene: Scene, rect: Rect): Rect {
  const { x, y, w, d } = rectToRoom(frameOf(scene), rect);
  return { x: Math.round(x), y: Math.round(y), w: Math.round(w), d: Math.round(d) };
}
