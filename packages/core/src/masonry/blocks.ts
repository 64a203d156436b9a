import { containsPoint, intersection, type Rect } from '../grid/index.ts';
import {
  BARE,
  OUTSIDE,
  NEIGHBOUR_STEPS,
  NO_SLAB,
  eachStudOf,
  eachTouched,
  indexAt,
  levelHeight,
  waterCodes,
  type Compiled,
  type Relief,
  type SlabKind,
} from '../terrain/index.ts';
import {
  METHODS,
  builtCorners,
  displayOf,
  labelOf,
  listOf,
  plotBounds,
  type Entity,
  type Method,
  type Scene,
  type Side,
} from '../document/index.ts';
import {
  SURF,
  groundNamed,
  groundNumber,
  skinOf,
  dressesOf,
  plainFaces,
  plainMask,
  plainOf,
  surfOf,
  type Dress,
  type Dresses,
} from './dress.ts';
import { SKIN, type Fill } from './fill.ts';
import { METHOD_SPECS } from './method.ts';

// A scene's ground, block by block, as it is filled: a module, or a square of what is in no module.

export interface CountingBlock extends Rect {
  id: string;
  /** The module's name; of the rest its place. */
  name: string;
  /** In no module: the studs of modules are left out of it. */
  rest: boolean;
  /** It is not the ground: a deck, a bridge or the roof of a cavity, or what stands under one. */
  part?: SlabPart;
}

/** A slab's share of one module, or what stands under it. */
export interface SlabPart {
  kind: SlabKind;
  thing: string;
  /** Its module; null: in none, or over several because it lifts off. */
  module: string | null;
  /** Pillars, walls and piers; else the slab itself. */
  supports: boolean;
  /** It is carried by itself. */
  loose: boolean;
}

/** Side of the squares of what is in no module, studs. */
const SQUARE = 64;

/**
 * The blocks of a scene: its modules, squares over the footprint that no module takes, and then what lies over air:
 * each deck, bridge and roof, and what carries it, by module.
 */
export function countingBlocks(scene: Scene, relief: Relief): CountingBlock[] {
  const modules = listOf(scene, 'module').map(({ id, name, x, y, w, d }) => ({
    id,
    name,
    x,
    y,
    w,
    d,
    rest: false,
  }));
  const rest: CountingBlock[] = [];
  for (let y = relief.y; y < relief.y + relief.d; y += SQUARE)
    for (let x = relief.x; x < relief.x + relief.w; x += SQUARE) {
      const w = Math.min(SQUARE, relief.x + relief.w - x);
      const d = Math.min(SQUARE, relief.y + relief.d - y);
      const square = { id: `rest-${x}-${y}`, name: `rest at ${x},${y}`, ...{ x, y, w, d }, rest: true };
      const near = modules.filter((module) => intersection(module, square));
      if (
        someStud(
          square,
          (column, row) =>
            isGround(relief, column, row) && !near.some((module) => containsPoint(module, column, row)),
        )
      )
        rest.push(square);
    }
  return [...modules, ...rest, ...slabBlocks(scene, relief, modules)];
}

/** What lies over air as blocks: the lower first. */
function slabBlocks(scene: Scene, relief: Relief, modules: readonly CountingBlock[]): CountingBlock[] {
  const blocks = new Map<string, CountingBlock>();
  for (const slab of relief.slabs) {
    const loose = slab.kind === 'deck' && scene.deck[slab.id]?.loose === true;
    const near = loose ? [] : modules.filter((module) => intersection(module, slab));
    const label = labelOf(scene, slab.kind, slab.id);
    const word = slab.kind === 'cavity' ? `roof of ${label}` : label;
    eachStudOf(slab, (k, x, y) => {
      const module = near.find((one) => containsPoint(one, x + 0.5, y + 0.5)) ?? null;
      for (const [supports, from, to] of [
        [true, slab.foot[k], slab.under[k]],
        [false, slab.under[k], slab.top[k]],
      ] as const) {
        if (from === NO_SLAB || to <= from) continue;
        const id = [slab.kind, slab.id, module?.id ?? 'rest', supports ? 'under' : 'slab'].join(' ');
        const known = blocks.get(id);
        if (known) {
          const [east, south] = [Math.max(known.x + known.w, x + 1), Math.max(known.y + known.d, y + 1)];
          known.x = Math.min(known.x, x);
          known.y = Math.min(known.y, y);
          known.w = east - known.x;
          known.d = south - known.y;
        } else
          blocks.set(id, {
            ...{ id, x, y, w: 1, d: 1, rest: true },
            name: `${supports ? 'under ' : ''}${word}${module ? `, ${module.name}` : ''}`,
            part: { kind: slab.kind, thing: slab.id, module: module?.id ?? null, supports, loose },
          });
      }
    });
  }
  return [...blocks.values()];
}

const isGround = (relief: Relief, x: number, y: number) => {
  const i = indexAt(relief, x, y);
  return i >= 0 && relief.ground[i] !== OUTSIDE;
};

function someStud({ x, y, w, d }: Rect, test: (column: number, row: number) => boolean): boolean {
  for (let row = y; row < y + d; row++)
    for (let column = x; column < x + w; column++) if (test(column, row)) return true;
  return false;
}

/**
 * All that a block is counted from, as plain data and typed arrays (one entry a stud of the block, row by row): it can
 * be sent to a worker, and the digest of it names its count.
 */
export interface BlockInput {
  block: CountingBlock;
  /** Plates above the floor; −1 where there is no ground of this block. */
  height: Int16Array;
  /** Plates above the floor at which each stud begins; null: all at the floor. */
  base: Int16Array | null;
  /** Index in METHODS. */
  method: Uint8Array;
  skin: Uint8Array;
  /** Index in `dresses`. */
  dress: Uint16Array;
  dresses: readonly Dress[];
  /** Index in `sections`; −1: in none. */
  section: Int16Array;
  /** Ids of the sections that have studs in it. */
  sections: readonly string[];
  /** Plates above datum at which the floor lies: 0, or lower where ground is dug below the datum. */
  floor: number;
  /**
   * Heights of all studs of the rectangle that is wider by `LOOKS_OUT` on each side, plates above the floor; −1 where
   * there is nothing: what shows at the sides hangs on them.
   */
  around: Int16Array;
  /** Faces of each stud that nobody sees, a bit a side in the order of SIDES; null: none. */
  bare: Uint8Array | null;
  deckMost: number;
  span: number;
  sheets: boolean;
  /** What is known of parts. */
  known: Scene['partType'];
}

/** How far from a stud its sides are looked at: as deep as a method keeps its tall pieces behind the face, studs. */
export const LOOKS_OUT = Math.max(
  1,
  ...Object.values(METHOD_SPECS).flatMap(({ tall }) =>
    tall.map(({ at }) => (typeof at === 'object' ? at.behind : 1)),
  ),
);

/** A block as it is filled, with the dress of each stud. */
export interface BlockGround extends BlockInput {
  fill: Fill;
  dressAt: (i: number) => Dress;
}

/** Opens an input for counting. */
export function openBlock(input: BlockInput): BlockGround {
  const { block, height, base, method, skin, dress, dresses, around, bare, deckMost, span, sheets } = input;
  const { w, d } = block;
  const looks = new Map<string | Dress, number>();
  const lookOf = dresses.map((one) => {
    // Two grounds of one colour are one; mixed ones keep to themselves.
    const key =
      one.tones.length === 1 && one.accents.length === 0
        ? JSON.stringify([one.tones[0].colour, one.layers])
        : one;
    const known = looks.get(key) ?? looks.size;
    looks.set(key, known);
    return known;
  });
  const look = Uint8Array.from(height, (value, k) => (value < 0 ? 0 : lookOf[dress[k]]));
  const layers = dresses.map((one) => one.layers.map(({ plates }) => plates));
  const fine = Uint8Array.from(height, (value, k) =>
    value >= 0 && dresses[dress[k]].tones.length > 1 ? 1 : 0,
  );
  const wide = w + 2 * LOOKS_OUT;
  const beyond = (x: number, y: number) =>
    x < -LOOKS_OUT || y < -LOOKS_OUT || x >= w + LOOKS_OUT || y >= d + LOOKS_OUT
      ? -1
      : around[(y + LOOKS_OUT) * wide + x + LOOKS_OUT];
  return {
    ...input,
    fill: {
      w,
      d,
      height,
      ...(base ? { base } : {}),
      ...(bare ? { bare } : {}),
      method,
      skin,
      fine,
      look,
      ...(layers.some(({ length }) => length > 0) ? { layersAt: (i: number) => layers[dress[i]] } : {}),
      beyond,
      deckMost,
      span,
      sheets,
    },
    dressAt: (i) => dresses[dress[i]],
  };
}

/** Reads the ground of blocks out of a compiled scene. */
export class Grounds {
  private readonly sections: readonly Entity<'section'>[];
  private readonly sectionMethods: Int8Array;
  private readonly usual: number;
  /** The method that a pad or a hill has of its own, by owner number. */
  private readonly own = new Map<number, number>();
  /** The sides from which waves strike, by owner number of the water. */
  private readonly struck = new Map<number, readonly Side[]>();
  private readonly dresses: Dresses;
  /** Floors of the lowest cavities, by index of the stud. */
  private readonly floors = new Map<number, number>();
  /** For each ground code whether it is judged as water: 1. */
  private readonly waters: Uint8Array;
  /** Studs whose cover nobody sees: 1. */
  private readonly plain: Uint8Array;
  /** Faces that nobody sees, by `plainFaces`. */
  private readonly bare: Uint8Array | null;

  constructor(
    private readonly scene: Scene,
    private readonly compiled: Compiled,
  ) {
    const numberOf = (method: Method) => METHODS.indexOf(method);
    this.sections = listOf(scene, 'section');
    this.usual = numberOf(displayOf(scene).method);
    this.sectionMethods = Int8Array.from(this.sections, ({ method }) =>
      method === null ? this.usual : numberOf(method),
    );
    this.dresses = dressesOf(scene);
    const { relief } = compiled;
    for (const slab of relief.slabs) {
      const cavity = slab.kind === 'cavity' ? scene.cavity[slab.id] : undefined;
      if (!cavity) continue;
      const floor = levelHeight(scene, cavity);
      eachStudOf(slab, (_, x, y) => {
        const i = indexAt(relief, x, y);
        this.floors.set(i, Math.min(floor, this.floors.get(i) ?? floor));
      });
    }
    this.waters = waterCodes(scene);
    this.plain = plainMask(scene, relief);
    this.bare = plainFaces(scene, relief);
    compiled.relief.things.forEach(({ kind, id }, index) => {
      const method = kind === 'pad' || kind === 'hill' ? scene[kind][id]?.method : null;
      if (method) this.own.set(index + 1, numberOf(method));
      const struck = kind === 'water' ? scene.water[id]?.struck : null;
      if (struck && struck.length > 0) this.struck.set(index + 1, struck);
    });
  }

  /**
   * @param only leaves out every stud that a test does not let in
   * @param method instead of those that are set
   */
  of(
    block: CountingBlock,
    only?: (x: number, y: number, owner: number) => boolean,
    method?: Method,
  ): BlockInput {
    if (block.part) return this.ofSlab(block, block.part);
    const { relief, land } = this.compiled;
    const { w, d } = block;
    const modules = block.rest
      ? listOf(this.scene, 'module').filter((module) => intersection(module, block))
      : [];
    const near = this.sections.flatMap((section, index) =>
      intersection(section, block) ? [{ section, index }] : [],
    );
    const at = new Int32Array(w * d).fill(-1);
    let floor = 0;
    for (let row = 0; row < d; row++)
      for (let column = 0; column < w; column++) {
        const [x, y] = [block.x + column, block.y + row];
        const i = indexAt(relief, x, y);
        if (i < 0 || relief.ground[i] === OUTSIDE || modules.some((module) => containsPoint(module, x, y)))
          continue;
        if (only && !only(x, y, land.owner[i])) continue;
        at[row * w + column] = i;
        floor = Math.min(floor, this.solidHeight(i));
      }
    const covered = this.builtOver(block);
    const height = new Int16Array(w * d).fill(-1);
    const section = new Int16Array(w * d).fill(-1);
    const ground = new Uint8Array(w * d);
    const methods = new Uint8Array(w * d);
    const skin = new Uint8Array(w * d);
    const surf = new Uint8Array(w * d);
    const plain = new Uint8Array(w * d);
    for (let k = 0; k < w * d; k++) {
      const i = at[k];
      if (i < 0) continue;
      const [x, y] = [block.x + (k % w), block.y + Math.floor(k / w)];
      const within = near.find((one) => containsPoint(one.section, x, y));
      const solid = this.solidHeight(i);
      height[k] = solid - floor;
      section[k] = within ? within.index : -1;
      ground[k] = relief.ground[i] === BARE ? groundNumber('bare') : relief.ground[i];
      // What is under a cavity's room is its floor: the ground over it has the cover.
      skin[k] =
        covered[k] || solid < relief.height[i] ? SKIN.none : skinOf(this.scene, groundNamed(ground[k]));
      surf[k] = this.isSurf(x, y, land.owner[i]) ? 1 : 0;
      plain[k] = this.isPlain(i, relief.height[i]) ? 1 : 0;
      methods[k] = method
        ? METHODS.indexOf(method)
        : (this.own.get(land.owner[i]) ?? (within ? this.sectionMethods[within.index] : this.usual));
    }
    const wide = w + 2 * LOOKS_OUT;
    const around = new Int16Array(wide * (d + 2 * LOOKS_OUT)).fill(-1);
    for (let k = 0; k < around.length; k++) {
      const x = block.x + (k % wide) - LOOKS_OUT;
      const y = block.y + Math.floor(k / wide) - LOOKS_OUT;
      const i = indexAt(relief, x, y);
      if (i >= 0 && relief.ground[i] !== OUTSIDE) around[k] = Math.max(0, this.solidHeight(i) - floor);
    }
    return {
      ...{ block, height, base: null, method: methods, skin, floor, around, bare: this.bareOf(at) },
      ...this.dressed({ height, floor }, section, ground, { surf, plain }),
    };
  }

  /** Bare faces of the studs of a block. @param at their index in the relief, -1: not its own */
  private bareOf(at: Int32Array): Uint8Array | null {
    const { bare } = this;
    if (!bare) return null;
    const own = Uint8Array.from(at, (i) => (i < 0 ? 0 : bare[i]));
    return own.some((bits) => bits > 0) ? own : null;
  }

  /** What lies over air, or stands under it: built up solid, with nothing beside it. */
  private ofSlab(block: CountingBlock, part: SlabPart): BlockInput {
    const { w, d } = block;
    const { relief } = this.compiled;
    const size = w * d;
    const height = new Int16Array(size).fill(-1);
    const base = new Int16Array(size);
    const section = new Int16Array(size).fill(-1);
    const ground = new Uint8Array(size);
    const skin = new Uint8Array(size);
    const slab = relief.slabs.find(({ kind, id }) => kind === part.kind && id === part.thing);
    const modules = listOf(this.scene, 'module');
    const plain = new Uint8Array(size);
    const covered = this.builtOver(block);
    let floor = Infinity;
    if (slab) {
      const span = (k: number) =>
        part.supports ? [slab.foot[k], slab.under[k]] : [slab.under[k], slab.top[k]];
      eachStudOf(slab, (k) => {
        const [from, to] = span(k);
        if (from !== NO_SLAB && to > from) floor = Math.min(floor, from);
      });
      eachStudOf(slab, (k, x, y) => {
        const [from, to] = span(k);
        const at = (y - block.y) * w + x - block.x;
        if (from === NO_SLAB || to <= from) return;
        const module = part.loose ? null : modules.find((one) => containsPoint(one, x + 0.5, y + 0.5));
        if ((module?.id ?? null) !== part.module) return;
        height[at] = to - floor;
        base[at] = from - floor;
        section[at] = this.sections.findIndex((one) => containsPoint(one, x, y));
        ground[at] = slab.ground[k] === BARE ? groundNumber('bare') : slab.ground[k];
        skin[at] = part.supports || covered[at] ? SKIN.none : skinOf(this.scene, groundNamed(ground[at]));
        plain[at] = !part.supports && this.isPlain(indexAt(relief, x, y), to) ? 1 : 0;
      });
    }
    const lowest = Number.isFinite(floor) ? floor : 0;
    return {
      ...{ block, height, base, skin, floor: lowest },
      method: new Uint8Array(size).fill(METHODS.indexOf('solid')),
      around: new Int16Array((w + 2 * LOOKS_OUT) * (d + 2 * LOOKS_OUT)).fill(-1),
      bare: null,
      ...this.dressed({ height, floor: lowest }, section, ground, { surf: new Uint8Array(size), plain }),
    };
  }

  /** Whether nobody sees the top of something on a stud: it is the highest surface there. @param top plates */
  private isPlain(i: number, top: number): boolean {
    return this.plain[i] === 1 && this.compiled.relief.surface[i] === top;
  }

  /** Height to which the ground is solid from the table up, plates: where a cavity is in it, its floor. */
  private solidHeight(i: number): number {
    return this.floors.get(i) ?? this.compiled.relief.height[i];
  }

  /** The colours of each stud by its ground, its section and its height, and what the whole display sets. */
  private dressed(
    { height, floor }: Pick<BlockInput, 'height' | 'floor'>,
    section: Int16Array,
    ground: Uint8Array,
    { surf, plain }: { surf: Uint8Array; plain: Uint8Array },
  ): Omit<BlockInput, 'block' | 'height' | 'base' | 'method' | 'skin' | 'floor' | 'around' | 'bare'> {
    const { deckMost, deckSpan: span, deckSheets: sheets } = displayOf(this.scene);
    const dresses: Dress[] = [];
    const numbers = new Map<number, number>();
    const dress = Uint16Array.from(height, (value, k) => {
      if (value < 0) return 0;
      const band = this.dresses.band(value + floor);
      const key = (((band * 4096 + section[k] + 1) * 64 + ground[k]) * 2 + surf[k]) * 2 + plain[k];
      let number = numbers.get(key);
      if (number === undefined) {
        const own = this.dresses.of(
          groundNamed(ground[k]),
          this.sections[section[k]]?.id ?? null,
          value + floor,
        );
        number = dresses.push(plain[k] ? plainOf(own) : surf[k] ? surfOf(own) : own) - 1;
        numbers.set(key, number);
      }
      return number;
    });
    return {
      ...{ dress, dresses, deckMost, span, sheets },
      ...named(section, this.sections),
      known: this.scene.partType,
    };
  }

  /** Whether waves break on a stud of water: its shore is near, on a side that is struck. */
  private isSurf(x: number, y: number, owner: number): boolean {
    const { relief } = this.compiled;
    const isWater = (i: number) => i >= 0 && this.waters[relief.ground[i]] === 1;
    if (!isWater(indexAt(relief, x, y))) return false;
    return (this.struck.get(owner) ?? []).some((side) => {
      const { x: dx, y: dy } = NEIGHBOUR_STEPS[side];
      for (let far = 1; far <= SURF; far++) {
        const i = indexAt(relief, x + far * dx, y + far * dy);
        // The end of the display is no shore.
        if (i < 0 || relief.ground[i] === OUTSIDE) return false;
        if (!isWater(i)) return true;
      }
      return false;
    });
  }

  /** The studs of a block on which a building stands that has no ground cover under it: 1, else 0. */
  private builtOver(block: Rect): Uint8Array {
    const built = new Uint8Array(block.w * block.d);
    for (const plot of listOf(this.scene, 'plot'))
      if (!plot.coverUnder && intersection(plotBounds(plot), block))
        eachTouched(builtCorners(plot), block, (row, from, to) =>
          built.fill(1, (row - block.y) * block.w + from - block.x, (row - block.y) * block.w + to - block.x),
        );
    return built;
  }
}

/** Sections by their order in a block, so that its count does not hang on what other sections there are. */
function named(
  section: Int16Array,
  all: readonly Entity<'section'>[],
): Pick<BlockInput, 'section' | 'sections'> {
  const sections: string[] = [];
  const numbers = new Map<number, number>();
  const own = section.map((index) => {
    if (index < 0) return -1;
    let number = numbers.get(index);
    if (number === undefined) {
      number = sections.push(all[index].id) - 1;
      numbers.set(index, number);
    }
    return number;
  });
  return { section: own, sections };
}
