// The best use of one evening: what can really be finished in it.

export interface EveningTask {
  id: string;
  minutes: number;
  /** What finishing it is worth. */
  value: number;
  /** Indices of what must be finished before it, tonight or already (those that are done are left out). */
  after: readonly number[];
}

/**
 * The set of tasks with the greatest value that fits into an evening, each after what it needs: exact, by branch and
 * bound over the tasks in the order of their value a minute.
 * @param minutes how long the evening is
 * @returns indices, in an order in which they can be done
 */
export function bestEvening(tasks: readonly EveningTask[], minutes: number): number[] {
  const order = tasks.map((_, i) => i).sort((a, b) => density(tasks[b]) - density(tasks[a]) || a - b);
  let best: { value: number; spent: number; set: ReadonlySet<number> } = {
    value: 0,
    spent: 0,
    set: new Set(),
  };
  const chosen = new Set<number>();
  const excluded = new Set<number>();
  /** No set can be worth more than this: what is chosen, and the rest as if tasks could be cut. */
  const bound = (at: number, left: number, value: number): number => {
    for (let k = at; k < order.length && left > 0; k++) {
      const task = tasks[order[k]];
      if (chosen.has(order[k]) || excluded.has(order[k])) continue;
      const share = task.minutes === 0 ? 1 : Math.min(1, left / task.minutes);
      value += share * task.value;
      left -= share * task.minutes;
    }
    return value;
  };
  const consider = (value: number, spent: number) => {
    // Of equal worth the shorter evening.
    if (value > best.value + 1e-9 || (Math.abs(value - best.value) <= 1e-9 && spent < best.spent))
      best = { value, spent, set: new Set(chosen) };
  };
  const search = (at: number, left: number, value: number): void => {
    consider(value, minutes - left);
    if (at === order.length || bound(at, left, value) <= best.value + 1e-9) return;
    const i = order[at];
    if (chosen.has(i)) return search(at + 1, left, value);
    // With everything it needs and does not have yet.
    const bundle = needed(tasks, i, chosen);
    const cost = bundle.reduce((sum, k) => sum + tasks[k].minutes, 0);
    if (cost <= left && !bundle.some((k) => excluded.has(k))) {
      bundle.forEach((k) => chosen.add(k));
      search(at + 1, left - cost, value + bundle.reduce((sum, k) => sum + tasks[k].value, 0));
      bundle.forEach((k) => chosen.delete(k));
    }
    excluded.add(i);
    search(at + 1, left, value);
    excluded.delete(i);
  };
  search(0, minutes, 0);
  return inOrder(tasks, best.set);
}

const density = ({ value, minutes }: EveningTask) => value / Math.max(minutes, 1);

function needed(tasks: readonly EveningTask[], i: number, has: ReadonlySet<number>): number[] {
  const all = new Set<number>();
  const visit = (k: number): void => {
    if (has.has(k) || all.has(k)) return;
    all.add(k);
    tasks[k].after.forEach(visit);
  };
  visit(i);
  return [...all];
}

function inOrder(tasks: readonly EveningTask[], set: ReadonlySet<number>): number[] {
  const order: number[] = [];
  const visit = (i: number): void => {
    if (order.includes(i) || !set.has(i)) return;
    tasks[i].after.forEach(visit);
    order.push(i);
  };
  [...set].sort((a, b) => a - b).forEach(visit);
  return order;
}
