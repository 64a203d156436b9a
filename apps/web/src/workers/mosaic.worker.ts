import { expose } from 'comlink';
import { mosaicOf } from '@quarry/core/bench';

const worker = { lay: mosaicOf };
export type MosaicWorker = typeof worker;
expose(worker);
