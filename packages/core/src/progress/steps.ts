import { STAGES, displayOf, listOf, type Scene, type Section, daysBetween } from '../document/index.ts';

/** Steps from “planned” to “done”. */
export const STEPS = STAGES.length - 1;

/** Steps a section has behind it, with its share of the current stage: 0 to STEPS. */
export function stepsDone({ stage, stageDone }: Pick<Section, 'stage' | 'stageDone'>): number {
  return Math.min(STEPS, STAGES.indexOf(stage) + stageDone / 100);
}

/**
 * The share of a section's work that is behind it, 0 to 1: its stages by the display's weights, the present one in
 * part. Where every weight is nought all stages count alike.
 */
export function workDone(scene: Scene, section: Pick<Section, 'stage' | 'stageDone'>): number {
  const weights = displayOf(scene).stageWeights;
  const steps = stepsDone(section);
  const all = weights.reduce((sum, weight) => sum + weight, 0);
  if (all === 0) return steps / STEPS;
  return weights.reduce((sum, weight, i) => sum + weight * Math.min(1, Math.max(0, steps - i)), 0) / all;
}

/**
 * An even pace from the first day to the show.
 * @param today ISO date
 * @returns its length in days and the share of it that has gone, 0 to 1; null where the days are not set
 */
export function evenPace(scene: Scene, today: string): { days: number; gone: number } | null {
  const { startDate, showDate } = displayOf(scene);
  if (!startDate || !showDate || showDate <= startDate) return null;
  const days = daysBetween(startDate, showDate);
  return { days, gone: Math.min(1, Math.max(0, daysBetween(startDate, today) / days)) };
}

/** How far a display is, over all its sections. */
export interface Progress {
  sections: number;
  /** Studs in sections; ground in two sections counts twice. */
  area: number;
  /** Share of the work done, 0 to 1, each section weighted by its area. */
  done: number;
  /** Steps that are left, the begun ones in part. */
  toGo: number;
}

export function progressOf(scene: Scene): Progress {
  const sections = listOf(scene, 'section');
  const area = sections.reduce((sum, { w, d }) => sum + w * d, 0);
  const done = sections.reduce((sum, section) => sum + workDone(scene, section) * section.w * section.d, 0);
  return {
    sections: sections.length,
    area,
    done: area > 0 ? done / area : 0,
    toGo: sections.reduce((sum, section) => sum + STEPS - stepsDone(section), 0),
  };
}
