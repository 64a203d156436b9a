import { packingFaults } from './packingFaults.ts';
import { packingOf, type PackOptions, type Packing } from './packing.ts';
import type { Packed, PackItem } from './packItem.ts';
import { packItemOf, tripsOf, withoutModuleTurn, type Shipment } from './shipment.ts';

/** A thing where it stands in a vehicle, mm without the air about it: x from the left, y from the door. */
export interface PlacedUnit extends Packed {
  /** Its turn in being put in, from 1. */
  number: number;
}

/** One trip of one vehicle with what is in it. */
export interface TripLoad {
  /** Id of the vehicle. */
  carrier: string;
  trip: number;
  placed: PlacedUnit[];
  grams: number;
  /** Share of the floor that is stood on, 0 to 1. */
  floor: number;
  /** Share of the mass nearer to the left wall, and nearer to the door, 0 to 1. */
  left: number;
  rear: number;
}

/** How everything is loaded. */
export interface LoadPlan {
  trips: TripLoad[];
  /** No loading needs fewer trips. */
  bound: number;
  /** Keys of what fits into no vehicle, and of what the trips do not do for. */
  tooLarge: string[];
  left: string[];
  /** Modules stand in the order in which they are set down; false: in any order among themselves. */
  isInOrder: boolean;
}

/** Of the time for looking, the share with modules in the order in which they are set down. */
const SHARE_IN_ORDER = 0.6;

/**
 * Loads everything into the vehicles, what is needed first nearest to the door; where something is left over so, modules
 * in any order among themselves. The answer is checked before it is given.
 * @throws Error where the packing does not hold
 */
export function loadPlanOf(
  shipment: Shipment,
  { seconds, now }: Pick<PackOptions, 'seconds' | 'now'>,
  onBetter: (plan: LoadPlan) => void = () => undefined,
): LoadPlan {
  const trips = tripsOf(shipment.carriers);
  const spaces = trips.map(({ carrier }) => carrier.space);
  const strict = shipment.units.map((unit) => packItemOf(unit, shipment.gap));
  const packedIn = (items: readonly PackItem[], share: number, report: boolean): Packing =>
    packingOf(items, spaces, {
      ...{ seconds: seconds * share, now },
      ...(report ? { onBetter: (packing) => onBetter(planOf(items, packing)) } : {}),
    });
  const planOf = (items: readonly PackItem[], packing: Packing): LoadPlan => {
    const faults = packingFaults(items, spaces, packing.packed);
    if (faults.length > 0) throw new Error(`The loading does not hold: ${faults.join(' ')}`);
    return planFrom(shipment, trips, packing, items === strict);
  };
  const first = packedIn(strict, SHARE_IN_ORDER, true);
  if (first.left.length === 0) return planOf(strict, first);
  const anyModule = strict.map((item) => ({ ...item, order: withoutModuleTurn(item.order) }));
  const second = packedIn(anyModule, 1 - SHARE_IN_ORDER, false);
  return second.left.length < first.left.length ? planOf(anyModule, second) : planOf(strict, first);
}

function planFrom(
  { units, gap }: Shipment,
  trips: ReturnType<typeof tripsOf>,
  { packed, bound, tooLarge, left }: Packing,
  isInOrder: boolean,
): LoadPlan {
  const massOf = new Map(units.map(({ key, grams }) => [key, grams]));
  const loads = trips.map(({ carrier, trip }, i): TripLoad => {
    const own = packed.filter((one) => one.trip === i + 1);
    const { space } = carrier;
    const grams = own.reduce((sum, { id }) => sum + (massOf.get(id) ?? 0), 0);
    const share = (isOn: (one: Packed) => number) =>
      grams === 0 ? 0.5 : own.reduce((sum, one) => sum + (massOf.get(one.id) ?? 0) * isOn(one), 0) / grams;
    return {
      ...{ carrier: carrier.id, trip, grams },
      placed: own.map((one, n) => ({
        ...one,
        ...{ number: n + 1, x: one.x + gap / 2, y: one.y + gap / 2, w: one.w - gap, d: one.d - gap },
      })),
      floor:
        own.reduce((sum, { z, w, d }) => sum + (z === 0 ? (w - gap) * (d - gap) : 0), 0) /
        (space.w * space.d),
      left: share(({ x, w }) => partBefore(x, w, space.w / 2)),
      rear: share(({ y, d }) => partBefore(y, d, space.d / 2)),
    };
  });
  return { trips: loads.filter(({ placed }) => placed.length > 0), bound, tooLarge, left, isInOrder };
}

/** What share of a length from a point on lies before another. */
const partBefore = (from: number, length: number, to: number): number =>
  Math.min(1, Math.max(0, (to - from) / length));
