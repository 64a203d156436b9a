import { Printer } from 'lucide-react';
import { useState } from 'react';
import { modulesByName } from '@quarry/core/cut';
import { useSheets } from '../../data/sheets.ts';
import { useDisplay } from '../../data/useDisplay.tsx';
import { SelectField } from '../../ui/fields.tsx';
import { Basis, Empty, Heading, Loading } from '../../ui/parts.tsx';
import { useWorkerQuery } from '../../workers/useWorkerQuery.ts';

/** In which order everything goes on, and what must come off before one module can be lifted out. */
export function OrderPanel() {
  const scene = useDisplay(({ scene }) => scene);
  const sheets = useSheets();
  const order = useWorkerQuery((core) => core.order());
  const modules = modulesByName(scene);
  const [freed, setFreed] = useState<string | null>(null);
  const id = freed ?? modules[0]?.id ?? null;
  const free = useWorkerQuery(id === null ? null : (core) => core.free(id), `free ${id}`);
  if (modules.length === 0)
    return (
      <Empty title="Nothing to put up yet">
        Cut the scene first; then the order of building up is worked out.
      </Empty>
    );
  if (!order) return <Loading what="Working out the order" />;
  return (
    <>
      <Heading>Free a module</Heading>
      <SelectField
        label="Lift out"
        value={id ?? ''}
        options={modules.map((module) => ({ value: module.id, word: module.name }))}
        onCommit={setFreed}
      />
      {free && (
        <>
          {free.way.length > 0 && (
            <p className="ink-2 text-xs py-1">
              It is farther than one may lean: {free.way.join(', ')} must be out of the way first.
            </p>
          )}
          {free.off.length === 0 ? (
            <p className="py-1">Nothing lies over its seams or stands loose on it: unpin it and lift.</p>
          ) : (
            <ol className="list-decimal pl-6 py-1">
              {free.off.map(({ words }) => (
                <li key={words}>{words}</li>
              ))}
            </ol>
          )}
        </>
      )}
      <Heading
        aside={
          <a className="act link" href={sheets('order.pdf')} target="_blank" rel="noreferrer">
            <Printer size={12} aria-hidden className="inline" /> Print
          </a>
        }
      >
        Building up
      </Heading>
      {order.ok ? (
        <ol className="list-decimal pl-7 text-xs">
          {order.steps.map(({ key, words, act }) => (
            <li key={key} className={`border-b hair py-0.5 ${act === 'module' ? 'font-semibold' : ''}`}>
              {words}
            </li>
          ))}
        </ol>
      ) : (
        <div role="alert" className="text-error">
          <p>There is no order: these wait for each other in a circle.</p>
          {order.cycles.map((cycle) => (
            <p key={cycle.join()}>{cycle.join(' → ')}</p>
          ))}
        </div>
      )}
      <Basis>
        Each step waits for what must be done before: what it stands on, both sides of a seam before what lies
        over it, of two neighbours the one farther from where one can stand (Survey), parts of a building from
        below, and what breaks last of all. Nobody leans over finished work; ladders and long reaches are a
        risk of their own.
      </Basis>
    </>
  );
}
