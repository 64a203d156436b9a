import { ANY_COLOUR } from '../catalogue/index.ts';
import { DISPLAY_ID, listOf, type Scene } from '../document/index.ts';
import type { Demand, Source } from './needs.ts';
import type { Supply } from './supply.ts';

// Need less stock, less what is lent, less what comes in time: what is short, and who gives what to whom.

/** So many of a supply for a demand. */
export interface Allocation {
  demand: string;
  supply: string;
  qty: number;
  how: 'own' | 'promised' | 'handed' | 'ordered' | 'late' | 'substitute';
}

export interface Netted {
  demand: Demand;
  given: Allocation[];
  /** Pieces by how they are covered. */
  own: number;
  handed: number;
  /** On its way, in time as far as its day is known. */
  ordered: number;
  /** On its way, after the day it is needed. */
  late: number;
  /** Made up by accepted substitutes. */
  substituted: number;
  short: number;
}

/** Somebody's parts that go to another's section. */
export interface Transfer {
  from: string;
  to: string | null;
  section: string | null;
  part: string;
  colour: string;
  qty: number;
  place: string;
  promised: boolean;
}

export interface Netting {
  rows: Netted[];
  /** What no demand takes, by supply id. */
  left: Map<string, number>;
  handOvers: Transfer[];
}

const byDate = (a: Demand, b: Demand) => {
  const [p, q] = [a.by ?? '9999', b.by ?? '9999'];
  return p < q ? -1 : p > q ? 1 : a.id < b.id ? -1 : 1;
};

/** Order of supplies: promised, own and shared, ordered in time, other owners', ordered late. */
class Netter {
  private readonly left: Map<string, number>;
  private readonly rows: Map<string, Netted>;
  private readonly byPart = new Map<string, Supply[]>();

  constructor(
    demands: readonly Demand[],
    readonly supplies: readonly Supply[],
    /** Whether worn pieces are only for what is of any colour: for what is not seen. */
    private readonly hidesWorn: boolean,
  ) {
    this.left = new Map(supplies.map(({ id, qty }) => [id, qty]));
    this.rows = new Map(
      demands.map((demand) => [
        demand.id,
        { demand, given: [], own: 0, handed: 0, ordered: 0, late: 0, substituted: 0, short: demand.qty },
      ]),
    );
    for (const supply of supplies) {
      const list = this.byPart.get(supply.part);
      if (list) list.push(supply);
      else this.byPart.set(supply.part, [supply]);
    }
  }

  row = (id: string) => this.rows.get(id);
  rowsInOrder = () => [...this.rows.values()];
  remaining = (supply: Supply) => this.left.get(supply.id) ?? 0;
  leftovers = () => this.left;

  /** Supplies that would do for a demand: of its colour, or of any where any will do, from where it may come. */
  fitting({ part, colour, source }: { part: string; colour: string; source?: Source }): Supply[] {
    const isHidden = colour === ANY_COLOUR;
    const fitting = (this.byPart.get(part) ?? []).filter(
      (one) =>
        (isHidden || one.colour === colour) &&
        mayCome(one, source ?? null) &&
        (isHidden || !one.isWorn || !this.hidesWorn),
    );
    // Worn pieces go where they are not seen; what is seen takes them last.
    return fitting.some(({ isWorn }) => isWorn)
      ? fitting.toSorted((a, b) => (isHidden ? -1 : 1) * (Number(a.isWorn) - Number(b.isWorn)))
      : fitting;
  }

  give(row: Netted, supply: Supply, most: number, how: Allocation['how']): number {
    const qty = Math.min(most, row.short, this.remaining(supply));
    if (qty <= 0) return 0;
    this.left.set(supply.id, this.remaining(supply) - qty);
    row.short -= qty;
    row.given.push({ demand: row.demand.id, supply: supply.id, qty, how });
    if (how === 'own') row.own += qty;
    else if (how === 'promised' || how === 'handed') row.handed += qty;
    else if (how === 'ordered') row.ordered += qty;
    else if (how === 'late') row.late += qty;
    else row.substituted += qty;
    return qty;
  }

  /** Takes pieces without their counting for a demand: for substitutes, of which several make one. */
  use(supply: Supply, qty: number): void {
    this.left.set(supply.id, this.remaining(supply) - qty);
  }
}

/** Whether a supply is where a demand may come from: a kit, or what is here already. */
const mayCome = ({ kind }: Supply, source: Source) =>
  source === null || (source === 'kits' ? kind === 'kit' : kind !== 'order');

/** Whose pieces a demand takes as its own: its builder's and everybody's; of what only kits or own stock may give, all. */
const isOwn = (supply: Supply, { person, source }: Demand) =>
  supply.person === null || supply.person === person || (person === null && source !== null);

const isHere = ({ kind }: Supply) => kind !== 'order';
/** Comes on the day it is needed or before; what is needed at no day is never late, nor is an order of no day. */
const inTime = ({ from }: Supply, { by }: Demand) => from === null || by === null || from <= by;

/**
 * Nets demands against supplies, part by part. The rules, one after the other: what is promised; one's own pieces
 * and what belongs to everybody, nearest date first; what is on order and comes in time; others' pieces, nearest
 * date first, from as few hands as can be; what comes late; accepted substitutes. What may only come from kits goes
 * first, spares last; among each, pieces of any colour come last, so that they take pieces whose colour no other demand needs.
 * Worn pieces are taken first for pieces of any colour, which are not seen; for others last, or not at all where the house
 * rules are strict about what is seen.
 */
export function netNeeds(scene: Scene, demands: readonly Demand[], supplies: readonly Supply[]): Netting {
  const netter = new Netter(demands, supplies, scene.display[DISPLAY_ID]?.colourSeen === 'strict');
  const promises = listOf(scene, 'promise');
  const rows = netter.rowsInOrder().toSorted((a, b) => byDate(a.demand, b.demand));
  // What may only come from kits chooses before what may come from anywhere, spares after everything.
  const bound = (source: Source) => rows.filter(({ demand }) => demand.source === source);
  const isSpare = ({ demand }: Netted) => demand.counted === 0;
  const groups = [
    bound('kits'),
    bound('own'),
    bound(null).filter((row) => !isSpare(row)),
    rows.filter(isSpare),
  ]
    .flatMap((list) => [
      list.filter(({ demand }) => demand.colour !== ANY_COLOUR),
      list.filter(({ demand }) => demand.colour === ANY_COLOUR),
    ])
    .filter((list) => list.length > 0);
  for (const { part, colour, person, section, qty } of promises) {
    let open = qty;
    for (const row of rows) {
      const { demand } = row;
      if (demand.section !== section || demand.part !== part) continue;
      if (demand.colour !== colour && demand.colour !== ANY_COLOUR) continue;
      for (const supply of netter.fitting({ part, colour, source: demand.source }))
        if (supply.person === person && isHere(supply)) open -= netter.give(row, supply, open, 'promised');
    }
  }
  for (const group of groups) {
    for (const row of group)
      for (const supply of netter.fitting(row.demand))
        if (isHere(supply) && isOwn(supply, row.demand)) netter.give(row, supply, Infinity, 'own');
    for (const row of group) giveOrders(netter, row, (supply) => inTime(supply, row.demand), 'ordered');
    for (const row of group) giveFromOthers(netter, row);
    for (const row of group) giveOrders(netter, row, () => true, 'late');
    for (const row of group) giveSubstitutes(netter, scene, row);
  }
  return { rows: netter.rowsInOrder(), left: netter.leftovers(), handOvers: handOvers(netter, supplies) };
}

/** Orders meant for the section first, then the builder's own, then anybody's; sooner before later. */
function giveOrders(
  netter: Netter,
  row: Netted,
  may: (supply: Supply) => boolean,
  how: 'ordered' | 'late',
): void {
  if (row.short === 0) return;
  const { section, person } = row.demand;
  const rank = (supply: Supply) =>
    supply.section === section && section !== null
      ? 0
      : supply.section !== null
        ? 3
        : supply.person === person
          ? 1
          : 2;
  const coming = netter
    .fitting(row.demand)
    .filter((supply) => supply.kind === 'order' && may(supply) && netter.remaining(supply) > 0)
    .toSorted((a, b) => rank(a) - rank(b) || ((a.from ?? '9999') < (b.from ?? '9999') ? -1 : 1));
  for (const supply of coming) netter.give(row, supply, Infinity, how);
}

/** Others' pieces from as few hands as can be: the one who has just enough, else who has most. */
function giveFromOthers(netter: Netter, row: Netted): void {
  while (row.short > 0) {
    const hands = new Map<string, Supply[]>();
    for (const supply of netter.fitting(row.demand))
      if (
        isHere(supply) &&
        supply.person !== null &&
        supply.person !== row.demand.person &&
        netter.remaining(supply) > 0
      )
        hands.set(supply.person, [...(hands.get(supply.person) ?? []), supply]);
    const givers = [...hands.values()]
      .map((list) => ({ list, has: list.reduce((sum, one) => sum + netter.remaining(one), 0) }))
      .toSorted((a, b) => b.has - a.has || ((a.list[0].person ?? '') < (b.list[0].person ?? '') ? -1 : 1));
    if (givers.length === 0) return;
    const enough = givers.filter(({ has }) => has >= row.short).at(-1);
    for (const supply of (enough ?? givers[0]).list) netter.give(row, supply, Infinity, 'handed');
  }
}

/** Accepted substitutes of what is still short, from present pieces that no other demand needs. */
function giveSubstitutes(netter: Netter, scene: Scene, row: Netted): void {
  for (const { part, colour, use, section } of listOf(scene, 'substitute')) {
    if (row.short === 0) return;
    const { demand } = row;
    if (demand.part !== part || demand.colour !== colour || (section !== null && section !== demand.section))
      continue;
    // Coloured lines first: one that takes any colour makes do with what they leave.
    const lines = use.toSorted((a, b) => Number(a.colour === ANY_COLOUR) - Number(b.colour === ANY_COLOUR));
    const stocks = lines.map((line) => ({
      line,
      // Only own and shared pieces: a substitute is never borrowed.
      from: netter
        .fitting({ ...line, source: demand.source })
        .filter((one) => isHere(one) && isOwn(one, demand)),
    }));
    const used = new Map<string, number>();
    let sets = 0;
    while (sets < row.short && takeSet(netter, stocks, used)) sets++;
    if (sets === 0) continue;
    for (const { from } of stocks)
      for (const supply of from) {
        const qty = used.get(supply.id) ?? 0;
        used.delete(supply.id);
        if (qty === 0) continue;
        netter.use(supply, qty);
        row.given.push({ demand: demand.id, supply: supply.id, qty, how: 'substitute' });
      }
    row.substituted += sets;
    row.short -= sets;
  }
}

/** Puts by what one set of a substitute takes of each line; false, and nothing more put by, where one line has too little. */
function takeSet(
  netter: Netter,
  stocks: readonly { line: { qty: number }; from: readonly Supply[] }[],
  used: Map<string, number>,
): boolean {
  const taken = new Map<string, number>();
  for (const { line, from } of stocks) {
    let open = line.qty;
    for (const supply of from) {
      const free = netter.remaining(supply) - (used.get(supply.id) ?? 0) - (taken.get(supply.id) ?? 0);
      const qty = Math.min(open, free);
      if (qty <= 0) continue;
      taken.set(supply.id, (taken.get(supply.id) ?? 0) + qty);
      open -= qty;
    }
    if (open > 0) return false;
  }
  for (const [id, qty] of taken) used.set(id, (used.get(id) ?? 0) + qty);
  return taken.size > 0;
}

/** What goes from hand to hand, one entry a giver, section, part and colour. */
function handOvers(netter: Netter, supplies: readonly Supply[]): Transfer[] {
  const byId = new Map(supplies.map((supply) => [supply.id, supply]));
  const notes = new Map<string, Transfer>();
  for (const { demand, given } of netter.rowsInOrder())
    for (const { supply: id, qty, how } of given) {
      const supply = byId.get(id);
      if (!supply || supply.person === null || isOwn(supply, demand) || !isHere(supply)) continue;
      const key = `${supply.person} ${demand.section} ${demand.part} ${supply.colour} ${supply.place}`;
      const note = notes.get(key);
      if (note) note.qty += qty;
      else
        notes.set(key, {
          ...{ from: supply.person, to: demand.person, section: demand.section, place: supply.place, qty },
          ...{ part: demand.part, colour: supply.colour, promised: how === 'promised' },
        });
    }
  return [...notes.values()];
}

/** What a section waits for: its short and late pieces, and the day by which they are needed. */
export interface Blocked {
  section: string | null;
  by: string | null;
  short: number;
  late: number;
  parts: number;
}

export function blockedSections(rows: readonly Netted[]): Blocked[] {
  const sections = new Map<string | null, Blocked>();
  for (const { demand, short, late } of rows) {
    if (short + late === 0) continue;
    const { section, by } = demand;
    const blocked = sections.get(section) ?? { section, by, short: 0, late: 0, parts: 0 };
    blocked.short += short;
    blocked.late += late;
    blocked.parts++;
    sections.set(section, blocked);
  }
  return [...sections.values()].toSorted((a, b) => b.short + b.late - a.short - a.late);
}
