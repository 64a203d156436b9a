import { FAMILIES, partId, partOf, type Family, type Part } from '../catalogue/index.ts';
import { PLATES_PER_BRICK, type Rect } from '../grid/index.ts';
import {
  archOf,
  panelsAlong,
  runHigh,
  wallLine,
  wallPanels,
  wallStraights,
  type Entity,
  type WallStraight,
} from '../document/index.ts';
import { eachStripStud } from './strip.ts';

// Walls along a line as they are built: plain, with a row of arches at one face, or with something let into their panels;
// a fence on top. And fences and hedges.

type Run = Pick<
  Entity<'run'>,
  'use' | 'height' | 'thick' | 'panel' | 'arches' | 'topFence' | 'points' | 'ring' | 'openings'
>;
type Straight = Pick<WallStraight, 'length' | 'before'>;

/** What a piece of a wall belongs to: the row with the arches, what is let in, or what is behind, beside and on those. */
export type WallLayer = 'front' | 'opening' | 'wall';

/** A block of a wall: along it and across it from its face with the arches, studs; plates above its foot. */
export interface WallBlock {
  from: number;
  to: number;
  near: number;
  far: number;
  low: number;
  high: number;
  of: WallLayer;
  /** How solid it is, 0 to 1. */
  body: number;
}

/** How the arches of a straight piece of wall come out. */
export interface ArchRow {
  span: number;
  /** Plates that the arches take of its height. */
  high: number;
  part: string;
  /** Where each begins, studs from the beginning of the piece. */
  starts: number[];
  /** Studs of plain wall that are left, at both ends together. */
  left: number;
}

/** Piers under arches are a brick high at least. */
export const LEAST_PIER = PLATES_PER_BRICK;

/**
 * The row of arches of a straight piece of wall: as many as find room side by side, what is left at both ends.
 * @returns null without arches, and where the wall is too low for them; none where it is too short for one
 */
export function archRow(run: Run, length: number): ArchRow | null {
  const arch = archOf(run);
  if (!arch || run.height < arch.high + LEAST_PIER) return null;
  const count = Math.floor(length / arch.span + TIE);
  const left = length - count * arch.span;
  const first = Math.floor(left / 2);
  return { ...arch, starts: Array.from({ length: count }, (_, i) => first + i * arch.span), left };
}

const TIE = 1e-9;

/** What is let into a panel of a wall as it comes out. */
export interface LaidOpening {
  part: string;
  /** Studs along the panel and into the wall, plates above its foot. */
  from: number;
  wide: number;
  deep: number;
  low: number;
  high: number;
  /** How solid it is, 0 to 1. */
  body: number;
  /** Rows of arches: under each it is open between two piers. 0: it is a window or a door. */
  arches: number;
}

/** What is to be let into a panel, by its number on the line. */
const openingAt = (run: Pick<Run, 'openings'>, number: number): Run['openings'][number] | null =>
  run.openings.find(({ at }) => at === number) ?? null;

/**
 * What is let into the middle of a panel of a wall, whole studs from its beginning.
 * @param length of the panel, studs
 * @returns null where nothing is, or where it finds no room: why not is told by `openingFault`
 */
export function openingIn(run: Run, number: number, length: number): LaidOpening | null {
  const asked = openingAt(run, number);
  const part = asked && partOf(asked.part);
  if (!asked || !part || openingFault(run, asked, length) !== null) return null;
  const low = asked.sill * PLATES_PER_BRICK;
  const isArch = part.family === 'arch';
  const { wide, deep } = sidesOf(part);
  return {
    ...{ part: part.id, wide, low, high: low + part.h },
    deep: isArch && !asked.niche ? run.thick : deep,
    arches: isArch ? (asked.niche ? 1 : rowsOf(run)) : 0,
    from: Math.floor((length - wide) / 2 + TIE),
    // As in a row of arches: an arch counts as the bricks in its place.
    body: isArch ? 1 : part.family === 'door' ? FAMILIES.door.body : FAMILIES.window.body,
  };
}

/** Rows of bricks that a wall is thick. */
const rowsOf = ({ thick }: Pick<Run, 'thick'>): number => Math.max(1, Math.ceil(thick - TIE));

/** Along the wall and into it, studs: windows and doors have a front, arches run along their longer side. */
const sidesOf = ({ family, w, d }: Part): { wide: number; deep: number } =>
  family === 'arch' ? { wide: Math.max(w, d), deep: Math.min(w, d) } : { wide: w, deep: d };

/** Families that are let into a panel of a wall. */
export const LET_IN_FAMILIES: readonly Family[] = ['window', 'door', 'arch'];

/** Why something finds no room in a panel: the measure, what it takes and what there is; null where it does. */
export type OpeningFault =
  | { why: 'use' | 'part' | 'arches' | 'pier' }
  | { why: 'width' | 'height' | 'depth'; takes: number; has: number };

/** @param length of the panel, studs */
export function openingFault(
  run: Run,
  { part: id, sill }: Omit<Run['openings'][number], 'at'>,
  length: number,
): OpeningFault | null {
  const part = partOf(id);
  if (run.use !== 'wall') return { why: 'use' };
  if (!part || !LET_IN_FAMILIES.includes(part.family)) return { why: 'part' };
  if (part.family === 'arch' && sill * PLATES_PER_BRICK < LEAST_PIER) return { why: 'pier' };
  if (archRow(run, length)?.starts.length) return { why: 'arches' };
  const room = Math.floor(length + TIE);
  const { wide, deep } = sidesOf(part);
  if (wide > room) return { why: 'width', takes: wide, has: room };
  if (deep > run.thick) return { why: 'depth', takes: deep, has: run.thick };
  const top = sill * PLATES_PER_BRICK + part.h;
  return top > run.height ? { why: 'height', takes: top, has: run.height } : null;
}

/**
 * The bearing of each panel of a ring from its middle, degrees clockwise from north, from 0 to below 360.
 * @returns none where it is no ring
 */
export function ringBearings(run: Pick<Entity<'run'>, 'points' | 'ring' | 'panel' | 'thick'>): number[] {
  if (run.ring === null) return [];
  const [middle] = run.points;
  return wallStraights(run).map(({ from, to }) => {
    const [east, south] = [(from.x + to.x) / 2 - middle.x, (from.y + to.y) / 2 - middle.y];
    const degrees = (Math.atan2(east, -south) * 180) / Math.PI;
    // The last digits of a bearing to the north may say a little under 360.
    return (Math.round(1e6 * (degrees + 360)) / 1e6) % 360;
  });
}

/** The panel opposite one of a ring, by number; of an odd number of panels the two whose joint is. */
export function oppositePanels(panels: number, at: number): number[] {
  const first = ((at - 1 + Math.floor(panels / 2)) % panels) + 1;
  return panels % 2 === 0 ? [first] : [first, (first % panels) + 1];
}

/** The middles of the panels of a wall or fence, studs along its line. */
export function panelMiddles(run: Parameters<typeof wallStraights>[0]): number[] {
  let begun = 0;
  return wallPanels(run).map(({ length }) => {
    begun += length;
    return begun - length / 2;
  });
}

/** Panels spread over a line, and how many panels each is from the one before. */
export interface SpreadPanels {
  at: number[];
  /** Of a ring round it, else between them; one number where they are alike. */
  apart: number[];
}

/**
 * Spreads so many openings over the panels of a line as evenly as whole panels allow: round a ring from its first panel,
 * along others with half a share before the first.
 * @param count from 1 to the number of panels
 */
export function spreadPanels(panels: number, count: number, isRing: boolean): SpreadPanels {
  const share = (i: number) =>
    isRing ? Math.round((i * panels) / count) : Math.floor(((i + 0.5) * panels) / count);
  const at = Array.from({ length: count }, (_, i) => 1 + share(i));
  const steps = at.slice(1).map((one, i) => one - at[i]);
  const round = isRing ? [...steps, at[0] + panels - at[count - 1]] : steps;
  return { at, apart: [...new Set(round)].toSorted((a, b) => a - b) };
}

/** The blocks of a straight wall, what is open under its arches and behind what is let in left out. */
export function wallBlocks(run: Run, { length, before }: Straight): WallBlock[] {
  const { height, thick } = run;
  const blocks: WallBlock[] = [];
  panelsAlong(run, length).forEach(({ from, to }, i) => {
    const row = archRow(run, to - from);
    const deep = row ? Math.min(1, thick) : 0;
    const opening = openingIn(run, before + i + 1, to - from);
    if (opening) {
      blocks.push(...blocksRound(run, { from, to }, opening));
      return;
    }
    if (thick > deep)
      blocks.push({ from, to, near: deep, far: thick, low: 0, high: height, of: 'wall', body: 1 });
    if (!row) return;
    const front = { near: 0, far: deep, of: 'front', body: 1 } as const;
    const spring = height - row.high;
    let at = from;
    for (const start of row.starts) {
      const [a, b] = [from + start, from + start + row.span];
      if (a > at) blocks.push({ ...front, from: at, to: a, low: 0, high: height });
      blocks.push(
        { ...front, from: a, to: b, low: spring, high: height },
        { ...front, from: a, to: a + 1, low: 0, high: spring },
        { ...front, from: b - 1, to: b, low: 0, high: spring },
      );
      at = b;
    }
    if (to > at) blocks.push({ ...front, from: at, to, low: 0, high: height });
  });
  const high = runHigh(run);
  // A fence is a stud wide and stands over the middle.
  const off = Math.max(0, (thick - 1) / 2);
  if (high > height)
    blocks.push({
      ...{ from: 0, to: length, near: off, far: Math.min(thick, off + 1), low: height, high, of: 'wall' },
      body: FAMILIES.fence.body,
    });
  return blocks;
}

/** Half of what a wall or fence takes across its line, studs: a stud at least. */
export const halfThick = ({ thick }: Pick<Entity<'run'>, 'thick'>): number => Math.max(0.5, thick / 2);

/** Calls `visit` once for each stud of a window that a wall or fence takes. */
export const eachWallStud = (run: Entity<'run'>, window: Rect, visit: (x: number, y: number) => void): void =>
  eachStripStud(wallLine(run), halfThick(run), window, visit);

/** Whether a wall is more than a box from point to point: arches, openings or a fence on it. */
export const hasBlocks = ({ use, arches, openings, topFence }: Run): boolean =>
  use === 'wall' && (arches !== null || openings.length > 0 || topFence);

/** How far a place lies into a wall from its face with the arches, studs. @param straight the piece of the wall beside it */
export function acrossWall(
  { thick, archSide }: Pick<Entity<'run'>, 'thick' | 'archSide'>,
  { from, to, length }: WallStraight,
  { x, y }: { x: number; y: number },
): number {
  // As one walks along it, left is to the north where it goes east.
  const left = ((x - from.x) * (to.y - from.y) - (y - from.y) * (to.x - from.x)) / length;
  return thick / 2 - (archSide === 'left' ? left : -left);
}

/** Corners of a block of a wall on the plan, in order, studs. */
export function blockCorners(
  { thick, archSide }: Pick<Entity<'run'>, 'thick' | 'archSide'>,
  { from, to, length }: WallStraight,
  block: Pick<WallBlock, 'from' | 'to' | 'near' | 'far'>,
): { x: number; y: number }[] {
  const [u, v] = [(to.x - from.x) / length, (to.y - from.y) / length];
  const at = (along: number, across: number) => {
    const left = (archSide === 'left' ? 1 : -1) * (thick / 2 - across);
    return { x: from.x + along * u + left * v, y: from.y + along * v - left * u };
  };
  const { near, far } = block;
  return [at(block.from, near), at(block.to, near), at(block.to, far), at(block.from, far)];
}

/** A panel with something let in: what stands beside it, below and above it, and itself at the face. */
function blocksRound(
  { height, thick }: Run,
  panel: { from: number; to: number },
  { from: off, wide, deep, low, high, body, arches }: LaidOpening,
): WallBlock[] {
  const [a, b] = [panel.from + off, panel.from + off + wide];
  const wall = { near: 0, far: thick, low: 0, high: height, of: 'wall', body: 1 } as const;
  const face = { ...wall, far: deep };
  if (arches > 0)
    return [
      { ...wall, ...panel, near: deep },
      { ...face, from: panel.from, to: a },
      { ...face, from: b, to: panel.to },
      { ...face, from: a, to: b, low: high },
      { ...face, from: a, to: a + 1, high: low },
      { ...face, from: b - 1, to: b, high: low },
      { from: a, to: b, near: 0, far: deep, low, high, of: 'front', body } as const,
    ].filter(isAny);
  return [
    { ...wall, from: panel.from, to: a },
    { ...wall, from: b, to: panel.to },
    { ...wall, from: a, to: b, high: low },
    { ...wall, from: a, to: b, low: high },
    { from: a, to: b, near: 0, far: deep, low, high, of: 'opening', body } as const,
  ].filter(isAny);
}

const isAny = ({ from, to, near, far, low, high }: WallBlock): boolean =>
  to - from > TIE && far > near && high > low;

/** Pieces of one part. */
interface PartCount {
  part: string;
  qty: number;
}

/** Pieces of a wall, of its row of arches, or let into it. */
export interface RunPiece extends PartCount {
  of: WallLayer;
}

/** The pieces of a straight wall, fence or hedge. */
export function runPieces(run: Run, { length, before }: Straight): RunPiece[] {
  return panelsAlong(run, length).flatMap(({ from, to }, i) => piecesOf(run, before + i + 1, to - from));
}

function piecesOf(run: Run, number: number, length: number): RunPiece[] {
  if (run.use === 'fence' || run.use === 'railing') return layer(fencePieces(length, run.height), 'wall');
  const courses = Math.max(1, Math.ceil(run.height / PLATES_PER_BRICK - TIE));
  const rows = rowsOf(run);
  const row = archRow(run, length);
  const opening = openingIn(run, number, length);
  const top = runHigh(run) > run.height ? fencePieces(length, FAMILIES.fence.height) : [];
  if (opening) {
    // Heights of what is let in are whole bricks.
    const open = (opening.high - opening.low) / PLATES_PER_BRICK;
    const beside = [...bricksAlong(opening.from), ...bricksAlong(length - opening.from - opening.wide)];
    if (opening.arches > 0) {
      const { arches, low } = opening;
      const sill = low / PLATES_PER_BRICK;
      const behind = times(bricksAlong(length), (rows - arches) * courses);
      const face = [
        ...times(bricksAlong(length), courses - open - sill),
        ...times(beside, open + sill),
        { part: partId('brick', 1, 1), qty: 2 * sill },
      ];
      return [
        ...layer([...behind, ...times(face, arches), ...top], 'wall'),
        ...layer([{ part: opening.part, qty: arches }], 'front'),
      ];
    }
    const plain = [
      ...times(bricksAlong(length), rows * (courses - open)),
      ...times(beside, rows * open),
      ...top,
    ];
    return [...layer(plain, 'wall'), ...layer([{ part: opening.part, qty: 1 }], 'opening')];
  }
  const plain = times(bricksAlong(length), courses * (row ? rows - 1 : rows));
  if (!row) return layer([...plain, ...top], 'wall');
  const count = row.starts.length;
  const piers = courses - row.high / PLATES_PER_BRICK;
  const first = row.starts.at(0) ?? length;
  // Between two arches their piers are one, two studs wide.
  const front: PartCount[] = [
    { part: row.part, qty: count },
    { part: partId('brick', 1, 2), qty: piers * Math.max(0, count - 1) },
    { part: partId('brick', 1, 1), qty: count > 0 ? 2 * piers : 0 },
    ...times([...bricksAlong(first), ...bricksAlong(length - first - count * row.span)], courses),
  ];
  return [...layer([...plain, ...top], 'wall'), ...layer(front, 'front')];
}

const layer = (pieces: readonly PartCount[], of: WallLayer): RunPiece[] =>
  pieces.filter(({ qty }) => qty > 0).map((piece) => ({ ...piece, of }));

const times = (pieces: readonly PartCount[], by: number): PartCount[] =>
  pieces.map(({ part, qty }) => ({ part, qty: qty * by }));

/** Bricks one stud wide along a course: fours, and what closes it. */
export function bricksAlong(length: number, family: 'brick' | 'plate' = 'brick'): PartCount[] {
  const studs = Math.ceil(length - TIE);
  const [fours, rest] = [Math.floor(studs / 4), studs % 4];
  return [
    { part: partId(family, 1, 4), qty: fours },
    ...(rest > 0 ? [{ part: partId(family, 1, rest), qty: 1 }] : []),
  ].filter(({ qty }) => qty > 0);
}

/** Fences of four studs, tier over tier. */
function fencePieces(length: number, height: number): PartCount[] {
  const tiers = Math.max(1, Math.ceil(height / FAMILIES.fence.height - TIE));
  return [{ part: partId('fence', 4, 1), qty: Math.ceil(length / 4 - TIE) * tiers }];
}

/** How much of what a wall takes on the plan it fills, 0 to 1: its arches are open, and a fence is air but for its rods. */
export function wallFill(run: Run): number {
  let [solid, taken] = [0, 0];
  for (const straight of wallStraights(run)) {
    for (const { from, to, near, far, low, high, body } of wallBlocks(run, straight))
      solid += body * (to - from) * (far - near) * (high - low);
    // Studs are taken whole, those of the fence in one row.
    taken += straight.length * (Math.max(1, run.thick) * run.height + runHigh(run) - run.height);
  }
  return taken > 0 ? solid / taken : 1;
}
