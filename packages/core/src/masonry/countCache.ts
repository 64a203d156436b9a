import { sha256 } from '@noble/hashes/sha2';
import { bytesToHex, utf8ToBytes } from '@noble/hashes/utils';
import { partOf } from '../catalogue/index.ts';
import { roundOut, intersection, type Rect } from '../grid/index.ts';
import {
  BASE_GRAMS,
  OUTSIDE,
  compile,
  indexAt,
  type Compiled,
  type MassRaster,
  type Relief,
} from '../terrain/index.ts';
import { METHODS, type Method, type Scene } from '../document/index.ts';
import {
  Grounds,
  countingBlocks,
  openBlock,
  type BlockGround,
  type BlockInput,
  type CountingBlock,
} from './blocks.ts';
import type { Bond } from './bond.ts';
import { unchangedBlocks } from './changedBlocks.ts';
import { countMasonry, dressMasonry, type CountLine, type Counted, type DressedMasonry } from './count.ts';
import { MAX_HEIGHT, buildLayers } from './layers.ts';

// A scene counted, block by block: a block whose ground did not change is not counted again.

/** So many of a part in a colour for a purpose; `section` null: in none. */
export type BlockLine = Omit<CountLine, 'group'> & { section: string | null };

export interface BlockCount {
  block: CountingBlock;
  lines: BlockLine[];
  counted: Omit<Counted, 'lines'>;
  bond: Bond;
  /** Side of the widest square of deck with nothing under it, studs. */
  span: number;
  layers: number;
}

export interface SceneCount {
  blocks: BlockCount[];
  mass: MassRaster;
  /** How many blocks had to be counted for it. */
  fresh: number;
}

/** A block as placed pieces with their colours. */
export interface Built extends DressedMasonry {
  ground: BlockGround;
}

/** The count of one block, as it may be stored: plain data and typed arrays. */
export interface KeptBlock {
  count: BlockCount;
  /** Grams and moment of each stud of the block. */
  grams: Float32Array;
  moment: Float32Array;
}
/** Counts of blocks by the digest of all they are counted from: a digest names one content, on any day and display. */
export type KeptCounts = ReadonlyMap<string, KeptBlock>;

/** A block to be counted, and the digest by which its count is kept. */
export interface BlockWork {
  key: string;
  input: BlockInput;
}

/** Blocks that are kept though the last count did not need them: what is undone is not counted again. */
const MAX_UNUSED = 40;

/** Keeps the counts of blocks from one change to the next, by content. */
export class CountCache {
  /** In the order of use, the last used last. */
  private readonly kept = new Map<string, KeptBlock>();
  private used: readonly string[] = [];
  /** Blocks counted since the last count of a scene. */
  private fresh = 0;
  private last: { scene: Scene; compiled: Compiled; work: readonly BlockWork[] } | null = null;

  /** The blocks of the last count, to be stored. */
  get current(): KeptCounts {
    return new Map(
      this.used.flatMap((key) => {
        const block = this.kept.get(key);
        return block ? [[key, block] as const] : [];
      }),
    );
  }

  /** Takes in counts that were stored by the same program. */
  load(kept: KeptCounts): void {
    for (const [key, block] of kept) this.kept.set(key, block);
  }

  /** The blocks of a scene that are not counted yet, each content once: to be counted elsewhere and given to `put`. */
  missing(scene: Scene, compiled: Compiled): BlockWork[] {
    const work = new Map(this.inputsOf(scene, compiled).map((one) => [one.key, one]));
    return [...work.values()].filter(({ key }) => !this.kept.has(key));
  }

  /** Takes in the count of a block that was missing. */
  put(key: string, count: KeptBlock): void {
    this.kept.set(key, count);
    this.fresh++;
  }

  private inputsOf(scene: Scene, compiled: Compiled): readonly BlockWork[] {
    const { last } = this;
    if (last?.scene === scene && last.compiled === compiled) return last.work;
    const isSame = last && unchangedBlocks(last.compiled, compiled);
    const known = new Map(isSame ? last.work.map((one) => [one.input.block.id, one]) : []);
    const grounds = new Grounds(scene, compiled);
    const work = countingBlocks(scene, compiled.relief).map((block) => {
      const before = known.get(block.id);
      if (before && isSame?.(block)) return { key: before.key, input: { ...before.input, block } };
      const input = grounds.of(block);
      return { key: digestOf(input), input };
    });
    this.last = { scene, compiled, work };
    return work;
  }

  /**
   * Counts a scene.
   * @param onBlock receives progress (blocks done, blocks in all); returning false ends the count
   * @returns null when it was ended
   */
  count(
    scene: Scene,
    compiled: Compiled,
    onBlock: (done: number, of: number) => boolean = () => true,
  ): SceneCount | null {
    const { relief } = compiled;
    const mass = {
      grams: new Float32Array(relief.ground.length),
      moment: new Float32Array(relief.ground.length),
    };
    for (let i = 0; i < mass.grams.length; i++) if (relief.ground[i] !== OUTSIDE) mass.grams[i] = BASE_GRAMS;
    const counts = [];
    const inputs = this.inputsOf(scene, compiled);
    const used: string[] = [];
    for (const [index, { key, input }] of inputs.entries()) {
      let kept = this.kept.get(key);
      if (!kept) {
        kept = countBlock(input);
        this.fresh++;
      }
      this.kept.delete(key);
      this.kept.set(key, kept);
      used.push(key);
      const { block } = input;
      // A module may have been moved or renamed without its ground being another.
      counts.push({ ...kept.count, block });
      // What lifts off is weighed by itself: see `loadsOf`.
      if (!block.part?.loose) spread(kept, block, relief, mass);
      if (!onBlock(index + 1, inputs.length)) return null;
    }
    const { fresh } = this;
    this.fresh = 0;
    this.used = used;
    const most = new Set(used).size + MAX_UNUSED;
    for (const key of this.kept.keys()) {
      if (this.kept.size <= most) break;
      this.kept.delete(key);
    }
    return { blocks: counts, mass, fresh };
  }
}

/** Counts one block. Its cost grows with studs × height; a module of 96 × 48 studs takes some 100 ms. */
export function countBlock(input: BlockInput): KeptBlock {
  const ground = openBlock(input);
  const { fill, section, sections, block, floor, known } = ground;
  const built = buildBlock(ground);
  const grams = new Float32Array(fill.w * fill.d);
  const moment = new Float32Array(fill.w * fill.d);
  const { lines, ...counted } = countMasonry(
    fill,
    built,
    (i) => section[i],
    known,
    (x, y, w, d, mass, z) => {
      const each = mass / (w * d);
      for (let row = y; row < Math.min(fill.d, y + d); row++)
        for (let column = x; column < Math.min(fill.w, x + w); column++) {
          grams[row * fill.w + column] += each;
          moment[row * fill.w + column] += each * (z + floor);
        }
    },
  );
  return {
    ...{ grams, moment },
    count: {
      block,
      lines: lines.map(({ group, ...line }) => ({ ...line, section: sections[group] ?? null })),
      counted,
      bond: built.masonry.bond,
      span: built.masonry.span,
      layers: built.masonry.layers.length,
    },
  };
}

function buildBlock({ fill, dressAt }: BlockGround): DressedMasonry {
  return dressMasonry(fill, buildLayers(fill), dressAt);
}

/** One block as placed pieces. */
export function builtFrom(input: BlockInput): Built {
  const ground = openBlock(input);
  return { ground, ...buildBlock(ground) };
}

/**
 * A scene's relief with its ground counted, so that masses are those of pieces. Ground higher than is ever built of
 * them stays uncounted: its mass is guessed by area.
 */
export function countedRelief(scene: Scene): Relief {
  const compiled = compile(scene);
  const { relief } = compiled;
  if (relief.height.some((height) => height > MAX_HEIGHT)) return relief;
  const count = new CountCache().count(scene, compiled);
  return count ? { ...relief, counted: count.mass } : relief;
}

/** The pieces of one block as they are placed; null for a block the scene does not have. */
export function builtBlock(scene: Scene, compiled: Compiled, id: string): Built | null {
  for (const built of builtBlocks(scene, compiled, (block) => block.id === id)) return built;
  return null;
}

/** The pieces of those blocks that a test lets in, one after the other. */
export function* builtBlocks(
  scene: Scene,
  compiled: Compiled,
  wanted: (block: CountingBlock) => boolean,
): Generator<Built> {
  const grounds = new Grounds(scene, compiled);
  for (const block of countingBlocks(scene, compiled.relief)) {
    if (!wanted(block)) continue;
    yield builtFrom(grounds.of(block));
  }
}

/** The colour that is uppermost on each stud of a scene's ground. */
export interface Painted {
  /** Ids of colours, by number. */
  colours: string[];
  /** The number of each stud's colour, row by row as the relief; −1: nothing lies there. */
  studs: Int16Array;
}

/** One block's part of `Painted`: the number of the colour of each of its studs, row by row; −1: nothing. */
export interface BlockPaint {
  block: CountingBlock;
  colours: string[];
  studs: Int16Array;
}

/** The colours of one block from above: its covers and slopes, and what is scattered on them. */
export function paintBlock(input: BlockInput): BlockPaint {
  const { masonry, colours: layerColours, accents, ground } = builtFrom(input);
  const { block } = ground;
  const studs = new Int16Array(block.w * block.d).fill(-1);
  const numbers = new Map<string, number>();
  const paint = (colour: string, x: number, y: number, w: number, d: number) => {
    const number = numbers.get(colour) ?? numbers.size;
    numbers.set(colour, number);
    for (let row = y; row < Math.min(block.d, y + d); row++)
      studs.fill(number, row * block.w + x, row * block.w + Math.min(block.w, x + w));
  };
  masonry.layers.forEach(({ purpose, laid }, layer) => {
    if (purpose !== 'cover' && purpose !== 'slope') return;
    for (let p = 0; p < laid.length; p += 4)
      paint(layerColours[layer][p / 4], laid[p], laid[p + 1], laid[p + 2], laid[p + 3]);
  });
  for (const { colour, x, y, part } of accents) {
    const size = partOf(part) ?? { w: 1, d: 1 };
    paint(colour, x, y, size.w, size.d);
  }
  return { block, colours: [...numbers.keys()], studs };
}

/** Blocks put together to the whole ground. */
export function paintedFrom(relief: Relief, blocks: readonly BlockPaint[]): Painted {
  const studs = new Int16Array(relief.ground.length).fill(-1);
  const numbers = new Map<string, number>();
  for (const { block, colours, studs: own } of blocks)
    for (let k = 0; k < own.length; k++) {
      if (own[k] < 0) continue;
      const colour = colours[own[k]];
      const number = numbers.get(colour) ?? numbers.size;
      numbers.set(colour, number);
      const i = indexAt(relief, block.x + (k % block.w), block.y + Math.floor(k / block.w));
      if (i >= 0) studs[i] = number;
    }
  return { colours: [...numbers.keys()], studs };
}

/** What each block of a scene is counted from. */
export function blockInputs(scene: Scene, compiled: Compiled): BlockInput[] {
  const grounds = new Grounds(scene, compiled);
  return countingBlocks(scene, compiled.relief).map((block) => grounds.of(block));
}

/** What the whole ground looks like from above. */
export const paintedGround = (scene: Scene, compiled: Compiled): Painted =>
  paintedFrom(compiled.relief, blockInputs(scene, compiled).map(paintBlock));

function spread({ grams, moment }: KeptBlock, block: CountingBlock, relief: Rect, mass: MassRaster): void {
  const on = intersection(block, relief);
  if (!on) return;
  for (let y = on.y; y < on.y + on.d; y++)
    for (let x = on.x; x < on.x + on.w; x++) {
      const from = (y - block.y) * block.w + x - block.x;
      const to = indexAt(relief, x, y);
      mass.grams[to] += grams[from];
      mass.moment[to] += moment[from];
    }
}

/** The digest (SHA-256) of all that a block is counted from; where it lies and what it is called are not part of it. */
function digestOf({ block, ...input }: BlockInput): string {
  const { height, base, method, skin, dress, section, around, bare, ...rest } = input;
  const hash = sha256.create();
  hash.update(utf8ToBytes(JSON.stringify([block.w, block.d, rest])));
  for (const array of [
    height,
    method,
    skin,
    dress,
    section,
    around,
    ...(base ? [base] : []),
    ...(bare ? [bare] : []),
  ])
    hash.update(new Uint8Array(array.buffer, array.byteOffset, array.byteLength));
  return bytesToHex(hash.digest());
}

/** What one method comes to, for a hill, a pad or a section. */
export interface MethodCount extends Omit<Counted, 'lines' | 'tally'> {
  method: Method;
  /** Pieces of it that are taller than a brick, and the highest ground they could stand in, plates. */
  tall: number;
  highest: number;
  /** Side of the widest square of deck with nothing under it, studs; 0: nothing is hollow. */
  span: number;
  bond: Bond;
}

/** What a hill, a pad or a section is counted from, by each method; empty when it has no ground of its own to see. */
export function methodInputs(
  scene: Scene,
  compiled: Compiled,
  target: { kind: 'hill' | 'pad' | 'section'; id: string },
): { method: Method; input: BlockInput }[] {
  const { relief } = compiled;
  const { x, y, w, d } = relief;
  const whole: CountingBlock = { id: 'whole', name: '', rest: false, x, y, w, d };
  const owner = relief.things.findIndex(({ kind, id }) => kind === target.kind && id === target.id) + 1;
  const area = target.kind === 'section' ? scene.section[target.id] : areaOf(compiled, owner);
  const window = area && intersection(area, whole);
  if (!window) return [];
  const block = { ...whole, ...roundOut(window) };
  const grounds = new Grounds(scene, compiled);
  const within =
    target.kind === 'section' ? undefined : (_x: number, _y: number, own: number) => own === owner;
  return METHODS.filter((method) => method !== 'reuse').map((method) => ({
    method,
    input: grounds.of(block, within, method),
  }));
}

/** What one method comes to. @param input made for that method, by `methodInputs` */
export function methodCount(method: Method, input: BlockInput): MethodCount {
  const built = builtFrom(input);
  const { fill, known } = built.ground;
  const { lines: _lines, tally: _tally, ...counted } = countMasonry(fill, built, () => 0, known);
  const { layers, span, bond } = built.masonry;
  const tall = layers.reduce(
    (sum, { purpose, h, laid }) => sum + (purpose === 'core' && h > 3 ? laid.length / 4 : 0),
    0,
  );
  const highest = fill.height.reduce((most, height) => Math.max(most, height), 0);
  return { method, ...counted, tall, highest, span, bond };
}

/** The methods side by side for one hill, pad or section; empty when it has no ground of its own to see. */
export const compareMethods = (...args: Parameters<typeof methodInputs>): MethodCount[] =>
  methodInputs(...args).map(({ method, input }) => methodCount(method, input));

function areaOf({ land }: Compiled, owner: number): Rect | null {
  let [x0, y0, x1, y1] = [land.w, land.d, -1, -1];
  if (owner === 0) return null;
  for (let i = 0; i < land.owner.length; i++)
    if (land.owner[i] === owner) {
      const [x, y] = [i % land.w, Math.floor(i / land.w)];
      x0 = Math.min(x0, x);
      x1 = Math.max(x1, x);
      y0 = Math.min(y0, y);
      y1 = y;
    }
  return x1 < 0 ? null : { x: land.x + x0, y: land.y + y0, w: x1 - x0 + 1, d: y1 - y0 + 1 };
}
