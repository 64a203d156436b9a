import { gramsOfPart } from '../catalogue/index.ts';
import type { Knowledge } from '../masonry/index.ts';
import type { Change, Order, OrderState, Scene } from '../document/index.ts';
import { ORDER_STATES, isComing, listOf, mergeLines, daysBetween } from '../document/index.ts';

// Orders from draft to put away, what they cost and who bears it; counting by weight.

/** What an order's goods cost by its lines, and with postage what was guessed. */
export interface OrderSum {
  pieces: number;
  came: number;
  goods: number;
  /** Goods and postage. */
  expected: number;
  /** What it was thought to cost: as typed, else goods and postage; null: neither is known. */
  guessed: number | null;
  /** What was paid over what was guessed, money; null while one of them is not known. */
  over: number | null;
}

export function sumOrder({ lines, postage, paid, guess }: Order): OrderSum {
  const pieces = lines.reduce((sum, { qty }) => sum + qty, 0);
  const came = lines.reduce((sum, line) => sum + Math.min(line.came, line.qty), 0);
  const goods = lines.reduce((sum, { qty, price }) => sum + qty * price, 0);
  const expected = goods + postage;
  const guessed = guess > 0 ? guess : expected > 0 ? expected : null;
  const over = paid === null || guessed === null ? null : paid - guessed;
  return { pieces, came, goods, expected, guessed, over };
}

/** Days a parcel is late, from its expected day; 0 when it is not late or has no expected day. */
export const daysLate = (order: Order, today: string): number =>
  order.expected !== null && isComing(order) ? Math.max(0, daysBetween(order.expected, today)) : 0;

/** The states an order may go to next. */
export const nextStates = (state: OrderState): readonly OrderState[] =>
  ORDER_STATES.slice(ORDER_STATES.indexOf(state) + 1, ORDER_STATES.indexOf(state) + 2);

/** Money by section: what was guessed, and what was paid where that is known. Postage goes by the goods. */
export interface SectionCost {
  section: string | null;
  guess: number;
  actual: number;
  /** What was paid over the guess, of those orders of which both are known. */
  over: number;
}

/**
 * Guess against actual, by section. An order's money goes to its lines' sections by their share of its goods; of one
 * that has no lines it is no section's.
 */
export function costBySection(scene: Scene): SectionCost[] {
  const costs = new Map<string | null, SectionCost>();
  for (const order of listOf(scene, 'order')) {
    const { goods, guessed, over } = sumOrder(order);
    const pieces = order.lines.reduce((sum, { qty }) => sum + qty, 0);
    const shares = order.lines.map(({ section, qty, price }) => ({
      section,
      share: goods > 0 ? (qty * price) / goods : pieces > 0 ? qty / pieces : 0,
    }));
    if (pieces === 0) shares.push({ section: null, share: 1 });
    for (const { section, share } of shares) {
      const cost = costs.get(section) ?? { section, guess: 0, actual: 0, over: 0 };
      cost.guess += (guessed ?? 0) * share;
      cost.actual += (order.paid ?? 0) * share;
      cost.over += (over ?? 0) * share;
      costs.set(section, cost);
    }
  }
  return [...costs.values()].toSorted((a, b) => b.guess - a.guess);
}

/** What each person has laid out, bears, and is owed (below zero: owes). */
export interface Balance {
  person: string;
  paid: number;
  bears: number;
  owed: number;
}

/** Splits what was paid by each order's shares; without shares who ordered bears it. Sums to zero to the cent. */
export function balances(scene: Scene): Balance[] {
  const cents = new Map<string, { paid: number; bears: number }>();
  const of = (person: string) => {
    const entry = cents.get(person) ?? { paid: 0, bears: 0 };
    cents.set(person, entry);
    return entry;
  };
  for (const { by, paid, shares } of listOf(scene, 'order')) {
    if (by === null || paid === null) continue;
    const total = Math.round(paid * 100);
    of(by).paid += total;
    const bearing = shares.filter(
      (entry): entry is { person: string; share: number } => entry.person !== null && entry.share > 0,
    );
    const whole = bearing.reduce((sum, { share }) => sum + share, 0);
    if (whole === 0) of(by).bears += total;
    let given = 0;
    let sum = 0;
    for (const { person, share } of bearing) {
      sum += share;
      // Cumulative rounding: the cents always add up.
      const upTo = Math.round((total * sum) / whole);
      of(person).bears += upTo - given;
      given = upTo;
    }
  }
  return [...cents]
    .map(([person, { paid, bears }]) => ({
      person,
      paid: paid / 100,
      bears: bears / 100,
      owed: (paid - bears) / 100,
    }))
    .toSorted((a, b) => b.owed - a.owed || (a.person < b.person ? -1 : 1));
}

/**
 * What a parcel brought: the order's lines count it, and it goes to a drawer of who ordered.
 * @param came pieces that came now, by line; more than is outstanding is taken as extra
 * @param lotId an id for a new drawer entry
 */
export function receive(
  scene: Scene,
  order: Order,
  came: readonly number[],
  place: string,
  lotId: (index: number) => string,
): Change[] {
  const lines = order.lines.map((line, i) => ({ ...line, came: line.came + Math.max(0, came[i] ?? 0) }));
  const all = lines.every((line) => line.came >= line.qty);
  const changes: Change[] = [
    { op: 'patch', kind: 'order', id: order.id, v: order.v, set: { lines, state: all ? 'away' : 'part' } },
  ];
  const lots = listOf(scene, 'lot');
  const more = mergeLines(
    order.lines.map(({ part, colour }, i) => ({ part, colour, qty: Math.max(0, came[i] ?? 0) })),
  ).filter(({ qty }) => qty > 0);
  more.forEach(({ part, colour, qty }, index) => {
    const known = lots.find(
      (lot) =>
        lot.part === part &&
        lot.colour === colour &&
        lot.owner === order.by &&
        lot.place === place &&
        !lot.bulk,
    );
    if (known)
      changes.push({ op: 'patch', kind: 'lot', id: known.id, v: known.v, set: { qty: known.qty + qty } });
    else
      changes.push({
        op: 'add',
        kind: 'lot',
        id: lotId(index),
        data: { part, colour, qty, owner: order.by, place },
      });
  });
  return changes;
}

/** How many pieces a weight is, to the nearest; null for a part of no weight. With the error a gram makes. */
export function piecesByWeight(
  part: string,
  grams: number,
  known: Knowledge = {},
): { pieces: number; perPiece: number } | null {
  const perPiece = gramsOfPart(part, known);
  return perPiece > 0 ? { pieces: Math.round(grams / perPiece), perPiece } : null;
}
