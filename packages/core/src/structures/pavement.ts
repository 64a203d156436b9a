import { ANY_COLOUR, partId } from '../catalogue/index.ts';
import { PLATES_PER_BRICK } from '../grid/index.ts';
import { runsEast, pavementDepth, type Display, type Plot, builtSides } from '../document/index.ts';
import { beginsLeft } from './fronts.ts';
import type { BuildingPiece } from './piece.ts';
import { longestFirst } from './row.ts';

// The pavement before a street front: smooth rows along the street, light ones at both edges.

/** The colours of pavements that a display agrees on. */
export type StreetRules = Pick<Display, 'pavementLight' | 'pavementDark'>;

/** Drain grilles: studs from the side, and how long. The post of a lamp, bricks (ours, no source). */
const GRILLE_OFF = 6;
const GRILLE_LONG = 2;
const GRILLE = partId('grille', 1, GRILLE_LONG);
const LAMP_BRICKS = 7;

/** Lengths of the tiles that rows are laid with, by how deep the row is, studs. */
const LENGTHS: Readonly<Record<1 | 2, readonly number[]>> = { 1: [8, 6, 4, 3, 2, 1], 2: [4, 3, 2, 1] };

/**
 * The rows of a pavement from the building to the street: a light row at each edge, dark rows of 1, 2 … 2 and 1 studs
 * between (of 8 studs: 1 light, 1 + 2 + 2 + 1 dark, 1 light; common practice, no source). One of 1 or 2 studs is dark.
 * @param depth whole studs @returns none for a depth of 0
 */
export function pavementRows(depth: number): { deep: 1 | 2; isLight: boolean }[] {
  const dark = (deep: 1 | 2) => ({ deep, isLight: false });
  if (depth < 3) return Array.from({ length: Math.max(0, depth) }, () => dark(1));
  const inner = depth - 2;
  const rows = inner === 1 ? [dark(1)] : [dark(1), dark(1)];
  const twos = Math.max(0, Math.floor((inner - 2) / 2));
  const odd = inner > 2 && inner % 2 === 1 ? [dark(1)] : [];
  rows.splice(1, 0, ...Array.from({ length: twos }, () => dark(2)), ...odd);
  const light = { deep: 1 as const, isLight: true };
  return [light, ...rows, light];
}

/** The tiles of a building's pavement as whole studs leave it, with what belongs on it; none for a building without. */
export function layPavement(
  plot: Parameters<typeof pavementDepth>[0] & Pick<Plot, 'front'>,
  { pavementLight, pavementDark }: StreetRules,
): BuildingPiece[] {
  const { w, d } = builtSides(plot);
  const { front } = plot;
  const isX = runsEast(front);
  const pieces: BuildingPiece[] = [];
  const along = isX ? w : d;
  const rows = pavementRows(Math.round(pavementDepth(plot)));
  let off = 0;
  for (const [row, { deep, isLight }] of rows.entries()) {
    // How far the row lies before the front, and where that is from the corner of what is built.
    const across = { n: -off - deep, w: -off - deep, s: d + off, e: w + off }[front];
    const lay = (at: number, long: number, part: string, colour: string, z = 0, h = 1) =>
      pieces.push({
        ...{ part, colour, use: 'pavement', z, h, turn: 0 },
        ...(isX ? { x: at, y: across, w: long, d: deep } : { x: across, y: at, w: deep, d: long }),
      });
    const colour = isLight ? pavementLight : pavementDark;
    const things = row > 0 && row === rows.length - 1 ? kerbThings(along, beginsLeft(front)) : [];
    let from = 0;
    for (const { at, long, kind } of [...things, { at: along, long: 0, kind: null }]) {
      for (const tile of longestFirst(at - from, LENGTHS[deep]))
        lay(from + tile.at, tile.long, partId('tile', tile.long, deep), colour);
      if (kind === 'grille') lay(at, long, GRILLE, pavementDark);
      if (kind === 'lamp') {
        lay(at, long, partId('plate', 1, 1), colour);
        for (let brick = 0; brick < LAMP_BRICKS; brick++)
          lay(at, long, partId('round', 1, 1), pavementDark, 1 + brick * PLATES_PER_BRICK, PLATES_PER_BRICK);
        lay(at, long, partId('light', 1, 1), ANY_COLOUR, 1 + LAMP_BRICKS * PLATES_PER_BRICK);
      }
      from = at + long;
    }
    off += deep;
  }
  return pieces;
}

/** What lies in the outer row of a pavement, along it. */
interface KerbThing {
  at: number;
  long: number;
  kind: 'grille' | 'lamp';
}

/**
 * Two drain grilles, so far from either side, and a lamp at the right end as seen from the street (common practice, no
 * source); none where there is no room for both grilles.
 * @param isFromLeft whether the studs of the row are counted from its left end
 */
function kerbThings(along: number, isFromLeft: boolean): KerbThing[] {
  if (along < 2 * (GRILLE_OFF + GRILLE_LONG)) return [];
  const grille = (at: number): KerbThing => ({ at, long: GRILLE_LONG, kind: 'grille' });
  const grilles = [grille(GRILLE_OFF), grille(along - GRILLE_OFF - GRILLE_LONG)];
  const lamp: KerbThing = { at: isFromLeft ? along - 1 : 0, long: 1, kind: 'lamp' };
  return isFromLeft ? [...grilles, lamp] : [lamp, ...grilles];
}
