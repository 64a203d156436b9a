import { expose } from 'comlink';
import { keepCounts, keptCounts } from '../data/keptCounts.ts';
import {
  changedNeeds,
  materialsOf,
  type Transfer,
  type Need,
  type NeedChange,
  type Netted,
  type Supply,
} from '@quarry/core/materials';
import {
  CountCache,
  builtBlock,
  compareMethods,
  paintedGround,
  buildSteps,
  type BlockCount,
  type BuildSteps,
  type MethodCount,
  type Painted,
} from '@quarry/core/masonry';
import { compile, recompile, type Compiled, type MassRaster } from '@quarry/core/terrain';
import { emptyScene, withDelta, type Delta, type Scene } from '@quarry/core/document';

/** A block as it was counted, without its lines: those are in the needs. */
export type BlockSum = Omit<BlockCount, 'lines'>;

/** What the scene needs and what there is of it, after a change. */
export interface Materials {
  needs: Need[];
  rows: Netted[];
  handOvers: Transfer[];
  supplies: Supply[];
  /** What no demand takes, by supply id. */
  left: ReadonlyMap<string, number>;
  blocks: BlockSum[];
  mass: MassRaster;
  /** What is needed now and was not before the last change that needed anything else. */
  changed: NeedChange[];
  /** Number of blocks that were counted, not cached. */
  fresh: number;
}

/** The layers of one block with the colour of each piece. */
export interface BlockLayers extends BuildSteps {
  w: number;
  d: number;
  /** Plates above datum at which the floor lies. */
  floor: number;
}

let scene: Scene = emptyScene();
let compiled: Compiled | null = null;
let needs: Need[] | null = null;
let changed: NeedChange[] = [];
const book = new CountCache();
/** The display whose counts are kept; empty: none are. */
let display = '';
let loaded: Promise<void> = Promise.resolve();
let storing: ReturnType<typeof setTimeout> | undefined;

/** Counts are stored when a hand has rested for so long, ms. */
const STORE_AFTER_MS = 1500;

function storeSoon(): void {
  if (display === '') return;
  clearTimeout(storing);
  // A browser that keeps nothing (private, or full) counts again the next time.
  storing = setTimeout(
    () => void keepCounts(display, CORE_DIGEST, book.current).catch(() => undefined),
    STORE_AFTER_MS,
  );
}

function followed(): Compiled {
  compiled ??= compile(scene);
  return compiled;
}

const worker = {
  /** Reads the counts kept of a display and keeps those to come; called before the first count. */
  follow(displayId: string): Promise<void> {
    display = displayId;
    loaded = keptCounts(displayId, CORE_DIGEST).then(
      (kept) => book.load(kept),
      () => undefined,
    );
    return loaded;
  },
  /** Counts what a change needs and nets it. @param onBlock receives progress (blocks done, blocks in all) */
  async materials(delta: readonly Delta[], onBlock: (done: number, of: number) => void): Promise<Materials> {
    await loaded;
    scene = withDelta(scene, delta);
    const before = compiled;
    compiled = null;
    compiled = before ? recompile(before, scene).compiled : compile(scene);
    const made = materialsOf(scene, compiled, book, (done, of) => {
      if (done % 4 === 0 || done === of) onBlock(done, of);
      return true;
    });
    if (!made) throw new Error('the count was ended');
    const { count, needs: now, supplies, rows, left, handOvers } = made;
    const differs = needs ? changedNeeds(needs, now) : [];
    if (differs.length > 0) changed = differs;
    needs = now;
    if (count.fresh > 0) storeSoon();
    return {
      ...{ needs: now, rows, left, handOvers, supplies, changed: changed.slice(0, 60), fresh: count.fresh },
      blocks: count.blocks.map(({ lines: _lines, ...block }) => block),
      mass: count.mass,
    };
  },
  /** The methods side by side for a hill, a pad or a section. */
  compare: (kind: 'hill' | 'pad' | 'section', id: string): MethodCount[] =>
    compareMethods(scene, followed(), { kind, id }),
  /** The colour of each stud from above. */
  painted: (): Painted => paintedGround(scene, followed()),
  /** One block as placed pieces. */
  layers(id: string): BlockLayers | null {
    const built = builtBlock(scene, followed(), id);
    if (!built) return null;
    const { masonry, ground } = built;
    return { w: masonry.w, d: masonry.d, floor: ground.floor, ...buildSteps(built) };
  },
};
export type MaterialsWorker = typeof worker;
expose(worker);
