import { PLATES_PER_BRICK } from '@quarry/core/grid';
import { field } from '../../ui/fieldSpec.ts';
import { capital } from '../../ui/words.ts';
import type { BoardKind } from './kind.ts';
import { defaultLevel } from './make.ts';
import { risingLabels } from './names.ts';

/**
 * What hills and hollows share: an oval on a level, in terraces of a brick.
 * @param measure the field of how far it rises or falls, and what a drawn one begins with, plates
 */
export const risingBoard = (
  kind: 'hill' | 'hollow',
  measure: { key: 'height' | 'depth'; start: number },
): Pick<BoardKind, 'labels' | 'boxed' | 'snaps' | 'fields'> & {
  make: Extract<NonNullable<BoardKind['tool']>, { draws: 'area' }>['make'];
} => ({
  labels: (picture) => risingLabels(picture, kind),
  boxed: true,
  snaps: true,
  make: (scene, rect, name) => {
    const { id: level, before } = defaultLevel(scene);
    return {
      words: `a ${kind}`,
      data: {
        name: name(capital(kind)),
        ...rect,
        shape: 'oval',
        level,
        [measure.key]: measure.start,
        terrace: PLATES_PER_BRICK,
      },
      before,
    };
  },
  fields: [
    field.text('name', 'Name'),
    ...field.area(0.5),
    ...field.level(),
    field.plates(measure.key, capital(measure.key), 1),
    field.shape(),
    ...field.rising(),
  ],
});
