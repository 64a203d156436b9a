import { partId, slopesLike, type Part } from '../catalogue/index.ts';
import { PLATES_PER_BRICK } from '../grid/index.ts';
import { longestFirst, type RowPiece } from './row.ts';

// A row of slopes, and the layers of bricks and plates beside it.

/**
 * Slopes side by side, the widest first; where one of them would lie on nothing, in another order.
 * @param isBorne whether a stud of the row lies on something
 */
export function layRow(
  slope: Part,
  length: number,
  isBorne: (at: number) => boolean = () => true,
): { at: number; wide: number; part: string }[] {
  const widths = slopesLike(slope).map(({ w }) => w);
  const first = longestFirst(length, widths);
  const orders = [
    first,
    first.map(({ at, long }) => ({ at: length - at - long, long })),
    ...widths
      .filter((wide) => wide < length)
      .map((wide) => [
        { at: 0, long: wide },
        ...longestFirst(length - wide, widths).map(({ at, long }) => ({ at: at + wide, long })),
      ]),
  ];
  const lies = ({ at, long }: RowPiece) => Array.from({ length: long }, (_, k) => at + k).some(isBorne);
  return (orders.find((order) => order.every(lies)) ?? first).map(({ at, long }) => ({
    ...{ at, wide: long },
    part: partId('slope', long, slope.d, slope.h, slope.angle),
  }));
}

/** One layer of bricks or plates beside a course of slopes. */
export interface Layer {
  z: number;
  h: number;
  family: 'brick' | 'plate';
}

/** The layers of bricks and plates beside one course of slopes. */
export function* layersBeside(slope: Part, z: number): Generator<Layer> {
  for (let up = 0; up < slope.h;) {
    const isBrick = slope.h - up >= PLATES_PER_BRICK;
    const h = isBrick ? PLATES_PER_BRICK : 1;
    yield { z: z + up, h, family: isBrick ? 'brick' : 'plate' };
    up += h;
  }
}
