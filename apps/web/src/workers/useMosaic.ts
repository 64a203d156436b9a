import { wrap } from 'comlink';
import { useEffect, useState } from 'react';
import type { MosaicOptions, StudPicture, mosaicOf } from '@quarry/core/bench';
import type { MosaicWorker } from './mosaic.worker.ts';

type Answer = ReturnType<typeof mosaicOf>;

/** A question: the same object for as long as nothing about it changes. */
export interface MosaicAsked {
  picture: StudPicture;
  options: MosaicOptions;
}

/** A picture in pieces, laid in a worker of its own; null while it is laid, or nothing is asked. */
export function useMosaic(asked: MosaicAsked | null): Answer | null {
  const [answered, setAnswered] = useState<{ asked: MosaicAsked; answer: Answer } | null>(null);
  useEffect(() => {
    if (!asked) return;
    const worker = new Worker(new URL('./mosaic.worker.ts', import.meta.url), { type: 'module' });
    void wrap<MosaicWorker>(worker)
      .lay(asked.picture, asked.options)
      .then((answer) => setAnswered({ asked, answer }));
    // Ending the worker ends what it is doing: another question came.
    return () => worker.terminate();
  }, [asked]);
  return answered && answered.asked === asked ? answered.answer : null;
}
