import { FileDown } from 'lucide-react';
import { useState } from 'react';
import { unlistedBuildings } from '@quarry/core/structures';
import { countOf } from '@quarry/core/grid';
import { listOf } from '@quarry/core/document';
import { freshId, useEdit, useIsPlanner, useScene } from '../../data/useDisplay.tsx';
import { Empty, Heading } from '../../ui/parts.tsx';
import { useDerived } from '../../workers/useDerived.ts';
import { ListSheet } from './ListSheet.tsx';
import { piecesOf } from './piecesOf.ts';
import { later } from '../../ui/later.tsx';

const ImportSheet = later(() => import('./ImportSheet.tsx').then((sheet) => sheet.ImportSheet), 'Opening');

/** Lists that people bring: what buildings and casts need, and what kits hold. */
export function ListsPanel() {
  const scene = useScene('partList');
  const plans = useIsPlanner();
  const [chosen, setChosen] = useState<string | null>(null);
  const [importing, setImporting] = useState(false);
  const lists = listOf(scene, 'partList');
  const list = lists.find(({ id }) => id === chosen) ?? null;
  return (
    <div className="h-full grid grid-rows-[minmax(120px,2fr)_minmax(0,3fr)] md:grid-rows-1 md:grid-cols-[320px_minmax(0,1fr)]">
      <div className="overflow-auto border-b md:border-b-0 md:border-r hair px-3 py-2.5">
        {plans && (
          <button
            type="button"
            className="btn btn-xs btn-primary mb-2"
            onClick={() => {
              setImporting(true);
              setChosen(null);
            }}
          >
            <FileDown size={12} aria-hidden /> Bring a list
          </button>
        )}
        {plans && <AddShells />}
        {(['need', 'kit'] as const).map((use) => (
          <section key={use} aria-label={use === 'need' ? 'Needed' : 'Kits'}>
            <Heading>{use === 'need' ? 'What is needed' : 'Kits, as sources'}</Heading>
            <ul>
              {lists
                .filter((one) => one.use === use)
                .map((one) => (
                  <li key={one.id}>
                    <button
                      type="button"
                      aria-pressed={one.id === chosen}
                      className={`w-full flex gap-2 text-left border-b hair py-1 px-1 cursor-pointer hover:bg-base-200 ${one.id === chosen ? 'bg-base-200' : ''}`}
                      onClick={() => {
                        setChosen(one.id);
                        setImporting(false);
                      }}
                    >
                      <span className="flex-1 truncate">{one.name}</span>
                      <span className="ink-2 fig text-xs whitespace-nowrap">
                        {one.copies > 1 && `${one.copies} × `}
                        {piecesOf(one.lines).toLocaleString('en')} pcs
                      </span>
                    </button>
                  </li>
                ))}
            </ul>
          </section>
        ))}
        {lists.length === 0 && (
          <Empty title="No list yet">Paste what a building needs, or bring a file; kits are lists too.</Empty>
        )}
      </div>
      <div className="overflow-auto px-4 py-2.5 min-h-0">
        {importing && (
          <ImportSheet
            onDone={(id) => {
              setImporting(false);
              setChosen(id);
            }}
          />
        )}
        {!importing && list && (
          <ListSheet key={list.id} list={list} plans={plans} onGone={() => setChosen(null)} />
        )}
        {!importing && !list && (
          <p className="ink-2">Pick a list to see its lines and how far the kits go.</p>
        )}
      </div>
    </div>
  );
}

/** Lists of the plain shells of all buildings that no list counts, in one act. */
function AddShells() {
  const scene = useScene('plot', 'partList', 'section');
  const edit = useEdit();
  const core = useDerived(({ core }) => core);
  const [busy, setBusy] = useState(false);
  const count = unlistedBuildings(scene).length;
  if (count === 0 || !core) return null;
  const add = async () => {
    setBusy(true);
    const shells = await core.shells();
    setBusy(false);
    if (shells.length > 0)
      edit.change(
        `added the shells of ${countOf(shells.length, 'building')} to the needs`,
        shells.map((data) => ({ op: 'add', kind: 'partList', id: freshId('partList'), data })),
      );
  };
  return (
    <p className="pb-2">
      <button type="button" className="btn btn-xs" disabled={busy} onClick={() => void add()}>
        {busy ? 'Counting …' : `Add the plain shells of ${countOf(count, 'building')} (guess)`}
      </button>
    </p>
  );
}
