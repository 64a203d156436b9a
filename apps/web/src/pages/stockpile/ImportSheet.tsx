import { useEffect, useMemo, useState } from 'react';
import { toast } from 'sonner';
import { countOf, type Decimal, type NumberStyle } from '@quarry/core/grid';
import {
  COLUMN_USES,
  aliasKey,
  aliasesOf,
  guessColumns,
  readRows,
  type ColumnUse,
} from '@quarry/core/materials';
import { MAX_LINES, listOf, maxCount } from '@quarry/core/document';
import { freshId, useDisplay, useEdit, useScene } from '../../data/useDisplay.tsx';
import { DataTable } from '../../ui/DataTable.tsx';
import { Heading } from '../../ui/parts.tsx';
import { ImportWords } from './ImportWords.tsx';
import { readTable } from './readTable.ts';
import { NOTHING_THERE, existingList, takeIn, type Into, type WordMeaning } from './takeIn.ts';

const USES: Record<ColumnUse, string> = {
  part: 'part',
  colour: 'colour',
  qty: 'quantity',
  price: 'price',
  place: 'drawer',
  owner: 'owner',
  none: 'not used',
};
const INTOS = ['need', 'kit', 'stock'] as const satisfies readonly Into[];
const INTO: Record<Into, string> = { need: 'a list of what is needed', kit: 'a kit', stock: 'drawers' };
const AS_NEED: TakeOptions = { into: 'need', name: '', section: '', decimal: null, replaces: true };

/** A pasted or brought list: say what its columns and words are, see which rows are bad, take it. */
export function ImportSheet({ onDone }: { onDone: (list: string | null) => void }) {
  const scene = useDisplay(({ scene }) => scene);
  const { person } = useDisplay(({ actor }) => actor);
  const edit = useEdit();
  const [table, setTable] = useState<{ name: string; rows: string[][] } | null>(null);
  const [columns, setColumns] = useState<ColumnUse[]>([]);
  const [taught, setTaught] = useState<ReadonlyMap<string, WordMeaning>>(new Map());
  const [options, setOptions] = useState<TakeOptions>(AS_NEED);
  const { name, into, section, decimal, replaces } = options;
  const set = (changed: Partial<TakeOptions>) => setOptions((now) => ({ ...now, ...changed }));
  const people = useMemo(
    () =>
      new Map(
        listOf(scene, 'person').flatMap(({ id, name: word, initials }): [string, string][] => [
          [initials.toLowerCase(), id],
          [word.toLowerCase(), id],
        ]),
      ),
    [scene],
  );
  const own = useMemo(() => new Set(Object.keys(scene.partType)), [scene.partType]);
  const aliases = useMemo(() => {
    const all = aliasesOf(scene);
    for (const [key, { means }] of taught) all.set(key, means);
    return all;
  }, [scene, taught]);
  const read = useMemo(
    () =>
      table
        ? readRows(table.rows.slice(1), columns, aliases, own, {
            // Of what is needed and of kits it does not matter whose section or drawer a line was in.
            ...(into === 'stock' ? { people } : {}),
            ...(decimal ? { decimal } : {}),
          })
        : null,
    [table, columns, aliases, own, people, decimal, into],
  );
  const open = async (from: File | string, word: string) => {
    try {
      const rows = await readTable(from);
      const [head] = rows;
      if (!head || rows.length < 2) throw new Error(`${word}: there is no row under its heading.`);
      setTable({ name: word, rows });
      setColumns(guessColumns(head));
      set({ decimal: null, name: word.replace(/\.[a-z]+$/i, '').slice(0, 80) });
    } catch (error) {
      toast.error(error instanceof Error ? error.message : String(error));
    }
  };
  useEffect(() => setTaught(new Map()), [table]);
  const there = useMemo(
    () => (read ? existingList(scene, read.lines, { into, name, person }) : null),
    [scene, read, into, name, person],
  );
  const take = () => {
    if (!read || !there) return;
    const { batches, list } = takeIn(scene, read.lines, [...taught.values()], {
      ...{ into, name, section: section === '' ? null : section, person },
      ...{ there: replaces ? there : NOTHING_THERE, fresh: freshId },
    });
    const what = `brought ${table?.name ?? 'a list'}: ${countOf(read.lines.length, 'line')}`;
    if (batches.every((changes) => edit.change(what, changes))) onDone(list);
  };
  const known = there ? there.lots.size + there.lists.length : 0;
  // A kit is one box: it goes on in no other.
  const most = into === 'kit' ? MAX_LINES : maxCount('lot');
  return (
    <section aria-label="Bring a list">
      <Heading>Bring a list</Heading>
      {!table && <FindList onOpen={(from, word) => void open(from, word)} />}
      {table && read && (
        <>
          <p className="pb-1">
            <b>{table.name}</b>: {countOf(read.rows, 'row')} {read.rows === 1 ? 'makes' : 'make'}{' '}
            {countOf(read.lines.length, 'line')} of{' '}
            {countOf(
              read.lines.reduce((sum, { qty }) => sum + qty, 0),
              'piece',
            )}
            .{' '}
            {read.bad.length > 0 && (
              <span className="text-error">
                {countOf(read.bad.length, 'row')} {read.bad.length === 1 ? 'is' : 'are'} left out.
              </span>
            )}
          </p>
          <div className="pb-3">
            <ColumnsTable rows={table.rows} columns={columns} onColumns={setColumns} />
          </div>
          {(read.unknown.length > 0 || taught.size > 0) && (
            <ImportWords
              unknown={read.unknown}
              taught={taught}
              onTeach={(word, means) => {
                const next = new Map(taught);
                if (means === '') next.delete(aliasKey(word.about, word.word));
                else next.set(aliasKey(word.about, word.word), { about: word.about, word: word.word, means });
                setTaught(next);
              }}
            />
          )}
          {read.bad.length > 0 && <BadRows bad={read.bad} />}
          <TakeForm
            {...{ into, name, section, replaces, known, most, decimal }}
            lines={read.lines.length}
            numbers={read.numbers}
            set={set}
            onTake={take}
            onOther={() => setTable(null)}
          />
          {read.lines.length > most && (
            <p className="text-error text-xs">
              {countOf(read.lines.length, 'line')}; {INTO[into]} take at most {most.toLocaleString('en')} at
              once.
            </p>
          )}
        </>
      )}
    </section>
  );
}

/** What a list is taken as. @property section '' none @property decimal null: as the list seems to be written */
interface TakeOptions {
  into: Into;
  name: string;
  section: string;
  decimal: Decimal | null;
  /** What is there of the same name or in the same drawers is replaced. */
  replaces: boolean;
}

function TakeForm({
  into,
  name,
  section,
  decimal,
  replaces,
  known,
  most,
  lines,
  numbers,
  set,
  onTake,
  onOther,
}: TakeOptions & {
  /** Lines or lists that are there already. */
  known: number;
  most: number;
  lines: number;
  numbers: NumberStyle;
  set: (changed: Partial<TakeOptions>) => void;
  onTake: () => void;
  onOther: () => void;
}) {
  const scene = useScene('section');
  return (
    <div className="flex flex-wrap items-end gap-2 pt-2">
      <label>
        <span className="block ink-2 text-xs">Take it as</span>
        <select
          className="select select-xs w-48"
          value={into}
          onChange={(event) =>
            set({ into: INTOS.find((one) => one === event.currentTarget.value) ?? 'need' })
          }
        >
          {INTOS.map((one) => (
            <option key={one} value={one}>
              {INTO[one]}
            </option>
          ))}
        </select>
      </label>
      {into !== 'stock' && (
        <label>
          <span className="block ink-2 text-xs">Called</span>
          <input
            className="input input-xs w-44"
            maxLength={80}
            value={name}
            onChange={(event) => set({ name: event.currentTarget.value })}
          />
        </label>
      )}
      {into === 'need' && (
        <label>
          <span className="block ink-2 text-xs">For section</span>
          <select
            className="select select-xs w-40"
            value={section}
            onChange={(event) => set({ section: event.currentTarget.value })}
          >
            <option value="">none</option>
            {listOf(scene, 'section').map(({ id, letter, name: word }) => (
              <option key={id} value={id}>
                {letter}, {word}
              </option>
            ))}
          </select>
        </label>
      )}
      <label>
        <span className="block ink-2 text-xs">
          Numbers are written {numbers.sure || decimal ? '' : '(a guess)'}
        </span>
        <select
          className="select select-xs w-28 fig"
          value={numbers.decimal}
          onChange={(event) => set({ decimal: event.currentTarget.value === ',' ? ',' : '.' })}
        >
          <option value=".">1,234.50</option>
          <option value=",">1.234,50</option>
        </select>
      </label>
      {known > 0 && (
        <label className="flex items-center gap-1 text-xs">
          <input
            type="checkbox"
            className="checkbox checkbox-xs"
            checked={replaces}
            onChange={(event) => set({ replaces: event.currentTarget.checked })}
          />
          {into === 'stock'
            ? `${countOf(known, 'line')} lie in those drawers: count them again`
            : `Replace “${name.trim()}”, which is there`}
        </label>
      )}
      <button
        type="button"
        className="btn btn-xs btn-primary"
        disabled={lines === 0 || lines > most}
        onClick={onTake}
      >
        Take {countOf(lines, 'line')}
      </button>
      <button type="button" className="btn btn-xs btn-ghost" onClick={onOther}>
        Another list
      </button>
    </div>
  );
}

/** Where a list comes from: a file, or rows that are pasted. */
function FindList({ onOpen }: { onOpen: (from: File | string, word: string) => void }) {
  const [text, setText] = useState('');
  return (
    <div className="grid gap-3 max-w-prose">
      <label>
        <span className="block ink-2 text-xs">A file: CSV or XLSX, with a heading</span>
        <input
          type="file"
          accept=".csv,.tsv,.txt,.xlsx"
          className="file-input file-input-sm w-full"
          onChange={(event) => {
            const file = event.currentTarget.files?.[0];
            if (file) onOpen(file, file.name);
          }}
        />
      </label>
      <label>
        <span className="block ink-2 text-xs">Or paste rows here, with a heading</span>
        <textarea
          className="textarea textarea-sm w-full fig"
          rows={8}
          placeholder={'part,colour,qty\nbrick 2x4,Slate,120'}
          value={text}
          onChange={(event) => setText(event.currentTarget.value)}
        />
      </label>
      <button
        type="button"
        className="btn btn-xs justify-self-start"
        disabled={text.trim() === ''}
        onClick={() => onOpen(text, 'Pasted list')}
      >
        Read it
      </button>
    </div>
  );
}

interface FirstRow {
  row: readonly string[];
  i: number;
}

/** The first rows, with what each column says. */
function ColumnsTable({
  rows,
  columns,
  onColumns,
}: {
  rows: readonly (readonly string[])[];
  columns: readonly ColumnUse[];
  onColumns: (columns: ColumnUse[]) => void;
}) {
  const [heads = []] = rows;
  const use = (i: number) => columns[i] ?? 'none';
  /** What a column says from now on; no other says the same. */
  const choose = (i: number, to: ColumnUse) =>
    onColumns(heads.map((_, k) => (k === i ? to : use(k) === to ? 'none' : use(k))));
  return (
    <DataTable
      label="The first rows, with what each column says"
      strip
      rows={rows.slice(1, 5).map((row, i): FirstRow => ({ row, i }))}
      keyOf={({ i }) => String(i)}
      columns={heads.map((head, i) => ({
        ...{ head, key: String(i) },
        cell: ({ row }: FirstRow) => <span className="block max-w-36 truncate">{row[i]}</span>,
        under: (
          <select
            aria-label={`What the column ${head} says`}
            className="select select-xs w-28 block"
            value={use(i)}
            onChange={(event) =>
              choose(i, COLUMN_USES.find((one) => one === event.currentTarget.value) ?? 'none')
            }
          >
            {COLUMN_USES.map((one) => (
              <option key={one} value={one}>
                {USES[one]}
              </option>
            ))}
          </select>
        ),
      }))}
    />
  );
}

/** So many rows that are left out are listed. */
const MAX_BAD = 500;

function BadRows({ bad }: { bad: readonly { row: number; reason: string }[] }) {
  return (
    <details className="text-xs py-1">
      <summary className="cursor-pointer text-error">Rows that are left out, and why</summary>
      <ul className="max-h-40 overflow-auto">
        {bad.slice(0, MAX_BAD).map(({ row, reason }) => (
          <li key={row} className="border-b hair">
            row <span className="fig">{row}</span>: {reason}
          </li>
        ))}
        {bad.length > MAX_BAD && <li>and {bad.length - MAX_BAD} more</li>}
      </ul>
    </details>
  );
}
