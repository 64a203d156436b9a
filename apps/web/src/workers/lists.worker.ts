import { expose } from 'comlink';
import { tableRows } from '../data/tableRows.ts';

const worker = { rows: tableRows };
export type ListsWorker = typeof worker;
expose(worker);
