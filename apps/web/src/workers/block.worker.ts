import { expose, transfer } from 'comlink';
import {
  buildSteps,
  builtFrom,
  countBlock,
  methodCount,
  paintBlock,
  type BlockInput,
  type BlockPaint,
  type BuildSteps,
  type KeptBlock,
  type MethodCount,
} from '@quarry/core/masonry';
import type { Method } from '@quarry/core/document';

/** The layers of one block with the colour of each piece. */
export interface BlockLayers extends BuildSteps {
  w: number;
  d: number;
  /** Plates above datum at which the floor lies. */
  floor: number;
}

/** What is worked out of one block alone: it knows nothing of the scene, so that several run side by side. */
const worker = {
  count(input: BlockInput): KeptBlock {
    const kept = countBlock(input);
    return transfer(kept, [kept.grams.buffer, kept.moment.buffer]);
  },
  compare: (method: Method, input: BlockInput): MethodCount => methodCount(method, input),
  paint: (input: BlockInput): BlockPaint => paintBlock(input),
  layers(input: BlockInput): BlockLayers {
    const built = builtFrom(input);
    const { masonry, ground } = built;
    return { w: masonry.w, d: masonry.d, floor: ground.floor, ...buildSteps(built) };
  },
};
export type BlockWorker = typeof worker;
expose(worker);
