import { wallFill } from './wallRuns.ts';
import { boundsOf, containsPoint, lengthOfLine, type Rect } from '../grid/index.ts';
import { listOf, type Plot, type Scene } from '../document/index.ts';
import { BARE, OUTSIDE, indexAt, ownerAt, studMiddle, type MassRaster, type Relief } from './relief.ts';
import { isOverSeam, linePieces, type LinePiece } from './overSeams.ts';
import { placeObjects, uppermost } from './placeObjects.ts';
import { NO_SLAB, eachStudOf, type Slab } from './slab.ts';
import { levelHeight } from './slabs.ts';
import {
  GRAMS_PER_STUD_PLATE,
  fixedHeight,
  listedMass,
  loosePieces,
  massesOf,
  offMiddle,
  weightOf,
  type LoosePiece,
} from './plotMass.ts';
import { eachPlotSpan, ridesOn, standsOn } from './stand.ts';

// Masses and centres of mass of all things: the one source for lifting, carrying and table loads.

/**
 * Until ground is counted piece by piece it is taken as 40 % solid; plants, fences and the like as 20 %: defaults of
 * ours, no source.
 */
export const GROUND_FILL = 0.4;
const THING_FILL = 0.2;
/** Rails and sleepers: a straight of 16 studs weighs about 12 g and is 2 plates high (from memory). */
export const RAIL_GRAMS_PER_STUD = 12 / 16;
export const RAIL_PLATES = 2;
/** A base sheet under everything, grams a stud (from memory: about 0.4 kg for 48 × 48). */
export const BASE_GRAMS = 0.18;

/** What stands on the ground of a scene, as it is carried and as it stands on show. */
export interface Loads {
  /** What goes with a module: pinned buildings without what lifts off, walls, repeats, plantings, track. */
  fixed: MassRaster;
  /**
   * What is taken off first: loose buildings, parts that lift off, what lies over seams, trees, and what is listed by
   * section only.
   */
  loose: MassRaster;
  /** Height of each stud with what is fixed to it, plates: the tops a module is carried with. */
  top: Int16Array;
  pieces: readonly LoosePiece[];
  /** Pieces of track, panels and members of repeats that lie over seams: part of what is loose. */
  overSeams: readonly OverSeam[];
}

/** A piece that lies over a seam, with its mass and the plates between which it stands. */
export interface OverSeam extends LinePiece {
  grams: number;
  low: number;
  high: number;
}

const known = new WeakMap<Int16Array, { of: readonly unknown[]; loads: Loads }>();

/** What stands on a scene's ground; worked out once for each relief and what its masses hang on. */
export function loadsOf(scene: Scene, relief: Relief): Loads {
  const { plot, partList, partType, section, deck, cavity, module, track, level } = scene;
  const of = [
    ...[plot, partList, partType, section, deck, cavity, module, track, level],
    ...[relief.height, relief.slabs],
  ];
  const before = known.get(relief.top);
  if (before && before.of.every((one, i) => one === of[i])) return before.loads;
  const loads = weighed(scene, relief);
  known.set(relief.top, { of, loads });
  return loads;
}

function weighed(scene: Scene, relief: Relief): Loads {
  const size = relief.height.length;
  const blank = (): MassRaster => ({ grams: new Float32Array(size), moment: new Float32Array(size) });
  const [fixed, loose] = [blank(), blank()];
  const put = (to: MassRaster, i: number, grams: number, z: number) => {
    to.grams[i] += grams;
    to.moment[i] += grams * z;
  };
  const along = linePieces(scene, relief);
  const overSeams = new Map<LinePiece, OverSeam>();
  const isOff = new Map<number, OverSeam>();
  for (const piece of along) {
    if (!isOverSeam(piece)) continue;
    const off: OverSeam = { ...piece, grams: 0, low: Infinity, high: -Infinity };
    overSeams.set(piece, off);
    if (piece.ref.kind === 'track') continue;
    for (const i of piece.studs) {
      const owner = ownerAt(relief, i);
      if (owner?.kind === piece.ref.kind && owner.id === piece.ref.id && !isOff.has(i)) isOff.set(i, off);
    }
  }
  for (let i = 0; i < size; i++) {
    const above = relief.top[i] - relief.surface[i];
    if (above <= 0 || relief.ground[i] === OUTSIDE) continue;
    const owner = ownerAt(relief, i);
    if (!owner || owner.kind === 'plot') continue;
    const grams = GRAMS_PER_STUD_PLATE * above * fillOf(scene, owner);
    const off = isOff.get(i);
    if (off) burden(off, grams, relief.surface[i], relief.top[i]);
    put(owner.kind === 'tree' || off ? loose : fixed, i, grams, relief.surface[i] + above / 2);
  }
  for (const piece of along) {
    if (piece.ref.kind !== 'track') continue;
    const heights = piece.line.map(({ z = 0 }) => z);
    const [low, high] = [Math.min(...heights), Math.max(...heights) + RAIL_PLATES];
    const grams = (RAIL_GRAMS_PER_STUD * lengthOfLine(piece.line)) / piece.studs.length;
    const off = overSeams.get(piece);
    for (const i of piece.studs) {
      if (off) burden(off, grams, low, high);
      put(off ? loose : fixed, i, grams, (low + high) / 2);
    }
  }
  const listed = listedMass(scene);
  const pieces: LoosePiece[] = [];
  const kept: Record<string, Plot & { id: string; v: number }> = {};
  for (const plot of listOf(scene, 'plot')) {
    // What stands on a thing that lifts off goes with that.
    const height = ridesOn(scene, relief, plot) ? 0 : fixedHeight(plot);
    if (height > 0) kept[plot.id] = { ...plot, height };
    pieces.push(...loosePieces(plot, listed));
    const foot = standsOn(scene, relief, plot);
    if (foot === null) continue;
    const { stays, off } = massesOf(plot, listed, height);
    const studs = studsUnder(plot, relief);
    // What stands beyond the footprint hangs on the studs that carry the rest.
    for (const [to, weight] of [
      [fixed, stays],
      [loose, off],
    ] as const) {
      const shares = pressOn(studs, relief, offMiddle(plot, weight));
      studs.forEach((i, k) => put(to, i, weight.grams * shares[k], foot + weight.z));
    }
  }
  for (const [id, grams] of listed.sections) {
    const at = id === null ? relief : scene.section[id];
    if (!at) continue;
    const studs: number[] = [];
    for (let i = 0; i < size; i++) {
      const { x, y } = studMiddle(relief, i);
      if (relief.ground[i] !== OUTSIDE && containsPoint(at, x, y)) studs.push(i);
    }
    for (const i of studs) put(loose, i, grams / studs.length, relief.height[i]);
  }
  const top = relief.height.slice();
  for (const slab of relief.slabs) {
    if (slab.kind === 'cavity') continue;
    const isLoose = isCarriedAlone(scene, slab);
    eachStudOf(slab, (k, x, y) => {
      const i = indexAt(relief, x, y);
      if (!isLoose) top[i] = Math.max(top[i], slab.top[k]);
      else {
        const foot = slab.foot[k] === NO_SLAB ? slab.under[k] : slab.foot[k];
        put(loose, i, GRAMS_PER_STUD_PLATE * (slab.top[k] - foot), (slab.top[k] + foot) / 2);
      }
    });
  }
  const above = uppermost(relief, top, new Uint16Array(size));
  const laid = (kind: string) => (kind === 'run' || kind === 'repeat' ? 1 : 2);
  placeObjects(
    { ...scene, plot: kept, tree: {} },
    {
      ...above,
      put(i, from, to, owner, covers) {
        if (owner !== 1 || !isOff.has(i)) above.put(i, from, to, owner, covers);
      },
    },
    relief,
    laid,
    () => true,
  );
  return { fixed, loose, top, pieces, overSeams: [...overSeams.values()].filter(({ grams }) => grams > 0) };
}

/**
 * What the buildings that are carried with a deck press on its studs: each spread over the studs under it.
 * @returns grams at the middles of studs, heights of their centres in plates above the datum
 */
export function loadsOn(
  scene: Scene,
  relief: Relief,
  deck: { kind: 'deck'; id: string },
): { x: number; y: number; z: number; grams: number }[] {
  const listed = listedMass(scene);
  return listOf(scene, 'plot').flatMap((plot) => {
    const host = ridesOn(scene, relief, plot);
    const foot = host?.kind === deck.kind && host.id === deck.id ? standsOn(scene, relief, plot) : null;
    if (foot === null) return [];
    const weight = weightOf(plot, listed);
    const studs = studsUnder(plot, relief);
    const shares = pressOn(studs, relief, offMiddle(plot, weight));
    return studs.map((i, k) => ({
      ...studMiddle(relief, i),
      ...{ z: foot + weight.z, grams: weight.grams * shares[k] },
    }));
  });
}

/** The studs of the footprint that a building stands over. */
function studsUnder(plot: Plot, relief: Relief): number[] {
  const studs: number[] = [];
  eachPlotSpan(plot, relief, (row, from, to) => {
    for (let x = from; x < to; x++) {
      const i = indexAt(relief, x, row);
      if (i >= 0 && relief.ground[i] !== OUTSIDE) studs.push(i);
    }
  });
  return studs;
}

function burden(piece: OverSeam, grams: number, low: number, high: number): void {
  piece.grams += grams;
  piece.low = Math.min(piece.low, low);
  piece.high = Math.max(piece.high, high);
}

/**
 * The shares in which a stiff foot presses on its studs: evenly, or growing in a straight line towards the side that its
 * centre of mass is off to, where none can pull (Navier's straight-line pressure).
 * @param by how far the centre is off the middle of the studs, studs
 */
function pressOn(studs: readonly number[], { w }: Relief, by: { x: number; y: number }): Float64Array {
  const shares = new Float64Array(studs.length).fill(1 / studs.length);
  if (Math.hypot(by.x, by.y) < 1e-9) return shares;
  const at = studs.map((i) => ({ x: i % w, y: Math.trunc(i / w) }));
  const mean = (of: (stud: { x: number; y: number }) => number) =>
    at.reduce((sum, stud) => sum + of(stud), 0) / at.length;
  const [mx, my] = [mean(({ x }) => x), mean(({ y }) => y)];
  const xx = mean(({ x }) => (x - mx) ** 2);
  const yy = mean(({ y }) => (y - my) ** 2);
  const xy = mean(({ x, y }) => (x - mx) * (y - my));
  const det = xx * yy - xy * xy;
  if (det < 1e-9) return shares;
  const [a, b] = [(yy * by.x - xy * by.y) / det, (xx * by.y - xy * by.x) / det];
  const pressed = at.map(({ x, y }) => Math.max(0, 1 + a * (x - mx) + b * (y - my)));
  const sum = pressed.reduce((total, one) => total + one, 0);
  return shares.map((_, k) => pressed[k] / sum);
}

/** How solid a thing that is no building is, 0 to 1: a wall of bricks is solid but for its arches and its fence. */
function fillOf(scene: Scene, { kind, id }: { kind: string; id: string }): number {
  const run = kind === 'run' ? scene.run[id] : undefined;
  return run?.use === 'wall' ? wallFill(run) : THING_FILL;
}

/**
 * The ground's own mass on each stud of a relief, grams, and its moment: as counted where it is, else estimated from its
 * height. Values outside the footprint have no meaning.
 */
export function groundMass(scene: Scene, relief: Relief): MassRaster {
  const { counted, ground, height } = relief;
  if (counted) return counted;
  const grams = new Float32Array(height.length);
  const moment = new Float32Array(height.length);
  for (let i = 0; i < height.length; i++) {
    const plates = ground[i] === BARE ? 0 : Math.max(1, height[i]);
    const filled = GRAMS_PER_STUD_PLATE * GROUND_FILL * plates;
    grams[i] = BASE_GRAMS + filled;
    moment[i] = (filled * plates) / 2;
  }
  for (const slab of relief.slabs) {
    const cavity = slab.kind === 'cavity' ? scene.cavity[slab.id] : undefined;
    const floor = cavity ? levelHeight(scene, cavity) : 0;
    if (isCarriedAlone(scene, slab)) continue;
    eachStudOf(slab, (k, x, y) => {
      const i = indexAt(relief, x, y);
      const add = (from: number, to: number, share: number) => {
        const mass = GRAMS_PER_STUD_PLATE * share * Math.max(0, to - from);
        grams[i] += mass;
        moment[i] += (mass * (from + to)) / 2;
      };
      // What is taken away is air; a deck and what carries it are solid.
      if (cavity) add(floor, slab.under[k], -GROUND_FILL);
      else {
        add(slab.under[k], slab.top[k], 1);
        if (slab.foot[k] !== NO_SLAB) add(slab.foot[k], slab.under[k], 1);
      }
    });
  }
  return { grams, moment };
}

/** Whether a slab is lifted off and carried by itself: a deck that is set so. */
const isCarriedAlone = (scene: Scene, { kind, id }: Slab): boolean =>
  kind === 'deck' && scene.deck[id]?.loose === true;

/** A deck that lifts off, with what carries it: solid plastic (a guess), and its centre, studs and plates. */
export interface LooseDeck {
  id: string;
  name: string;
  grams: number;
  x: number;
  y: number;
  z: number;
  /** The rectangle of its studs; its lowest and highest plates. */
  area: Rect;
  low: number;
  high: number;
}

/** The decks that lift off, the lower first. */
export function looseDecks(scene: Scene, relief: Relief): LooseDeck[] {
  return relief.slabs
    .filter((slab) => isCarriedAlone(scene, slab))
    .map((slab) => {
      let [grams, mx, my, mz] = [0, 0, 0, 0];
      let [low, high] = [Infinity, -Infinity];
      const studs: Rect[] = [];
      eachStudOf(slab, (k, x, y) => {
        const foot = slab.foot[k] === NO_SLAB ? slab.under[k] : slab.foot[k];
        const mass = GRAMS_PER_STUD_PLATE * (slab.top[k] - foot);
        grams += mass;
        mx += mass * (x + 0.5);
        my += mass * (y + 0.5);
        mz += (mass * (slab.top[k] + foot)) / 2;
        low = Math.min(low, foot);
        high = Math.max(high, slab.top[k]);
        studs.push({ x, y, w: 1, d: 1 });
      });
      return {
        ...{ id: slab.id, name: scene.deck[slab.id]?.name ?? '', grams, low, high },
        ...{ x: mx / grams, y: my / grams, z: mz / grams },
        area: boundsOf(studs),
      };
    });
}

/**
 * Grams on each stud of a relief; 0 outside the footprint.
 * @param carried without what is taken off before a module is carried
 */
export function massOf(scene: Scene, relief: Relief, carried = false): MassRaster {
  const { fixed, loose } = loadsOf(scene, relief);
  const { ground } = relief;
  const own = groundMass(scene, relief);
  const grams = new Float32Array(ground.length);
  const moment = new Float32Array(ground.length);
  for (let i = 0; i < grams.length; i++) {
    if (ground[i] === OUTSIDE) continue;
    grams[i] = own.grams[i] + fixed.grams[i] + (carried ? 0 : loose.grams[i]);
    moment[i] = own.moment[i] + fixed.moment[i] + (carried ? 0 : loose.moment[i]);
  }
  return { grams, moment };
}
