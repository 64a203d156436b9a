import { useMemo, useState } from 'react';
import { toast } from 'sonner';
import { countOf } from '@quarry/core/grid';
import { fileName } from '@quarry/core/formats';
import { toOrder, type Netted } from '@quarry/core/materials';
import { priceOfPart } from '@quarry/core/masonry';
import { displayOf, listOf, type Change } from '@quarry/core/document';
import { api } from '../../data/api.ts';
import { usePaper } from '../../data/sheets.ts';
import { freshId, useDisplay, useEdit, useLink } from '../../data/useDisplay.tsx';
import { useDerived } from '../../workers/useDerived.ts';
import { save } from '../../ui/save.ts';
import { needsCsv, needsXlsx, pickLines } from './takeOut.ts';
import type { NeedRow } from './rows.ts';
import { useSupplies } from './useSupplies.ts';

const NO_ROWS: readonly Netted[] = [];

/** What is done with many rows at once: those that are selected, else all that are shown. */
export function BulkBar({
  rows,
  picked,
  onDone,
}: {
  rows: readonly NeedRow[];
  picked: readonly NeedRow[];
  onDone: () => void;
}) {
  const scene = useDisplay(({ scene }) => scene);
  const { role, person } = useDisplay(({ actor }) => actor);
  const supplies = useSupplies();
  const netted = useDerived(({ materials }) => materials?.rows) ?? NO_ROWS;
  const link = useLink();
  const paper = usePaper();
  const edit = useEdit();
  const [busy, setBusy] = useState(false);
  const chosen = picked.length > 0 ? picked : rows;
  const open = useMemo(() => toOrder(netted, Object.values(scene.order)), [netted, scene.order]);
  const short = chosen.flatMap((row) => {
    const qty = open.get(row.id);
    return qty === undefined ? [] : [{ ...row, short: qty }];
  });
  const name = displayOf(scene).name;
  const drafts = listOf(scene, 'order').filter(
    ({ state, by }) => state === 'draft' && (role !== 'builder' || by === person),
  );
  const putOn = (into: string) => {
    const lines = short.map(({ part, colour, short: qty, section }) => ({
      ...{ part, colour, qty, section, came: 0 },
      price: priceOfPart(part, scene.partType).price,
    }));
    const goods = lines.reduce((sum, { qty, price }) => sum + qty * price, 0);
    const before = scene.order[into];
    const change: Change = before
      ? {
          ...{ op: 'patch', kind: 'order', id: into, v: before.v },
          set: { lines: [...before.lines, ...lines], guess: Math.round(100 * (before.guess + goods)) / 100 },
        }
      : {
          ...{ op: 'add', kind: 'order', id: freshId('order') },
          data: { name: 'What is short', by: person, lines, guess: Math.round(100 * goods) / 100 },
        };
    if (edit.change(`put ${lines.length} short lines on ${before ? before.name : 'a new order'}`, [change]))
      onDone();
  };
  const file = async (kind: 'csv' | 'xlsx' | 'pdf') => {
    setBusy(true);
    try {
      if (kind === 'csv') save(needsCsv(chosen), fileName([name, 'needs'], 'csv'));
      else if (kind === 'xlsx') save(await needsXlsx(chosen), fileName([name, 'needs'], 'xlsx'));
      else {
        const lines = pickLines(scene, chosen, supplies);
        save(await api.pickList(link.id, lines, paper), fileName([name, 'pick list'], 'pdf'));
      }
    } catch (error) {
      toast.error(error instanceof Error ? error.message : String(error));
    } finally {
      setBusy(false);
    }
  };
  return (
    <span className="flex flex-wrap items-center gap-1">
      <span className="ink-2 text-xs">
        {picked.length > 0 ? `${picked.length} selected` : countOf(rows.length, 'line')}
      </span>
      <select
        aria-label="Put what is short on an order"
        title="What is short and stands on no draft yet"
        className="select select-xs w-auto max-w-44"
        value=""
        disabled={short.length === 0 || role === 'viewer'}
        onChange={(event) => putOn(event.currentTarget.value)}
      >
        <option value="">Order {short.length} short…</option>
        <option value="new">on a new order</option>
        {drafts.map(({ id, name: word }) => (
          <option key={id} value={id}>
            on “{word}”
          </option>
        ))}
      </select>
      {(['csv', 'xlsx', 'pdf'] as const).map((kind) => (
        <button
          key={kind}
          type="button"
          className="btn btn-xs btn-ghost"
          disabled={busy || chosen.length === 0}
          title={kind === 'pdf' ? 'A pick list by drawer, to print' : `The lines as ${kind.toUpperCase()}`}
          onClick={() => void file(kind)}
        >
          {kind === 'pdf' ? 'Pick list' : kind.toUpperCase()}
        </button>
      ))}
    </span>
  );
}
