import { proxy, wrap, type Remote } from 'comlink';
import { useEffect, useRef, useState, type ReactNode } from 'react';
import { createStore } from 'zustand';
import { deltaOf, emptyScene, type Delta, type Scene } from '@quarry/core/document';
import { useDisplay, useLink } from '../data/useDisplay.tsx';
import type { DerivedWorker, Judgement, Listeners } from './derived.worker.ts';
import type { GroundWorker } from './ground.worker.ts';
import type { GroundStep } from './tiles.ts';
import { today } from '../ui/days.ts';
import { DerivedContext, type CompiledGround, type DerivedState } from './useDerived.ts';

/** Tells a worker what changed in the scene since it was last asked: one question at a time, about the latest scene. */
class WorkerSync<T> {
  private sent: Scene = emptyScene();
  private latest: Scene | null = null;
  private busy = false;

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

  private async run(): Promise<void> {
    this.busy = true;
    while (this.latest && this.latest !== this.sent) {
      if (this.patience > 0 && Object.keys(this.sent.display).length > 0)
        await new Promise((resolve) => setTimeout(resolve, this.patience));
      const scene = this.latest;
      const delta = deltaOf(this.sent, scene);
      this.sent = scene;
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
const EVALUATE_AFTER_MS = 60;

/** Keeps the ground of the scene fresh in one worker, and all that follows from it in another. */
export function DerivedDataProvider({ children }: { children: ReactNode }) {
  const scene = useDisplay(({ scene }) => scene);
  const [store] = useState(() =>
    createStore<DerivedState>(() => ({
      ...{ ground: null, judgement: null, error: null, core: null, materials: null, counting: null },
    })),
  );
  const { id: displayId } = useLink();
  const see = useRef<(scene: Scene) => void>(() => undefined);
  useEffect(() => {
    let ended = false;
    const set = (part: Partial<DerivedState>) => {
      if (!ended) store.setState(part);
    };
    const groundThread = new Worker(new URL('./ground.worker.ts', import.meta.url), { type: 'module' });
    const derivedThread = new Worker(new URL('./derived.worker.ts', import.meta.url), { type: 'module' });
    const grounds = wrap<GroundWorker>(groundThread);
    const core: Remote<DerivedWorker> = wrap<DerivedWorker>(derivedThread);
    const listeners: Listeners = {
      onMaterials: (materials) => set({ materials }),
      onJudgement: (judgement) => set({ judgement }),
      onCounting: (counting) => set({ counting }),
      onError: (error) => set({ error }),
    };
    // While the code is being edited, a count of it may not outlive it.
    void core.begin(import.meta.env.PROD ? displayId : null, proxy(listeners));
    const syncs = [
      new WorkerSync<GroundStep>(
        (delta) => grounds.ground(delta),
        (step, error) => set(step ? { error, ground: merged(store.getState().ground, step) } : { error }),
        0,
      ),
      new WorkerSync<Judgement>(
        (delta) => core.follow(delta, today()),
        (judgement, error) => set(judgement ? { judgement, core } : { error }),
        EVALUATE_AFTER_MS,
      ),
    ];
    see.current = (latest) => syncs.forEach((sync) => sync.see(latest));
    return () => {
      ended = true;
      see.current = () => undefined;
      // Workers of workers end with them.
      groundThread.terminate();
      derivedThread.terminate();
    };
  }, [store, displayId]);
  useEffect(() => see.current(scene), [scene]);
  return <DerivedContext value={store}>{children}</DerivedContext>;
}

function merged(before: CompiledGround | null, { relief, tiles, whole }: GroundStep): CompiledGround {
  if (whole || !before) return { relief, tiles };
  const fresh = new Map(tiles.map((tile) => [`${tile.x} ${tile.y}`, tile]));
  return { relief, tiles: before.tiles.map((tile) => fresh.get(`${tile.x} ${tile.y}`) ?? tile) };
}
