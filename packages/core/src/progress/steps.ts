import { STAGES, listOf, type Scene, type Section } from '../scene/index.ts';

/** Steps from «planned» to «done». */
export const STEPS = STAGES.length - 1;

/** Steps a section has behind it, with its share of the current stage: 0 to STEPS. */
export function stepsDone({ stage, stageDone }: Pick<Section, 'stage' | 'stageDone'>): number {
  return Math.min(STEPS, STAGES.indexOf(stage) + stageDone / 100);
}

/** How far a display is, over all its sections. */
export interface Progress {
  sections: number;
  /** Studs in sections; ground in two sections counts twice. */
  area: number;
  /** Share done, 0 to 1, each section weighted by its area. */
  done: number;
  /** Steps that are left, the begun ones in part. */
  toGo: number;
}

export function progressOf(scene: Scene): Progress {
  const sections = listOf(scene, 'section');
  const area = sections.reduce((sum, { w, d }) => sum + w * d, 0);
  const done = sections.reduce(
    (sum, section) => sum + (stepsDone(section) / STEPS) * section.w * section.d,
    0,
  );
  return {
    sections: sections.length,
    area,
    done: area > 0 ? done / area : 0,
    toGo: sections.reduce((sum, section) => sum + STEPS - stepsDone(section), 0),
  };
}
