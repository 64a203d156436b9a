import { expose } from 'comlink';
import { dayPlanOf, loadPlanOf, type DayAnswer, type LoadPlan, type Shipment } from '@quarry/core/transport';

/** Loads vehicles and plans days: started for one question; ending the worker ends it. */
const worker = {
  /** @param onBetter gets the first loading at once, and each better one */
  load: (shipment: Shipment, seconds: number, onBetter: (plan: LoadPlan) => void): LoadPlan =>
    loadPlanOf(shipment, { seconds, now: () => performance.now() }, onBetter),
  day: (...question: Parameters<typeof dayPlanOf>): DayAnswer => dayPlanOf(...question),
};
export type TransportWorker = typeof worker;
expose(worker);
