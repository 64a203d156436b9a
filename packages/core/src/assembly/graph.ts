/** A graph of what must be done before what: for each thing the things that come before it. */
export type Precedence = ReadonlyMap<string, ReadonlySet<string>>;

/** An order in which everything comes after what must be before it, or the circles that forbid one. */
export type Ordered = { ok: true; order: string[] } | { ok: false; cycles: string[][] };

/**
 * Sorts by what must come before (Kahn 1962), of several that are ready the one first by `rank`; when not all can be
 * placed, says in which circles the rest waits for itself (the strongly connected parts; Tarjan 1972).
 */
export function orderOf(before: Precedence, rank: (a: string, b: string) => number): Ordered {
  const waits = new Map(
    [...before].map(([key, list]) => [key, new Set([...list].filter((one) => before.has(one)))]),
  );
  const order: string[] = [];
  const ready = [...waits].filter(([, list]) => list.size === 0).map(([key]) => key);
  while (ready.length > 0) {
    ready.sort(rank);
    const next = ready.shift();
    if (next === undefined) break;
    order.push(next);
    waits.delete(next);
    for (const [key, list] of waits) if (list.delete(next) && list.size === 0) ready.push(key);
  }
  return waits.size === 0 ? { ok: true, order } : { ok: false, cycles: circlesOf(waits) };
}

/** The parts of a graph in which everything waits for everything, each in the order of waiting. */
function circlesOf(waits: ReadonlyMap<string, ReadonlySet<string>>): string[][] {
  const index = new Map<string, number>();
  const low = new Map<string, number>();
  const stack: string[] = [];
  const circles: string[][] = [];
  const visit = (key: string): number => {
    const mine = index.size;
    index.set(key, mine);
    low.set(key, mine);
    stack.push(key);
    for (const next of waits.get(key) ?? []) {
      const reach = index.has(next) ? (stack.includes(next) ? (index.get(next) ?? mine) : mine) : visit(next);
      low.set(key, Math.min(low.get(key) ?? mine, reach));
    }
    const lowest = low.get(key) ?? mine;
    if (lowest === mine) {
      const part = stack.splice(stack.indexOf(key));
      if (part.length > 1 || waits.get(key)?.has(key)) circles.push(part);
    }
    return lowest;
  };
  for (const key of waits.keys()) if (!index.has(key)) visit(key);
  return circles;
}
