import { expose } from 'comlink';
import {
  dayPlanOf,
  loadHelps,
  loadPlanOf,
  type DayAnswer,
  type LoadHelp,
  type LoadPlan,
  type Shipment,
} from '@quarry/core/transport';

/** Loads vehicles and plans days: started for one question; ending the worker ends it. */
const worker = {
  /** @param onBetter gets the first loading at once, and each better one */
  load: (shipment: Shipment, seconds: number, onBetter: (plan: LoadPlan) => void): LoadPlan =>
    loadPlanOf(shipment, { seconds, now: () => performance.now() }, onBetter),
  /** What would bring everything in. @param seconds for each change that is tried */
  helps: (shipment: Shipment, seconds: number): LoadHelp[] =>
    loadHelps(shipment, { seconds, now: () => performance.now() }),
  day: (...question: Parameters<typeof dayPlanOf>): DayAnswer => dayPlanOf(...question),
};
export type TransportWorker = typeof worker;
expose(worker);
