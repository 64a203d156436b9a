import { Plus } from 'lucide-react';
import { formatKg } from '@quarry/core/grid';
import { displayOf, listOf } from '@quarry/core/document';
import { freshId, useDenialReason, useEdit, useScene } from '../../data/useDisplay.tsx';
import { Empty, Heading } from '../../ui/parts.tsx';
import { ThingForm } from './ThingForm.tsx';

/** Tables that are folded travel flat, mm and kg (a guess of ours). */
const FOLDED = { h: 60, kg: 11, bearsKg: 30 };

/** What is brought along beside the display: tables, cloths, tools. */
export function BroughtPart() {
  const scene = useScene('cargo', 'table', 'display');
  const edit = useEdit();
  const may = useDenialReason();
  const list = listOf(scene, 'cargo');
  const isFixed = may({ op: 'add', kind: 'cargo', id: 'x', data: { name: 'x', w: 1, d: 1, h: 1 } }) !== null;
  const { place, showPlace } = displayOf(scene);
  const tables = listOf(scene, 'table').filter(
    (table) => table.place === (showPlace ?? place) && table.kind === 'table',
  );
  const addTables = () => {
    const bySize = new Map<string, { w: number; d: number; count: number }>();
    for (const { w, d } of tables) {
      const known = bySize.get(`${w} ${d}`);
      bySize.set(`${w} ${d}`, { w, d, count: (known?.count ?? 0) + 1 });
    }
    edit.change(
      'added the tables to the load',
      [...bySize.values()].map(({ w, d, count }) => ({
        ...{ op: 'add' as const, kind: 'cargo' as const, id: freshId('cargo') },
        data: { name: 'Table', w, d, count, ...FOLDED, needed: 'first' },
      })),
    );
  };
  return (
    <>
      <Heading>Brought along</Heading>
      {list.length === 0 && (
        <Empty
          title="Nothing yet"
          act={
            tables.length > 0 && (
              <button type="button" className="btn btn-xs" disabled={isFixed} onClick={addTables}>
                Bring the {tables.length} tables of this place
              </button>
            )
          }
        >
          Tables, cloths, barrier, lights, tools, spares, signs: what must come along and is not built.
        </Empty>
      )}
      {list.map(({ id, count, kg, needed }) => (
        <ThingForm
          key={id}
          kind="cargo"
          id={id}
          aside={`${count} × ${formatKg(1000 * kg)} · ${{ first: 'needed first', with: 'needed with the buildings', last: 'needed last' }[needed]}`}
        />
      ))}
      <button
        type="button"
        className="btn btn-xs mt-1"
        disabled={isFixed}
        onClick={() =>
          void edit.add('added a thing to the load', 'cargo', freshId('cargo'), {
            ...{ name: `Thing ${list.length + 1}`, w: 400, d: 300, h: 250, kg: 4 },
          })
        }
      >
        <Plus size={12} aria-hidden /> Add a thing
      </button>
    </>
  );
}
