import { MM, countOf, formatKg, formatMm } from '../grid/index.ts';
import { displayOf, type Scene } from '../document/index.ts';
import type { CarriedPiece } from '../cut/index.ts';
import { shareOf, type Reach } from '../reach/index.ts';
import { tableLoads } from '../venue/index.ts';
import type { Relief } from '../terrain/index.ts';
import { handsOf, nightsOf, type Shipment } from '../transport/index.ts';
import type { Power } from '../power/index.ts';

// Where the work at a show can hurt someone: the number, and the usual caution. Local rules and qualified people decide.

export interface Caution {
  about: 'Lifting' | 'Tipping' | 'Ladders' | 'Tables' | 'Mains and batteries' | 'Over night' | 'Small parts';
  /** What was computed. */
  found: string;
  caution: string;
}

/** The risk sheet of a show. @param scene in the place of its show */
export function showCautions(
  scene: Scene,
  relief: Relief,
  {
    shipment,
    carried,
    reach,
    power,
  }: { shipment: Shipment; carried: readonly CarriedPiece[]; reach: Reach; power: Power },
): Caution[] {
  const { tipLimit } = displayOf(scene);
  const heaviest = shipment.units.reduce<Shipment['units'][number] | null>(
    (a, b) => (a && a.grams >= b.grams ? a : b),
    null,
  );
  const many = shipment.units.filter((unit) => handsOf(unit) > 1);
  const tippy = carried.filter(({ tips }) => tips < tipLimit);
  const first = tippy.reduce<CarriedPiece | null>((a, b) => (a && a.tips <= b.tips ? a : b), null);
  const { pastArm } = shareOf(reach);
  const over = tableLoads(scene, relief).filter(
    ({ table, kg }) => table.ratedKg !== null && kg > table.ratedKg,
  );
  const mains = power.leads.filter(({ kind }) => kind === 'supply').length;
  const crossing = power.leads.filter(({ isCrossing }) => isCrossing).length;
  const batteries = power.supplies.filter(({ supply }) => supply.type === 'battery').length;
  const nights = nightsOf(scene);
  return [
    {
      about: 'Lifting',
      found: heaviest
        ? `The heaviest is ${heaviest.name}, ${formatKg(heaviest.grams)}; ${countOf(many.length, 'thing')} of ${shipment.units.length} ${many.length === 1 ? 'needs' : 'need'} two people or more.`
        : 'Nothing is carried yet.',
      caution: 'Lift with the knees, close to the body, and never alone what says two. Clear the way first.',
    },
    {
      about: 'Tipping',
      found: first
        ? `${countOf(tippy.length, 'carried piece')} ${tippy.length === 1 ? 'tips' : 'tip'} below ${tipLimit}°, first ${first.title} at ${Math.max(0, first.tips).toFixed(0)}°.`
        : `No carried piece tips below ${tipLimit}°.`,
      caution: 'Carry upright, set down on the level, keep children from what may fall toward them.',
    },
    {
      about: 'Ladders',
      found:
        pastArm > 0
          ? `${countOf(pastArm, 'stud')} lie beyond an arm of ${formatMm(Math.round(reach.arm) * MM)}.`
          : 'Everything is within an arm’s reach.',
      caution: 'A ladder stands on the level floor, one holds it, nobody leans over the display.',
    },
    {
      about: 'Tables',
      found:
        over.length > 0
          ? `${over.map(({ table, kg }) => `${table.name} bears ${kg.toFixed(0)} kg of ${table.ratedKg} kg`).join('; ')}.`
          : 'No table with a known rating is over it.',
      caution: 'Lock the legs, test by hand before anything is set on it, and let nobody lean or sit on it.',
    },
    {
      about: 'Mains and batteries',
      found: `${countOf(mains, 'mains plug')}, ${batteries} ${batteries === 1 ? 'battery' : 'batteries'}; ${countOf(crossing, 'lead')} over the floor where visitors stand.`,
      caution:
        'Only extra-low voltage is planned here: mains is for qualified people and the rules of the place. Cover leads, give adapters air, charge nothing unwatched.',
    },
    ...(nights === 0
      ? []
      : [
          {
            about: 'Over night' as const,
            found: `The display stands ${countOf(nights, 'night')} in the hall, ${countOf(mains, 'mains plug')} and ${countOf(shipment.units.length, 'thing')} with it.`,
            caution:
              'Pull every mains plug, charge nothing unwatched, cover what stands, take small loose things along, and ask who has the keys.',
          },
        ]),
    {
      about: 'Small parts',
      found: `${countOf(displayOf(scene).viewedSides.length, 'side')} of the display ${displayOf(scene).viewedSides.length === 1 ? 'is' : 'are'} open to visitors.`,
      caution: 'Small parts are no toys for children under three; keep what fell off the floor.',
    },
  ];
}
