import type { Remote } from 'comlink';
import { useEffect, useEffectEvent, useMemo, useRef, useState } from 'react';
import type { Scene } from '@quarry/core/document';
import type { HiddenGround, PlainSavings } from '@quarry/core/materials';
import type { ViewHelp } from '@quarry/core/findings';
import { planDigest } from '@quarry/core/stability';
import type { SeenThing, Sight, WalkLook, WalkMesh } from '@quarry/core/visibility';
import { keptSight } from '../data/keptAnswers.ts';
import { KeptWorker, askOnce, type Asked } from './askOnce.ts';
import { today } from '../ui/days.ts';
import type { SightWorker } from './sight.worker.ts';

/** A change is looked at when no other has come for so long, ms. */
const SETTLED_MS = 400;

const sightWorker = () => new Worker(new URL('./sight.worker.ts', import.meta.url), { type: 'module' });

/** Where answers are kept by the content of the plan they are about. */
interface Kept<T> {
  read(digest: string): Promise<T | null>;
  keep(digest: string, answer: T): Promise<void>;
}

/** Asks one question; ends it. */
type Ask<T> = (
  question: (worker: Remote<SightWorker>, onProgress: (share: number) => void) => Promise<T>,
  onChange: (state: Asked<T>) => void,
) => () => void;

/**
 * Asks about a scene, and again when it has settled after a change.
 * @param askWorker a worker of its own for each question, or one that remembers
 * @param how what else the question depends on
 * @param kept where an answer may be already; null: nowhere
 * @returns the last answer, which stays until the next is there, and the state of the next
 */
function useAboutScene<T>(
  askWorker: Ask<T>,
  scene: Scene,
  question: (worker: Remote<SightWorker>, scene: Scene, onProgress: (share: number) => void) => Promise<T>,
  kept: Kept<T> | null,
  how = '',
): { answer: T | null; state: Asked<T> } {
  // Where photos are taken is looked from too.
  const digest = useMemo(() => planDigest(scene, ['photo', 'photoSpot']), [scene]);
  const [state, setState] = useState<Asked<T>>({ is: 'idle' });
  const [answer, setAnswer] = useState<T | null>(null);
  const receive = (next: Asked<T>) => {
    setState(next);
    if (next.is === 'answered') setAnswer(next.answer);
  };
  const ask = useEffectEvent(async (isWanted: () => boolean, onEnd: (end: () => void) => void) => {
    const known = await kept?.read(digest).catch(() => null);
    if (!isWanted()) return;
    if (known) return receive({ is: 'answered', answer: known });
    onEnd(
      askWorker(
        (worker, onProgress) => question(worker, scene, onProgress),
        (next) => {
          receive(next);
          if (next.is === 'answered') void kept?.keep(digest, next.answer).catch(() => undefined);
        },
      ),
    );
  });
  const isFirst = useRef(true);
  useEffect(() => {
    let end: () => void = () => undefined;
    let isWanted = true;
    const timer = setTimeout(
      () =>
        void ask(
          () => isWanted,
          (ending) => {
            end = ending;
          },
        ),
      isFirst.current ? 0 : SETTLED_MS,
    );
    isFirst.current = false;
    return () => {
      isWanted = false;
      clearTimeout(timer);
      end();
    };
  }, [digest, how]);
  return { answer, state };
}

/** What the public sees of a display; kept in this browser. The answer is null where it is not said who looks. */
export function useSight(
  displayId: string,
  scene: Scene,
): { sight: Sight | null; state: Asked<Sight | null> } {
  const kept = useMemo(
    (): Kept<Sight | null> => ({
      read: (digest) => keptSight.read(displayId, CORE_DIGEST, digest),
      keep: async (digest, sight) => {
        if (sight) await keptSight.keep(displayId, CORE_DIGEST, digest, sight);
      },
    }),
    [displayId],
  );
  const [worker] = useState(() => new KeptWorker<SightWorker>(sightWorker));
  useEffect(() => () => worker.end(), [worker]);
  const { answer, state } = useAboutScene<Sight | null>(
    (question, onChange) => worker.ask(question, onChange),
    scene,
    (remote, of, onProgress) => remote.sight(of, onProgress),
    kept,
  );
  return { sight: answer, state };
}

/** The display as faces; null where it has no footprint. */
export function useWalkMesh(
  scene: Scene,
  look: WalkLook,
): { mesh: WalkMesh | null; state: Asked<WalkMesh | null> } {
  const { answer, state } = useAboutScene<WalkMesh | null>(
    (question, onChange) => askOnce(sightWorker(), question, onChange),
    scene,
    (worker, of) => worker.walk(of, look),
    null,
    `${look.isOpen ? 'open' : 'closed'} ${look.isParted ? 'parted' : 'whole'}`,
  );
  return { mesh: answer, state };
}

/** A question that is asked by hand, and forgotten when what it is about is another. */
interface ByHand<T> {
  state: Asked<T>;
  ask: () => void;
  end: () => void;
}

function useByHand<T>(
  about: object,
  question: (worker: Remote<SightWorker>, onProgress: (share: number) => void) => Promise<T>,
): ByHand<T> {
  const [asked, setAsked] = useState<{ about: object; state: Asked<T> } | null>(null);
  const running = useRef<() => void>(() => undefined);
  useEffect(() => () => running.current(), [about]);
  const ask = () => {
    running.current();
    running.current = askOnce<SightWorker, T>(sightWorker(), question, (state) => setAsked({ about, state }));
  };
  const end = () => {
    running.current();
    setAsked(null);
  };
  return { state: asked?.about === about ? asked.state : { is: 'idle' }, ask, end };
}

/** What frees the view of a thing. */
export function useViewHelps(scene: Scene, thing: Pick<SeenThing, 'kind' | 'id'>): ByHand<ViewHelp[]> {
  const { kind, id } = thing;
  const about = useMemo(() => ({ scene, kind, id }), [scene, kind, id]);
  return useByHand(about, (worker, onProgress) => worker.helps(scene, { kind, id }, today(), onProgress));
}

/** What it saves to leave some ground plain. */
export function usePlainSavings(scene: Scene, ground: HiddenGround): ByHand<PlainSavings | null> {
  const about = useMemo(() => ({ scene, ground }), [scene, ground]);
  return useByHand(about, (worker) => worker.saves(scene, ground));
}
