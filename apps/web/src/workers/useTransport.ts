import { proxy } from 'comlink';
import { useEffect, useMemo, useState } from 'react';
import type { DayAnswer, LoadPlan, Shipment, ShowPhase, ShowTask, dayPlanOf } from '@quarry/core/transport';
import { keptLoad } from '../data/keptAnswers.ts';
import { askOnce, type Asked } from './askOnce.ts';
import type { TransportWorker } from './transport.worker.ts';
import { useWorkerQuery } from './useWorkerQuery.ts';

/** How long a better loading is looked for, s. */
const LOAD_SECONDS = 4;

export const transportWorker = () =>
  new Worker(new URL('./transport.worker.ts', import.meta.url), { type: 'module' });

/** What is loaded, and what is done at home and at the place; null until it is weighed. */
export const useShow = (): { shipment: Shipment; tasks: Partial<Record<ShowPhase, ShowTask[]>> } | null =>
  useWorkerQuery((core) => core.show());

/** How a shipment is loaded: the first loading at once, then the best that is found; kept in this browser. */
export function useLoadPlan(
  displayId: string,
  shipment: Shipment | null,
): { plan: LoadPlan | null; state: Asked<LoadPlan> } {
  // Only what the loading hangs on: a tick of the list does not load again.
  const digest = useMemo(
    () =>
      shipment &&
      JSON.stringify([
        shipment.gap,
        shipment.carriers.map(({ id, space, trips }) => [id, space, trips]),
        shipment.units.map(({ key, w, d, h, grams, bears, order }) => [key, w, d, h, grams, bears, order]),
      ]),
    [shipment],
  );
  const [state, setState] = useState<Asked<LoadPlan>>({ is: 'idle' });
  const [plan, setPlan] = useState<{ digest: string; plan: LoadPlan } | null>(null);
  useEffect(() => {
    if (digest === null || shipment === null) return;
    let isWanted = true;
    let end: () => void = () => undefined;
    const begin = async () => {
      const known = await keptLoad.read(displayId, CORE_DIGEST, digest).catch(() => null);
      if (!isWanted) return;
      if (known) {
        setPlan({ digest, plan: known });
        return setState({ is: 'answered', answer: known });
      }
      end = askOnce<TransportWorker, LoadPlan>(
        transportWorker(),
        (worker) =>
          worker.load(
            shipment,
            LOAD_SECONDS,
            proxy((better: LoadPlan) => {
              if (isWanted) setPlan({ digest, plan: better });
            }),
          ),
        (next) => {
          if (!isWanted) return;
          setState(next);
          if (next.is !== 'answered') return;
          setPlan({ digest, plan: next.answer });
          void keptLoad.keep(displayId, CORE_DIGEST, digest, next.answer).catch(() => undefined);
        },
      );
    };
    void begin();
    return () => {
      isWanted = false;
      end();
    };
    // The shipment is told by its digest.
    // oxlint-disable-next-line react/exhaustive-deps
  }, [displayId, digest]);
  return { plan: plan && plan.digest === digest ? plan.plan : null, state };
}

/** The day by the minute; null until it is planned. @param question null: there is nothing to plan yet */
export function useDayPlan(question: Parameters<typeof dayPlanOf> | null): DayAnswer | null {
  const digest = useMemo(() => question && JSON.stringify(question), [question]);
  const [answer, setAnswer] = useState<{ answer: DayAnswer } | null>(null);
  useEffect(() => {
    if (digest === null || question === null) return;
    return askOnce<TransportWorker, DayAnswer>(
      transportWorker(),
      (worker) => worker.day(...question),
      (state) => {
        if (state.is === 'answered') setAnswer({ answer: state.answer });
        if (state.is === 'failed') setAnswer({ answer: { ok: false, reasons: [state.error] } });
      },
    );
    // The question is told by its digest.
    // oxlint-disable-next-line react/exhaustive-deps
  }, [digest]);
  return answer?.answer ?? null;
}
