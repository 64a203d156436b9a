import {
  changedNeeds,
  materialsOf,
  type Need,
  type NeedChange,
  type Netted,
  type Supply,
  type Transfer,
} from '@quarry/core/materials';
import { CountCache, type BlockCount } from '@quarry/core/masonry';
import type { Compiled, MassRaster } from '@quarry/core/terrain';
import type { Scene } from '@quarry/core/document';
import { keepCounts, keptCounts } from '../data/keptCounts.ts';
import { pool } from './pool.ts';

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

/** Counts are stored when a hand has rested for so long, ms. */
const STORE_AFTER_MS = 1500;
/** The most changed needs that are listed. */
const MAX_CHANGED = 60;

/** Counts a display's needs after each change: what was counted before, here or on an earlier visit, is not counted again. */
export class MaterialsCounting {
  private readonly book = new CountCache();
  private readonly loaded: Promise<void>;
  private needs: Need[] | null = null;
  private changed: NeedChange[] = [];
  private storing: ReturnType<typeof setTimeout> | undefined;

  /** @param displayId whose counts this browser keeps; null: none are kept */
  constructor(private readonly displayId: string | null) {
    this.loaded =
      displayId === null
        ? Promise.resolve()
        : keptCounts(displayId, CORE_DIGEST).then(
            (kept) => this.book.load(kept),
            () => undefined,
          );
  }

  /** @param onBlock receives progress: blocks counted of those that had to be */
  async materials(
    scene: Scene,
    compiled: Compiled,
    onBlock: (done: number, of: number) => void,
  ): Promise<Materials> {
    await this.loaded;
    const { book } = this;
    const missing = book.missing(scene, compiled);
    let done = 0;
    if (missing.length > 0) onBlock(0, missing.length);
    await pool.all(
      missing,
      (block, { input }) => block.count(input),
      (count, { key }) => {
        book.put(key, count);
        onBlock(++done, missing.length);
      },
    );
    const made = materialsOf(scene, compiled, book);
    if (!made) throw new Error('the count was ended');
    const { count, needs, supplies, rows, left, handOvers } = made;
    // The first count is the long one, and nobody’s hand moves yet: who leaves soon finds it again.
    if (count.fresh > 0) this.storeIn(this.needs === null ? 0 : STORE_AFTER_MS);
    const differs = this.needs ? changedNeeds(this.needs, needs) : [];
    if (differs.length > 0) this.changed = differs;
    this.needs = needs;
    return {
      ...{ needs, rows, left, handOvers, supplies, fresh: count.fresh, mass: count.mass },
      changed: this.changed.slice(0, MAX_CHANGED),
      blocks: count.blocks.map(({ lines: _lines, ...block }) => block),
    };
  }

  /** @param wait ms, begun again by each change */
  private storeIn(wait: number): void {
    const { displayId } = this;
    if (displayId === null) return;
    clearTimeout(this.storing);
    // A browser that keeps nothing (private, or full) counts again the next time.
    this.storing = setTimeout(
      () => void keepCounts(displayId, CORE_DIGEST, this.book.current).catch(() => undefined),
      wait,
    );
  }
}
