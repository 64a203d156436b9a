import { Plus, Trash2 } from 'lucide-react';
import type { CSSProperties, ReactNode } from 'react';
import { Heading } from './parts.tsx';

/** A list of things in rows, each with its fields: heading, column words, rows, and a button for one more. */
export function Rows({
  id,
  title,
  aside,
  columns,
  words,
  children,
  add,
  empty,
}: {
  id: string;
  title: string;
  aside?: ReactNode;
  /** The grid's columns, the last one for the remove button. */
  columns: string;
  /** A word over each column; over figures at the right, `right` of it. */
  words?: readonly (string | { right: string })[];
  children: ReactNode[];
  add?: { word: string; disabled: boolean; onClick: () => void };
  empty?: ReactNode;
}) {
  return (
    <section aria-labelledby={id}>
      <Heading id={id} aside={aside}>
        {title}
      </Heading>
      {children.length === 0 && empty}
      {words && children.length > 0 && (
        <div
          className="field-row-head grid gap-1 ink-2 text-[11px] border-b hair"
          style={{ gridTemplateColumns: columns }}
        >
          {words.map((word) =>
            typeof word === 'string' ? (
              <span key={word}>{word}</span>
            ) : (
              <span key={word.right} className="text-right">
                {word.right}
              </span>
            ),
          )}
        </div>
      )}
      {children}
      {add && (
        <button type="button" className="btn btn-xs mt-1" disabled={add.disabled} onClick={add.onClick}>
          <Plus size={12} aria-hidden /> {add.word}
        </button>
      )}
    </section>
  );
}

export function Row({ label, columns, children }: { label: string; columns: string; children: ReactNode }) {
  return (
    <div
      className="field-row grid items-center gap-1 border-b hair"
      style={columnsOf(columns)}
      role="group"
      aria-label={label}
    >
      {children}
    </div>
  );
}

export function RemoveButton({
  what,
  disabled,
  onClick,
}: {
  what: string;
  disabled: boolean;
  onClick: () => void;
}) {
  return (
    <button
      type="button"
      className="btn btn-xs btn-ghost btn-square"
      disabled={disabled}
      aria-label={`Remove ${what}`}
      title={`Remove ${what}`}
      onClick={onClick}
    >
      <Trash2 size={12} aria-hidden />
    </button>
  );
}

/** The columns of a row as a property of its own, which a phone lays aside. */
const columnsOf = (columns: string): CSSProperties & Record<'--columns', string> => ({
  '--columns': columns,
});
