import {
  MM,
  MM_PER_PLATE,
  MM_PER_STUD,
  PLATE,
  centreOf,
  counted,
  formatMm,
  formatPlates,
  outward,
  overlap,
  type Rect,
} from '../lattice/index.ts';
import {
  FRONT_DEPTH,
  OUTSIDE,
  eachStripStud,
  eachTouched,
  indexAt,
  isLoose,
  listedMass,
  loosePieces,
  membersOf,
  nearestOn,
  plotCard,
  spreadIn,
  standsOn,
  tippingAngle,
  weightOf,
  type Body,
  type Point,
} from '../relief/index.ts';
import {
  SIDES,
  SIDE_WORDS,
  builtCorners,
  builtRect,
  displayOf,
  labelOf,
  listOf,
  outerCorners,
  plotBounds,
  type Plot,
  type Side,
} from '../scene/index.ts';
import { type Context, type Draft, type Rule } from './finding.ts';
import { overlapping, pairs } from './places.ts';

/** What is judged of buildings as they stand: neighbours, doors, roofs, street fronts. */

const thing = ({ id }: Plot) => ({ kind: 'plot' as const, id });

/** The studs that a convex outline touches, as numbers that are the same for the same stud. */
function touched(corners: readonly Point[]): Set<number> {
  const studs = new Set<number>();
  eachTouched(corners, EVERYWHERE, (row, from, to) => {
    for (let column = from; column < to; column++) studs.add(keyOf(column, row));
  });
  return studs;
}
const EVERYWHERE = { x: -20_000, y: -20_000, w: 40_000, d: 40_000 };
const keyOf = (column: number, row: number) => (row + 20_000) * 100_000 + column + 20_000;

const isTurned = ({ turn }: Plot) => turn % 90 !== 0;

/**
 * What is told of each two buildings of which bodies are about one place at one height: the first that is told of them.
 * @param turned of those of which one stands off the grid, or of the others
 */
function clashes(
  { scene, bodies }: Pick<Context, 'scene' | 'bodies'>,
  turned: boolean,
  tell: (p: Body, q: Body, a: Plot, b: Plot) => Draft | null,
): Draft[] {
  const plots = bodies().filter(({ kind }) => kind === 'plot');
  const told = new Map<string, Draft>();
  for (const [p, q] of overlapping(plots, ({ bounds }) => grown(bounds, 1))) {
    if (p.id === q.id || Math.max(p.begins, q.begins) >= Math.min(p.top, q.top)) continue;
    const [a, b] = [scene.plot[p.id], scene.plot[q.id]];
    const key = [a.id, b.id].sort().join(' ');
    if ((isTurned(a) || isTurned(b)) !== turned || told.has(key)) continue;
    const draft = tell(p, q, a, b);
    if (draft) told.set(key, draft);
  }
  return [...told.values()];
}

const plotsOverlap: Rule = {
  id: 'plots-overlap',
  title: 'Buildings overlap',
  basis:
    'The studs two buildings share at one height: their walls from the ground up, and what stands out over them from where it begins.',
  page: 'plan',
  severity: 'error',
  // What is turned off the grid is judged by the studs it touches: see «turn-reaches».
  check: (context) =>
    clashes(context, false, (p, q, a, b) => {
      const shared = overlap(p.bounds, q.bounds);
      if (!shared) return null;
      const from = Math.max(p.begins, q.begins);
      const walls = p.begins === p.ground && q.begins === q.ground;
      return {
        sentence: `«${a.name}» and «${b.name}» share ${shared.w} × ${shared.d} studs${walls ? '' : ` from ${formatPlates(from)} up`}; two buildings need 0.`,
        remedy: `Move «${b.name}» by ${counted(Math.min(shared.w, shared.d), 'stud')}.`,
        place: centreOf(shared),
        things: [thing(a), thing(b)],
        numbers: { w: shared.w, d: shared.d },
      };
    }),
};

const turnReaches: Rule = {
  id: 'turn-reaches',
  title: 'A turned building reaches its neighbour',
  basis:
    'Every stud that the turned walls and what stands out over them touch, against those of each other building at the same height.',
  page: 'plan',
  severity: 'error',
  check: (context) =>
    clashes(context, true, (p, q, a, b) => {
      const [plot, other] = isTurned(a) ? [a, b] : [b, a];
      const shared = overlap(grown(p.bounds, 1), grown(q.bounds, 1));
      if (!shared) return null;
      const own = touched(p.corners);
      const studs = [...touched(q.corners)].filter((stud) => own.has(stud)).length;
      if (studs === 0) return null;
      return {
        sentence: `Turned by ${plot.turn}°, «${plot.name}» touches ${counted(studs, 'stud')} of «${other.name}»; it should touch 0.`,
        remedy: 'Turn it less, or move it away.',
        place: centreOf(shared),
        things: [thing(plot), thing(other)],
        numbers: { turn: plot.turn, studs },
      };
    }),
};

const turntableSweep: Rule = {
  id: 'turntable-sweep',
  title: 'A turntable has no room to turn',
  basis:
    'The circle through the farthest corner of what turns, about its middle: other bodies that reach into it at its height, and ground in it that is higher than it stands.',
  page: 'plan',
  severity: 'error',
  check({ scene, relief, bodies }) {
    return listOf(scene, 'plot').flatMap((plot): Draft[] => {
      const stands = plot.mount === 'turntable' ? standsOn(relief, plot) : null;
      if (stands === null) return [];
      const middle = centreOf(plot);
      const radius = sweepOf(plot);
      const hit = bodies().find(
        (body) =>
          (body.kind !== 'plot' || body.id !== plot.id) &&
          body.begins < stands + plot.height &&
          body.top > stands &&
          distanceTo(body.corners, middle) < radius - 1e-6,
      );
      let studs = 0;
      const reach = Math.ceil(radius);
      for (let y = Math.floor(middle.y) - reach; y <= middle.y + reach; y++)
        for (let x = Math.floor(middle.x) - reach; x <= middle.x + reach; x++) {
          const i = indexAt(relief, x, y);
          if (i < 0 || relief.ground[i] === OUTSIDE || relief.height[i] <= stands) continue;
          const [dx, dy] = [
            Math.max(x - middle.x, 0, middle.x - x - 1),
            Math.max(y - middle.y, 0, middle.y - y - 1),
          ];
          if (Math.hypot(dx, dy) < radius) studs++;
        }
      if (!hit && studs === 0) return [];
      const wide = (2 * radius).toFixed(1);
      return [
        {
          sentence: hit
            ? `«${plot.name}» sweeps a circle of ${wide} studs on its turntable, and «${labelOf(scene, hit.kind, hit.id)}» stands in it; nothing may.`
            : `«${plot.name}» sweeps a circle of ${wide} studs on its turntable, and ${counted(studs, 'stud')} of ground in it are higher than it stands; 0 may be.`,
          remedy: 'Clear the circle, or raise what turns on a pad.',
          place: middle,
          things: [thing(plot), ...(hit ? [{ kind: hit.kind, id: hit.id }] : [])],
          numbers: { radius: Number(radius.toFixed(2)), studs },
        },
      ];
    });
  },
};

/** Radius of the circle that a building sweeps when it turns about its middle, studs. */
function sweepOf(plot: Plot): number {
  const { x, y } = centreOf(plot);
  return Math.max(...outerCorners(plot).map((corner) => Math.hypot(corner.x - x, corner.y - y)));
}

/** How far a point lies from a convex outline, studs; 0: in it. */
function distanceTo(corners: readonly Point[], at: Point): number {
  let inside = true;
  let least = Infinity;
  corners.forEach((a, i) => {
    const b = corners[(i + 1) % corners.length];
    if ((b.x - a.x) * (at.y - a.y) - (b.y - a.y) * (at.x - a.x) < 0) inside = false;
    const near = nearestOn(a, b, at);
    least = Math.min(least, Math.hypot(near.x - at.x, near.y - at.y));
  });
  return inside ? 0 : least;
}

const pinnedHalf: Rule = {
  id: 'pinned-half',
  title: 'A pinned building stands between the studs',
  basis:
    'Where the walls of a pinned building begin, against whole studs; studs meet only at whole steps and quarter turns. On jumpers half studs are exact.',
  page: 'plan',
  severity: 'warning',
  check: ({ scene }) =>
    listOf(scene, 'plot').flatMap((plot): Draft[] => {
      if (plot.mount !== 'pinned') return [];
      if (isTurned(plot))
        return [
          {
            sentence: `«${plot.name}» is pinned and turned by ${plot.turn}°; studs meet only at quarter turns.`,
            remedy: 'Stand it loose or on a turntable, or turn it by a quarter.',
            place: centreOf(plot),
            things: [thing(plot)],
            numbers: { turn: plot.turn },
          },
        ];
      const { x, y } = plotBounds(plot);
      const off = { x: x - Math.floor(x), y: y - Math.floor(y) };
      if (off.x === 0 && off.y === 0) return [];
      const half = off.x === 0.5 || off.y === 0.5;
      const ways = [off.x > 0 && `${x} studs from the west`, off.y > 0 && `${y} from the north`].filter(
        Boolean,
      );
      return [
        {
          sentence: `«${plot.name}» is pinned ${ways.join(' and ')}; pinned walls begin on whole studs.`,
          remedy: half ? `Set its mount to jumpers, or move it by half a stud.` : 'Move it onto whole studs.',
          place: { x, y },
          things: [thing(plot)],
          numbers: { x, y },
        },
      ];
    }),
};

const plotAcross: Rule = {
  id: 'plot-across',
  title: 'A building stands across a way or a wall',
  basis:
    'Studs of what a plot is built on (its pavement left out) that a road, a path, a wall, a fence or a member of a repeat takes too.',
  page: 'plan',
  severity: 'warning',
  check({ scene, relief }) {
    const lines = [
      ...listOf(scene, 'way')
        .filter(({ use }) => use === 'road' || use === 'path')
        .map(({ id, points, width }) => ({ kind: 'way' as const, id, strips: [points], half: width / 2 })),
      ...listOf(scene, 'run').map(({ id, points, thick }) => ({
        kind: 'run' as const,
        id,
        strips: [points],
        half: Math.max(0.5, thick / 2),
      })),
      ...listOf(scene, 'repeat').map((repeat) => ({
        kind: 'repeat' as const,
        id: repeat.id,
        strips: membersOf(repeat, listOf(scene, 'module')).members.map((member) =>
          endsOf(member, repeat.length),
        ),
        half: 0.5,
      })),
    ];
    return listOf(scene, 'plot').flatMap((plot) => {
      const bounds = plotBounds(plot);
      let own: Set<number> | null = null;
      return lines.flatMap(({ kind, id, strips, half }): Draft[] => {
        const reach = spreadIn(scene, kind, id);
        if (!reach || !overlap(reach, bounds)) return [];
        own ??= touched(builtCorners(plot));
        const studs = new Set<number>();
        for (const points of strips)
          eachStripStud(points, half, outward(bounds), (x, y) => {
            if (own?.has(keyOf(x, y)) && indexAt(relief, x, y) >= 0) studs.add(keyOf(x, y));
          });
        if (studs.size === 0) return [];
        return [
          {
            sentence: `«${plot.name}» stands on ${counted(studs.size, 'stud')} of «${labelOf(scene, kind, id)}»; a building should stand on 0.`,
            remedy: 'Move one of them, or end the line at its walls.',
            place: centreOf(bounds),
            things: [thing(plot), { kind, id }],
            numbers: { studs: studs.size },
          },
        ];
      });
    });
  },
};

const plotTips: Rule = {
  id: 'plot-tips',
  title: 'Something tall and thin tips easily',
  basis:
    'Each building on its own feet, and each part that lifts off or stands loose by itself: atan(half its narrower side ÷ height of its centre of mass), by its list or its plain shell, against the limit of the display (10°, common practice toward visitors, no source). The venue’s rules and qualified people decide.',
  page: 'plan',
  severity: 'warning',
  check({ scene }) {
    const { tipLimit } = displayOf(scene);
    const listed = listedMass(scene);
    return listOf(scene, 'plot').flatMap((plot): Draft[] => {
      const built = builtRect(plot);
      const narrow = Math.min(built.w, built.d);
      const whole = weightOf(plot, listed);
      const pieces = [
        { name: null, height: plot.height * MM_PER_PLATE, z: whole.z * MM_PER_PLATE, of: narrow },
        ...loosePieces(plot, listed)
          .filter(({ part }) => part !== null)
          .map(({ name, h, z }) => ({ name, height: h, z: z * MM_PER_PLATE, of: Math.min(plot.w, plot.d) })),
      ];
      return pieces.flatMap(({ name, height, z, of }, i): Draft[] => {
        const tips = tippingAngle((of * MM_PER_STUD) / 2, z);
        if (tips >= tipLimit) return [];
        const lean = Math.tan((tipLimit * Math.PI) / 180);
        const wide = Math.ceil((2 * lean * z) / MM_PER_STUD - 1e-9);
        const most = Math.floor((height * (of * MM_PER_STUD)) / 2 / lean / z / MM_PER_PLATE + 1e-9);
        return [
          {
            sentence: `${name === null ? `«${plot.name}»` : `«${name}» of «${plot.name}», set down by itself,`} tips at ${tips.toFixed(0)}°: ${of} studs across and ${formatMm(Math.round(height * MM))} tall; at least ${tipLimit}° are wanted where visitors pass, children above all.`,
            remedy: `Make its foot ${wide} studs across, or keep it to ${formatPlates(most)} of its own, or tie it to something heavier behind it.`,
            place: centreOf(plot),
            part: name === null ? 'whole' : `part ${i}`,
            things: [thing(plot)],
            numbers: { tips: Number(tips.toFixed(1)), limit: tipLimit },
          },
        ];
      });
    });
  },
};

const goodSide: Rule = {
  id: 'good-side',
  title: 'A building hides its good sides',
  basis:
    'The sides of a building that are worth showing, turned with it, against the sides from which the display is looked at.',
  page: 'plan',
  severity: 'note',
  check({ scene }) {
    const { viewedSides } = displayOf(scene);
    if (viewedSides.length === 0) return [];
    const faces = (side: Side, turn: number) => SIDES[(SIDES.indexOf(side) + Math.round(turn / 90)) % 4];
    return listOf(scene, 'plot').flatMap((plot): Draft[] => {
      const shows = (turn: number) => plot.goodSides.some((side) => viewedSides.includes(faces(side, turn)));
      if (plot.goodSides.length === 0 || shows(plot.turn)) return [];
      const better = [90, 180, 270].find((by) => shows(plot.turn + by));
      return [
        {
          sentence: `The good sides of «${plot.name}» look ${list(plot.goodSides.map((side) => SIDE_WORDS[faces(side, plot.turn)]))}; the display is looked at from the ${list(viewedSides.map((side) => SIDE_WORDS[side]))}.`,
          remedy: `Turn it by ${better ?? 180}°, or give its detail to the sides that are seen.`,
          place: centreOf(plot),
          things: [thing(plot)],
          numbers: { turn: plot.turn },
        },
      ];
    });
  },
};
const list = (words: readonly string[]) => words.join(' and ');

const endsOf = ({ x, y, angle }: { x: number; y: number; angle: number }, length: number): Point[] => {
  const [u, v] = [(Math.cos(angle) * length) / 2, (Math.sin(angle) * length) / 2];
  return [
    { x: x - u, y: y - v },
    { x: x + u, y: y + v },
  ];
};

const stanceLoose: Rule = {
  id: 'stance-loose',
  title: 'Something loose in a display that hangs or lies on its back',
  basis:
    'Buildings that stand loose or on a turntable, in a display that is shown hung on a wall or lying on its back: nothing holds them there.',
  page: 'brief',
  severity: 'error',
  check({ scene }) {
    const { stance } = displayOf(scene);
    if (stance === 'standing') return [];
    return listOf(scene, 'plot')
      .filter(isLoose)
      .map((plot) => ({
        sentence: `«${plot.name}» stands ${plot.mount === 'loose' ? 'loose' : 'on a turntable'}; in a display that is shown ${stance === 'hung' ? 'hung on a wall' : 'lying on its back'} 0 things may.`,
        remedy: 'Pin it, or show the display standing.',
        place: centreOf(plot),
        things: [thing(plot)],
        numbers: { stance: stance === 'hung' ? 2 : 1 },
      }));
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
/** Shares of a building's width that are worth a note, and a warning, when they are hidden. */
const SOME = 0.25;
const MUCH = 0.5;

const tallFirst: Rule = {
  id: 'tall-first',
  title: 'Tall things hide a low one',
  basis: `On each side the display is looked at from: all that stands in front of a building within ${HIDES_WITHIN} studs and reaches ${formatPlates(TALLER)} or more above it, added up along its width, rows of trees and plantings too. From half of it on it is a warning, from a quarter a note. A hint only: it asks no eyes.`,
  page: 'plan',
  severity: 'note',
  check({ scene, bodies }) {
    const plots = bodies().filter(({ kind, begins, ground }) => kind === 'plot' && begins === ground);
    return displayOf(scene).viewedSides.flatMap((side): Draft[] => {
      const along = side === 'n' || side === 's' ? 'x' : 'y';
      const [size, across, deep] = along === 'x' ? (['w', 'y', 'd'] as const) : (['d', 'x', 'w'] as const);
      return plots.flatMap((low): Draft[] => {
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
        const share = covered(hiders) / place[size];
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
            sentence: `Seen from the ${SIDE_WORDS[side]}, «${labelOf(scene, widest.kind, widest.id)}»${others > 0 ? ` and ${counted(others, 'other thing')}` : ''} stand${others > 0 ? '' : 's'} before «${scene.plot[low.id].name}» and hide${others > 0 ? '' : 's'} ${(100 * share).toFixed(0)} % of its width, up to ${formatPlates(taller)} taller; half of it may be hidden.`,
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

export const PLOT_RULES: readonly Rule[] = [
  plotsOverlap,
  turnReaches,
  turntableSweep,
  pinnedHalf,
  plotAcross,
  plotTips,
  goodSide,
  stanceLoose,
  plotsGap,
  doorCliff,
  roofHits,
  frontBase,
  tallFirst,
];
