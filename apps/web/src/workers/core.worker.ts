import { expose, transfer } from 'comlink';
import { RULES, checkScene, type Judged } from '@quarry/core/check';
import { compileRelief, contoursOf, type Contour, type Relief } from '@quarry/core/relief';
import type { Scene } from '@quarry/core/scene';
import { bestMoves, reachOf, type Move, type Reach } from '@quarry/core/sight';

/** What the core says of a scene: the relief at each stud, its contours, how far one must reach, and every finding. */
export interface Survey {
  relief: Relief;
  contours: Contour[];
  reach: Reach;
  findings: Judged[];
  /** How the number of each rule is made, by rule: the rules themselves stay in the worker. */
  basis: Readonly<Record<string, string>>;
}

const BASIS = Object.fromEntries(RULES.map(({ id, basis }) => [id, basis]));

const worker = {
  survey(scene: Scene, today: string): Survey {
    const relief = compileRelief(scene);
    const contours = contoursOf(relief);
    const reach = reachOf(scene, relief);
    const survey = {
      relief,
      contours,
      reach,
      findings: checkScene(scene, { today, relief, reach }),
      basis: BASIS,
    };
    const buffers = [
      relief.height,
      relief.ground,
      relief.top,
      relief.owner,
      reach.distance,
      ...contours.flatMap(({ lines }) => lines),
    ];
    return transfer(
      survey,
      buffers.map(({ buffer }) => buffer),
    );
  },
  /** The reach in a place one only looks at. */
  reach: (scene: Scene): Reach => reachOf(scene, compileRelief(scene)),
  /** The rearrangements of the room that bring most within reach. */
  moves: (scene: Scene): Move[] => bestMoves(scene),
};
export type CoreWorker = typeof worker;
expose(worker);
