import { intersection } from '../../grid/index.ts';
import { STAGES, listOf, sectionOfEntity, type Kind, type Scene, type Stage } from '../../document/index.ts';
import type { Relief } from '../../terrain/index.ts';

// What of a display stands today: its section is past the stage at which it is built.

/** The stage at which a kind is built; those that are not named are of the ground. */
const BUILT_AT: Partial<Record<Kind, Stage>> = {
  plot: 'structures',
  run: 'structures',
  repeat: 'structures',
  tree: 'dressed',
  planting: 'dressed',
  flag: 'dressed',
  signboard: 'dressed',
  figure: 'peopled',
};

const isPast = (stage: Stage, built: Stage): boolean =>
  stage === 'done' || STAGES.indexOf(stage) > STAGES.indexOf(built);

/** Whether a thing stands today; one of no section, which has no stage, does. */
export function standsToday(scene: Scene, kind: Kind, id: string): boolean {
  if (kind === 'figure' && scene.figure[id]?.state === 'placed') return true;
  const section = scene.section[sectionOfEntity(scene, kind, id) ?? ''];
  return !section || isPast(section.stage, BUILT_AT[kind] ?? 'ground');
}

/** The studs whose ground is not built yet, row by row: 1; of two sections over a stud the first counts. */
export function plannedGround(scene: Scene, relief: Relief): Uint8Array {
  const planned = new Uint8Array(relief.w * relief.d);
  for (const section of listOf(scene, 'section').toReversed()) {
    const on = intersection(section, relief);
    if (!on) continue;
    const value = isPast(section.stage, 'ground') ? 0 : 1;
    for (let y = on.y; y < on.y + on.d; y++) {
      const from = (y - relief.y) * relief.w + on.x - relief.x;
      planned.fill(value, from, from + on.w);
    }
  }
  return planned;
}
