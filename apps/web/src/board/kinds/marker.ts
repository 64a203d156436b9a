import { MARKER_STATES, listOf } from '@quarry/core/document';
import { field } from '../../ui/fieldSpec.ts';
import { SANS, visible, within, wrapText, type Picture } from '../ink.ts';
import { LABEL_RANKS, type BoardLabel } from '../labels.ts';
import type { BoardKind } from './kind.ts';

export const markerBoard: BoardKind = {
  drawings: [{ rank: 92, draw: drawMarkers }],
  labels: (picture) => markerLabels(picture),
  layer: 'signs',
  picked: 40,
  boxed: true,
  snaps: true,
  tool: {
    draws: 'area',
    key: 'k',
    make: (_scene, rect, name) => ({ words: 'a marker', data: { name: name('To be decided'), ...rect } }),
  },
  fields: [
    field.text('name', 'To be decided'),
    ...field.area(0.5),
    field.choice('state', 'State', MARKER_STATES),
    field.long('notes', 'Notes'),
  ],
};

/** What is to be decided, with a question mark until it is. */
function drawMarkers(ctx: CanvasRenderingContext2D, picture: Picture): void {
  const { palette, scene } = picture;
  for (const marker of listOf(scene, 'marker')) {
    const on = visible(picture, marker);
    if (!on) continue;
    ctx.strokeStyle = palette.ochre;
    ctx.lineWidth = 1.4;
    ctx.setLineDash([4, 3]);
    ctx.strokeRect(on.x, on.y, on.w, on.d);
    ctx.setLineDash([]);
  }
}

const markerLabels = (picture: Picture): BoardLabel[] =>
  listOf(picture.scene, 'marker').flatMap((marker) => {
    const on = visible(picture, marker);
    if (!on) return [];
    const { palette } = picture;
    const words = marker.state === 'open' ? `${marker.name} ?` : marker.name;
    const line = (text: string) => ({ text, font: `600 11px ${SANS}`, ink: palette.ochre });
    return [
      {
        rank: LABEL_RANKS.marker,
        says: [
          ...(on.w > 40 ? [wrapText(words, on.w - 6, Math.trunc(on.d / 13)).map(line)] : []),
          [line('?')],
        ],
        spots: [{ x: on.x + on.w / 2, y: on.y + on.d / 2 }, ...within(on)],
        ground: { as: 'halo', paper: palette.sheet },
      },
    ];
  });
