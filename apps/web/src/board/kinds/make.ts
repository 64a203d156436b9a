import { field, type FieldSpec } from '../../ui/fieldSpec.ts';
import { listOf, type Change, type Scene } from '@quarry/core/document';

/** The level that most of the ground lies on: what is drawn next most likely belongs to it too. */
export function defaultLevel(scene: Scene): { id: string; before: Change[] } {
  const levels = listOf(scene, 'level');
  if (levels.length === 0)
    return {
      id: 'ground',
      before: [{ op: 'add', kind: 'level', id: 'ground', data: { name: 'Ground', height: 3 } }],
    };
  const areas = new Map(levels.map(({ id }) => [id, 0]));
  for (const { level, w, d } of listOf(scene, 'pad')) areas.set(level, (areas.get(level) ?? 0) + w * d);
  const [id] = [...areas].reduce((best, entry) => (entry[1] > best[1] ? entry : best));
  return { id, before: [] };
}

/** What ways and tracks share: whether they bridge what lies under them, and how. */
export const bridgeFieldSpecs = (): FieldSpec[] => [
  field.check('bridges', 'Bridges where it is over the ground'),
  field.plates('bridgeThick', 'Bridge is thick', 1, 60, ({ bridges }) => bridges === true),
  field.studs('pierEvery', 'A pier each', 2, 256, 0.5, ({ bridges }) => bridges === true),
];

/** Points of a line that may hold heights, all of them on the ground as yet. */
export const withHeights = (points: readonly { x: number; y: number }[]) =>
  points.map((point) => ({ ...point, z: null }));
