import { PLATE, PLATES_PER_BRICK, formatMm, formatPlates, countOf, containsPoint } from '../grid/index.ts';
import { METHOD_SPECS, minHeightOf } from '../masonry/index.ts';
import { BARE, OUTSIDE, eachStudOf, ownerAt, waterCodes, studMiddle, type Relief } from '../terrain/index.ts';
import {
  GROUNDS,
  layersAt,
  layersThick,
  runsEast,
  SIDES,
  SIDE_WORDS,
  displayOf,
  labelOf,
  listOf,
  type CustomGround,
  type Kind,
  type Method,
  type Scene,
  type Side,
} from '../document/index.ts';
import { type FindingDraft, type Rule } from './finding.ts';

// Rules of the ground itself: bare steps, raw edges, waters that meet.

const STEPS: Record<Side, { dx: number; dy: number }> = {
  n: { dx: 0, dy: -1 },
  e: { dx: 1, dy: 0 },
  s: { dx: 0, dy: 1 },
  w: { dx: -1, dy: 0 },
};

/** Whether an entity defines how its side is covered: a pad by its edge, a hill or hollow by its own slope. */
function isDressed(scene: Scene, owner: { kind: Kind; id: string } | null, side: Side): boolean {
  if (owner === null) return false;
  if (owner.kind === 'pad') {
    const { shape, edges } = scene.pad[owner.id];
    return shape === 'rect' && edges[side].kind !== 'open';
  }
  return owner.kind !== 'terrain';
}

/** Steps from here on, plates, need more than the tile or plate that ground is covered with. */
const BARE_STEP = 3;

interface Stretch {
  studs: number;
  most: number;
  at: { x: number; y: number };
  owner: { kind: Kind; id: string };
  side: Side;
}

/** Stretches of bare steps by the thing on top of each and the side it falls to. */
function bareSteps(scene: Scene, relief: Relief): Stretch[] {
  const { w, d, ground, height } = relief;
  const found = new Map<string, Stretch>();
  const note = (i: number, fall: number, side: Side) => {
    const owner = groundOwner(scene, relief, i);
    if (owner?.kind !== 'pad' || isDressed(scene, owner, side)) return;
    const key = `${owner.id} ${side}`;
    const at = studMiddle(relief, i);
    const known = found.get(key);
    if (!known) found.set(key, { studs: 1, most: fall, at, owner, side });
    else {
      known.studs++;
      if (fall > known.most) Object.assign(known, { most: fall, at });
    }
  };
  const compare = (i: number, j: number, down: Side, up: Side) => {
    const fall = height[i] - height[j];
    if ((fall < BARE_STEP && fall > -BARE_STEP) || ground[i] === OUTSIDE || ground[j] === OUTSIDE) return;
    if (fall > 0) note(i, fall, down);
    else note(j, -fall, up);
  };
  for (let row = 0; row < d; row++)
    for (let i = row * w; i < (row + 1) * w; i++) {
      if (i + 1 < (row + 1) * w) compare(i, i + 1, 'e', 'w');
      if (row + 1 < d) compare(i, i + w, 's', 'n');
    }
  return [...found.values()];
}

/** What lies on a stud: of a building, nothing, since its walls hide the step. */
function groundOwner(scene: Scene, relief: Relief, i: number) {
  const owner = ownerAt(relief, i);
  return owner && scene[owner.kind][owner.id] ? owner : null;
}

/** The lowest that is built on, plates: the datum, or ground that is dug below it. */
function floorOf({ ground, height }: Relief): number {
  let floor = 0;
  for (let i = 0; i < height.length; i++) if (ground[i] !== OUTSIDE) floor = Math.min(floor, height[i]);
  return floor;
}

const bareStep: Rule = {
  id: 'bare-step',
  title: 'A step in the ground that nobody has dressed',
  basis: `Studs of pads whose neighbour lies ${formatPlates(BARE_STEP)} or more lower, on sides where the pad names no slope, terrace, wall or cliff. Each stud of such a side wants slopes or panels as high as the step.`,
  page: 'plan',
  severity: 'note',
  check({ scene, relief }) {
    return bareSteps(scene, relief)
      .map(({ studs, most, at, owner, side }) => ({
        sentence: `“${labelOf(scene, owner.kind, owner.id)}” falls by up to ${formatPlates(most)} (${formatMm(most * PLATE)}) to the ${SIDE_WORDS[side]} along ${countOf(studs, 'stud')}, and its edge there is open.`,
        remedy: 'Give that edge a slope, a terrace, a wall or a cliff.',
        place: at,
        part: SIDE_WORDS[side],
        things: [owner],
        numbers: { studs, most, side: SIDES.indexOf(side) },
      }))
      .sort((a, b) => b.numbers.studs - a.numbers.studs);
  },
};

const rawEdge: Rule = {
  id: 'raw-edge',
  title: 'Raw core shows at the edge of the scene',
  basis:
    'Studs at the rim of the footprint whose ground is a brick or more above datum, on the sides that are looked at (and on all where the house rules want finished backs), where no edge is named. Hills and hollows end raw at a rim too, unless that side is a rock face.',
  page: 'plan',
  severity: 'warning',
  check({ scene, relief }) {
    const { viewedSides, backs } = displayOf(scene);
    const judged = backs === 'finished' ? SIDES : viewedSides;
    return judged.flatMap((side): FindingDraft[] => {
      // By owner, as `relief.owner` numbers them; 0: none.
      const faced = [null, ...relief.things].map((owner) => isFaced(scene, owner, side));
      const { dx, dy } = STEPS[side];
      let studs = 0;
      let most = 0;
      let at = { x: 0, y: 0 };
      for (let row = 0; row < relief.d; row++)
        for (let column = 0; column < relief.w; column++) {
          const i = row * relief.w + column;
          if (relief.height[i] < PLATES_PER_BRICK || relief.ground[i] === OUTSIDE) continue;
          const x = column + dx;
          const y = row + dy;
          const rim =
            x < 0 || y < 0 || x >= relief.w || y >= relief.d || relief.ground[y * relief.w + x] === OUTSIDE;
          if (!rim || faced[relief.owner[i]]) continue;
          studs++;
          if (relief.height[i] <= most) continue;
          most = relief.height[i];
          at = { x: relief.x + column + 0.5, y: relief.y + row + 0.5 };
        }
      if (studs === 0) return [];
      return [
        {
          sentence: `On the ${SIDE_WORDS[side]} side, which is looked at, raw core shows along ${countOf(studs, 'stud')}, up to ${formatPlates(most)} (${formatMm(most * PLATE)}) high; 0 should.`,
          remedy: 'Name a cliff or a wall on that edge of what lies there, or plan a skirt of panels.',
          place: at,
          part: SIDE_WORDS[side],
          things: [],
          numbers: { studs, most, side: SIDES.indexOf(side) },
        },
      ];
    });
  },
};

function isFaced(scene: Scene, owner: { kind: Kind; id: string } | null, side: Side): boolean {
  if (!owner || !scene[owner.kind][owner.id]) return false;
  if (owner.kind === 'hill') return scene.hill[owner.id].faces.includes(side);
  if (owner.kind === 'pad') return isDressed(scene, owner, side);
  // Of a way the edge is that of the ground it lies on; a building ends in its own wall.
  return owner.kind === 'plot' || owner.kind === 'way' || owner.kind === 'track';
}

/** Kinds whose ground may be water. */
const LAYS_WATER: readonly Kind[] = ['water', 'stream', 'pad', 'hill', 'hollow', 'terrain', 'cavity'];

const waterLevels: Rule = {
  id: 'water-levels',
  title: 'Two waters meet at different heights',
  basis:
    'Neighbouring studs of water that two things laid at different heights. A stream may fall on its own way; where it flows into other water both must be level.',
  page: 'plan',
  severity: 'warning',
  check({ scene, relief }) {
    const found = new Map<
      string,
      { studs: number; by: number; at: { x: number; y: number }; things: { kind: Kind; id: string }[] }
    >();
    const waters = waterCodes(scene);
    for (let i = 0; i < relief.ground.length; i++) {
      if (!waters[relief.ground[i]]) continue;
      const east = (i + 1) % relief.w === 0 ? -1 : i + 1;
      for (const j of [east, i + relief.w]) {
        if (j < 0 || j >= relief.ground.length || !waters[relief.ground[j]]) continue;
        const by = Math.abs(relief.height[i] - relief.height[j]);
        const [a, b] = [ownerAt(relief, i), ownerAt(relief, j)];
        if (by === 0 || !a || !b || (a.kind === b.kind && a.id === b.id)) continue;
        // Under a deck or a bridge it is that which is uppermost.
        if (!LAYS_WATER.includes(a.kind) || !LAYS_WATER.includes(b.kind)) continue;
        const things = [a, b].sort((p, q) => (p.kind + p.id < q.kind + q.id ? -1 : 1));
        const key = things.map(({ kind, id }) => `${kind} ${id}`).join();
        const known = found.get(key);
        const at = studMiddle(relief, i);
        if (known) {
          known.studs++;
          known.by = Math.max(known.by, by);
        } else found.set(key, { studs: 1, by, at, things });
      }
    }
    return [...found.values()].map(({ studs, by, at, things }) => ({
      sentence: `“${labelOf(scene, things[0].kind, things[0].id)}” and “${labelOf(scene, things[1].kind, things[1].id)}” touch along ${countOf(studs, 'stud')} at heights that differ by ${formatPlates(by)}; water that touches is level.`,
      remedy: 'Bring both to one level, or put a dam or a fall between them.',
      place: at,
      things,
      numbers: { studs, by },
    }));
  },
};

const wallCourse: Rule = {
  id: 'wall-course',
  title: 'A wall of bricks ends in plates',
  basis:
    'A retaining wall’s height is the difference of the ground on both sides of its edge. Where that is no whole number of bricks, plates close it: three joints for one make a tall stack of plates a little higher than the bricks beside it (from memory).',
  page: 'plan',
  severity: 'note',
  check({ scene, relief }) {
    return Object.values(scene.pad).flatMap((pad): FindingDraft[] => {
      if (pad.shape !== 'rect') return [];
      return SIDES.flatMap((side): FindingDraft[] => {
        if (pad.edges[side].kind !== 'wall') return [];
        const heights = wallHeights(relief, pad, side);
        const odd = heights.filter((height) => height > 0 && height % PLATES_PER_BRICK !== 0);
        if (odd.length === 0) return [];
        const tallest = Math.max(...odd);
        const rest = tallest % PLATES_PER_BRICK;
        return [
          {
            sentence: `The wall on the ${SIDE_WORDS[side]} of “${pad.name}” is ${formatPlates(tallest)} high: ${countOf(rest, 'plate')} on top of ${countOf((tallest - rest) / PLATES_PER_BRICK, 'brick')}, along ${countOf(odd.length, 'stud')}.`,
            remedy: `Raise or lower the pad by ${formatPlates(rest === 1 ? 1 : PLATES_PER_BRICK - rest)} for whole bricks, or leave play where it meets bricks.`,
            place: { x: pad.x + pad.w / 2, y: side === 'n' ? pad.y : pad.y + pad.d },
            part: SIDE_WORDS[side],
            things: [{ kind: 'pad', id: pad.id }],
            numbers: { tallest, studs: odd.length, side: SIDES.indexOf(side) },
          },
        ];
      });
    });
  },
};

/** Height of the ground on a pad's edge above the ground beyond it, stud by stud, plates. */
function wallHeights(
  relief: Relief,
  pad: { x: number; y: number; w: number; d: number },
  side: Side,
): number[] {
  const along = runsEast(side);
  const length = Math.floor(along ? pad.w : pad.d);
  const edge = { n: pad.y, s: pad.y + pad.d - 1, w: pad.x, e: pad.x + pad.w - 1 }[side];
  return Array.from({ length }, (_, k) => {
    const x = Math.floor(along ? pad.x + k : edge) - relief.x;
    const y = Math.floor(along ? edge : pad.y + k) - relief.y;
    const [ox, oy] = [x + STEPS[side].dx, y + STEPS[side].dy];
    const off = (a: number, b: number) => a < 0 || b < 0 || a >= relief.w || b >= relief.d;
    if (off(x, y) || off(ox, oy)) return 0;
    const [i, j] = [y * relief.w + x, oy * relief.w + ox];
    return relief.ground[i] === OUTSIDE || relief.ground[j] === OUTSIDE
      ? 0
      : relief.height[i] - relief.height[j];
  });
}

const groundUncounted: Rule = {
  id: 'ground-uncounted',
  title: 'Ground that has no pieces',
  basis:
    'Studs of named ground that lie at the datum, on the table: nothing is under them and no cover is counted. Ground that is dug below the datum makes everything stand on a lower floor, and is counted.',
  page: 'plan',
  severity: 'note',
  check({ scene, relief }) {
    const found = new Map<
      string,
      { studs: number; water: boolean; at: number; owner: { kind: Kind; id: string } }
    >();
    if (relief.height.some((height, i) => height < 0 && relief.ground[i] !== OUTSIDE)) return [];
    const waters = waterCodes(scene);
    for (let i = 0; i < relief.height.length; i++) {
      if (relief.height[i] !== 0 || relief.ground[i] === OUTSIDE || relief.ground[i] === BARE) continue;
      const owner = groundOwner(scene, relief, i);
      if (!owner || owner.kind === 'plot') continue;
      const key = `${owner.kind} ${owner.id}`;
      const known = found.get(key);
      if (known) known.studs++;
      else found.set(key, { studs: 1, water: waters[relief.ground[i]] === 1, at: i, owner });
    }
    return [...found.values()].map(({ studs, water, at, owner }) => ({
      severity: water ? ('warning' as const) : ('note' as const),
      sentence: `${countOf(studs, 'stud')} of “${labelOf(scene, owner.kind, owner.id)}” lie at 0b, on the table: 0 pieces are counted for ${water ? 'the water' : 'them'}, at least 1 plate of height is needed.`,
      remedy: `Raise ${water ? 'the water and the ground about it' : 'it'} by a plate or a brick, or keep this where a base sheet of that colour is the ground.`,
      place: { x: relief.x + (at % relief.w) + 0.5, y: relief.y + Math.trunc(at / relief.w) + 0.5 },
      things: [owner],
      numbers: { studs },
    }));
  },
};

const waterBed: Rule = {
  id: 'water-bed',
  title: 'A water is deeper than the ground under it',
  basis:
    'The surface of each water less how deep it is said to be, against the table (or the lowest ground that is dug below it). Of a stream that falls, its lowest stretch.',
  page: 'plan',
  severity: 'warning',
  check({ scene, relief }) {
    const floor = floorOf(relief);
    const lowest = new Map<number, number>();
    const waters = waterCodes(scene);
    for (let i = 0; i < relief.height.length; i++) {
      if (!waters[relief.ground[i]]) continue;
      const known = lowest.get(relief.owner[i]);
      if (known === undefined || relief.height[i] < relief.height[known]) lowest.set(relief.owner[i], i);
    }
    return [...lowest.values()].flatMap((i): FindingDraft[] => {
      const owner = groundOwner(scene, relief, i);
      if (owner?.kind !== 'water' && owner?.kind !== 'stream') return [];
      const { depth, name } = owner.kind === 'water' ? scene.water[owner.id] : scene.stream[owner.id];
      const deepest = relief.height[i] - floor;
      if (depth <= deepest || deepest <= 0) return [];
      return [
        {
          sentence: `“${name}” is said to be ${formatPlates(depth)} deep; its surface lies ${formatPlates(deepest)} above the lowest that can be built on.`,
          remedy: `Make it at most ${formatPlates(deepest)} deep, or raise its surface by ${formatPlates(depth - deepest)}.`,
          place: { x: relief.x + (i % relief.w) + 0.5, y: relief.y + Math.floor(i / relief.w) + 0.5 },
          things: [owner],
          numbers: { depth, deepest },
        },
      ];
    });
  },
};

const layersThin: Rule = {
  id: 'layers-thin',
  title: 'Ground is thinner than the layers under its cover',
  basis:
    'Studs of custom grounds: the plates from the lowest ground (of a deck its own thickness) to the top, against one for the cover and those of the layers that lie under it at that height. Where there are fewer, the lowest layers are left out. Studs under buildings without cover are not judged.',
  page: 'plan',
  severity: 'warning',
  check: ({ scene, relief }) =>
    listOf(scene, 'customGround').flatMap((own): FindingDraft[] => {
      if (own.layers.length === 0) return [];
      const { studs, least, wanted, at, rooms } = thinStuds(scene, relief, own);
      if (at === null) return [];
      const layers = formatPlates(wanted - COVER);
      return [
        {
          sentence: `“${own.name}” has ${layers} of layers under its cover: ${countOf(studs, 'stud')} of it ${studs === 1 ? 'has' : 'have'} room for less, the thinnest for ${formatPlates(Math.max(0, least - COVER))}.`,
          remedy: `Raise the ground there to ${formatPlates(wanted)} at least, or make the layers thinner.`,
          place: at,
          things: [{ kind: 'customGround', id: own.id }],
          numbers: { studs, least, wanted, ...rooms },
        },
      ];
    }),
};

/** Plates of a cover. */
const COVER = 1;

/**
 * The studs of a ground that are thinner than its cover and layers, the plates of the thinnest, what it asks for, and where
 * it is; null: none. `rooms` are the least plates by how many layers lie at that height: `least3` where there are three.
 */
function thinStuds(
  scene: Scene,
  relief: Relief,
  own: CustomGround,
): {
  studs: number;
  least: number;
  wanted: number;
  at: { x: number; y: number } | null;
  rooms: Record<string, number>;
} {
  const code = GROUNDS.findIndex((one) => one === own.id);
  const floor = floorOf(relief);
  let [studs, least, wanted] = [0, Infinity, 0];
  let at: { x: number; y: number } | null = null;
  const rooms: Record<string, number> = {};
  const judge = (thick: number, top: number, x: number, y: number) => {
    if (thick <= 0) return;
    const layers = layersAt(own, top);
    const asked = COVER + layersThick({ layers });
    if (thick >= asked) return;
    studs++;
    const key = `least${layers.length}`;
    rooms[key] = Math.min(rooms[key] ?? Infinity, thick);
    if (thick < least) {
      [least, wanted] = [thick, asked];
      at = { x: x + 0.5, y: y + 0.5 };
    }
  };
  relief.ground.forEach((own, i) => {
    if (own !== code) return;
    const owner = ownerAt(relief, i);
    if (owner?.kind === 'plot' && !scene.plot[owner.id]?.coverUnder) return;
    const top = relief.height[i];
    judge(top - floor, top, relief.x + (i % relief.w), relief.y + Math.floor(i / relief.w));
  });
  for (const slab of relief.slabs)
    eachStudOf(slab, (k, x, y) => {
      if (slab.ground[k] === code) judge(slab.top[k] - slab.under[k], slab.top[k], x, y);
    });
  return { studs, least, wanted, at, rooms };
}

const methodUnfit: Rule = {
  id: 'method-unfit',
  title: 'Ground is too low for the large pieces of its method',
  basis:
    'The highest ground, above the lowest that is built on, of each pad, hill and section that has a method of its own, against the height of the method’s lowest large piece with a deck, where it has one, and the cover on it.',
  page: 'plan',
  severity: 'note',
  check({ scene, relief }) {
    return highestGround(scene, relief).flatMap(({ target, method, height }): FindingDraft[] => {
      const least = minHeightOf(method);
      if (least === null || height < 0 || height >= least) return [];
      return [
        {
          sentence: `“${labelOf(scene, target.kind, target.id)}” is set to ${METHOD_SPECS[method].word} and at most ${formatPlates(height)} high; its large pieces need ${formatPlates(least)}, so that none is laid.`,
          remedy: `Raise it to ${formatPlates(least)}, or choose another method under Stockpile, Methods.`,
          place: null,
          things: [target],
          numbers: { height, least },
        },
      ];
    });
  },
};

/** A thing with a method of its own, and its highest ground, plates above the floor. */
interface Filled {
  target: { kind: Kind; id: string };
  method: Method;
  height: number;
}

/** The highest ground of what has a method of its own and shows somewhere. */
function highestGround(scene: Scene, relief: Relief): Filled[] {
  const filled = (kind: Kind, id: string, method: Method | null | undefined): Filled | null =>
    method ? { target: { kind, id }, method, height: -Infinity } : null;
  const { pad, hill } = scene;
  // By owner, as `relief.owner` numbers them: 0 nobody.
  const owners = [
    null,
    ...relief.things.map(({ kind, id }) =>
      filled(kind, id, kind === 'pad' ? pad[id]?.method : kind === 'hill' ? hill[id]?.method : null),
    ),
  ];
  const sections = listOf(scene, 'section').flatMap((section) => {
    const known = filled('section', section.id, section.method);
    return known ? [{ section, known }] : [];
  });
  const all = [...owners.filter((one) => one !== null), ...sections.map(({ known }) => known)];
  if (all.length === 0) return [];
  const floor = floorOf(relief);
  for (let row = 0, i = 0; row < relief.d; row++)
    for (let column = 0; column < relief.w; column++, i++) {
      if (relief.ground[i] === OUTSIDE) continue;
      const found =
        owners[relief.owner[i]] ??
        sections.find(({ section }) => containsPoint(section, relief.x + column, relief.y + row))?.known;
      if (found) found.height = Math.max(found.height, relief.height[i] - floor);
    }
  return all.filter(({ height }) => Number.isFinite(height));
}

export const TERRAIN_RULES: readonly Rule[] = [
  groundUncounted,
  bareStep,
  rawEdge,
  waterLevels,
  waterBed,
  layersThin,
  wallCourse,
  methodUnfit,
];
