import { expose } from 'comlink';
import loadHighs from 'highs';
import wasmUrl from 'highs/runtime?url';
import { fewestParcels, soonest, source, type Market, type Sourcing } from '@quarry/core/materials';
import type { PartLine } from '@quarry/core/document';

export type BuyGoal = 'cheapest' | 'fewest' | 'soonest';
const GOALS = { cheapest: source, fewest: fewestParcels, soonest };

const worker = {
  /** One purchase by a goal: a first answer without the solver, then with it. Ending the worker ends the search. */
  async buy(
    needs: readonly PartLine[],
    market: Market,
    goal: BuyGoal,
    seconds: number,
    onBetter: (sourcing: Sourcing) => void,
  ): Promise<Sourcing> {
    const now = () => performance.now();
    const first = GOALS[goal](needs, market, { seconds, now });
    if (first.ok) onBetter(first);
    if (!first.ok && first.uncovered.length > 0) return first;
    const highs = await loadHighs({ locateFile: () => wasmUrl });
    return GOALS[goal](needs, market, { seconds, now, highs });
  },
};
export type SourceWorker = typeof worker;
expose(worker);
