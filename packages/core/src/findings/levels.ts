import { MM_PER_PLATE, PLATES_PER_BRICK, countOf, formatPlates } from '../grid/index.ts';
import {
  displayOf,
  labelOf,
  listOf,
  standingOf,
  type BaseKind,
  STANDING_KINDS,
  isStandingKind,
  type Kind,
  type Scene,
} from '../document/index.ts';
import {
  NO_SLAB,
  cavityCard,
  eachPlotSpan,
  eachRunSpan,
  eachStripStud,
  eachWallStud,
  eachStudOf,
  eachTouched,
  heightOfStud,
  influenceOf,
  laidOn,
  levelHeight,
  shapesNear,
  shapesOf,
  slabIndex,
  spanOf,
  laidStrips,
  surfaceUnder,
  topAt,
  undersideAt,
  wholePlates,
  type Relief,
  type Slab,
} from '../terrain/index.ts';
import { SLAB_KINDS } from './decks.ts';
import type { FindingDraft, Rule } from './finding.ts';

// What is judged of decks, bridges and cavities, and of what stands on or under them.

const nameOf = (scene: Scene, { kind, id }: Pick<Slab, 'kind' | 'id'>): string =>
  kind === 'cavity'
    ? `The roof of “${labelOf(scene, kind, id)}”`
    : `${kind === 'deck' ? '' : 'The bridge of '}“${labelOf(scene, kind, id)}”`;

const slabSpan: Rule = {
  id: 'slab-span',
  title: 'A deck, a bridge or a roof hangs too far free',
  basis:
    'From each stud over air to the nearest pillar, wall, pier or ground that carries it, counted over the slab by sides and corners, against half of the widest free square that the Brief allows a deck.',
  page: 'plan',
  severity: 'warning',
  check: ({ scene, relief }) =>
    relief.slabs.flatMap((slab): FindingDraft[] => {
      const most = displayOf(scene).deckSpan / 2;
      const { far, at } = spanOf(slab);
      if (far !== null && far <= most) return [];
      const draft = { place: at, things: [{ kind: slab.kind as Kind, id: slab.id }] };
      if (far === null)
        return [
          {
            ...draft,
            severity: 'error',
            sentence: `${nameOf(scene, slab)} has studs that nothing carries; each must be joined to a support.`,
            remedy: SPAN_REMEDIES[slab.kind],
            numbers: { far: -1, most },
          },
        ];
      return [
        {
          ...draft,
          sentence: `${nameOf(scene, slab)} has a stud ${countOf(far, 'stud')} from what carries it; at most ${most} are allowed (half of ${2 * most}).`,
          remedy: SPAN_REMEDIES[slab.kind],
          numbers: { far, most },
        },
      ];
    }),
};

const SPAN_REMEDIES: Record<Slab['kind'], string> = {
  deck: 'Stand supports closer together, choose walls, or allow a wider free square in the Brief.',
  way: 'Stand a pier where none is in the way, or allow a wider free square in the Brief.',
  track: 'Stand a pier where none is in the way, or allow a wider free square in the Brief.',
  cavity: 'Make the cavity narrower, or leave ground standing in it.',
};

/** Ground over a cavity is at least a plate and its cover, so that its joints are tied (common practice, no source). */
const MIN_ROOF = 2;

const cavityRoof: Rule = {
  id: 'cavity-roof',
  title: 'The roof of a cavity is too thin',
  basis: `The ground between a cavity’s ceiling and the surface, where it is thinnest: ${MIN_ROOF} plates at least, so that one ties the joints of the other.`,
  page: 'plan',
  severity: 'warning',
  check: ({ scene, relief }) =>
    listOf(scene, 'cavity').flatMap((cavity): FindingDraft[] => {
      const card = cavityCard(scene, relief, cavity.id);
      if (!card?.roof || card.roof.plates >= MIN_ROOF) return [];
      return [
        {
          sentence: `The roof of “${cavity.name}” is ${formatPlates(card.roof.plates)} thick near ${Math.floor(card.roof.at.x)}, ${Math.floor(card.roof.at.y)}; it should be at least ${formatPlates(MIN_ROOF)}.`,
          remedy: `Lower its floor or its clear height by ${countOf(MIN_ROOF - card.roof.plates, 'plate')}.`,
          place: card.roof.at,
          things: [{ kind: 'cavity', id: cavity.id }],
          numbers: { roof: card.roof.plates, least: MIN_ROOF },
        },
      ];
    }),
};

const cavityOpen: Rule = {
  id: 'cavity-open',
  title: 'A closed cavity is open to the sky',
  basis:
    'Studs of a cellar or a space for a mechanism over which the ground is no higher than its ceiling. Tunnels and caves have mouths and may be open.',
  page: 'plan',
  severity: 'warning',
  check: ({ scene, relief }) =>
    listOf(scene, 'cavity').flatMap((cavity): FindingDraft[] => {
      const card = cavityCard(scene, relief, cavity.id);
      const draft = { things: [{ kind: 'cavity' as const, id: cavity.id }] };
      if (!card)
        return [
          {
            ...draft,
            sentence: `“${cavity.name}” takes away 0 studs of ground: nothing is above its floor at ${formatPlates(levelHeight(scene, cavity))}.`,
            remedy: 'Lower its floor, raise the ground over it, or remove it.',
            place: { x: cavity.x + cavity.w / 2, y: cavity.y + cavity.d / 2 },
            numbers: { roofed: 0 },
          },
        ];
      if (card.open === 0 || cavity.use === 'tunnel' || cavity.use === 'cave') return [];
      return [
        {
          ...draft,
          sentence: `“${cavity.name}” is open to the sky on ${countOf(card.open, 'stud')}; a ${cavity.use === 'cellar' ? 'cellar' : 'space for a mechanism'} has 0.`,
          remedy: 'Lower its floor or its clear height, or raise the ground over it.',
          place: { x: cavity.x + cavity.w / 2, y: cavity.y + cavity.d / 2 },
          numbers: { open: card.open },
        },
      ];
    }),
};

/** Room a figure needs, plates (40 mm, from memory), and a road: 4.5 m of clear height (usual on European roads, from memory). */
const FIGURE_ROOM = 13;
const ROAD_ROOM_M = 4.5;

/** Clear height that a way needs over it, plates. */
function roomOverWay(scene: Scene, id: string): number {
  const { ratio } = displayOf(scene);
  return scene.way[id]?.use === 'road' ? Math.ceil((1000 * ROAD_ROOM_M) / ratio / MM_PER_PLATE) : FIGURE_ROOM;
}

const wayRoom: Rule = {
  id: 'way-room',
  title: 'Too little room over a way or a track',
  basis: `Air from a way to the deck, bridge or ceiling over it: a road needs ${ROAD_ROOM_M} m at the display’s scale, a path a figure’s ${formatPlates(FIGURE_ROOM)}, a track in a cavity its own clear height. Decks over tracks are judged by the track’s clear width.`,
  page: 'plan',
  severity: 'warning',
  check({ scene, relief }) {
    if (relief.slabs.length === 0) return [];
    const shapes = shapesOf(scene, relief);
    return laidStrips(scene, relief).flatMap((strip): FindingDraft[] => {
      const reach = influenceOf(scene, strip.kind, strip.id);
      if (!reach) return [];
      const need =
        strip.kind === 'track' ? (scene.track[strip.id]?.clearHeight ?? 0) : roomOverWay(scene, strip.id);
      const near = shapesNear(shapes, reach);
      const low: Lowest[] = [];
      eachStripStud(strip.points, strip.width / 2, relief, (x, y, along) => {
        const z = wholePlates(strip.heightAt(along));
        const lies = laidOn(near, strip, x, y, z, heightOfStud(relief, x, y) ?? 0);
        for (const over of relief.slabs) {
          const isOwn = over.kind === strip.kind && over.id === strip.id;
          const isCeiling = lies.on === 'cavity' && over.kind === 'cavity' && over.id === lies.id;
          if (isOwn || (over.kind === 'cavity') !== isCeiling || topAt(over, x, y) === NO_SLAB) continue;
          if (!isCeiling && strip.kind === 'track') continue;
          const air = undersideAt(over, slabIndex(over, x, y)) - z;
          if (air > 0 && air < need && air < (low.at(-1)?.air ?? Infinity))
            low.push({ air, over, at: { x: x + 0.5, y: y + 0.5 } });
        }
      });
      const worst = low.at(-1);
      return worst ? [wayDraft(scene, strip, need, worst)] : [];
    });
  },
};

/** Where there is least air over a way, and what is over it. */
interface Lowest {
  air: number;
  over: Slab;
  at: { x: number; y: number };
}

function wayDraft(
  scene: Scene,
  strip: { kind: 'way' | 'track'; id: string },
  need: number,
  { air, over, at }: Lowest,
): FindingDraft {
  const what = over.kind === 'cavity' ? 'The ceiling of' : 'The underside of';
  return {
    sentence: `${what} “${labelOf(scene, over.kind, over.id)}” leaves ${formatPlates(air)} over “${labelOf(scene, strip.kind, strip.id)}” near ${Math.floor(at.x)}, ${Math.floor(at.y)}; it needs ${formatPlates(need)}.`,
    remedy:
      over.kind === 'cavity'
        ? 'Make the cavity higher, or lead it deeper.'
        : 'Raise what is over it, or lead it lower.',
    place: at,
    things: [
      { kind: strip.kind, id: strip.id },
      { kind: over.kind, id: over.id },
    ],
    numbers: { air, need },
  };
}

const roomOver: Rule = {
  id: 'room-over',
  title: 'Something is taller than the room over it',
  basis:
    'What stands on the ground, in a cavity or on a lower deck, from its foot to its top, against the underside of the deck, bridge or ceiling over it.',
  page: 'plan',
  severity: 'error',
  check({ scene, relief, bodies }) {
    if (relief.slabs.length === 0) return [];
    const found = new Map<string, FindingDraft & { room: number }>();
    for (const body of bodies()) {
      if (SLAB_KINDS.includes(body.kind)) continue;
      for (const slab of relief.slabs) {
        const isInside = slab.kind === 'cavity' && isIn(scene, body, slab.id);
        if (slab.kind === 'cavity' && !isInside) continue;
        eachTouched(body.corners, slab, (row, from, to) => {
          for (let x = from; x < to; x++) {
            const k = (row - slab.y) * slab.w + x - slab.x;
            if (slab.top[k] === NO_SLAB || body.begins >= slab.top[k] || body.top <= undersideAt(slab, k))
              continue;
            const room = undersideAt(slab, k) - body.ground;
            const key = `${body.kind} ${body.id} ${slab.kind} ${slab.id}`;
            const known = found.get(key);
            if (known && known.room <= room) continue;
            found.set(key, {
              room,
              sentence: `“${labelOf(scene, body.kind, body.id)}” is ${formatPlates(body.top - body.ground)} tall; ${nameOf(scene, slab).replace(/^The/, 'the')} leaves ${formatPlates(Math.max(0, room))} over where it stands.`,
              remedy: 'Make it lower, move it, or raise what is over it.',
              place: { x: x + 0.5, y: row + 0.5 },
              things: [
                { kind: body.kind, id: body.id },
                { kind: slab.kind, id: slab.id },
              ],
              numbers: { tall: body.top - body.ground, room },
            });
          }
        });
      }
    }
    return [...found.values()].map(({ room: _room, ...draft }) => draft);
  },
};

/** Whether a thing stands in a cavity, by what it names. */
function isIn(scene: Scene, { kind, id }: { kind: Kind; id: string }, cavity: string): boolean {
  const thing = isStandingKind(kind) ? scene[kind][id] : undefined;
  return thing !== undefined && standingOf(thing)?.kind === 'cavity' && thing.inCavity === cavity;
}

const standsOnNothing: Rule = {
  id: 'stands-on-nothing',
  title: 'Something stands on what is not under it',
  basis:
    'The studs that a thing’s foot touches, against those of the deck, the cavity, the building or the wall it is set to stand on.',
  page: 'plan',
  severity: 'error',
  check({ scene, relief }) {
    const shapes = listOf(scene, 'cavity').length > 0 ? shapesOf(scene, relief).cavities : [];
    return STANDING_KINDS.flatMap((kind) =>
      listOf(scene, kind).flatMap((thing): FindingDraft[] => {
        const on = standingOf(thing);
        if (!on || on.kind === 'ground') return [];
        const under = studsUnder(scene, relief, shapes, on);
        const own = footOf(scene, relief, kind, thing.id, on.kind);
        const carried = own.filter((stud) => under.has(stud)).length;
        if (own.length === 0 || carried === own.length) return [];
        const name = labelOf(scene, kind, thing.id);
        const base = labelOf(scene, on.kind, on.id);
        const all = `${countOf(own.length, 'stud')}${kind === 'plot' && on.kind === 'run' ? ' under outer walls' : ''}`;
        const place = influenceOf(scene, kind, thing.id);
        return [
          {
            severity: carried === 0 ? 'error' : 'warning',
            sentence:
              carried === 0
                ? `“${name}” is set to stand on “${base}”, which is under 0 of its ${all}.`
                : `“${name}” stands half on “${base}”: on ${carried} of its ${all}.`,
            remedy:
              carried === 0
                ? 'Move it there, or let it stand on something else.'
                : 'Move it, give it a second foot, or make what is under it larger.',
            place: place && { x: place.x + place.w / 2, y: place.y + place.d / 2 },
            things: [
              { kind, id: thing.id },
              { kind: on.kind, id: on.id },
            ],
            numbers: { carried, studs: own.length },
          },
        ];
      }),
    );
  },
};

/** The studs of what something may stand on, by index. */
function studsUnder(
  scene: Scene,
  relief: Relief,
  cavities: ReturnType<typeof shapesOf>['cavities'],
  on: { kind: BaseKind; id: string },
): Set<number> {
  const studs = new Set<number>();
  const add = (x: number, y: number) => studs.add((y - relief.y) * relief.w + x - relief.x);
  const plot = on.kind === 'plot' ? scene.plot[on.id] : undefined;
  if (plot)
    eachPlotSpan(plot, relief, (row, from, to) => {
      for (let x = from; x < to; x++) add(x, row);
    });
  const run = on.kind === 'run' ? scene.run[on.id] : undefined;
  if (run) {
    // As a line its bends are rounded; of the studs that its straight pieces touch some lie beside those.
    eachWallStud(run, relief, add);
    eachRunSpan(run, relief, (row, from, to) => {
      for (let x = from; x < to; x++) add(x, row);
    });
  }
  const cavity = on.kind === 'cavity' ? cavities.find(({ thing }) => thing.id === on.id) : undefined;
  cavity?.mask.forEach((isIn, k) => {
    if (isIn) add(cavity.x + (k % cavity.w), cavity.y + Math.trunc(k / cavity.w));
  });
  for (const slab of relief.slabs)
    if (on.kind === 'deck' && slab.kind === 'deck' && slab.id === on.id)
      eachStudOf(slab, (_, x, y) => add(x, y));
  return studs;
}

/**
 * The studs that a thing’s foot touches, by index: of a building all of it, and on a wall its own outer walls; of a run its
 * line; else the stud it is on.
 */
function footOf(
  scene: Scene,
  relief: Relief,
  kind: (typeof STANDING_KINDS)[number],
  id: string,
  on: BaseKind,
): number[] {
  const studs: number[] = [];
  const add = (x: number, y: number) => {
    if (x >= relief.x && y >= relief.y && x < relief.x + relief.w && y < relief.y + relief.d)
      studs.push((y - relief.y) * relief.w + x - relief.x);
  };
  if (kind === 'plot')
    eachPlotSpan(scene.plot[id], relief, (row, from, to) => {
      for (let x = from; x < to; x++) add(x, row);
    });
  else if (kind === 'run') eachWallStud(scene.run[id], relief, add);
  else add(Math.floor(scene[kind][id].x), Math.floor(scene[kind][id].y));
  if (kind !== 'plot' || on !== 'run') return studs;
  const all = new Set(studs);
  return studs.filter((i) => ![i - 1, i + 1, i - relief.w, i + relief.w].every((beside) => all.has(beside)));
}

const deckLow: Rule = {
  id: 'deck-low',
  title: 'There is hardly any room under a deck',
  basis: `Air under a deck where it is least, against a brick (${formatPlates(PLATES_PER_BRICK)}): less is a pad with a gap in it.`,
  page: 'plan',
  severity: 'note',
  check: ({ scene, relief }) =>
    relief.slabs.flatMap((slab): FindingDraft[] => {
      if (slab.kind !== 'deck') return [];
      let most = 0;
      eachStudOf(slab, (k, x, y) => {
        most = Math.max(most, slab.under[k] - surfaceUnder(relief, slab, x, y));
      });
      if (most >= PLATES_PER_BRICK) return [];
      return [
        {
          sentence: `“${labelOf(scene, 'deck', slab.id)}” has at most ${formatPlates(most)} of air under it; with less than ${formatPlates(PLATES_PER_BRICK)} a pad does as well.`,
          remedy: 'Raise it, or lay a pad instead.',
          place: { x: slab.x + slab.w / 2, y: slab.y + slab.d / 2 },
          things: [{ kind: 'deck', id: slab.id }],
          numbers: { air: most },
        },
      ];
    }),
};

export const LEVEL_RULES: readonly Rule[] = [
  slabSpan,
  cavityRoof,
  cavityOpen,
  wayRoom,
  roomOver,
  standsOnNothing,
  deckLow,
];
