import { partName } from '../catalogue/index.ts';
import { centreOf, countOf, formatPlates } from '../grid/index.ts';
import { SIDE_WORDS, builtRect, listOf, turnedPoint, type Entity, type Scene } from '../document/index.ts';
import { NO_SLAB, OUTSIDE, floorBeside, indexAt, standsOn, topAt, type Relief } from '../terrain/index.ts';
import { frontsOf, type WallOpening, type PlacedBay } from '../structures/index.ts';
import type { FindingDraft, Rule } from './finding.ts';
import { plotRef } from './plots.ts';

// What is judged of the fronts of buildings: what does not fit into its bay, and doors that lead nowhere.

const bayOf = ({ index, side, storey }: PlacedBay): string =>
  `bay ${index + 1} of its ${SIDE_WORDS[side]} front, storey ${storey}`;

const bayFault: Rule = {
  id: 'bay-fault',
  title: 'Something does not fit into its bay',
  basis:
    'What is let into the middle of each bay, in whole courses of bricks, against the width of the bay, the corners of the building, the height of its storey, and the places where a seam may cut it. What does not fit is left out: the wall there is counted plain.',
  page: 'plan',
  severity: 'warning',
  check: ({ scene }) =>
    listOf(scene, 'plot').flatMap((plot): FindingDraft[] => {
      const faults = frontsOf(plot).flatMap(({ bays }) => bays.filter(({ fault }) => fault !== null));
      const [first] = faults;
      if (!first) return [];
      const more = faults.length > 1 ? `, and ${countOf(faults.length - 1, 'bay')} more` : '';
      return [
        {
          sentence: `“${plot.name}”: ${partName(first.bay.part ?? '')} is not let into ${bayOf(first)}: ${first.fault ?? ''}${more}.`,
          remedy: 'Choose another part, sill or width for the bay under “Fronts”.',
          place: centreOf(plot),
          things: [plotRef(plot)],
          numbers: { bays: faults.length },
        },
      ];
    }),
};

/** A door is stepped up to by a brick at most, plates (ours, no source). */
const STEP = 3;

/** Heights on which one could stand before a door, plates above datum: ground, decks, floors of cavities, roofs. */
function surfacesAt(
  scene: Scene,
  relief: Relief,
  own: Entity<'plot'>,
  at: { x: number; y: number },
): number[] {
  const [x, y] = [Math.floor(at.x), Math.floor(at.y)];
  const i = indexAt(relief, x, y);
  if (i < 0 || relief.ground[i] === OUTSIDE) return [];
  const slabs = relief.slabs.flatMap((slab) => {
    const top = topAt(slab, x, y);
    return slab.kind === 'cavity' || top === NO_SLAB ? [] : [top];
  });
  const roofs = listOf(scene, 'plot').flatMap((plot) => {
    const local = turnedPoint(at, centreOf(plot), -plot.turn);
    const built = builtRect(plot);
    const isOn =
      plot.id !== own.id &&
      local.x >= built.x &&
      local.y >= built.y &&
      local.x < built.x + built.w &&
      local.y < built.y + built.d;
    const foot = isOn ? standsOn(scene, relief, plot) : null;
    return foot === null ? [] : [foot + plot.height];
  });
  return [floorBeside(scene, relief, own, at), relief.height[i], ...slabs, ...roofs];
}

/** The middle of the stud before an opening, on the plan. */
function before(plot: Entity<'plot'>, { side, from, wide }: WallOpening): { x: number; y: number } {
  const { x, y, w, d } = builtRect(plot);
  const middle = from + wide / 2;
  const at = {
    n: { x: x + middle, y: y - 0.5 },
    s: { x: x + middle, y: y + d + 0.5 },
    w: { x: x - 0.5, y: y + middle },
    e: { x: x + w + 0.5, y: y + middle },
  }[side];
  return turnedPoint(at, centreOf(plot), plot.turn);
}

const doorLeads: Rule = {
  id: 'door-leads',
  title: 'A door leads nowhere',
  basis: `The foot of each door against what one could stand on a stud before it: ground, deck, bridge or a roof, at most ${STEP} plates lower (a step of a brick; ours, no source) and no higher than the door’s foot.`,
  page: 'plan',
  severity: 'warning',
  check: ({ scene, relief }) =>
    listOf(scene, 'plot').flatMap((plot): FindingDraft[] => {
      const doors = frontsOf(plot).flatMap(({ bays }) =>
        bays.flatMap((bay) => (bay.opening?.part.family === 'door' ? { bay, opening: bay.opening } : [])),
      );
      const foot = doors.length > 0 ? standsOn(scene, relief, plot) : null;
      if (foot === null) return [];
      return doors.flatMap(({ bay, opening }): FindingDraft[] => {
        const at = before(plot, opening);
        const z = foot + opening.foot;
        const surfaces = surfacesAt(scene, relief, plot, at);
        if (surfaces.some((height) => height <= z && height >= z - STEP)) return [];
        const below = Math.max(...surfaces.filter((height) => height < z));
        const above = Math.min(...surfaces.filter((height) => height > z));
        const [what, by] =
          surfaces.length === 0
            ? ['over the edge of the display', 0]
            : Number.isFinite(below)
              ? [`${formatPlates(z - below)} above what lies before it`, z - below]
              : [`${formatPlates(above - z)} below what lies before it`, z - above];
        return [
          {
            sentence: `The door in ${bayOf(bay)} of “${plot.name}” leads ${what}; it may be stepped up to by ${formatPlates(STEP)}.`,
            remedy: 'Lay ground, a stair or a deck before it at its height, or choose another bay.',
            place: at,
            part: `${bay.side} ${bay.storey} ${bay.index}`,
            things: [plotRef(plot)],
            numbers: { by },
          },
        ];
      });
    }),
};

export const BAY_RULES: readonly Rule[] = [bayFault, doorLeads];
