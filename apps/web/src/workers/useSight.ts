import { proxy, wrap } from 'comlink';
import { useEffect, useMemo, useRef, useState } from 'react';
import type { Scene } from '@quarry/core/document';
import type { ViewHelp } from '@quarry/core/findings';
import { planDigest } from '@quarry/core/stability';
import type { SeenThing, Sight, WalkMesh } from '@quarry/core/visibility';
import { keptSight } from '../data/keptAnswers.ts';
import { today } from './derived.tsx';
import type { SightWorker } from './sight.worker.ts';

/** A change is looked at when no other has come for so long, ms. */
const SETTLED_MS = 400;

/** An answer that takes long: what is done of it, 0 to 1, or why there is none. */
export type Asked<T> =
  | { is: 'idle' }
  | { is: 'asking'; share: number }
  | { is: 'answered'; answer: T }
  | { is: 'failed'; error: string };

/** Asks a worker of its own, which ends with the question. @returns ends it */
function askOnce<T>(
  question: (worker: ReturnType<typeof wrap<SightWorker>>, onProgress: (share: number) => void) => Promise<T>,
  onChange: (state: Asked<T>) => void,
): () => void {
  const worker = new Worker(new URL('./sight.worker.ts', import.meta.url), { type: 'module' });
  let isOver = false;
  const finish = (state: Asked<T>) => {
    if (isOver) return;
    isOver = true;
    worker.terminate();
    onChange(state);
  };
  worker.addEventListener('error', ({ message }) =>
    finish({ is: 'failed', error: message || 'The looking could not be loaded.' }),
  );
  onChange({ is: 'asking', share: 0 });
  question(
    wrap<SightWorker>(worker),
    proxy((share: number) => {
      if (!isOver) onChange({ is: 'asking', share });
    }),
  ).then(
    (answer) => finish({ is: 'answered', answer }),
    (error: unknown) =>
      finish({ is: 'failed', error: error instanceof Error ? error.message : String(error) }),
  );
  return () => {
    isOver = true;
    worker.terminate();
  };
}

/**
 * What the public sees of a display, looked at again after each change; kept in this browser.
 * @returns the last answer (null until there is one, or where it is not said who looks), and the state of the next
 */
export function useSight(
  displayId: string,
  scene: Scene,
): { sight: Sight | null; state: Asked<Sight | null> } {
  const digest = useMemo(() => planDigest(scene), [scene]);
  const latest = useRef(scene);
  useEffect(() => {
    latest.current = scene;
  }, [scene]);
  const [state, setState] = useState<Asked<Sight | null>>({ is: 'idle' });
  const [sight, setSight] = useState<Sight | null>(null);
  useEffect(() => {
    let end: () => void = () => undefined;
    let isWanted = true;
    const receive = (next: Asked<Sight | null>) => {
      setState(next);
      if (next.is !== 'answered') return;
      setSight(next.answer);
      if (next.answer)
        void keptSight.keep(displayId, CORE_DIGEST, digest, next.answer).catch(() => undefined);
    };
    const timer = setTimeout(() => {
      void keptSight
        .read(displayId, CORE_DIGEST, digest)
        .catch(() => null)
        .then((kept) => {
          if (!isWanted) return;
          if (kept) {
            setSight(kept);
            setState({ is: 'answered', answer: kept });
          } else end = askOnce((worker, onProgress) => worker.sight(latest.current, onProgress), receive);
        });
    }, SETTLED_MS);
    return () => {
      isWanted = false;
      clearTimeout(timer);
      end();
    };
  }, [displayId, digest]);
  return { sight, state };
}

/** The display as faces, built again when it has settled after a change; the last ones stay until then. */
export function useWalkMesh(scene: Scene): { mesh: WalkMesh | null; state: Asked<WalkMesh | null> } {
  const digest = useMemo(() => planDigest(scene), [scene]);
  const latest = useRef(scene);
  useEffect(() => {
    latest.current = scene;
  }, [scene]);
  const [state, setState] = useState<Asked<WalkMesh | null>>({ is: 'idle' });
  const [mesh, setMesh] = useState<WalkMesh | null>(null);
  const isFirst = useRef(true);
  useEffect(() => {
    let end: () => void = () => undefined;
    const timer = setTimeout(
      () => {
        end = askOnce(
          (worker) => worker.walk(latest.current),
          (next) => {
            setState(next);
            if (next.is === 'answered') setMesh(next.answer);
          },
        );
      },
      isFirst.current ? 0 : SETTLED_MS,
    );
    isFirst.current = false;
    return () => {
      clearTimeout(timer);
      end();
    };
  }, [digest]);
  return { mesh, state };
}

/** What frees the view of a thing: asked by hand, and forgotten when the scene or the thing is another. */
export function useViewHelps(
  scene: Scene,
  thing: Pick<SeenThing, 'kind' | 'id'>,
): { state: Asked<ViewHelp[]>; ask: () => void; end: () => void } {
  const { kind, id } = thing;
  const about = useMemo(() => ({ scene, kind, id }), [scene, kind, id]);
  const [asked, setAsked] = useState<{ about: object; state: Asked<ViewHelp[]> } | null>(null);
  const running = useRef<() => void>(() => undefined);
  useEffect(() => () => running.current(), [about]);
  const ask = () => {
    running.current();
    running.current = askOnce(
      (worker, onProgress) => worker.helps(scene, { kind, id }, today(), onProgress),
      (state) => setAsked({ about, state }),
    );
  };
  const end = () => {
    running.current();
    setAsked(null);
  };
  return { state: asked?.about === about ? asked.state : { is: 'idle' }, ask, end };
}
