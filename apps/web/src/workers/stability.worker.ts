import { expose } from 'comlink';
import loadHighs from 'highs';
import wasmUrl from 'highs/runtime?url';
import { type Scene } from '@quarry/core/document';
import { judgeCarried, judgedThings, type CarriedStanding } from '@quarry/core/stability';
import { compile } from '@quarry/core/terrain';

/** Time for one of them, s: what is not proven by then stays open. How often progress is reported, ms. */
const SECONDS = 10;
const EVERY = 100;

const worker = {
  /**
   * Judges all modules and all decks that lift off, one after the other; ending the worker ends it.
   * @param onJudged receives each when it is judged
   * @param onProgress receives how many are judged, with the share of the one in hand
   */
  async judgeAll(
    scene: Scene,
    onJudged: (standing: CarriedStanding) => void,
    onProgress: (done: number) => void,
  ): Promise<void> {
    const highs = await loadHighs({ locateFile: () => wasmUrl });
    const compiled = compile(scene);
    let last = 0;
    for (const [index, ref] of judgedThings(scene).entries()) {
      onProgress(index);
      const standing = judgeCarried(scene, compiled, ref, {
        highs,
        time: { seconds: SECONDS, now: () => performance.now() },
        onProgress: (done, of) => {
          const now = performance.now();
          if (now - last > EVERY) onProgress(index + (of > 0 ? done / of : 0));
          if (now - last > EVERY) last = now;
          return true;
        },
      });
      if (standing) onJudged(standing);
    }
  },
};
export type StabilityWorker = typeof worker;
expose(worker);
