import { expose, transfer } from 'comlink';
import type { Delta } from '@quarry/core/document';
import { FollowedScene } from './followedScene.ts';
import { tilesOf, type GroundStep } from './tiles.ts';

/** The ground after a change: in a worker of its own, so that no evaluation stands in the way of drawing. */
export class GroundWorker {
  readonly #followed = new FollowedScene();

  ground(delta: readonly Delta[]): GroundStep {
    const changed = this.#followed.follow(delta);
    const { relief: own } = this.#followed.compiled;
    const height = own.height.slice();
    const relief = {
      ...own,
      height,
      // Without decks the surface is the ground, and stays one array.
      surface: own.surface === own.height ? height : own.surface.slice(),
      ground: own.ground.slice(),
      top: own.top.slice(),
      owner: own.owner.slice(),
    };
    const tiles = tilesOf(own, changed);
    const arrays = [relief.height, relief.ground, relief.top, relief.owner];
    if (relief.surface !== height) arrays.push(relief.surface);
    const lines = tiles.flatMap(({ contours }) => contours.flatMap((contour) => contour.lines));
    return transfer(
      { relief, tiles, whole: changed === null },
      [...arrays, ...lines].map(({ buffer }) => buffer),
    );
  }
}
expose(new GroundWorker());
