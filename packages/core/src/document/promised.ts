import { STAGES, type Stage } from './vocabulary.ts';
import type { Entity } from './schema.ts';
import { entityOf, labelOf, type Scene } from './scene.ts';

// What a milestone promises, such as the next update: sections, tasks, small scenes and advice, and whether it was met.

type Promised = Entity<'milestone'>['promises'][number];

/** One thing that is promised, as it stands. */
export interface PromiseState {
  promised: Promised;
  /** “section D, The Tarn and dam at lit”, “task: Wire the street lamps”. */
  words: string;
  /** Met, still open, or of something that is no more. */
  state: 'met' | 'open' | 'gone';
}

/** The promises of a milestone, in their order. */
export const promisesOf = (
  scene: Scene,
  { promises }: Pick<Entity<'milestone'>, 'promises'>,
): PromiseState[] =>
  promises.map((promised) => {
    const { of, thing, stage } = promised;
    const isThere = entityOf(scene, of, thing) !== undefined;
    const name = isThere
      ? labelOf(scene, of, thing)
      : `a ${of === 'figure' ? 'small scene' : of} that is gone`;
    return {
      promised,
      words: of === 'section' ? `${name} at ${stage}` : of === 'figure' ? `${name} placed` : name,
      state: !isThere ? 'gone' : isMet(scene, of, thing, stage) ? 'met' : 'open',
    };
  });

function isMet(scene: Scene, of: Promised['of'], thing: string, stage: Stage): boolean {
  switch (of) {
    case 'section': {
      const section = scene.section[thing];
      return section !== undefined && STAGES.indexOf(section.stage) >= STAGES.indexOf(stage);
    }
    case 'task':
      return (scene.task[thing]?.done ?? null) !== null;
    case 'figure':
      return scene.figure[thing]?.state === 'placed';
    case 'thread':
      return scene.thread[thing]?.state === 'resolved';
  }
}
