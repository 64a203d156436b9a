import type { Relief } from './relief.ts';

/** What became of the ground between two reliefs of the same footprint. */
export interface GroundDifference {
  /** Studs whose ground is higher, and lower, than before. */
  raised: number;
  lowered: number;
  /** Ground added less ground taken away, stud-plates: one is a plate high on one stud. */
  volume: number;
}

/** Compares the ground stud by stud, without what stands on it. @returns null when the bounding boxes differ */
export function groundDifference(before: Relief, now: Relief): GroundDifference | null {
  if (before.x !== now.x || before.y !== now.y || before.w !== now.w || before.d !== now.d) return null;
  let [raised, lowered, volume] = [0, 0, 0];
  for (let i = 0; i < now.height.length; i++) {
    const by = now.height[i] - before.height[i];
    if (by > 0) raised++;
    if (by < 0) lowered++;
    volume += by;
  }
  return { raised, lowered, volume };
}
