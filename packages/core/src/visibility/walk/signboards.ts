import { MM_PER_STUD, STUDS_PER_PLATE } from '../../grid/index.ts';
import { colourOf } from '../../catalogue/index.ts';
import { lengthOfWords, letterHeight, outOf, wallCorners, type Entity } from '../../document/index.ts';
import type { Body } from '../../terrain/index.ts';
import type { MeshBuilder } from './mesh.ts';

/** How far the letters of a signboard stand out, studs. */
const LETTERS_DEEP = 0.06;

/** A signboard with its post; its letters are a band of their height and length. */
export function addSignboard(
  mesh: MeshBuilder,
  { corners, ground, begins, top }: Body,
  sign: Entity<'signboard'>,
  origin: { x: number; y: number },
) {
  const [low, high] = [begins * STUDS_PER_PLATE, top * STUDS_PER_PLATE];
  const middle = { x: sign.x - origin.x, y: sign.y - origin.y };
  if (sign.on === 'post' && begins > ground)
    mesh.prism(
      'wall',
      wallCorners({ x: middle.x - 0.5, y: middle.y - 0.5, w: 1, d: 1, turn: 0 }),
      ground * STUDS_PER_PLATE,
      low,
    );
  mesh.prism(
    paintOf(sign.colour),
    corners.map(({ x, y }) => ({ x: x - origin.x, y: y - origin.y })),
    low,
    high,
  );
  const tall = Math.min(high - low, letterHeight(sign) / MM_PER_STUD);
  const long = Math.min(sign.w, lengthOfWords(sign, tall));
  const out = outOf(sign);
  // North is up the plan, where y is less.
  const off = 0.5 + LETTERS_DEEP / 2;
  const band = wallCorners({
    ...{ x: middle.x + out.x * off - long / 2, y: middle.y - out.y * off - LETTERS_DEEP / 2 },
    ...{ w: long, d: LETTERS_DEEP, turn: (sign.facing + 180) % 360 },
  });
  const centre = (low + high) / 2;
  mesh.prism(paintOf(sign.ink), band, centre - tall / 2, centre + tall / 2);
}

const paintOf = (colour: string): string => (colourOf(colour) === null ? 'wall' : `colour ${colour}`);
