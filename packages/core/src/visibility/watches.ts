import { addSizes } from './apparent.ts';
import { WATCHERS, type PublicEyes, type Watcher } from './eyes.ts';
import { eachBehind, overArea, type FieldChange } from './fieldChange.ts';
import { seesTop, type Eye, type HeightField, type Peaks } from './seen.ts';

// What groups of eyes see of the ground: all of it, or again what a change may touch.

/** Eyes of one height along one side that count alike, and what they see of the ground. */
export interface Watch {
  who: Watcher;
  /** How much each of them counts. */
  weight: number;
  eyes: readonly Eye[];
  /** By eye: tops that it sees, 1 each. */
  seen: readonly Uint8Array[];
  /** How many of them see each top, and the solid angle of each column for all of them. */
  counts: Uint16Array;
  sizes: Float64Array;
}

export const watchOf = (who: Watcher, weight: number, eyes: readonly Eye[], size: number): Watch => ({
  ...{ who, weight, eyes, seen: eyes.map(() => new Uint8Array(size)) },
  ...{ counts: new Uint16Array(size), sizes: new Float64Array(size) },
});

/** Eyes of one height along one side that count alike, each group by itself. */
export function watchesOf({ by, sides, shares }: PublicEyes, size: number): Watch[] {
  return WATCHERS.flatMap((who) =>
    sides.flatMap((side) => {
      const eyes = by[who].filter((eye) => eye.side === side);
      return [...new Set(eyes.map(({ crowd }) => crowd))].map((crowd) =>
        watchOf(
          who,
          shares[who] * crowd,
          eyes.filter((eye) => eye.crowd === crowd),
          size,
        ),
      );
    }),
  );
}

/** Looks at all columns for the first time. */
export function lookWhole(
  { seen: all, counts, sizes }: Watch,
  k: number,
  eye: Eye,
  field: HeightField,
  peaks: Peaks,
) {
  const { w, heights } = field;
  const seen = all[k];
  for (let i = 0; i < seen.length; i++) {
    if (Number.isNaN(heights[i]) || !seesTop(field, peaks, eye, i % w, Math.trunc(i / w))) continue;
    seen[i] = 1;
    counts[i]++;
  }
  addSizes(field, eye, sizes);
}

/** Looks at the columns that differ, and at those whose lines may pass through them. */
export function lookAgain(
  { seen: all, counts, sizes }: Watch,
  k: number,
  eye: Eye,
  field: HeightField,
  peaks: Peaks,
  { before, studs, areas }: FieldChange & { before: HeightField },
): void {
  if (studs.length === 0) return;
  const { w, heights } = field;
  const seen = all[k];
  const again = (i: number, column: number, row: number) => {
    const now = !Number.isNaN(heights[i]) && seesTop(field, peaks, eye, column, row) ? 1 : 0;
    counts[i] += now - seen[i];
    seen[i] = now;
  };
  for (const i of studs) again(i, i % w, Math.trunc(i / w));
  for (const area of areas) eachBehind(field, eye, area, again);
  const meets = (dx: number, dy: number) =>
    areas.some((area) => {
      const [enter, leave] = overArea(eye, dx, dy, area, Infinity);
      return enter <= leave;
    });
  addSizes(before, eye, sizes, -1, meets);
  addSizes(field, eye, sizes, 1, meets);
}
