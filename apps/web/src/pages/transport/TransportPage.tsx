import { PAGE_SHEETS } from '../../frame/pages.ts';
import { useSheet } from '../../frame/useSheet.ts';
import { Tabs } from '../../ui/Tabs.tsx';
import { DaySheet } from './DaySheet.tsx';
import { KitSheet } from './KitSheet.tsx';
import { LoadSheet } from './LoadSheet.tsx';
import { PowerSheet } from './PowerSheet.tsx';
import { ShowSheet } from './ShowSheet.tsx';

/** What goes to the show in which crate and vehicle, the day there by the minute, light and power, what comes along, what happens there. */
export function TransportPage() {
  const { sheet, word, open } = useSheet('transport');
  return (
    <div className="h-full grid grid-cols-[minmax(0,1fr)] grid-rows-[var(--bar)_minmax(0,1fr)]">
      <div className="flex items-center px-2 bg-base-100 border-b hair">
        <Tabs label="Transport" look="bar" tabs={PAGE_SHEETS.transport} open={sheet} onOpen={open} />
      </div>
      <div role="tabpanel" aria-label={word} className="min-h-0">
        {sheet === 'load' && <LoadSheet />}
        {sheet === 'day' && <DaySheet />}
        {sheet === 'power' && <PowerSheet />}
        {sheet === 'kit' && <KitSheet />}
        {sheet === 'show' && <ShowSheet />}
      </div>
    </div>
  );
}
