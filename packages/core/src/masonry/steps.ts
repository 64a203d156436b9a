import { partOf } from '../catalogue/index.ts';
import type { DressedMasonry } from './count.ts';
import { pieceId, type Purpose } from './fill.ts';

// A block as its builder works through it: what is laid at each height, on what, and how many of which piece.

/** What a piece of a building is of. */
export const BUILDING_USES = ['wall', 'opening', 'pillar', 'floor', 'roof', 'pavement'] as const;
export type BuildingUse = (typeof BUILDING_USES)[number];

/** A placed piece: studs from the block's north-west corner, plates above its floor. */
export interface StepPiece {
  x: number;
  y: number;
  z: number;
  w: number;
  d: number;
  h: number;
  /** The line of `BuildSteps.lines` it is counted in. */
  line: number;
  purpose: Purpose | 'accent' | BuildingUse;
  /** Of slopes: the side they fall to (0 east, 1 south, 2 west, 3 north). */
  falls?: number;
}

/** So many of a part in a colour. */
export interface StepLine {
  part: string;
  colour: string;
  qty: number;
}

/** All that is laid at one height; the last step may be what is scattered on top by hand. */
export interface BuildStep {
  /** Underside of its pieces, plates above the floor; null: they are scattered over the finished ground. */
  z: number | null;
  pieces: StepPiece[];
}

export interface BuildSteps {
  /** Parts by colour of the whole block, most first: the same line has the same mark on every step. */
  lines: StepLine[];
  steps: BuildStep[];
}

/** A piece before it is sorted into steps. */
export type UnsortedPiece = Omit<StepPiece, 'line'> & { part: string; colour: string };

/**
 * Sorts a block's pieces into steps: one for each height at which something begins, from the bottom up, then what is
 * scattered. Every counted piece is in one step, once.
 */
export function buildSteps({ masonry, colours, accents }: DressedMasonry): BuildSteps {
  const laid = masonry.layers.flatMap((layer, index) => {
    const { z, h, falls, purpose } = layer;
    return Array.from({ length: layer.laid.length / 4 }, (_, i): UnsortedPiece => {
      const [x, y, w, d] = layer.laid.subarray(4 * i, 4 * i + 4);
      return {
        ...{ x, y, z, w, d, h, purpose, ...(falls === undefined ? {} : { falls }) },
        ...{ part: pieceId(layer, w, d), colour: colours[index][i] },
      };
    });
  });
  const scattered = accents.map(({ part, colour, x, y, z }): UnsortedPiece => {
    const { w, d, h } = partOf(part) ?? { w: 1, d: 1, h: 1 };
    return { x, y, z, w, d, h, purpose: 'accent', part, colour };
  });
  return sortedSteps(laid, scattered);
}

/** Sorts pieces into steps by the height at which they begin; what is scattered comes last. */
export function sortedSteps(
  laid: readonly UnsortedPiece[],
  scattered: readonly UnsortedPiece[] = [],
): BuildSteps {
  const lines: StepLine[] = [];
  const numbers = new Map<string, number>();
  const counted = ({ part, colour, ...piece }: UnsortedPiece): StepPiece => {
    const key = keyOf({ part, colour });
    const known = numbers.get(key);
    const line = known ?? lines.push({ part, colour, qty: 0 }) - 1;
    numbers.set(key, line);
    lines[line].qty++;
    return { ...piece, line };
  };
  const byHeight = new Map<number, StepPiece[]>();
  for (const piece of laid) {
    const pieces = byHeight.get(piece.z) ?? [];
    byHeight.set(piece.z, pieces);
    pieces.push(counted(piece));
  }
  const steps: BuildStep[] = [...byHeight]
    .toSorted(([a], [b]) => a - b)
    .map(([z, pieces]) => ({ z, pieces }));
  if (scattered.length > 0) steps.push({ z: null, pieces: scattered.map(counted) });
  const order = lines
    .map((_, line) => line)
    .toSorted((a, b) => lines[b].qty - lines[a].qty || (keyOf(lines[a]) < keyOf(lines[b]) ? -1 : 1));
  const rank = new Map(order.map((line, place) => [line, place]));
  for (const { pieces } of steps) for (const piece of pieces) piece.line = rank.get(piece.line) ?? 0;
  return { lines: order.map((line) => lines[line]), steps };
}

const keyOf = ({ part, colour }: Pick<StepLine, 'part' | 'colour'>) => `${part} ${colour}`;

/**
 * What a step takes: its share of each line, most first.
 * @param pieces of one step or of a part of it
 */
export function stepCounts(
  lines: readonly StepLine[],
  pieces: readonly StepPiece[],
): (StepLine & { line: number })[] {
  const counts = new Map<number, number>();
  for (const { line } of pieces) counts.set(line, (counts.get(line) ?? 0) + 1);
  return [...counts]
    .map(([line, qty]) => ({ ...lines[line], line, qty }))
    .toSorted((a, b) => b.qty - a.qty || a.line - b.line);
}

/**
 * What stands already where a step is laid: pieces of earlier steps whose tops reach its underside; before what is
 * scattered, those that are uppermost.
 */
export function laidBelow({ steps }: BuildSteps, step: number): StepPiece[] {
  const { z } = steps[step];
  const earlier = steps.slice(0, step).flatMap(({ pieces }) => pieces);
  if (z !== null) return earlier.filter((piece) => piece.z + piece.h >= z);
  return earlier.filter(({ purpose }) => purpose === 'cover' || purpose === 'slope');
}

/** Letters of marks: without those that are read as figures. */
const LETTERS = 'ABCDEFGHJKLMNPQRSTUVWXYZ';

/** The mark of a line on build sheets: A to Z without I and O, then AA and on. */
export function markOf(line: number): string {
  const rest = Math.trunc(line / LETTERS.length);
  return `${rest > 0 ? markOf(rest - 1) : ''}${LETTERS[line % LETTERS.length]}`;
}
