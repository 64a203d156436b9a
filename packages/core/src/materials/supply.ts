import { ANY_COLOUR } from '../catalogue/index.ts';
import { displayOf, isComing, listOf, type Scene } from '../document/index.ts';

// What is there and what is coming: drawers, donated bulk, opened kits, loans and orders.

export type SupplyKind = 'lot' | 'kit' | 'loan' | 'order';
export interface Supply {
  id: string;
  kind: SupplyKind;
  /** Owner; null: shared (donated, or no owner given). */
  person: string | null;
  part: string;
  colour: string;
  qty: number;
  /** The day it comes; null: it is here, or, of orders, unknown. */
  from: string | null;
  /** The drawer, kit or order. */
  place: string;
  /** Of orders whose lines are meant for one section. */
  section: string | null;
  /** Of drawers: good enough where it is not seen. */
  isWorn: boolean;
}

/** What supplies are read from. */
export const SUPPLY_KINDS = ['display', 'person', 'lot', 'loan', 'partList', 'order'] as const;

/**
 * All supplies. A loan is subtracted from the lender and added to the borrower until it is returned.
 */
export function suppliesOf(scene: Pick<Scene, (typeof SUPPLY_KINDS)[number]>): Supply[] {
  const supplies: Supply[] = [];
  const lots = listOf(scene, 'lot').map((lot) => ({ ...lot }));
  for (const loan of listOf(scene, 'loan')) {
    if (loan.back !== null) continue;
    let lent = loan.qty;
    for (const lot of lots) {
      if (lent === 0) break;
      if (lot.bulk || lot.owner !== loan.from || lot.part !== loan.part || lot.colour !== loan.colour)
        continue;
      const taken = Math.min(lot.qty, lent);
      lot.qty -= taken;
      lent -= taken;
    }
    const { id, to, from, part, colour, qty } = loan;
    const lender = from === null ? 'somebody' : (scene.person[from]?.name ?? from);
    supplies.push({
      ...{ id: `loan ${id}`, kind: 'loan', person: to, part, colour, from: null, section: null },
      isWorn: false,
      // Only what the lender's drawers gave: nothing is made by lending. Drawers that were never counted give all.
      qty: lots.some((lot) => lot.owner === from && lot.part === part && lot.colour === colour)
        ? qty - lent
        : qty,
      place: `lent by ${lender}`,
    });
  }
  for (const { id, owner, part, colour, qty, place, bulk, worn } of lots)
    if (qty > 0)
      supplies.push({
        ...{
          id: `lot ${id}`,
          kind: 'lot',
          person: bulk ? null : owner,
          part,
          colour,
          qty,
          from: null,
          section: null,
          isWorn: worn,
        },
        place: place || (bulk ? 'donated bulk' : 'no drawer'),
      });
  const { sourceRule, kitName, kitCopies } = displayOf(scene);
  const isCards = (name: string) =>
    kitName === '' || name.trim().toLowerCase() === kitName.trim().toLowerCase();
  for (const list of listOf(scene, 'partList'))
    // Where the card lets one kit in, other kits and further copies give nothing.
    if (list.use === 'kit' && (sourceRule !== 'kit' || isCards(list.name)))
      for (const [index, { part, colour, qty }] of list.lines.entries())
        if (qty > 0)
          supplies.push({
            ...{
              id: `kit ${list.id} ${index}`,
              kind: 'kit',
              person: list.owner,
              part,
              colour,
              from: null,
              section: null,
              isWorn: false,
            },
            ...{
              qty: qty * (sourceRule === 'kit' ? Math.min(list.copies, kitCopies) : list.copies),
              place: list.name,
            },
          });
  for (const order of listOf(scene, 'order'))
    if (isComing(order))
      for (const [index, { part, colour, qty, came, section }] of order.lines.entries())
        if (qty > came)
          supplies.push({
            ...{ id: `order ${order.id} ${index}`, kind: 'order', person: order.by, part, colour, section },
            ...{ qty: qty - came, from: order.expected, place: order.name, isWorn: false },
          });
  return supplies;
}

/**
 * The colours a part is known to come in: as listed for its type, and as found in drawers, kits and orders. Empty:
 * unknown.
 */
export function coloursKnown(scene: Scene, part: string): string[] {
  const known = new Set(Object.hasOwn(scene.partType, part) ? scene.partType[part].colours : []);
  const see = (line: { part: string; colour: string }) => {
    if (line.part === part && line.colour !== ANY_COLOUR) known.add(line.colour);
  };
  listOf(scene, 'lot').forEach(see);
  for (const { use, lines } of listOf(scene, 'partList')) if (use === 'kit') lines.forEach(see);
  for (const { lines } of listOf(scene, 'order')) lines.forEach(see);
  return [...known].filter((colour) => colour !== ANY_COLOUR).sort();
}
