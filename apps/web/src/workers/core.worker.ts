import { expose, transfer } from 'comlink';
import { checkScene, type Judged } from '@quarry/core/check';
import { compileRelief, contoursOf, type Contour, type Relief } from '@quarry/core/relief';
import type { Scene } from '@quarry/core/scene';

/** What the core says of a scene: the relief at each stud, its contours and every finding. */
export interface Survey {
  relief: Relief;
  contours: Contour[];
  findings: Judged[];
}

const worker = {
  survey(scene: Scene, today: string): Survey {
    const relief = compileRelief(scene);
    const contours = contoursOf(relief);
    const survey = { relief, contours, findings: checkScene(scene, { today, relief }) };
    const buffers = [
      relief.height,
      relief.ground,
      relief.top,
      relief.owner,
      ...contours.flatMap(({ lines }) => lines),
    ];
    return transfer(
      survey,
      buffers.map(({ buffer }) => buffer),
    );
  },
};
export type CoreWorker = typeof worker;
expose(worker);
