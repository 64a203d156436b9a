import type { Remote } from 'comlink';
import { createContext, use } from 'react';
import { useStore, type StoreApi } from 'zustand';
import type { Relief } from '@quarry/core/terrain';
import type { DerivedWorker, Judgement } from './derived.worker.ts';
import type { Materials } from './materialsCounting.ts';
import type { Tile } from './tiles.ts';

// What workers have worked out of the display, and how parts of pages read it.

export type { DerivedWorker, SeamEntry } from './derived.worker.ts';
export type { BlockLayers } from './block.worker.ts';

/** The compiled ground as the board draws it. Tiles that did not change are the same objects as before. */
export interface CompiledGround {
  relief: Relief;
  tiles: readonly Tile[];
}

export interface DerivedState {
  ground: CompiledGround | null;
  /** The latest; while the scene is being changed it is a moment older than the ground. */
  judgement: Judgement | null;
  error: string | null;
  /** Asks a worker for what is worked out only on demand; null until it runs. */
  core: Remote<DerivedWorker> | null;
  /** What is needed and short; a moment older than the ground. */
  materials: Materials | null;
  /** Blocks of ground that are counted, of how many; null: nothing is being counted. */
  counting: { done: number; of: number } | null;
}
/** Filled by `DerivedDataProvider`. */
export const DerivedContext = createContext<StoreApi<DerivedState> | null>(null);

/** Selects a part of the derived data. */
export function useDerived<T>(select: (state: DerivedState) => T): T {
  const store = use(DerivedContext);
  if (!store) throw new Error('this part belongs inside a display');
  return useStore(store, select);
}
