import { partName } from '../catalogue/index.ts';
import { centreOf, countOf, formatPlates } from '../grid/index.ts';
import {
  SIDES,
  SIDE_WORDS,
  builtCorners,
  listOf,
  wallTop,
  type Entity,
  type Scene,
} from '../document/index.ts';
import {
  NO_SLAB,
  OUTSIDE,
  floorBeside,
  indexAt,
  isInOutline,
  standsOn,
  topAt,
  type Point,
  type Relief,
  wallTopsAt,
} from '../terrain/index.ts';
import { frontsOf, partJoints, placeOfOpening, unevenWindows, type PlacedBay } from '../structures/index.ts';
import type { FindingDraft, Rule } from './finding.ts';
import { plotRef } from './plots.ts';

// What is judged of the fronts of buildings: what does not fit into its bay, and doors that lead nowhere.

const bayOf = ({ index, side, recess, storey }: PlacedBay): string =>
  `bay ${index + 1} of its ${SIDE_WORDS[side]} front${recess === null ? '' : ` in recess ${recess}`}, storey ${storey}`;

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
/** One stands on the stud before it: from the wall to its middle. */
const HALF_STUD = 0.5;
/** Doors of two buildings that stand wall to wall face each other when they are no farther aside, studs. */
const MAX_ASIDE = 0.5;

/** A door or an arch in a wall, with the height of its foot, plates above datum. */
interface WayThrough {
  bay: PlacedBay;
  /** On the face of the wall, and half a stud before it. */
  face: Point;
  before: Point;
  z: number;
}

function waysThrough(plot: Entity<'plot'>, foot: number, families: readonly string[]): WayThrough[] {
  return frontsOf(plot).flatMap(({ bays }) =>
    bays.flatMap((bay) => {
      const { opening } = bay;
      if (!opening || !families.includes(opening.part.family)) return [];
      const [face, before] = [placeOfOpening(plot, opening), placeOfOpening(plot, opening, HALF_STUD)];
      return [{ bay, face, before, z: foot + opening.foot }];
    }),
  );
}

/** What lies before a door: heights one could stand on, plates above datum, and a building that stands in the way. */
interface Before {
  surfaces: number[];
  blockedBy: Entity<'plot'> | null;
}

/** Ground, decks, floors of cavities, roofs and tops of walls at a place. @param z of the door's foot */
function beforeDoor(scene: Scene, relief: Relief, own: Entity<'plot'>, at: Point, z: number): Before {
  const [x, y] = [Math.floor(at.x), Math.floor(at.y)];
  const i = indexAt(relief, x, y);
  if (i < 0 || relief.ground[i] === OUTSIDE) return { surfaces: [], blockedBy: null };
  const surfaces = [floorBeside(scene, relief, own, at), relief.height[i], ...wallTopsAt(scene, relief, at)];
  for (const slab of relief.slabs) {
    const top = topAt(slab, x, y);
    if (slab.kind !== 'cavity' && top !== NO_SLAB) surfaces.push(top);
  }
  let blockedBy: Entity<'plot'> | null = null;
  for (const plot of listOf(scene, 'plot')) {
    const isIn = isInOutline(builtCorners(plot), at);
    const foot = plot.id !== own.id && isIn ? standsOn(scene, relief, plot) : null;
    if (foot === null) continue;
    surfaces.push(foot + plot.height);
    if (foot <= z && foot + plot.height > z) blockedBy = plot;
  }
  return { surfaces, blockedBy };
}

/** The door or arch of the building behind a wall that faces a door best. */
interface Facing {
  /** How far it stands aside, studs east and south, and how much higher, plates. */
  east: number;
  south: number;
  higher: number;
}

/** @returns null where that building has none on that side */
function facingDoor(door: WayThrough, other: Entity<'plot'>, foot: number): Facing | null {
  const out = { x: door.before.x - door.face.x, y: door.before.y - door.face.y };
  const found = waysThrough(other, foot, ['door', 'arch']).flatMap(({ face, before, z }): Facing[] => {
    // It looks the other way, and so back into this building.
    const looks = out.x * (before.x - face.x) + out.y * (before.y - face.y);
    if (looks > -0.99 * HALF_STUD * HALF_STUD) return [];
    const [dx, dy] = [face.x - door.face.x, face.y - door.face.y];
    // What of the way to it runs along the wall.
    const through = (dx * out.x + dy * out.y) / (HALF_STUD * HALF_STUD);
    return [{ east: dx - through * out.x, south: dy - through * out.y, higher: z - door.z }];
  });
  const off = ({ east, south, higher }: Facing) => Math.hypot(east, south) + Math.abs(higher) / STEP;
  return found.reduce<Facing | null>(
    (best, one) => (best === null || off(one) < off(best) ? one : best),
    null,
  );
}

const asideOf = ({ east, south }: Facing): number => Math.hypot(east, south);
const isFacing = (one: Facing): boolean => asideOf(one) <= MAX_ASIDE + 1e-9 && Math.abs(one.higher) <= STEP;

/** What stands behind the wall that a door opens on. */
function behindWall(other: Entity<'plot'>, facing: Facing | null): string {
  if (!facing) return `into “${other.name}”, which has no door there`;
  const aside = asideOf(facing);
  const off = [
    ...(aside > MAX_ASIDE + 1e-9 ? [`${countOf(Number(aside.toFixed(1)), 'stud')} aside`] : []),
    ...(facing.higher === 0
      ? []
      : [`${formatPlates(Math.abs(facing.higher))} ${facing.higher > 0 ? 'higher' : 'lower'}`]),
  ];
  return `into the wall of “${other.name}”, whose door there stands ${off.join(' and ')}`;
}

/** Where a door leads that leads nowhere, and by how many plates it is above what lies before it. */
function whereTo(z: number, surfaces: readonly number[]): { words: string; by: number } {
  if (surfaces.length === 0) return { words: 'over the edge of the display', by: 0 };
  const below = surfaces.filter((height) => height < z);
  if (below.length > 0) {
    const by = z - Math.max(...below);
    return { words: `${formatPlates(by)} above what lies before it`, by };
  }
  const by = Math.min(...surfaces) - z;
  return { words: `${formatPlates(by)} below what lies before it`, by: -by };
}

const doorLeads: Rule = {
  id: 'door-leads',
  title: 'A door leads nowhere',
  basis: `The foot of each door against what one could stand on a stud before it: ground, deck, bridge, wall or a roof that no building takes, at most ${STEP} plates lower (a step of a brick; ours, no source) and no higher than the door’s foot; or, wall to wall with another building, a door or arch of that one at most half a stud aside and a step higher or lower.`,
  page: 'plan',
  severity: 'warning',
  check: ({ scene, relief }) =>
    listOf(scene, 'plot').flatMap((plot): FindingDraft[] => {
      const foot = plot.bays.length > 0 ? standsOn(scene, relief, plot) : null;
      if (foot === null) return [];
      return waysThrough(plot, foot, ['door']).flatMap((door): FindingDraft[] => {
        const { bay, before, z } = door;
        const { surfaces, blockedBy } = beforeDoor(scene, relief, plot, before, z);
        if (blockedBy === null && surfaces.some((height) => height <= z && height >= z - STEP)) return [];
        const foots = blockedBy && standsOn(scene, relief, blockedBy);
        const facing = blockedBy && foots !== null ? facingDoor(door, blockedBy, foots) : null;
        if (facing && isFacing(facing)) return [];
        const { words, by } = blockedBy
          ? { words: behindWall(blockedBy, facing), by: 0 }
          : whereTo(z, surfaces);
        return [
          {
            sentence: `The door in ${bayOf(bay)} of “${plot.name}” leads ${words}; it may be stepped up to by ${formatPlates(STEP)}.`,
            remedy: blockedBy
              ? 'Let a door of both stand at one place and height, part the buildings, or choose another bay.'
              : 'Lay ground, a stair or a deck before it at its height, clear its way, or choose another bay.',
            place: before,
            part: `${bay.side} ${bay.storey} ${bay.index}`,
            things: [plotRef(plot), ...(blockedBy ? [plotRef(blockedBy)] : [])],
            numbers: { by, ...(facing ? { east: facing.east, south: facing.south } : {}) },
          },
        ];
      });
    }),
};

const partJoint: Rule = {
  id: 'part-joint',
  title: 'A part lifts off through the roof',
  basis:
    'Where each part that lifts off begins, from the top of the building down, against the eaves: a roof of slopes comes off whole, with its courses tied to one another, or not at all.',
  page: 'plan',
  severity: 'warning',
  check: ({ scene }) =>
    listOf(scene, 'plot').flatMap((plot): FindingDraft[] => {
      const eaves = wallTop(plot);
      // Over a joint in the slopes all that is above the eaves comes off as one.
      const joint = partJoints(plot).find(({ z }) => z > eaves);
      if (!joint || plot.eaves === null) return [];
      return [
        {
          sentence: `“${joint.name}” of “${plot.name}” lifts off at ${formatPlates(joint.z)}, ${formatPlates(joint.z - eaves)} above its eaves, through its roof.`,
          remedy: `Lift it off at the eaves: make it ${formatPlates(plot.parts[joint.part].height + joint.z - eaves)} high.`,
          place: centreOf(plot),
          part: `part ${joint.part}`,
          things: [plotRef(plot)],
          numbers: { part: joint.part, by: joint.z - eaves },
        },
      ];
    }),
};

const windowRow: Rule = {
  id: 'window-row',
  title: 'Windows of two sides stand at different heights',
  basis:
    'The feet of the windows of one storey, side by side, against those of the street front, or of the first side that has any: a row that goes round a building is read as one (common practice, no source).',
  page: 'plan',
  severity: 'note',
  check: ({ scene }) =>
    listOf(scene, 'plot').flatMap((plot) =>
      unevenWindows(plot).map(({ storey, side, like, foot, wanted }): FindingDraft => {
        const rows = `${formatPlates(foot)} to the ${SIDE_WORDS[side]} and at ${formatPlates(wanted)} to the ${SIDE_WORDS[like]}`;
        return {
          sentence: `On storey ${storey} of “${plot.name}” windows stand at ${rows}; one row is wanted all round.`,
          remedy: `Give them one sill: ${formatPlates(Math.abs(wanted - foot))} ${wanted > foot ? 'up' : 'down'} to the ${SIDE_WORDS[side]}.`,
          place: centreOf(plot),
          part: `${side} ${storey}`,
          things: [plotRef(plot)],
          numbers: { storey, side: SIDES.indexOf(side), by: wanted - foot },
        };
      }),
    ),
};

export const BAY_RULES: readonly Rule[] = [bayFault, doorLeads, partJoint, windowRow];
