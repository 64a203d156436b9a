import {
  getCoreRowModel,
  getExpandedRowModel,
  getGroupedRowModel,
  getSortedRowModel,
  useReactTable,
  type ColumnDef,
  type Row as TableRow,
  type RowSelectionState,
  type SortingState,
  type Table,
} from '@tanstack/react-table';
import { useVirtualizer } from '@tanstack/react-virtual';
import { format, parseISO } from 'date-fns';
import { ChevronDown, ChevronRight } from 'lucide-react';
import { useMemo, useRef, useState } from 'react';
import { useSearchParams } from 'react-router';
import { FAMILIES, FAMILY_NAMES } from '@quarry/core/catalogue';
import { countOf } from '@quarry/core/grid';
import { byPart } from '@quarry/core/materials';
import { useDisplay, useScene } from '../../data/useDisplay.tsx';
import { Empty, Loading } from '../../ui/parts.tsx';
import { useTouch } from '../../ui/useTouch.ts';
import { Swatch } from '../../ui/Swatch.tsx';
import { useDerived } from '../../workers/useDerived.ts';
import { BulkBar } from './BulkBar.tsx';
import { NeedSheet } from './NeedSheet.tsx';
import { NeedsSum } from './NeedsSum.tsx';
import {
  GROUPINGS,
  GROUPING_WORDS,
  STATES,
  STATE_WORDS,
  matches,
  rowsOf,
  sectionChoices,
  type NeedRow,
} from './rows.ts';

const ROW = { mouse: 26, finger: 46 };
const TONE = {
  short: 'text-error font-semibold',
  late: 'text-warning',
  coming: '',
  handed: '',
  covered: 'ink-2',
};
const count = (value: number) => (value === 0 ? '' : value.toLocaleString('en'));

const COLUMNS: ColumnDef<NeedRow>[] = [
  {
    id: 'part',
    accessorFn: (row) => row.part,
    header: 'Part',
    sortingFn: (a, b) => byPart(a.original.part, b.original.part),
  },
  { id: 'colour', accessorFn: (row) => row.colourWord, header: 'Colour' },
  { id: 'section', accessorFn: (row) => row.sectionWord, header: 'Section' },
  { id: 'family', accessorFn: (row) => row.familyWord, header: 'Family' },
  { id: 'owner', accessorFn: (row) => row.owner, header: 'Owner' },
  ...(['qty', 'own', 'handed', 'ordered', 'late', 'short'] as const).map((key): ColumnDef<NeedRow> => ({
    id: key,
    accessorFn: (row) => row[key],
    header: key,
    aggregationFn: 'sum',
  })),
  { id: 'state', accessorFn: (row) => STATE_WORDS[row.state], header: 'State' },
];
/** At phone width only what is needed and what is short. */
const WIDE = 'hidden md:table-cell';
const FIGURES = [
  { id: 'qty', word: 'Needed', wide: '' },
  { id: 'own', word: 'Own', wide: WIDE },
  { id: 'handed', word: 'Others', wide: WIDE },
  { id: 'ordered', word: 'Ordered', wide: WIDE },
  { id: 'late', word: 'Late', wide: WIDE },
  { id: 'short', word: 'Short', wide: '' },
] as const;

/** Every part and colour that a section needs, what covers it, and what is short. */
export function NeedsPanel() {
  const scene = useDisplay(({ scene }) => scene);
  const materials = useDerived(({ materials }) => materials);
  const error = useDerived(({ error }) => error);
  const [query, setQuery] = useSearchParams();
  const [sorting, setSorting] = useState<SortingState>([{ id: 'short', desc: true }]);
  const [selection, setSelection] = useState<RowSelectionState>({});
  const [chosen, setChosen] = useState<string | null>(null);
  const scroller = useRef<HTMLDivElement>(null);
  const set = (key: string, value: string) =>
    setQuery(
      (before) => {
        const next = new URLSearchParams(before);
        if (value === '') next.delete(key);
        else next.set(key, value);
        return next;
      },
      { replace: true },
    );
  const askedFor = (key: string) => query.get(key) ?? '';
  const [section, family, state] = [askedFor('section'), askedFor('family'), askedFor('state')];
  // The address follows what is typed, a moment later: the field must not wait for it.
  const [words, setWords] = useState(askedFor('q'));
  const group = GROUPINGS.find((one) => one === query.get('group')) ?? 'none';
  const all = useMemo(() => (materials ? rowsOf(scene, materials.rows) : []), [scene, materials]);
  const rows = useMemo(
    () => all.filter((row) => matches(row, { words, section, family, state })),
    [all, words, section, family, state],
  );
  // The table takes a new list for a new grouping.
  const grouping = useMemo(() => (group === 'none' ? [] : [group]), [group]);
  const table = useReactTable({
    data: rows,
    columns: COLUMNS,
    state: { sorting, rowSelection: selection, grouping },
    getRowId: (row) => row.id,
    onSortingChange: setSorting,
    onRowSelectionChange: setSelection,
    getCoreRowModel: getCoreRowModel(),
    getGroupedRowModel: getGroupedRowModel(),
    getSortedRowModel: getSortedRowModel(),
    getExpandedRowModel: getExpandedRowModel(),
    autoResetExpanded: false,
    autoResetPageIndex: false,
  });
  const shown = table.getRowModel().rows;
  const rowHeight = useTouch() ? ROW.finger : ROW.mouse;
  const virtual = useVirtualizer({
    count: shown.length,
    getScrollElement: () => scroller.current,
    estimateSize: () => rowHeight,
    overscan: 12,
  });
  const picked = useMemo(() => all.filter(({ id }) => selection[id]), [all, selection]);
  if (!materials && error) return <Empty title="The needs could not be counted">{error}</Empty>;
  if (!materials) return <Loading what="Counting what the plan needs" />;
  if (all.length === 0)
    return (
      <div className="p-4">
        <Empty title="Nothing is needed yet">
          Lay ground on the Plan, or bring a list of parts under “Lists and kits”: both are counted here.
        </Empty>
      </div>
    );
  const items = virtual.getVirtualItems();
  const [before, after] = [items[0]?.start ?? 0, virtual.getTotalSize() - (items.at(-1)?.end ?? 0)];
  const sheet = all.find(({ id }) => id === chosen) ?? null;
  return (
    <div className="h-full grid grid-rows-[auto_minmax(0,1fr)_minmax(0,36%)] lg:grid-rows-[auto_minmax(0,1fr)] grid-cols-1 lg:grid-cols-[minmax(0,1fr)_324px]">
      <div className="flex flex-wrap items-center gap-2 px-3 py-1.5 border-b hair lg:col-span-2">
        <input
          className="input input-xs w-40"
          type="search"
          placeholder="brick 2×4 slate"
          aria-label="Find parts"
          value={words}
          onChange={(event) => {
            setWords(event.currentTarget.value);
            set('q', event.currentTarget.value);
          }}
        />
        <Filters {...{ section, family, state, group, set }} />
        <span className="flex-1" />
        <BulkBar rows={rows} picked={picked} onDone={() => setSelection({})} />
      </div>
      <div ref={scroller} className="overflow-auto min-h-0" data-needs>
        <table className="w-full text-xs border-collapse">
          <caption className="sr-only">Parts needed, what covers them and what is short</caption>
          <NeedsHead table={table} />
          <tbody>
            {before > 0 && (
              <tr aria-hidden style={{ height: before }}>
                <td colSpan={11} />
              </tr>
            )}
            {items.map(({ index }) => {
              const row = shown[index];
              if (!row) return null;
              const { original: need } = row;
              if (row.getIsGrouped())
                return <GroupRow key={row.id} row={row} group={group} height={rowHeight} />;
              return (
                <NeedTableRow
                  key={row.id}
                  row={row}
                  height={rowHeight}
                  isChosen={need.id === chosen}
                  onChoose={() => setChosen(need.id)}
                />
              );
            })}
            {after > 0 && (
              <tr aria-hidden style={{ height: after }}>
                <td colSpan={11} />
              </tr>
            )}
          </tbody>
        </table>
        {rows.length === 0 && <p className="ink-2 p-4">Nothing matches these filters.</p>}
      </div>
      <aside
        aria-label="Need"
        className="border-t lg:border-t-0 lg:border-l hair overflow-auto px-3 py-2.5 min-h-0"
      >
        {sheet ? (
          <NeedSheet key={sheet.id} row={sheet} onClose={() => setChosen(null)} />
        ) : (
          <NeedsSum rows={rows} changed={materials.changed} />
        )}
      </aside>
    </div>
  );
}

/** Which of the needs are shown, and how they are gathered. */
function Filters({
  section,
  family,
  state,
  group,
  set,
}: {
  section: string;
  family: string;
  state: string;
  group: (typeof GROUPINGS)[number];
  set: (key: string, value: string) => void;
}) {
  const scene = useScene('section');
  return (
    <>
      <Choice
        label="Section"
        value={section}
        onChange={(value) => set('section', value)}
        options={sectionChoices(scene)}
      />
      <Choice
        label="Family"
        value={family}
        onChange={(value) => set('family', value)}
        options={[
          { value: '', word: 'all families' },
          ...FAMILY_NAMES.map((value) => ({ value, word: FAMILIES[value].word })),
        ]}
      />
      <Choice
        label="State"
        value={state}
        onChange={(value) => set('state', value)}
        options={[
          { value: '', word: 'all states' },
          ...STATES.map((value) => ({ value, word: STATE_WORDS[value] })),
        ]}
      />
      <Choice
        label="Group"
        value={group}
        onChange={(value) => set('group', value === 'none' ? '' : value)}
        options={GROUPINGS.map((value) => ({ value, word: GROUPING_WORDS[value] }))}
      />
    </>
  );
}

function NeedsHead({ table }: { table: Table<NeedRow> }) {
  return (
    <thead className="sticky top-0 bg-base-100 z-10">
      <tr className="ink-2 text-left border-b hair">
        <th scope="col" className="w-11 pl-3">
          <input
            type="checkbox"
            className="checkbox checkbox-xs"
            aria-label="Select all rows"
            checked={table.getIsAllRowsSelected()}
            onChange={table.getToggleAllRowsSelectedHandler()}
          />
        </th>
        {(['part', 'colour', 'section'] as const).map((id) => (
          <Head
            key={id}
            word={{ part: 'Part', colour: 'Colour', section: 'Section' }[id]}
            column={table.getColumn(id)}
            wide={id === 'section' ? WIDE : ''}
          />
        ))}
        {FIGURES.map(({ id, word, wide }) => (
          <Head key={id} word={word} column={table.getColumn(id)} right wide={wide} />
        ))}
        <th scope="col" className="font-normal pl-3 pr-2 hidden xl:table-cell">
          By
        </th>
      </tr>
    </thead>
  );
}

/** The sums of rows that are gathered, which opens into them. */
function GroupRow({ row, group, height }: { row: TableRow<NeedRow>; group: string; height: number }) {
  return (
    <tr className="border-b hair bg-base-200" style={{ height: height }}>
      <td className="pl-2">
        <button
          type="button"
          className="cursor-pointer px-1"
          aria-expanded={row.getIsExpanded()}
          aria-label={`Rows of ${String(row.getGroupingValue(group))}`}
          onClick={row.getToggleExpandedHandler()}
        >
          {row.getIsExpanded() ? (
            <ChevronDown size={13} aria-hidden />
          ) : (
            <ChevronRight size={13} aria-hidden />
          )}
        </button>
      </td>
      <th scope="row" colSpan={3} className="text-left font-semibold">
        {String(row.getGroupingValue(group))}{' '}
        <span className="ink-2 font-normal">{countOf(row.subRows.length, 'line')}</span>
      </th>
      {FIGURES.map(({ id, wide }) => (
        <td
          key={id}
          className={`fig text-right px-1.5 ${wide} ${id === 'short' && row.getValue<number>(id) > 0 ? TONE.short : ''}`}
        >
          {count(row.getValue<number>(id))}
        </td>
      ))}
      <td className="hidden xl:table-cell" />
    </tr>
  );
}

function NeedTableRow({
  row,
  height,
  isChosen,
  onChoose,
}: {
  row: TableRow<NeedRow>;
  height: number;
  isChosen: boolean;
  onChoose: () => void;
}) {
  const { original: need } = row;
  return (
    <tr
      className={`border-b hair cursor-pointer hover:bg-base-200 ${isChosen ? 'bg-base-200' : ''}`}
      style={{ height: height }}
      onClick={onChoose}
    >
      <td className="pl-3" onClick={(event) => event.stopPropagation()}>
        <input
          type="checkbox"
          className="checkbox checkbox-xs"
          aria-label={`Select ${need.partWord} in ${need.colourWord}, ${need.sectionWord}`}
          checked={row.getIsSelected()}
          onChange={row.getToggleSelectedHandler()}
        />
      </td>
      <th scope="row" className="text-left font-normal whitespace-nowrap pr-2">
        <button type="button" className="cursor-pointer text-left" onClick={onChoose}>
          {need.partWord}
        </button>
      </th>
      <td className="whitespace-nowrap pr-2">
        <Swatch colour={need.colour} /> {need.colourWord}
      </td>
      <td
        className={`ink-2 whitespace-nowrap max-w-24 lg:max-w-40 truncate ${WIDE}`}
        title={need.sectionWord}
      >
        {need.sectionWord}
      </td>
      {FIGURES.map(({ id, wide }) => (
        <td
          key={id}
          className={`fig text-right px-1.5 ${wide} ${id === 'short' || id === 'late' ? TONE[id] : ''}`}
        >
          {count(need[id])}
        </td>
      ))}
      <td className="fig ink-2 pl-3 pr-2 whitespace-nowrap hidden xl:table-cell">
        {need.by && format(parseISO(need.by), 'd MMM')}
      </td>
    </tr>
  );
}

function Head({
  word,
  column,
  right,
  wide = '',
}: {
  word: string;
  right?: boolean;
  wide?: string;
  column: { getIsSorted(): false | 'asc' | 'desc'; toggleSorting(desc?: boolean): void } | undefined;
}) {
  const sorted = column?.getIsSorted() ?? false;
  return (
    <th
      scope="col"
      className={`font-normal ${right ? 'text-right px-1.5' : 'pr-2'} ${wide}`}
      aria-sort={sorted === 'asc' ? 'ascending' : sorted === 'desc' ? 'descending' : 'none'}
    >
      <button
        type="button"
        className="cursor-pointer h-7 min-w-8"
        onClick={() => column?.toggleSorting(sorted !== 'desc')}
      >
        {word}
        <span aria-hidden>{sorted === 'asc' ? ' ▴' : sorted === 'desc' ? ' ▾' : ''}</span>
      </button>
    </th>
  );
}

function Choice({
  label,
  value,
  options,
  onChange,
}: {
  label: string;
  value: string;
  options: readonly { value: string; word: string }[];
  onChange: (value: string) => void;
}) {
  return (
    <select
      aria-label={label}
      className="select select-xs w-auto max-w-40"
      value={value}
      onChange={(event) => onChange(event.currentTarget.value)}
    >
      {options.map((option) => (
        <option key={option.value} value={option.value}>
          {option.word}
        </option>
      ))}
    </select>
  );
}
