import { PLATE, centreOf, formatMm, formatPlates, overlap, type Rect, counted } from '../lattice/index.ts';
import { FRONT_DEPTH, OUTSIDE, eachPlotSpan, indexAt, plotCard, type Relief } from '../relief/index.ts';
import { SIDE_WORDS, displayOf, listOf, plotBounds, type Plot, type Scene } from '../scene/index.ts';
import { type Draft, type Rule } from './finding.ts';
import { overlapping, pairs } from './places.ts';

/** What is judged of buildings as they stand: neighbours, doors, roofs, street fronts. */

const thing = ({ id }: Plot) => ({ kind: 'plot' as const, id });

/** The studs that a building touches, as numbers that are the same for the same stud. */
function touched(plot: Plot): Set<number> {
  const studs = new Set<number>();
  const { x, y, w, d } = plotBounds(plot);
  const window = { x: Math.floor(x) - 1, y: Math.floor(y) - 1, w: Math.ceil(w) + 3, d: Math.ceil(d) + 3 };
  eachPlotSpan(plot, window, (row, from, to) => {
    for (let column = from; column < to; column++) studs.add((row + 10_000) * 100_000 + column + 10_000);
  });
  return studs;
}

const isTurned = ({ turn }: Plot) => turn % 90 !== 0;

const turnReaches: Rule = {
  id: 'turn-reaches',
  title: 'A turned building reaches its neighbour',
  basis: 'Every stud that the turned walls touch, against the studs of each other building.',
  page: 'plan',
  severity: 'error',
  check({ scene }) {
    const near = overlapping(listOf(scene, 'plot'), (plot) => grown(plotBounds(plot), 1));
    return near
      .filter(([a, b]) => isTurned(a) || isTurned(b))
      .flatMap(([a, b]): Draft[] => {
        const [plot, other] = isTurned(a) ? [a, b] : [b, a];
        const shared = overlap(grown(plotBounds(plot), 1), grown(plotBounds(other), 1));
        if (!shared) return [];
        const own = touched(plot);
        const studs = [...touched(other)].filter((stud) => own.has(stud)).length;
        if (studs === 0) return [];
        return [
          {
            sentence: `Turned by ${plot.turn}°, «${plot.name}» touches ${counted(studs, 'stud')} of «${other.name}»; it should touch 0.`,
            remedy: 'Turn it less, or move it away.',
            place: centreOf(shared),
            things: [thing(plot), thing(other)],
            numbers: { turn: plot.turn, studs },
          },
        ];
      });
  },
};

const grown = ({ x, y, w, d }: Rect, by: number): Rect => ({
  x: x - by,
  y: y - by,
  w: w + 2 * by,
  d: d + 2 * by,
});

/** Gaps that are too wide to be a joint and too narrow to be a lane, studs. */
const MOST_GAP = 6;

const plotsGap: Rule = {
  id: 'plots-gap',
  title: 'A gap between street fronts',
  basis: `Street fronts that face each other along at least 8 studs with more than 0 and less than ${MOST_GAP} studs between them: too wide for a joint, too narrow for a lane.`,
  page: 'plan',
  severity: 'warning',
  check({ scene }) {
    const fronts = listOf(scene, 'plot').filter((plot) => plot.streetFront && !isTurned(plot));
    return pairs(fronts).flatMap(([a, b]): Draft[] => {
      for (const [along, size, across, deep] of [
        ['x', 'w', 'y', 'd'],
        ['y', 'd', 'x', 'w'],
      ] as const) {
        const [first, second] = a[along] <= b[along] ? [a, b] : [b, a];
        const gap = second[along] - first[along] - first[size];
        const beside = Math.min(a[across] + a[deep], b[across] + b[deep]) - Math.max(a[across], b[across]);
        if (gap <= 0 || gap >= MOST_GAP || beside < 8) continue;
        return [
          {
            sentence: `Between the street fronts «${first.name}» and «${second.name}» there ${gap === 1 ? 'is' : 'are'} ${counted(gap, 'stud')}; neighbours touch, or leave at least ${MOST_GAP}.`,
            remedy: `Move «${second.name}» by ${counted(gap, 'stud')}.`,
            place: {
              x: along === 'x' ? second.x - gap / 2 : centreOf(second).x,
              y: along === 'y' ? second.y - gap / 2 : centreOf(second).y,
            },
            things: [thing(a), thing(b)],
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

/** Height a building stands on: the highest ground under it. */
function standsOn(relief: Relief, plot: Plot): number | null {
  let high: number | null = null;
  eachPlotSpan(plot, relief, (row, from, to) => {
    for (let column = from; column < to; column++) {
      const i = (row - relief.y) * relief.w + column - relief.x;
      if (relief.ground[i] !== OUTSIDE && (high === null || relief.height[i] > high)) high = relief.height[i];
    }
  });
  return high;
}

const doorCliff: Rule = {
  id: 'door-cliff',
  title: 'A door opens onto a drop',
  basis:
    'The ground two studs before the middle of the door’s side against the ground the building stands on; one brick is a step.',
  page: 'plan',
  severity: 'warning',
  check({ scene, relief }) {
    return listOf(scene, 'plot').flatMap((plot): Draft[] => {
      const sill = standsOn(relief, plot);
      const at = beforeDoor(plot);
      const index = indexAt(relief, at.x, at.y);
      if (sill === null || index < 0 || relief.ground[index] === OUTSIDE) return [];
      const drop = sill - relief.height[index];
      if (Math.abs(drop) <= STEP) return [];
      const way = drop > 0 ? 'above' : 'below';
      return [
        {
          sentence: `The door of «${plot.name}», to the ${SIDE_WORDS[plot.front]}, is ${formatPlates(Math.abs(drop))} (${formatMm(Math.abs(drop) * PLATE)}) ${way} the ground before it; a step is at most ${formatPlates(STEP)}.`,
          remedy: 'Lay a pad before the door, turn the front to another side, or plan stairs.',
          place: at,
          things: [thing(plot)],
          numbers: { drop },
        },
      ];
    });
  },
};

const roofHits: Rule = {
  id: 'roof-hits',
  title: 'A roof hits what is under it',
  basis:
    'The roof’s inside rises evenly from the eaves to the ridge in the middle; what stands under it is measured at its side nearer to the wall. A flat roof clears what its lowest part says.',
  page: 'plan',
  severity: 'error',
  check: ({ scene }) =>
    listOf(scene, 'plot').flatMap((plot): Draft[] => {
      const hit = plotCard(plot, displayOf(scene).ratio)
        .clearances.filter(({ clear }) => clear < 0)
        .sort((a, b) => a.clear - b.clear)[0];
      if (!hit) return [];
      const { name, clear, roof } = hit;
      const over = Math.ceil(-clear);
      return [
        {
          sentence: `In «${plot.name}» the roof is at ${formatPlates(Math.floor(roof))} over «${name}», which is ${formatPlates(over)} (${formatMm(over * PLATE)}) too tall for it.`,
          remedy: 'Stand it further from the wall, build it lower, or raise the eaves.',
          place: centreOf(plot),
          things: [thing(plot)],
          numbers: { over, roof },
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
    listOf(scene, 'plot').flatMap((plot): Draft[] => {
      if (!plot.streetFront) return [];
      const faults = [
        plot.pavement !== null && plot.pavement !== PAVEMENT
          ? `its pavement is ${counted(plot.pavement, 'stud')} deep where ${PAVEMENT} meet`
          : null,
        plot.connectors === 'none' ? 'it has no connectors where 2 a side belong' : null,
      ].filter((fault) => fault !== null);
      if (faults.length === 0) return [];
      return [
        {
          sentence: `The street front «${plot.name}» will not meet its neighbours: ${faults.join(', and ')}.`,
          remedy: 'Widen or narrow the pavement; put the connectors where its card says.',
          place: frontMiddle(plot),
          things: [thing(plot)],
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

const tallFirst: Rule = {
  id: 'tall-first',
  title: 'A tall thing hides a low one',
  basis: `On each side the display is looked at from: what stands in front of at least half of a building’s width, within ${HIDES_WITHIN} studs, and reaches ${formatPlates(TALLER)} or more above it. A hint only: it asks no eyes.`,
  page: 'plan',
  severity: 'note',
  check({ scene, relief }) {
    const tops = standingTops(scene, relief);
    return displayOf(scene).viewedSides.flatMap((side): Draft[] => {
      const along = side === 'n' || side === 's' ? 'x' : 'y';
      const [size, across, deep] = along === 'x' ? (['w', 'y', 'd'] as const) : (['d', 'x', 'w'] as const);
      return tops
        .filter(({ kind }) => kind === 'plot')
        .flatMap((low): Draft[] => {
          const hider = tops.find((tall) => {
            if (tall === low || tall.top < low.top + TALLER) return false;
            const shared =
              Math.min(tall.place[along] + tall.place[size], low.place[along] + low.place[size]) -
              Math.max(tall.place[along], low.place[along]);
            const nearer =
              side === 's' || side === 'e'
                ? tall.place[across] - low.place[across] - low.place[deep]
                : low.place[across] - tall.place[across] - tall.place[deep];
            return shared >= low.place[size] / 2 && nearer >= 0 && nearer <= HIDES_WITHIN;
          });
          if (!hider) return [];
          return [
            {
              sentence: `Seen from the ${SIDE_WORDS[side]}, «${hider.name}» stands before «${low.name}» and is ${formatPlates(hider.top - low.top)} taller.`,
              remedy: 'Put the low one in front, or do not spend detail on its hidden side.',
              place: centreOf(hider.place),
              things: [
                { kind: hider.kind, id: hider.id },
                { kind: 'plot', id: low.id },
              ],
              numbers: { taller: hider.top - low.top },
            },
          ];
        });
    });
  },
};

function standingTops(scene: Scene, relief: Relief) {
  const plots = listOf(scene, 'plot').flatMap((plot) => {
    const ground = standsOn(relief, plot);
    return ground === null
      ? []
      : [
          {
            kind: 'plot' as const,
            id: plot.id,
            name: plot.name,
            place: plotBounds(plot),
            top: ground + plot.height,
          },
        ];
  });
  const trees = listOf(scene, 'tree').flatMap(({ id, name, x, y, crown, height }) => {
    const i = indexAt(relief, x, y);
    if (i < 0 || relief.ground[i] === OUTSIDE) return [];
    const place = { x: x - crown / 2, y: y - crown / 2, w: crown, d: crown };
    return [{ kind: 'tree' as const, id, name, place, top: relief.height[i] + height }];
  });
  return [...plots, ...trees];
}

export const PLOT_RULES: readonly Rule[] = [turnReaches, plotsGap, doorCliff, roofHits, frontBase, tallFirst];
