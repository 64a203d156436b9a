/** The way an arrow key goes on a plan, in steps east and south. */
const ARROWS: ReadonlyMap<string, readonly [number, number]> = new Map([
  ['ArrowLeft', [-1, 0]],
  ['ArrowRight', [1, 0]],
  ['ArrowUp', [0, -1]],
  ['ArrowDown', [0, 1]],
]);

/** @returns the steps east and south; undefined: the key is no arrow */
export const arrowWay = (key: string): readonly [number, number] | undefined => ARROWS.get(key);
