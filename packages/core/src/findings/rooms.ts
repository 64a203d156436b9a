import { centreOf, countOf, formatPlates } from '../grid/index.ts';
import { SIDE_WORDS, listOf, type Entity } from '../document/index.ts';
import { STEEPEST, floorPlans, type FloorPlan } from '../structures/index.ts';
import type { FindingDraft, Rule } from './finding.ts';
import { plotRef } from './plots.ts';
import { tenth } from './figures.ts';

// What is judged of the rooms of buildings: what stands in them, doors that cannot open, stairs.

/** Buildings with something on a floor plan. */
const roomed = (plots: readonly Entity<'plot'>[]) =>
  plots
    .filter(({ fittings }) => fittings.some(({ place }) => place !== null))
    .map((plot) => ({ plot, floors: floorPlans(plot) }));

const onStorey = ({ number }: FloorPlan) => `on storey ${number}`;

const fittingFault: Rule = {
  id: 'fitting-fault',
  title: 'Something in a room has no room',
  basis:
    'The footprint of each thing on a floor plan against the inside of the walls (set into one it stays within its thickness), other things at its height, pillars under the floor above, and windows deeper than their wall.',
  page: 'plan',
  severity: 'warning',
  check: ({ scene }) =>
    roomed(listOf(scene, 'plot')).flatMap(({ plot, floors }): FindingDraft[] => {
      const faults = floors.flatMap((floor) =>
        floor.fittings.flatMap(({ name, fault }) => (fault === null ? [] : { floor, name, fault })),
      );
      const [first] = faults;
      if (!first) return [];
      const more = faults.length > 1 ? `, and ${countOf(faults.length - 1, 'thing')} more` : '';
      return [
        {
          sentence: `In “${plot.name}”, ${onStorey(first.floor)}, “${first.name}” has no room: ${first.fault}${more}.`,
          remedy: 'Move it or make it smaller under “Floors”.',
          place: centreOf(plot),
          things: [plotRef(plot)],
          numbers: { things: faults.length },
        },
      ];
    }),
};

const doorBlocked: Rule = {
  id: 'leaf-blocked',
  title: 'A door cannot open',
  basis:
    'The quarter circle that the leaf of each door sweeps into its room, hung at either end, against what stands there on the floor plan. A leaf is taken as wide as its door.',
  page: 'plan',
  severity: 'warning',
  check: ({ scene }) =>
    roomed(listOf(scene, 'plot')).flatMap(({ plot, floors }) =>
      floors.flatMap((floor) =>
        floor.doors.flatMap(({ side, leaf, blocked }, i): FindingDraft[] => {
          if (blocked.left === null || blocked.right === null) return [];
          const names = [...new Set([blocked.left, blocked.right])].map((name) => `“${name}”`).join(' and ');
          return [
            {
              sentence: `In “${plot.name}”, ${onStorey(floor)}, the door to the ${SIDE_WORDS[side]} cannot open inwards: ${names} ${blocked.left === blocked.right ? 'stands' : 'stand'} within the ${countOf(leaf, 'stud')} of its leaf, hung left or right.`,
              remedy: 'Move what stands there, or let the door open outwards.',
              place: centreOf(plot),
              part: `${floor.number} ${side} ${i}`,
              things: [plotRef(plot)],
              numbers: { leaf },
            },
          ];
        }),
      ),
    ),
};

const stairSteep: Rule = {
  id: 'stair-steep',
  title: 'A stair is too steep',
  basis: `From its floor to the next over its length: at most ${formatPlates(STEEPEST)} a stud (ours, no source).`,
  page: 'plan',
  severity: 'note',
  check: ({ scene }) =>
    roomed(listOf(scene, 'plot')).flatMap(({ plot, floors }) =>
      floors.flatMap((floor) =>
        floor.stairs.flatMap(({ index, name, rise, perStud }): FindingDraft[] => {
          if (perStud <= STEEPEST) return [];
          const needs = Math.ceil(rise / STEEPEST);
          return [
            {
              sentence: `In “${plot.name}”, ${onStorey(floor)}, “${name}” climbs ${formatPlates(rise)} at ${tenth(perStud)} plates a stud; at most ${formatPlates(STEEPEST)} a stud can be stepped up.`,
              remedy: `Make it ${countOf(needs, 'stud')} long.`,
              place: centreOf(plot),
              part: `stair ${index}`,
              things: [plotRef(plot)],
              numbers: { perStud: Number(perStud.toFixed(2)), needs },
            },
          ];
        }),
      ),
    ),
};

export const ROOM_RULES: readonly Rule[] = [fittingFault, doorBlocked, stairSteep];
