import { FAMILIES, partId } from '../catalogue/index.ts';
import { PLATES_PER_BRICK } from '../grid/index.ts';
import { archOf, runHigh, type Entity } from '../document/index.ts';

// Walls along a line as they are built: plain, or with a row of arches at one face; a fence on top. And fences and hedges.

type Run = Pick<Entity<'run'>, 'use' | 'height' | 'thick' | 'panel' | 'arches' | 'topFence' | 'points'>;

/** A block of a wall: along it and across it from its face with the arches, studs; plates above its foot. */
export interface WallBlock {
  from: number;
  to: number;
  near: number;
  far: number;
  low: number;
  high: number;
  /** It is of the row with the arches. */
  isFront: boolean;
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

/** The pieces of a straight wall: its panels, or all of it. From and to, studs along it. */
export function straightsOf({ panel }: Pick<Run, 'panel'>, length: number): { from: number; to: number }[] {
  if (panel === 0) return [{ from: 0, to: length }];
  return Array.from({ length: Math.ceil(length / panel - TIE) }, (_, i) => ({
    from: i * panel,
    to: Math.min(length, (i + 1) * panel),
  }));
}
const TIE = 1e-9;

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

/** The blocks of a straight wall, what is open under its arches left out. @param length of it, studs */
export function wallBlocks(run: Run, length: number): WallBlock[] {
  const { height, thick } = run;
  const blocks: WallBlock[] = [];
  for (const { from, to } of straightsOf(run, length)) {
    const row = archRow(run, to - from);
    const deep = row ? Math.min(1, thick) : 0;
    if (thick > deep) blocks.push({ from, to, near: deep, far: thick, low: 0, high: height, isFront: false });
    if (!row) continue;
    const front = { near: 0, far: deep, isFront: true };
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
  }
  const high = runHigh(run);
  // A fence is a stud wide and stands over the middle.
  const off = Math.max(0, (thick - 1) / 2);
  if (high > height)
    blocks.push({
      from: 0,
      to: length,
      near: off,
      far: Math.min(thick, off + 1),
      low: height,
      high,
      isFront: false,
    });
  return blocks;
}

/** Pieces of one part. */
interface PartCount {
  part: string;
  qty: number;
}

/** Of a wall, of its row of arches or of what is behind and on it. */
export interface RunPiece extends PartCount {
  isFront: boolean;
}

/** The pieces of a straight wall, fence or hedge. @param length of it, studs, above 0 */
export function runPieces(run: Run, length: number): RunPiece[] {
  return straightsOf(run, length).flatMap(({ from, to }) => piecesOf(run, to - from));
}

function piecesOf(run: Run, length: number): RunPiece[] {
  if (run.use === 'fence' || run.use === 'railing') return layer(fencePieces(length, run.height), false);
  const courses = Math.max(1, Math.ceil(run.height / PLATES_PER_BRICK - TIE));
  const rows = Math.max(1, Math.ceil(run.thick - TIE));
  const row = archRow(run, length);
  const plain = times(bricksAlong(length), courses * (row ? rows - 1 : rows));
  const top = runHigh(run) > run.height ? fencePieces(length, FAMILIES.fence.height) : [];
  if (!row) return layer([...plain, ...top], false);
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
  return [...layer([...plain, ...top], false), ...layer(front, true)];
}

const layer = (pieces: readonly PartCount[], isFront: boolean): RunPiece[] =>
  pieces.filter(({ qty }) => qty > 0).map((piece) => ({ ...piece, isFront }));

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

/** Lengths of the straight parts of a line, studs, without those of none. */
export const straightLengths = ({ points }: Pick<Run, 'points'>): number[] =>
  points
    .slice(1)
    .map(({ x, y }, i) => Math.hypot(x - points[i].x, y - points[i].y))
    .filter((length) => length > 0);

/** How much of what a wall takes on the plan it fills, 0 to 1: its arches are open, and a fence is air but for its rods. */
export function wallFill(run: Run): number {
  let [solid, taken] = [0, 0];
  for (const length of straightLengths(run)) {
    for (const { from, to, near, far, low, high } of wallBlocks(run, length))
      solid += (low >= run.height ? FAMILIES.fence.body : 1) * (to - from) * (far - near) * (high - low);
    // Studs are taken whole, those of the fence in one row.
    taken += length * (Math.max(1, run.thick) * run.height + runHigh(run) - run.height);
  }
  return taken > 0 ? solid / taken : 1;
}
