import { proxy, wrap, type Remote } from 'comlink';
import { formatISO } from 'date-fns';
import { createContext, use, useEffect, useRef, useState, type ReactNode } from 'react';
import { createStore, useStore, type StoreApi } from 'zustand';
import type { Relief } from '@quarry/core/terrain';
import { deltaOf, emptyScene, type Delta, type Scene } from '@quarry/core/document';
import { useDisplay, useLink } from '../data/useDisplay.tsx';
import type { CoreWorker, GroundStep, Judgement, Tile } from './core.worker.ts';
import type { Materials, MaterialsWorker } from './materials.worker.ts';

/** The compiled ground as the board draws it. Tiles that did not change are the same objects as before. */
export interface CompiledGround {
  relief: Relief;
  tiles: readonly Tile[];
}

interface SurveyState {
  ground: CompiledGround | null;
  /** The latest; while the scene is being changed it is a moment older than the ground. */
  judgement: Judgement | null;
  error: string | null;
  /** Asks a worker for what is worked out only on demand; null until it runs. */
  core: Remote<CoreWorker> | null;
  /** What is needed and short; a moment older than the ground. */
  materials: Materials | null;
  /** Blocks of ground that are counted, of how many; null: nothing is being counted. */
  counting: { done: number; of: number } | null;
  materialsWorker: Remote<MaterialsWorker> | null;
}
const SurveyContext = createContext<StoreApi<SurveyState> | null>(null);

export const today = () => formatISO(new Date(), { representation: 'date' });

/** Tells a worker what changed in the scene since it was last asked: one question at a time, about the latest scene. */
class Follower<T> {
  private told: Scene = emptyScene();
  private latest: Scene | null = null;
  private busy = false;
  private stale = false;

  constructor(
    private readonly ask: (delta: Delta[]) => Promise<T>,
    private readonly answer: (answer: T | null, error: string | null) => void,
    /** How long it waits for more changes before it asks, ms. */
    private readonly patience: number,
  ) {}

  see(scene: Scene): void {
    this.latest = scene;
    if (!this.busy) void this.run();
  }

  /** Asks once more of the same scene, for what else has changed. */
  again(): void {
    this.stale = true;
    if (!this.busy) void this.run();
  }

  private async run(): Promise<void> {
    this.busy = true;
    while (this.latest && (this.latest !== this.told || this.stale)) {
      if (this.patience > 0 && Object.keys(this.told.display).length > 0)
        await new Promise((resolve) => setTimeout(resolve, this.patience));
      const scene = this.latest;
      const delta = deltaOf(this.told, scene);
      this.told = scene;
      this.stale = false;
      try {
        this.answer(await this.ask(delta), null);
      } catch (error) {
        this.answer(null, error instanceof Error ? error.message : String(error));
      }
    }
    this.busy = false;
  }
}

/** Long enough to let a drag of arrow keys pass, short enough to be at once, ms. */
const JUDGE_AFTER = 60;
/** Counting may wait until a hand rests, ms. */
const COUNT_AFTER = 250;

/** Keeps the ground and the judgement of the scene fresh, each in a worker of its own. */
export function DerivedDataProvider({ children }: { children: ReactNode }) {
  const scene = useDisplay(({ scene }) => scene);
  const [store] = useState(() =>
    createStore<SurveyState>(() => ({
      ...{ ground: null, judgement: null, error: null, core: null },
      ...{ materials: null, counting: null, materialsWorker: null },
    })),
  );
  const { id: displayId } = useLink();
  const see = useRef<(scene: Scene) => void>(() => undefined);
  useEffect(() => {
    let ended = false;
    let boundTold = '';
    const workers = [0, 1].map(
      () => new Worker(new URL('./core.worker.ts', import.meta.url), { type: 'module' }),
    );
    const [grounds, judge] = workers.map((worker): Remote<CoreWorker> => wrap<CoreWorker>(worker));
    const counter = new Worker(new URL('./materials.worker.ts', import.meta.url), { type: 'module' });
    const materialsWorker: Remote<MaterialsWorker> = wrap<MaterialsWorker>(counter);
    // While the code is being edited, a count of it may not outlive it.
    if (import.meta.env.PROD) void materialsWorker.follow(displayId);
    const onBlock = proxy((done: number, of: number) => {
      if (!ended) store.setState({ counting: { done, of } });
    });
    const judging = new Follower<Judgement>(
      (delta) => judge.judge(delta, today()),
      (judgement, error) => {
        if (ended) return;
        store.setState(judgement ? { judgement, core: judge } : { error });
      },
      JUDGE_AFTER,
    );
    const followers = [
      new Follower<GroundStep>(
        (delta) => grounds.ground(delta),
        (step, error) => {
          if (ended) return;
          store.setState(step ? { error, ground: merged(store.getState().ground, step) } : { error });
        },
        0,
      ),
      judging,
      new Follower<Materials>(
        (delta) => materialsWorker.materials(delta, onBlock),
        (materials, error) => {
          if (ended) return;
          store.setState({ counting: null, ...(materials ? { materials, materialsWorker } : { error }) });
          if (!materials) return;
          // Counted masses take the place of the guesses by area, counted needs that of the lists alone.
          const bound = materials.rows.filter(({ demand }) => demand.source !== null);
          const told = bound.map(({ demand, short }) => `${demand.id} ${demand.qty} ${short}`).join();
          if (materials.fresh > 0 || told !== boundTold)
            void judge.weigh(materials.mass, bound).then(() => !ended && judging.again());
          boundTold = told;
        },
        COUNT_AFTER,
      ),
    ];
    see.current = (latest) => followers.forEach((follower) => follower.see(latest));
    return () => {
      ended = true;
      see.current = () => undefined;
      [...workers, counter].forEach((worker) => worker.terminate());
    };
  }, [store, displayId]);
  useEffect(() => see.current(scene), [scene]);
  return <SurveyContext value={store}>{children}</SurveyContext>;
}

function merged(before: CompiledGround | null, { relief, tiles, whole }: GroundStep): CompiledGround {
  if (whole || !before) return { relief, tiles };
  const fresh = new Map(tiles.map((tile) => [`${tile.x} ${tile.y}`, tile]));
  return { relief, tiles: before.tiles.map((tile) => fresh.get(`${tile.x} ${tile.y}`) ?? tile) };
}

/** Selects a part of the derived data. */
export function useDerived<T>(select: (state: SurveyState) => T): T {
  const store = use(SurveyContext);
  if (!store) throw new Error('this part belongs inside a survey');
  return useStore(store, select);
}
