import { useEffect, useRef, useState } from 'react';
import type { LoadHelp, Shipment } from '@quarry/core/transport';
import { useDenialReason, useEdit, useScene } from '../../data/useDisplay.tsx';
import { useSetDisplay } from '../../data/useSetDisplay.ts';
import { askOnce, type Asked } from '../../workers/askOnce.ts';
import { transportWorker } from '../../workers/useTransport.ts';
import type { TransportWorker } from '../../workers/transport.worker.ts';
import { useHandle } from './handling.ts';

/** How long each change is tried, s. */
const EACH_SECONDS = 0.4;

/** Asks for changes by which more goes in; each is loaded before it is shown. */
export function LoadHelps({ shipment, over }: { shipment: Shipment; over: number }) {
  const [state, setState] = useState<Asked<LoadHelp[]>>({ is: 'idle' });
  const end = useRef<() => void>(() => undefined);
  useEffect(() => () => end.current(), []);
  const ask = () => {
    end.current();
    end.current = askOnce<TransportWorker, LoadHelp[]>(
      transportWorker(),
      (worker) => worker.helps(shipment, EACH_SECONDS),
      setState,
    );
  };
  return (
    <div aria-live="polite">
      {state.is === 'asking' ? (
        <p className="ink-2 text-xs py-1">
          Trying changes …{' '}
          <button
            type="button"
            className="link"
            onClick={() => {
              end.current();
              setState({ is: 'idle' });
            }}
          >
            Stop
          </button>
        </p>
      ) : (
        <button type="button" className="btn btn-xs mt-1" onClick={ask}>
          What would make it fit
        </button>
      )}
      {state.is === 'failed' && <p className="text-error text-xs">{state.error}</p>}
      {state.is === 'answered' && state.answer.length === 0 && (
        <p className="ink-2 text-xs py-1">
          No small change was found: part something, pack it otherwise, or take another vehicle.
        </p>
      )}
      {state.is === 'answered' && state.answer.length > 0 && (
        <ul aria-label="Changes that help">
          {state.answer.map((help) => (
            <Help key={help.words} help={help} over={over} onDone={() => setState({ is: 'idle' })} />
          ))}
        </ul>
      )}
    </div>
  );
}

function Help({
  help: { words, change, left },
  over,
  onDone,
}: {
  help: LoadHelp;
  over: number;
  onDone: () => void;
}) {
  const scene = useScene('passage');
  const edit = useEdit();
  const may = useDenialReason();
  const set = useSetDisplay();
  const handle = useHandle();
  const isFixed =
    may({ op: 'add', kind: 'passage', id: 'x', data: { name: 'x', width: 1, height: 1 } }) !== null;
  const apply = () => {
    if (change.what === 'handling') handle.set(words.toLowerCase(), change.piece, change.set);
    else if (change.what === 'gap') set('changed the air about what is loaded', { loadGap: change.loadGap });
    else if (change.what === 'passage') {
      const vehicle = scene.passage[change.id];
      if (vehicle) edit.patch(`how often the ${vehicle.name} goes`, 'passage', vehicle, change.set);
    }
    onDone();
  };
  return (
    <li className="flex items-baseline justify-between gap-2 border-b hair py-1">
      <span>
        {words}{' '}
        <span className="ink-2 text-xs">
          {left === 0 ? 'everything goes in' : `${left} of ${over} left over`}
        </span>
      </span>
      {change.what !== 'vehicle' && (
        <button
          type="button"
          className="btn btn-xs"
          disabled={change.what === 'handling' ? handle.isForbidden : isFixed}
          onClick={apply}
        >
          Apply
        </button>
      )}
    </li>
  );
}
