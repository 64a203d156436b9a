import { containsPoint } from '../grid/index.ts';
import { CELL, type CutProblem } from './problem.ts';
import { basesUnit, gridPitch, type Grid } from './grid.ts';
import type { Candidates } from './master.ts';

/** Faults of a problem that no cutting can mend, each in one sentence; empty when none is plain to see. */
export function plainFaults(problem: CutProblem): string[] {
  const faults: string[] = [];
  const inRegion = (x: number, y: number) => problem.region.some((r) => containsPoint(r, x, y));
  const { maxW, maxD } = problem.module;
  const [long, short] = [Math.max(maxW, maxD), Math.min(maxW, maxD)];
  problem.bases.forEach(({ w, d }, index) => {
    const twin = problem.bases.findIndex(
      (other) => (other.w === w && other.d === d) || (other.w === d && other.d === w),
    );
    if (twin < index) faults.push(`The base ${w} × ${d} is listed twice; give it one price and one stock.`);
  });
  for (const pin of problem.pins ?? [])
    if ((pin.x1 === pin.x2) === (pin.y1 === pin.y2))
      faults.push(
        `The pin from ${pin.x1},${pin.y1} to ${pin.x2},${pin.y2} is not a straight seam along the grid.`,
      );
  for (const keep of problem.keep ?? []) {
    const name = `“${keep.name ?? `keep at ${keep.x},${keep.y}`}”`;
    if (Math.max(keep.w, keep.d) > long || Math.min(keep.w, keep.d) > short)
      faults.push(`${name} is ${keep.w} × ${keep.d} studs; the largest module is ${maxW} × ${maxD}.`);
    for (let y = keep.y, left = false; y < keep.y + keep.d && !left; y += CELL)
      for (let x = keep.x; x < keep.x + keep.w && !left; x += CELL)
        if (!inRegion(x, y)) {
          faults.push(`${name} leaves the region at ${x},${y}.`);
          left = true;
        }
    for (const pin of problem.pins ?? []) {
      const upright = pin.x1 === pin.x2;
      const across = upright
        ? pin.x1 > keep.x &&
          pin.x1 < keep.x + keep.w &&
          Math.max(pin.y1, pin.y2) > keep.y &&
          Math.min(pin.y1, pin.y2) < keep.y + keep.d
        : pin.y1 > keep.y &&
          pin.y1 < keep.y + keep.d &&
          Math.max(pin.x1, pin.x2) > keep.x &&
          Math.min(pin.x1, pin.x2) < keep.x + keep.w;
      if (across)
        faults.push(`The pinned seam from ${pin.x1},${pin.y1} to ${pin.x2},${pin.y2} cuts ${name}.`);
    }
  }
  return [...faults, ...latticeFaults(problem)];
}

/**
 * What the common measure of the bases forbids: a run of ground from border to border, along a row or a column, that is
 * no multiple of it (each module across the run takes a multiple), and, where the whole region lies on its steps,
 * pinned seams between them.
 */
function latticeFaults(problem: CutProblem): string[] {
  const unit = basesUnit(problem.bases);
  if (unit <= CELL) return [];
  const inside = new Set<string>();
  for (const { x, y, w, d } of problem.region)
    for (let row = y; row < y + d; row += CELL)
      for (let column = x; column < x + w; column += CELL) inside.add(`${column},${row}`);
  const has = (x: number, y: number) => inside.has(`${x},${y}`);
  for (const key of inside) {
    const [x, y] = key.split(',').map(Number);
    for (const [dx, dy, way] of [
      [CELL, 0, 'from west to east'],
      [0, CELL, 'from north to south'],
    ] as const) {
      if (has(x - dx, y - dy)) continue;
      let length = CELL;
      while (has(x + (dx / CELL) * length, y + (dy / CELL) * length)) length += CELL;
      if (length % unit === 0) continue;
      const over = Math.floor(length / unit) * unit;
      const at = dx > 0 ? `${x + over},${y}` : `${x},${y + over}`;
      return [
        `The studs at ${at} cannot be covered: every base is a multiple of ${unit} studs each way, and the ground is ${length} studs ${way} there.`,
      ];
    }
  }
  if (gridPitch(problem) <= CELL) return [];
  const [{ x: ox, y: oy }] = problem.region;
  const faults: string[] = [];
  for (const { x1, y1, x2, y2 } of problem.pins ?? []) {
    const upright = x1 === x2;
    const off = upright ? (x1 - ox) % unit : (y1 - oy) % unit;
    const [from, to] = upright ? [Math.min(y1, y2), Math.max(y1, y2)] : [Math.min(x1, x2), Math.max(x1, x2)];
    for (let at = from; off !== 0 && at < to; at += CELL) {
      const [x, y] = upright ? [x1, at] : [at, y1];
      if (!has(x, y) || !has(upright ? x - CELL : x, upright ? y : y - CELL)) continue;
      faults.push(
        `The pinned seam from ${x1},${y1} to ${x2},${y2} cannot be: every base is a multiple of ${unit} studs each way, so that seams lie in steps of ${unit}.`,
      );
      break;
    }
  }
  return faults;
}

/** Studs that no module can cover, as one sentence, or null. */
export function uncovered(grid: Grid, candidates: Candidates): string | null {
  const covered = new Uint8Array(grid.inside.length);
  for (let index = 0; index < candidates.count; index++) {
    const { x0, y0, x1, y1 } = candidates.at(index);
    for (let row = y0; row < y1; row++) covered.fill(1, row * grid.columns + x0, row * grid.columns + x1);
  }
  const bare: number[] = [];
  for (let i = 0; i < covered.length; i++) if (grid.inside[i] && !covered[i]) bare.push(i);
  if (bare.length === 0) return null;
  const [first] = bare;
  const x = grid.x + (first % grid.columns) * grid.cell;
  const y = grid.y + Math.trunc(first / grid.columns) * grid.cell;
  const studs = (bare.length * grid.cell ** 2).toLocaleString('en');
  return `${studs} studs cannot be covered, the first at ${x},${y}: no module there keeps within size, mass, keeps and pins and is made of the listed bases.`;
}
