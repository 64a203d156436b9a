import { PAGE_SHEETS } from '../../frame/pages.ts';
import { useSheet } from '../../frame/useSheet.ts';
import { Tabs } from '../../ui/Tabs.tsx';
import { useDerived } from '../../workers/useDerived.ts';
import { BasesPanel } from './BasesPanel.tsx';
import { NeedsPanel } from './NeedsPanel.tsx';
import { StockPanel } from './StockPanel.tsx';
import { ListsPanel } from './ListsPanel.tsx';
import { OrdersPanel } from './OrdersPanel.tsx';
import { later } from '../../ui/later.tsx';

/** Loaded when they are opened: layers draw in three dimensions, the others are opened seldom. */
const LayersPanel = later(
  () => import('./LayersPanel.tsx').then((panel) => panel.LayersPanel),
  'Opening the layers',
);
const MatrixPanel = later(
  () => import('./MatrixPanel.tsx').then((panel) => panel.MatrixPanel),
  'Opening the matrix',
);
const ColoursPanel = later(
  () => import('./ColoursPanel.tsx').then((panel) => panel.ColoursPanel),
  'Opening the colours',
);
const SwapsPanel = later(
  () => import('./SwapsPanel.tsx').then((panel) => panel.SwapsPanel),
  'Opening the placeholders',
);
const BuyPanel = later(() => import('./BuyPanel.tsx').then((panel) => panel.BuyPanel), 'Opening the market');
const MethodsPanel = later(
  () => import('./MethodsPanel.tsx').then((panel) => panel.MethodsPanel),
  'Opening the methods',
);

/** What is needed, in which colours, who has it, what is short, and what it costs. */
export function StockpilePage() {
  const { sheet: panel, word, open } = useSheet('stockpile');
  const counting = useDerived(({ counting }) => counting);
  return (
    <div className="h-full grid grid-cols-[minmax(0,1fr)] grid-rows-[var(--bar)_minmax(0,1fr)]">
      <div className="flex items-center px-2 bg-base-100 border-b hair">
        <Tabs label="Stockpile" look="bar" tabs={PAGE_SHEETS.stockpile} open={panel} onOpen={open} />
        <span className="flex-1" />
        <span role="status" className="ink-2 text-xs whitespace-nowrap px-1">
          {counting && counting.done < counting.of && `counting block ${counting.done} of ${counting.of}`}
        </span>
      </div>
      <section role="tabpanel" aria-label={word} className="min-h-0 overflow-auto bg-base-100">
        {panel === 'needs' && <NeedsPanel />}
        {panel === 'matrix' && <MatrixPanel />}
        {panel === 'stock' && <StockPanel />}
        {panel === 'lists' && <ListsPanel />}
        {panel === 'orders' && <OrdersPanel />}
        {panel === 'buy' && <BuyPanel />}
        {panel === 'swaps' && <SwapsPanel />}
        {panel === 'colours' && <ColoursPanel />}
        {panel === 'methods' && <MethodsPanel />}
        {panel === 'layers' && <LayersPanel />}
        {panel === 'bases' && <BasesPanel />}
      </section>
    </div>
  );
}
