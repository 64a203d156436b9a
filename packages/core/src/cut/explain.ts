import { CELL, type CutProblem } from './problem.ts';
import type { Grid } from './grid.ts';
import type { Candidates } from './master.ts';

/** Faults of a problem that no cutting can mend, each in one sentence; empty when none is plain to see. */
export function plainFaults(problem: CutProblem): string[] {
  const faults: string[] = [];
  const inRegion = (x: number, y: number) =>
    problem.region.some((r) => x >= r.x && y >= r.y && x < r.x + r.w && y < r.y + r.d);
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
    const name = `«${keep.name ?? `keep at ${keep.x},${keep.y}`}»`;
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
  return faults;
}

/** Studs that no module can cover, as one sentence, or null. */
export function uncovered(grid: Grid, candidates: Candidates): string | null {
  const covered = new Uint8Array(grid.inside.length);
  for (const { x0, y0, x1, y1 } of candidates.cells)
    for (let row = y0; row < y1; row++) covered.fill(1, row * grid.columns + x0, row * grid.columns + x1);
  const bare: number[] = [];
  for (let i = 0; i < covered.length; i++) if (grid.inside[i] && !covered[i]) bare.push(i);
  if (bare.length === 0) return null;
  const [first] = bare;
  const x = grid.x + (first % grid.columns) * CELL;
  const y = grid.y + Math.trunc(first / grid.columns) * CELL;
  const studs = (bare.length * CELL * CELL).toLocaleString('en');
  return `${studs} studs cannot be covered, the first at ${x},${y}: no module there keeps within size, mass, keeps and pins and is made of the listed bases.`;
}
