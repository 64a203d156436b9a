import { expose, transfer } from 'comlink';
import type { Delta } from '@quarry/core/document';
import { FollowedScene } from './followedScene.ts';
import { tilesOf, type GroundStep } from './tiles.ts';

const followed = new FollowedScene();

/** The ground after a change: in a worker of its own, so that no evaluation stands in the way of drawing. */
const worker = {
  ground(delta: readonly Delta[]): GroundStep {
    const changed = followed.follow(delta);
    const { relief: own } = followed.compiled;
    const relief = {
      ...own,
      height: own.height.slice(),
      ground: own.ground.slice(),
      top: own.top.slice(),
      owner: own.owner.slice(),
    };
    const tiles = tilesOf(own, changed);
    const arrays = [relief.height, relief.ground, relief.top, relief.owner];
    const lines = tiles.flatMap(({ contours }) => contours.flatMap((contour) => contour.lines));
    return transfer(
      { relief, tiles, whole: changed === null },
      [...arrays, ...lines].map(({ buffer }) => buffer),
    );
  },
};
export type GroundWorker = typeof worker;
expose(worker);
