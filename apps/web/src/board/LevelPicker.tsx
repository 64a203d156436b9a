import { formatPlates } from '@quarry/core/grid';
import { listOf, standingKey, type Scene } from '@quarry/core/document';
import { levelHeight } from '@quarry/core/terrain';
import { levelIn, useView, type LevelView } from '../data/view.ts';

/** Which level of a scene its board shows, where it has more than one: the others fade. */
export function LevelPicker({ scene }: { scene: Scene }) {
  const level = useView((view) => levelIn(scene, view.level));
  const setLevel = useView((view) => view.setLevel);
  const over = (['deck', 'cavity'] as const)
    .flatMap((kind) =>
      listOf(scene, kind).map((thing) => ({
        kind,
        id: thing.id,
        name: thing.name,
        z: levelHeight(scene, thing),
      })),
    )
    .sort((a, b) => b.z - a.z);
  if (over.length === 0) return null;
  const levels: { level: LevelView; word: string }[] = [
    { level: null, word: 'All levels, from above' },
    ...over.map(({ kind, id, name, z }) => ({
      level: { kind, id },
      word: `${name}, ${kind === 'deck' ? '' : 'floor '}${formatPlates(z)}`,
    })),
    { level: { kind: 'ground' }, word: 'Ground alone' },
  ];
  return (
    <select
      aria-label="Level shown"
      className="select select-xs absolute left-7 top-7 w-28 md:left-[5.25rem] md:top-auto md:bottom-7 md:w-44 bg-base-100 border hair"
      value={standingKey(level)}
      onChange={(event) =>
        setLevel(levels.find((one) => standingKey(one.level) === event.currentTarget.value)?.level ?? null)
      }
    >
      {levels.map((one) => (
        <option key={standingKey(one.level)} value={standingKey(one.level)}>
          {one.word}
        </option>
      ))}
    </select>
  );
}
