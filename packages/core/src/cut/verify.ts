import { CELL, type Cutting, type CutProblem } from './problem.ts';

/**
 * The independent checker: takes a cutting and its problem as they stand in the contract and recomputes everything
 * stud cell by stud cell. It shares no code with the solver on purpose.
 * @returns one sentence for each fault; empty when the cutting is right
 */
export function verifyCutting(problem: CutProblem, cutting: Cutting): string[] {
  const faults: string[] = [];
  const owner = new Map<string, number>();
  const inRegion = (x: number, y: number) =>
    problem.region.some((r) => x >= r.x && y >= r.y && x < r.x + r.w && y < r.y + r.d);
  const each = (r: { x: number; y: number; w: number; d: number }, visit: (x: number, y: number) => void) => {
    for (let y = r.y; y < r.y + r.d; y += CELL) for (let x = r.x; x < r.x + r.w; x += CELL) visit(x, y);
  };
  const used = problem.bases.map(() => 0);
  const { maxW, maxD, maxMassKg } = problem.module;

  for (const [index, module] of cutting.modules.entries()) {
    const { id, x, y, w, d } = module;
    if ([x, y, w, d].some((value) => value % CELL !== 0) || w <= 0 || d <= 0)
      faults.push(`Module ${id} is off the lattice of ${CELL}.`);
    if (!((w <= maxW && d <= maxD) || (d <= maxW && w <= maxD)))
      faults.push(`Module ${id} is ${w} × ${d}; the most is ${maxW} × ${maxD}.`);
    each(module, (cx, cy) => {
      const key = `${cx},${cy}`;
      if (!inRegion(cx, cy)) faults.push(`Module ${id} leaves the region at ${key}.`);
      const other = owner.get(key);
      if (other !== undefined)
        faults.push(`Modules ${cutting.modules[other].id} and ${id} both cover ${key}.`);
      owner.set(key, index);
    });
    const covered = new Set<string>();
    for (const base of module.bases) {
      const type = problem.bases.findIndex(
        (b) => (b.w === base.w && b.d === base.d) || (b.w === base.d && b.d === base.w),
      );
      if (type < 0)
        faults.push(`Module ${id} uses a base of ${base.w} × ${base.d}, which is not on the list.`);
      else used[type]++;
      each(base, (cx, cy) => {
        if (cx < x || cy < y || cx >= x + w || cy >= y + d)
          faults.push(`A base of module ${id} leaves it at ${cx},${cy}.`);
        if (covered.has(`${cx},${cy}`)) faults.push(`Two bases of module ${id} overlap at ${cx},${cy}.`);
        covered.add(`${cx},${cy}`);
      });
    }
    if (covered.size !== (w * d) / (CELL * CELL))
      faults.push(`The bases of module ${id} leave part of it open.`);
    if (problem.mass) {
      const { cell, kg } = problem.mass;
      let mass = 0;
      for (const [row, line] of kg.entries())
        for (const [column, value] of line.entries()) {
          const shareX = Math.max(0, Math.min(x + w, (column + 1) * cell) - Math.max(x, column * cell));
          const shareY = Math.max(0, Math.min(y + d, (row + 1) * cell) - Math.max(y, row * cell));
          mass += (value * shareX * shareY) / cell ** 2;
        }
      if (module.massKg === undefined || Math.abs(module.massKg - mass) > 1e-6)
        faults.push(`Module ${id} weighs ${mass} kg, not ${module.massKg} kg.`);
      if (maxMassKg !== undefined && mass > maxMassKg + 1e-6)
        faults.push(`Module ${id} weighs ${mass} kg; the most is ${maxMassKg} kg.`);
    }
  }
  for (const part of problem.region)
    each(part, (x, y) => {
      if (!owner.has(`${x},${y}`)) faults.push(`No module covers ${x},${y}.`);
    });
  for (const keep of problem.keep ?? []) {
    const owners = new Set<number | undefined>();
    each(keep, (x, y) => owners.add(owner.get(`${x},${y}`)));
    if (owners.size !== 1) faults.push(`“${keep.name ?? `keep at ${keep.x},${keep.y}`}” is cut.`);
  }

  let seams = 0;
  const penalty = (x: number, y: number) =>
    Math.max(
      0,
      ...(problem.seamCost ?? [])
        .filter((r) => x >= r.x && y >= r.y && x < r.x + r.w && y < r.y + r.d)
        .map((r) => r.cost),
    );
  const edgeCost = (x: number, y: number, upright: boolean) =>
    (problem.lines ?? []).findLast(({ x1, y1, x2, y2 }) =>
      upright
        ? x1 === x2 && x1 === x && y >= Math.min(y1, y2) && y < Math.max(y1, y2)
        : y1 === y2 && y1 === y && x >= Math.min(x1, x2) && x < Math.max(x1, x2),
    )?.cost;
  const parted = (x: number, y: number, dx: number, dy: number) => {
    const here = owner.get(`${x},${y}`);
    const there = owner.get(`${x + dx},${y + dy}`);
    return here !== undefined && there !== undefined && here !== there;
  };
  for (const key of owner.keys()) {
    const [x, y] = key.split(',').map(Number);
    for (const [dx, dy] of [
      [CELL, 0],
      [0, CELL],
    ])
      if (parted(x, y, dx, dy))
        seams +=
          CELL * (1 + (edgeCost(x + dx, y + dy, dx > 0) ?? Math.max(penalty(x, y), penalty(x + dx, y + dy))));
  }
  for (const pin of problem.pins ?? []) {
    const upright = pin.x1 === pin.x2;
    const from = upright ? Math.min(pin.y1, pin.y2) : Math.min(pin.x1, pin.x2);
    const to = upright ? Math.max(pin.y1, pin.y2) : Math.max(pin.x1, pin.x2);
    for (let at = from; at < to; at += CELL) {
      const [x, y] = upright ? [pin.x1 - CELL, at] : [at, pin.y1 - CELL];
      const [dx, dy] = upright ? [CELL, 0] : [0, CELL];
      if (inRegion(x, y) && inRegion(x + dx, y + dy) && !parted(x, y, dx, dy))
        faults.push(`The pinned seam at ${x + dx},${y + dy} is missing.`);
    }
  }

  let money = 0;
  for (const [type, base] of problem.bases.entries()) {
    if (base.max !== undefined && used[type] > base.max)
      faults.push(`${used[type]} bases of ${base.w} × ${base.d}; the most is ${base.max}.`);
    const bought = Math.max(0, used[type] - base.stock);
    money += bought * base.price;
    const listed = cutting.bought.find((b) => b.w === base.w && b.d === base.d)?.count ?? 0;
    if (listed !== bought)
      faults.push(`The list buys ${listed} bases of ${base.w} × ${base.d}; ${bought} are needed.`);
  }
  const cost = {
    bases: money,
    modules: problem.weights.module * cutting.modules.length,
    seams: problem.weights.seam * seams,
    total: money + problem.weights.module * cutting.modules.length + problem.weights.seam * seams,
  };
  for (const key of ['bases', 'modules', 'seams', 'total'] as const)
    if (Math.abs(cost[key] - cutting.cost[key]) > 1e-6)
      faults.push(`The cost of ${key} is ${cost[key]}, not ${cutting.cost[key]}.`);
  if (cutting.bound > cost.total + 1e-6)
    faults.push(`The bound ${cutting.bound} is above the cost ${cost.total}.`);
  return faults;
}
