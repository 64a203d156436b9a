import { PLATE, centreOf, countOf, formatMm, formatPlates, formatPercent } from '../grid/index.ts';
import { partName } from '../catalogue/index.ts';
import {
  FRONT_DEPTH,
  OUTSIDE,
  floorBeside,
  indexAt,
  plotCard,
  slopedRoofOf,
  standsOn,
} from '../terrain/index.ts';
import {
  isBoxed,
  isRound,
  runsEast,
  SIDE_WORDS,
  builtSides,
  displayOf,
  isRaised,
  labelOf,
  listOf,
  plotBounds,
  type Plot,
} from '../document/index.ts';
import type { SeenThing } from '../visibility/index.ts';
import { type FindingDraft, type Rule } from './finding.ts';
import { unorderedPairs } from './places.ts';
import { isTurned, plotRef } from './plots.ts';

// What is judged of buildings along a street: gaps, doors, roofs, pavements, what stands before what.

/** Gaps that are too wide to be a joint and too narrow to be a lane, studs. */
const MAX_GAP = 6;

const plotsGap: Rule = {
  id: 'plots-gap',
  title: 'A gap between street fronts',
  basis: `Street fronts that face each other along at least 8 studs with more than 0 and less than ${MAX_GAP} studs between them: too wide for a joint, too narrow for a lane.`,
  page: 'plan',
  severity: 'warning',
  check({ scene }) {
    const fronts = listOf(scene, 'plot').filter((plot) => plot.streetFront && !isTurned(plot));
    return unorderedPairs(fronts).flatMap(([a, b]): FindingDraft[] => {
      for (const [along, size, across, deep] of [
        ['x', 'w', 'y', 'd'],
        ['y', 'd', 'x', 'w'],
      ] as const) {
        const [first, second] = a[along] <= b[along] ? [a, b] : [b, a];
        const gap = second[along] - first[along] - first[size];
        const beside = Math.min(a[across] + a[deep], b[across] + b[deep]) - Math.max(a[across], b[across]);
        if (gap <= 0 || gap >= MAX_GAP || beside < 8) continue;
        return [
          {
            sentence: `Between the street fronts “${first.name}” and “${second.name}” there ${gap === 1 ? 'is' : 'are'} ${countOf(gap, 'stud')}; neighbours touch, or leave at least ${MAX_GAP}.`,
            remedy: `Move “${second.name}” by ${countOf(gap, 'stud')}.`,
            place: {
              x: along === 'x' ? second.x - gap / 2 : centreOf(second).x,
              y: along === 'y' ? second.y - gap / 2 : centreOf(second).y,
            },
            things: [plotRef(a), plotRef(b)],
            numbers: { gap },
          },
        ];
      }
      return [];
    });
  },
};

/** More than this between a door's sill and the ground before it is a fall: one brick, as a step. */
const STEP = 3;

/** The ground before a door: two studs out from the middle of the front. */
function beforeDoor({ x, y, w, d, turn, front }: Plot): { x: number; y: number } {
  const [cx, cy] = [x + w / 2, y + d / 2];
  const [u, v] = {
    n: [0, -d / 2 - 1.5],
    s: [0, d / 2 + 1.5],
    w: [-w / 2 - 1.5, 0],
    e: [w / 2 + 1.5, 0],
  }[front];
  const angle = (turn * Math.PI) / 180;
  return {
    x: cx + u * Math.cos(angle) - v * Math.sin(angle),
    y: cy + u * Math.sin(angle) + v * Math.cos(angle),
  };
}

const doorCliff: Rule = {
  id: 'door-cliff',
  title: 'A door opens onto a drop',
  basis:
    'The ground two studs before the middle of the door’s side against the ground the building stands on; one brick is a step. On a roof or a wall a building has no street door.',
  page: 'plan',
  severity: 'warning',
  check({ scene, relief }) {
    return listOf(scene, 'plot').flatMap((plot): FindingDraft[] => {
      if (isRaised(plot)) return [];
      const sill = standsOn(scene, relief, plot);
      const at = beforeDoor(plot);
      const index = indexAt(relief, at.x, at.y);
      if (sill === null || index < 0 || relief.ground[index] === OUTSIDE) return [];
      const drop = sill - floorBeside(scene, relief, plot, at);
      if (Math.abs(drop) <= STEP) return [];
      const way = drop > 0 ? 'above' : 'below';
      return [
        {
          sentence: `The door of “${plot.name}”, to the ${SIDE_WORDS[plot.front]}, is ${formatPlates(Math.abs(drop))} (${formatMm(Math.abs(drop) * PLATE)}) ${way} the ground before it; a step is at most ${formatPlates(STEP)}.`,
          remedy: 'Lay a pad before the door, turn the front to another side, or plan stairs.',
          place: at,
          things: [plotRef(plot)],
          numbers: { drop },
        },
      ];
    });
  },
};

const roofHits: Rule = {
  id: 'roof-hits',
  title: 'A roof or floor hits what is under it',
  basis:
    'The roof’s inside as its courses of slopes are laid, of a round building its rings; what stands under it is measured at its side nearer to the wall that the roof falls to. A flat roof clears what its lowest part says; under the next storey it is that one’s floor.',
  page: 'plan',
  severity: 'error',
  check: ({ scene }) =>
    listOf(scene, 'plot').flatMap((plot): FindingDraft[] => {
      const hit = plotCard(plot, displayOf(scene).ratio)
        .clearances.filter(({ clear }) => clear < 0)
        .sort((a, b) => a.clear - b.clear)[0];
      if (!hit) return [];
      const { name, clear, ceiling, under } = hit;
      const over = Math.ceil(-clear);
      return [
        {
          sentence: `In “${plot.name}” the ${under === 'roof' ? 'roof' : 'next floor'} is at ${formatPlates(Math.floor(ceiling))} over “${name}”, which is ${formatPlates(over)} (${formatMm(over * PLATE)}) too tall for it.`,
          remedy:
            under === 'roof'
              ? 'Stand it further from the wall, build it lower, or raise the eaves.'
              : 'Build it lower, or make its storey higher.',
          place: centreOf(plot),
          things: [plotRef(plot)],
          numbers: { over, ceiling },
        },
      ];
    }),
};

const roofFlat: Rule = {
  id: 'roof-flat',
  title: 'A roof finds no room for its slopes',
  basis:
    'A building whose roof is to rise over its eaves is laid flat where no course of its slopes finds room, or its courses leave more open than a plate reaches over: two slopes back to back, a corner slope at each outer corner and a valley slope in each inner one, all on walls.',
  page: 'plan',
  severity: 'warning',
  check: ({ scene }) =>
    listOf(scene, 'plot').flatMap((plot): FindingDraft[] => {
      const roof = slopedRoofOf(plot);
      if (!roof || roof.courses > 0 || plot.eaves === null) return [];
      const { w, d } = builtSides(plot);
      const slopes = plot.slope === null ? 'slopes' : partName(plot.slope);
      return [
        {
          sentence: `The roof of “${plot.name}”, ${w} × ${d} studs${isBoxed(plot) ? '' : ' with parts left out'}, is to rise from ${formatPlates(plot.eaves)}, and no courses of ${slopes} find room on it that close it; it is laid flat.`,
          remedy:
            'Choose slopes that are less deep or another form of roof, or make the building or what is left out of it larger.',
          place: centreOf(plotBounds(plot)),
          things: [plotRef(plot)],
          numbers: { w, d },
        },
      ];
    }),
};

/** Pavement of a street front, studs (common practice). */
const PAVEMENT = 8;

const frontBase: Rule = {
  id: 'front-base',
  title: 'A street front meets no neighbour',
  basis: `Pavement ${PAVEMENT} studs deep, and two connectors a side at 9 + 2 + 10 + 2 + 9 = ${FRONT_DEPTH} studs (common practice); only what the plot says of itself is judged.`,
  page: 'plan',
  severity: 'warning',
  check: ({ scene }) =>
    listOf(scene, 'plot').flatMap((plot): FindingDraft[] => {
      if (!plot.streetFront) return [];
      const faults = [
        plot.pavement !== null && isRound(plot) ? 'no pavement is laid before a round building' : null,
        plot.pavement !== null && !isRound(plot) && plot.pavement !== PAVEMENT
          ? `its pavement is ${countOf(plot.pavement, 'stud')} deep where ${PAVEMENT} meet`
          : null,
        plot.connectors === 'none' ? 'it has no connectors where 2 a side belong' : null,
      ].filter((fault) => fault !== null);
      if (faults.length === 0) return [];
      return [
        {
          sentence: `The street front “${plot.name}” will not meet its neighbours: ${faults.join(', and ')}.`,
          remedy: 'Widen or narrow the pavement; put the connectors where its card says.',
          place: frontMiddle(plot),
          things: [plotRef(plot)],
          numbers: { pavement: plot.pavement ?? PAVEMENT, connectors: plot.connectors === 'none' ? 0 : 2 },
        },
      ];
    }),
};

const frontMiddle = ({ x, y, w, d, front }: Plot) => ({
  x: front === 'w' ? x : front === 'e' ? x + w : x + w / 2,
  y: front === 'n' ? y : front === 's' ? y + d : y + d / 2,
});

/** How far behind a tall thing a low one is still hidden by it, studs (a hint, until eyes are put in the room). */
const HIDES_WITHIN = 40;
const TALLER = 9;
/** Shares of a building's width that are worth a note, and a warning, when they are hidden. */
const SOME = 0.25;
const MUCH = 0.5;

const tallFirst: Rule = {
  id: 'tall-first',
  title: 'Tall things hide a low one',
  basis: `On each side the display is looked at from: all that stands in front of a building within ${HIDES_WITHIN} studs and reaches ${formatPlates(TALLER)} or more above it, added up along its width, rows of trees and plantings too. Where it is known where visitors stand, straight lines from their eyes to that face of the building say how much of it is cut off, as on Sight; else it is a hint. From half of it on it is a warning, from a quarter a note.`,
  page: 'plan',
  severity: 'note',
  check({ scene, bodies, lookout }) {
    const plots = bodies().filter(
      ({ kind, begins, ground, isPavement }) => kind === 'plot' && begins === ground && !isPavement,
    );
    const looked = new Map<string, SeenThing['sides']>();
    const sidesOf = (id: string): SeenThing['sides'] => {
      const sides = looked.get(id) ?? lookout()?.look('plot', id).sides ?? [];
      looked.set(id, sides);
      return sides;
    };
    return displayOf(scene).viewedSides.flatMap((side): FindingDraft[] => {
      const along = runsEast(side) ? 'x' : 'y';
      const [size, across, deep] = along === 'x' ? (['w', 'y', 'd'] as const) : (['d', 'x', 'w'] as const);
      return plots.flatMap((low): FindingDraft[] => {
        const place = low.bounds;
        const hiders = bodies().flatMap((tall) => {
          if ((tall.kind === 'plot' && tall.id === low.id) || tall.top < low.top + TALLER) return [];
          const nearer =
            side === 's' || side === 'e'
              ? tall.bounds[across] - place[across] - place[deep]
              : place[across] - tall.bounds[across] - tall.bounds[deep];
          const from = Math.max(tall.bounds[along], place[along]);
          const to = Math.min(tall.bounds[along] + tall.bounds[size], place[along] + place[size]);
          return from < to && nearer >= 0 && nearer <= HIDES_WITHIN ? [{ tall, from, to }] : [];
        });
        if (covered(hiders) / place[size] < SOME) return [];
        const seen = sidesOf(low.id).find((one) => one.side === side);
        const share = seen ? 1 - seen.free : covered(hiders) / place[size];
        if (share < SOME) return [];
        // The one that hides most is named, and how many other things help it.
        const widest = hiders.reduce((a, b) => (b.to - b.from > a.to - a.from ? b : a)).tall;
        const others = new Set(
          hiders.filter(({ tall }) => tall.id !== widest.id).map(({ tall }) => `${tall.kind} ${tall.id}`),
        ).size;
        const taller = Math.max(...hiders.map(({ tall }) => tall.top)) - low.top;
        return [
          {
            severity: share >= MUCH ? 'warning' : 'note',
            sentence: `Seen from the ${SIDE_WORDS[side]}, “${labelOf(scene, widest.kind, widest.id)}”${others > 0 ? ` and ${countOf(others, 'other thing')}` : ''} stand${others > 0 ? '' : 's'} before “${scene.plot[low.id].name}” and hide${others > 0 ? '' : 's'} ${formatPercent(share)} ${seen ? `of its ${SIDE_WORDS[side]} face from visitors’ eyes` : 'of its width'}, up to ${formatPlates(taller)} taller; half of it may be hidden.`,
            remedy: 'Put the low one in front, or do not spend detail on its hidden side.',
            place: centreOf(widest.bounds),
            part: SIDE_WORDS[side],
            things: [
              { kind: widest.kind, id: widest.id },
              { kind: 'plot', id: low.id },
            ],
            numbers: { taller, share: Number(share.toFixed(2)) },
          },
        ];
      });
    });
  },
};

/** Length of the union of stretches of a line. */
function covered(stretches: readonly { from: number; to: number }[]): number {
  let [sum, reached] = [0, -Infinity];
  for (const { from, to } of [...stretches].sort((a, b) => a.from - b.from)) {
    sum += Math.max(0, to - Math.max(from, reached));
    reached = Math.max(reached, to);
  }
  return sum;
}

export const FRONT_RULES: readonly Rule[] = [plotsGap, doorCliff, roofHits, roofFlat, frontBase, tallFirst];
