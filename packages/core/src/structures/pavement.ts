import { partId } from '../catalogue/index.ts';
import { runsEast, pavementDepth, type builtRect, type Display, type Plot } from '../document/index.ts';
import { builtSides } from './fronts.ts';
import type { BuildingPiece } from './piece.ts';
import { longestFirst } from './row.ts';

// The pavement before a street front: smooth rows along the street, light ones at both edges.

/** The colours of pavements that a display agrees on. */
export type StreetRules = Pick<Display, 'pavementLight' | 'pavementDark'>;

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

/** The tiles of a building's pavement as whole studs leave it; none for a building without. */
export function layPavement(
  plot: Parameters<typeof builtRect>[0] & Pick<Plot, 'front'>,
  { pavementLight, pavementDark }: StreetRules,
): BuildingPiece[] {
  const { w, d } = builtSides(plot);
  const { front } = plot;
  const isX = runsEast(front);
  const pieces: BuildingPiece[] = [];
  let off = 0;
  for (const { deep, isLight } of pavementRows(Math.round(pavementDepth(plot)))) {
    const along = isX ? w : d;
    // How far the row lies before the front, and where that is from the corner of what is built.
    const at = { n: -off - deep, w: -off - deep, s: d + off, e: w + off }[front];
    for (const { at: x, long } of longestFirst(along, LENGTHS[deep]))
      pieces.push({
        part: partId('tile', long, deep),
        use: 'pavement',
        colour: isLight ? pavementLight : pavementDark,
        ...(isX ? { x, y: at, w: long, d: deep } : { x: at, y: x, w: deep, d: long }),
        ...{ z: 0, h: 1, turn: 0 },
      });
    off += deep;
  }
  return pieces;
}
