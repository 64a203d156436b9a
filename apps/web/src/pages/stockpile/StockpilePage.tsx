import { lazy, Suspense } from 'react';
import { useSearchParams } from 'react-router';
import { Loading } from '../../ui/parts.tsx';
import { Tabs } from '../../ui/Tabs.tsx';
import { useDerived } from '../../workers/derived.tsx';
import { BasesPanel } from './BasesPanel.tsx';
import { MatrixPanel } from './MatrixPanel.tsx';
import { NeedsPanel } from './NeedsPanel.tsx';
import { StockPanel } from './StockPanel.tsx';
import { ListsPanel } from './ListsPanel.tsx';
import { OrdersPanel } from './OrdersPanel.tsx';
import { BuyPanel } from './BuyPanel.tsx';
import { SwapsPanel } from './SwapsPanel.tsx';
import { ColoursPanel } from './ColoursPanel.tsx';
import { MethodsPanel } from './MethodsPanel.tsx';

/** The view of layers draws in three dimensions: loaded when it is opened. */
const LayersPanel = lazy(() => import('./LayersPanel.tsx').then((panel) => ({ default: panel.LayersPanel })));

const PANELS = [
  { id: 'needs', word: 'Needs' },
  { id: 'matrix', word: 'Matrix' },
  { id: 'stock', word: 'Count' },
  { id: 'lists', word: 'Lists and kits' },
  { id: 'orders', word: 'Orders' },
  { id: 'buy', word: 'Buy' },
  { id: 'swaps', word: 'Placeholders' },
  { id: 'colours', word: 'Colours' },
  { id: 'methods', word: 'Methods' },
  { id: 'layers', word: 'Layers' },
  { id: 'bases', word: 'Bases' },
] as const;
type Panel = (typeof PANELS)[number]['id'];

/** What is needed, in which colours, who has it, what is short, and what it costs. */
export function StockpilePage() {
  const [query, setQuery] = useSearchParams();
  const counting = useDerived(({ counting }) => counting);
  const asked = query.get('tab');
  const panel: Panel = PANELS.find(({ id }) => id === asked)?.id ?? 'needs';
  const open = (id: Panel) =>
    setQuery((before) => {
      const next = new URLSearchParams(before);
      next.set('tab', id);
      return next;
    });
  return (
    <div className="h-full grid grid-rows-[36px_minmax(0,1fr)]">
      <div className="flex items-center px-2 bg-base-100 border-b hair overflow-x-auto">
        <Tabs label="Stockpile" look="bar" tabs={PANELS} open={panel} onOpen={open} />
        <span className="flex-1" />
        <span role="status" className="ink-2 text-xs whitespace-nowrap px-1">
          {counting && counting.done < counting.of && `counting block ${counting.done} of ${counting.of}`}
        </span>
      </div>
      <section
        role="tabpanel"
        aria-label={PANELS.find(({ id }) => id === panel)?.word}
        className="min-h-0 overflow-auto bg-base-100"
      >
        {panel === 'needs' && <NeedsPanel />}
        {panel === 'matrix' && <MatrixPanel />}
        {panel === 'stock' && <StockPanel />}
        {panel === 'lists' && <ListsPanel />}
        {panel === 'orders' && <OrdersPanel />}
        {panel === 'buy' && <BuyPanel />}
        {panel === 'swaps' && <SwapsPanel />}
        {panel === 'colours' && <ColoursPanel />}
        {panel === 'methods' && <MethodsPanel />}
        {panel === 'layers' && (
          <Suspense fallback={<Loading what="Opening the layers" />}>
            <LayersPanel />
          </Suspense>
        )}
        {panel === 'bases' && <BasesPanel />}
      </section>
    </div>
  );
}
