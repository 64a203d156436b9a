import type { ReactNode } from 'react';

/** How a value stands: what is wrong, what wants attention, what is best, what matters less. */
export type Tone = 'error' | 'warning' | 'good' | 'quiet' | null;

/** A column of a table of rows. */
export interface Column<R> {
  head: string;
  cell: (row: R) => ReactNode;
  /** Numbers and measures: figures of one width, at the right. */
  number?: true;
  /** Its words may take several lines. */
  wraps?: true;
  /** Buttons, at the right: its head is for screen readers only. */
  acts?: true;
  tone?: (row: R) => Tone;
  /** Under its head, such as a choice of what the column says. */
  under?: ReactNode;
  /** What tells it from others of the same head. */
  key?: string;
}

const TONES = {
  error: 'text-error font-semibold',
  warning: 'text-warning font-semibold',
  good: 'text-success font-semibold',
  quiet: 'ink-2',
};
/** Marks beside colours, so that none is the only sign. */
const MARKS = { error: '! ', warning: '△ ', good: '', quiet: '' };

/** The first column of a table that scrolls under it. */
const STAYS = 'sticky left-0 bg-base-100 pr-3';

/** Tables of more columns are cards on a phone. */
const MAX_ON_PHONE = 4;

/**
 * A small table of what was computed: its first column names the row.
 * @param props.label what it lists, for those who do not see it
 * @param props.isPicked rows that are shown as picked
 * @param props.strip it may be wider than its page: it scrolls sideways under its first column, and is no cards on a phone
 */
export function DataTable<R>({
  label,
  columns,
  rows,
  keyOf,
  isPicked = () => false,
  hideHead = false,
  strip = false,
}: {
  label: string;
  columns: readonly Column<R>[];
  rows: readonly R[];
  keyOf: (row: R) => string;
  isPicked?: (row: R) => boolean;
  /** The columns speak for themselves: their heads are for screen readers only. */
  hideHead?: boolean;
  strip?: boolean;
}) {
  const isCards = columns.length > MAX_ON_PHONE && !strip;
  const table = (
    <table className={`text-xs ${strip ? '' : 'w-full'} ${isCards ? 'cards' : ''}`} aria-label={label}>
      <thead className={hideHead ? 'sr-only' : ''}>
        <tr className="ink-2 border-b hair">
          {columns.map(({ head, number, acts, under, key }, i) => (
            <th
              key={key ?? head}
              scope="col"
              className={`font-normal py-1 align-bottom ${number ? 'text-right' : 'text-left'} ${i > 0 ? 'pl-3' : strip ? STAYS : ''} ${strip ? 'whitespace-nowrap' : ''}`}
            >
              {acts ? <span className="sr-only">{head}</span> : head}
              {under}
            </th>
          ))}
        </tr>
      </thead>
      <tbody>
        {rows.map((row) => (
          <tr key={keyOf(row)} className={`border-b hair ${isPicked(row) ? 'bg-base-200' : ''}`}>
            {columns.map((column, i) => (
              <Cell key={column.key ?? column.head} {...{ column, row, strip }} first={i === 0} />
            ))}
          </tr>
        ))}
      </tbody>
    </table>
  );
  return strip ? (
    <div className="overflow-x-auto" data-strip>
      {table}
    </div>
  ) : (
    table
  );
}

/** A word with a quieter line under it, in the first column of a table. */
export function Noted({ word, note }: { word: string; note: string }) {
  return (
    <>
      {word}
      {note !== '' && <span className="block ink-2 text-[11px] leading-4 font-normal">{note}</span>}
    </>
  );
}

function Cell<R>({
  column,
  row,
  first,
  strip,
}: {
  column: Column<R>;
  row: R;
  first: boolean;
  strip: boolean;
}) {
  const { cell, number, wraps, acts, tone } = column;
  const how = tone?.(row) ?? null;
  const words = [
    'py-0.5',
    number ? 'fig text-right' : acts ? 'text-right' : 'text-left',
    (number && !wraps) || strip ? 'whitespace-nowrap' : '',
    first && strip ? STAYS : '',
    how ? TONES[how] : first ? 'font-normal' : '',
    first ? '' : 'pl-3',
  ].join(' ');
  const content = (
    <>
      {how && MARKS[how]}
      {cell(row)}
    </>
  );
  return first ? (
    <th scope="row" className={words}>
      {content}
    </th>
  ) : (
    <td className={words} data-head={column.head}>
      {content}
    </td>
  );
}
