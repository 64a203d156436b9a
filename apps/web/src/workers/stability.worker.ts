import { expose } from 'comlink';
import loadHighs from 'highs';
import wasmUrl from 'highs/runtime?url';
import { listOf, type Scene } from '@quarry/core/document';
import { judgeModule, type ModuleStanding } from '@quarry/core/stability';
import { compile } from '@quarry/core/terrain';

/** Time for one module, s: what is not proven by then stays open. How often progress is reported, ms. */
const SECONDS = 10;
const EVERY = 100;

const worker = {
  /**
   * Judges all modules of a scene, one after the other; ending the worker ends it.
   * @param onModule receives each when it is judged
   * @param onProgress receives how many modules are judged, with the share of the one in hand
   */
  async judgeModules(
    scene: Scene,
    onModule: (standing: ModuleStanding) => void,
    onProgress: (done: number) => void,
  ): Promise<void> {
    const highs = await loadHighs({ locateFile: () => wasmUrl });
    const compiled = compile(scene);
    let last = 0;
    for (const [index, { id }] of listOf(scene, 'module').entries()) {
      onProgress(index);
      const standing = judgeModule(scene, compiled, id, {
        highs,
        time: { seconds: SECONDS, now: () => performance.now() },
        onProgress: (done, of) => {
          const now = performance.now();
          if (now - last > EVERY) onProgress(index + (of > 0 ? done / of : 0));
          if (now - last > EVERY) last = now;
          return true;
        },
      });
      if (standing) onModule(standing);
    }
  },
};
export type StabilityWorker = typeof worker;
expose(worker);
