import { expose } from 'comlink';
import { tryFixes } from '@quarry/core/findings';

/** Tries fixes of a finding on a whole scene: started for one question and ended after it. */
const worker = { tryFixes };
export type FixWorker = typeof worker;
expose(worker);
