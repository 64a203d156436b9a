import { centreOf } from '../grid/index.ts';
import { SIDES, SIDE_WORDS, displayOf } from '../document/index.ts';
import { footprintBounds } from '../terrain/index.ts';
import {
  clearances,
  currentPlace,
  frameOf,
  currentContents,
  evaluateBarriers,
  pointToScene,
  rectToRoom,
  sidesOf,
  tableInStuds,
} from '../venue/index.ts';
import { formatTenths, type FindingDraft, type Rule } from './finding.ts';

const aisleNarrow: Rule = {
  id: 'aisle-narrow',
  title: 'The public’s aisle is narrow',
  basis:
    'The least clear width behind each barrier, square to it, to a wall, table or obstacle, against the place’s aisle. As one published example, 36 in (915 mm) is the least clear width of an accessible route in the 2010 ADA Standards, 403.5.1; local rules decide.',
  page: 'survey',
  severity: 'error',
  check({ scene }) {
    const place = currentPlace(scene);
    if (!place) return [];
    return evaluateBarriers(scene).flatMap(({ barrier, aisle }): FindingDraft[] => {
      if (aisle === null || aisle >= place.aisle) return [];
      return [
        {
          sentence: `Behind “${barrier.name}” ${formatTenths(aisle)} stay clear for the public; the aisle asked for is ${formatTenths(place.aisle)}.`,
          remedy:
            'Bring the barrier nearer to the display, or the display away from the wall. Local rules decide.',
          place: pointToScene(frameOf(scene), {
            x: (barrier.x1 + barrier.x2) / 2,
            y: (barrier.y1 + barrier.y2) / 2,
          }),
          things: [{ kind: 'barrier', id: barrier.id }],
          numbers: { aisle: Math.round(aisle), limit: place.aisle },
        },
      ];
    });
  },
};

const barrierClose: Rule = {
  id: 'barrier-close',
  title: 'Visitors can touch the scene',
  basis:
    'The distance from the barrier to the nearest edge of the scene against the place’s arm reach: a visitor’s arm is as long as a builder’s. Small parts are not for children under three.',
  page: 'survey',
  severity: 'note',
  check({ scene }) {
    const arm = currentPlace(scene)?.armReach ?? 0;
    return evaluateBarriers(scene).flatMap(({ barrier, toScene }): FindingDraft[] => {
      if (toScene === null || toScene >= arm) return [];
      return [
        {
          sentence: `“${barrier.name}” stands ${formatTenths(toScene)} from the scene; an arm reaches ${formatTenths(arm)}.`,
          remedy: `Move it ${formatTenths(arm - toScene)} out, or put nothing loose within reach.`,
          place: null,
          things: [{ kind: 'barrier', id: barrier.id }],
          numbers: { distance: Math.round(toScene), arm },
        },
      ];
    });
  },
};

const eyesBelow: Rule = {
  id: 'eyes-below',
  title: 'Some visitors look from below',
  basis:
    'The eye heights of the place (from memory, yours to change) against the height of each table that carries scene.',
  page: 'survey',
  severity: 'note',
  check({ scene, loads }) {
    const place = currentPlace(scene);
    if (!place) return [];
    return loads().flatMap(({ table, studs }): FindingDraft[] => {
      if (studs === 0) return [];
      const low = [
        { who: 'A child’s', eye: place.eyeChild },
        { who: 'A seated visitor’s', eye: place.eyeSeated },
        { who: 'An adult’s', eye: place.eyeAdult },
      ].filter(({ eye }) => eye <= table.height);
      if (low.length === 0) return [];
      const { who, eye } = low[0];
      return [
        {
          sentence: `${who} eyes at ${formatTenths(eye)} are ${formatTenths(table.height - eye)} below the top of “${table.name}”, ${formatTenths(table.height)}: they see its edge and no ground.`,
          remedy: 'Lower the table, or leave something to see at the edge.',
          place: centreOf(tableInStuds(scene, table)),
          things: [{ kind: 'table', id: table.id }],
          numbers: { eye, top: table.height },
        },
      ];
    });
  },
};

const viewedSide: Rule = {
  id: 'viewed-side',
  title: 'A side to be looked at faces a wall',
  basis:
    'The clear floor before each side that the Brief says is looked at, to the nearest wall or obstacle, against the place’s aisle. Asked only of places with a barrier: a workshop has no public.',
  page: 'survey',
  severity: 'warning',
  check({ scene }) {
    const place = currentPlace(scene);
    const bounds = footprintBounds(scene);
    // A workshop has no public.
    if (!place || !bounds || currentContents(scene, 'barrier').length === 0) return [];
    const frame = frameOf(scene);
    const clear = clearances(
      rectToRoom(frame, bounds),
      currentContents(scene, 'obstacle'),
      sidesOf(place.walls),
    );
    return displayOf(scene).viewedSides.flatMap((side): FindingDraft[] => {
      const inRoom = SIDES[(SIDES.indexOf(side) + frame.turn / 90) % 4];
      const free = clear[inRoom];
      if (free === null || free >= place.aisle) return [];
      return [
        {
          sentence: `The ${SIDE_WORDS[side]} side is to be looked at and has ${formatTenths(free)} of floor before it in “${place.name}”; the public needs ${formatTenths(place.aisle)}.`,
          remedy: 'Pull the display off the wall, turn it, or take the side off the Brief’s list.',
          place: null,
          things: [{ kind: 'place', id: place.id }],
          numbers: { [`free-${side}`]: Math.round(free), limit: place.aisle },
        },
      ];
    });
  },
};

export const PUBLIC_RULES: readonly Rule[] = [aisleNarrow, barrierClose, eyesBelow, viewedSide];
