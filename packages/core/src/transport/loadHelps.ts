import type { Handling } from '../document/index.ts';
import { loadPlanOf } from './load.ts';
import type { PackOptions } from './packing.ts';
import { laidDown, type Carrier, type LoadUnit, type Shipment } from './shipment.ts';

// What would bring everything into the vehicles: small changes, each loaded again before it is offered.

/** What a help changes of the display. */
export type HelpChange =
  | { what: 'handling'; piece: string; set: Pick<Handling, 'lying'> }
  | { what: 'passage'; id: string; set: { trips: number } }
  | { what: 'gap'; loadGap: number }
  /** Nothing that is typed: another vehicle is needed. */
  | { what: 'vehicle' };

export interface LoadHelp {
  words: string;
  change: HelpChange;
  /** Things that are not loaded then. */
  left: number;
}

/** So many things are tried on their side. */
const MAX_LAID = 6;
/** Air about each thing that is tried, mm. */
const GAPS = [10, 5, 0];
/** How much larger a vehicle or its door is tried, in steps of 10 mm up to this, mm. */
const MAX_WIDER = 500;
const WIDER_STEP = 10;
const MAX_TRIPS = 20;

/**
 * Changes after which fewer things are left over, the best first, of the same use the smaller change first.
 * @param seconds for each that is tried
 */
export function loadHelps(
  shipment: Shipment,
  { seconds, now }: Pick<PackOptions, 'seconds' | 'now'>,
): LoadHelp[] {
  const leftOf = (changed: Shipment) => {
    const { left, tooLarge } = loadPlanOf(changed, { seconds, now });
    return left.length + tooLarge.length;
  };
  const plan = loadPlanOf(shipment, { seconds, now });
  const over = [...plan.tooLarge, ...plan.left];
  if (over.length === 0) return [];
  const tried = (words: string, change: HelpChange, changed: Shipment): LoadHelp[] => {
    const left = leftOf(changed);
    return left < over.length ? [{ words, change, left }] : [];
  };
  const unitOf = new Map(shipment.units.map((unit) => [unit.key, unit]));
  const { carriers, gap } = shipment;
  const helps = [
    ...over.slice(0, MAX_LAID).flatMap((key) => {
      const unit = unitOf.get(key);
      if (!unit || !canLie(unit)) return [];
      return tried(
        `Lay ${unit.name} on its side`,
        { what: 'handling', piece: key, set: { lying: true } },
        {
          ...shipment,
          units: shipment.units.map((one) => (one === unit ? { ...unit, ...laidDown(unit) } : one)),
        },
      );
    }),
    ...carriers
      .filter(({ trips }) => trips < MAX_TRIPS)
      .flatMap((carrier) =>
        tried(
          `Let the ${carrier.name} go ${carrier.trips + 1} times`,
          { what: 'passage', id: carrier.id, set: { trips: carrier.trips + 1 } },
          withCarrier(shipment, carrier, { ...carrier, trips: carrier.trips + 1 }),
        ),
      ),
    ...GAPS.filter((one) => one < gap)
      .slice(0, 1)
      .flatMap((loadGap) =>
        tried(
          `Keep ${loadGap} mm of air about each thing, not ${gap} mm`,
          { what: 'gap', loadGap },
          { ...shipment, gap: loadGap },
        ),
      ),
    ...carriers.slice(0, 1).flatMap((carrier) => wider(shipment, carrier, over.length, leftOf)),
  ];
  return helps.sort((a, b) => a.left - b.left);
}

/** What is no module, table or crate of loose parts may lie, where that makes it lower. */
const canLie = ({ ref, holds, w, d, h, handling }: LoadUnit): boolean =>
  ref !== null && ref.kind !== 'module' && holds.length === 0 && !handling?.lying && h > Math.min(w, d);

const withCarrier = (shipment: Shipment, old: Carrier, fresh: Carrier): Shipment => ({
  ...shipment,
  carriers: shipment.carriers.map((one) => (one === old ? fresh : one)),
});

/** The least by which a vehicle would have to be wider, longer or higher, in steps of 10 mm: not one that is at hand. */
function wider(
  shipment: Shipment,
  carrier: Carrier,
  over: number,
  leftOf: (changed: Shipment) => number,
): LoadHelp[] {
  const { space } = carrier;
  const ways = [
    {
      words: (mm: number) => `A vehicle ${mm} mm wider than the ${carrier.name}, its door too`,
      grown: (mm: number): Carrier => ({
        ...carrier,
        space: {
          ...space,
          w: space.w + mm,
          ...(space.door ? { door: { ...space.door, w: space.door.w + mm } } : {}),
        },
      }),
    },
    {
      words: (mm: number) => `A vehicle ${mm} mm longer than the ${carrier.name}`,
      grown: (mm: number): Carrier => ({ ...carrier, space: { ...space, d: space.d + mm } }),
    },
    {
      words: (mm: number) => `A vehicle ${mm} mm higher than the ${carrier.name}, its door too`,
      grown: (mm: number): Carrier => ({ ...carrier, space: { ...space, h: space.h + mm } }),
    },
  ];
  return ways.flatMap(({ words, grown }) => {
    const leftAt = (mm: number) => leftOf(withCarrier(shipment, carrier, grown(mm)));
    const least = leftAt(MAX_WIDER);
    if (least >= over) return [];
    // The search is no proof: a smaller size that was not found to do is passed over.
    let [low, high] = [0, MAX_WIDER / WIDER_STEP];
    while (high - low > 1) {
      const middle = Math.trunc((low + high) / 2);
      if (leftAt(middle * WIDER_STEP) <= least) high = middle;
      else low = middle;
    }
    return [{ words: words(high * WIDER_STEP), change: { what: 'vehicle' }, left: least }];
  });
}
