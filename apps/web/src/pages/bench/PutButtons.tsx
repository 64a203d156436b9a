import { useNavigate } from 'react-router';
import { toast } from 'sonner';
import { centreOf } from '@quarry/core/grid';
import { footprintBounds } from '@quarry/core/terrain';
import type { Change, DataOf, Kind, PartLine } from '@quarry/core/document';
import { freshId, useDenialReason, useEdit, useLink, useScene } from '../../data/useDisplay.tsx';

/** What a calculator gives to the display. */
export interface Answer {
  name: string;
  /** A sentence with its numbers, for the note. */
  text: string;
  /** Pieces that it takes; in any colour where none is given. */
  lines?: readonly (Omit<PartLine, 'colour'> & Partial<PartLine>)[];
}

/** The middle of the footprint, studs: where what has no place yet is put. */
export function useMiddle(): { x: number; y: number } {
  const { x, y } = centreOf(footprintBounds(useScene('footprint')) ?? { x: 0, y: 0, w: 0, d: 0 });
  return { x: Math.round(x), y: Math.round(y) };
}

/** Buttons that put an answer into the plan as a note, and its pieces into the needs. */
export function PutButtons({ answer: { name, text, lines = [] } }: { answer: Answer }) {
  const middle = useMiddle();
  return (
    <>
      <PutButton
        word="Add as note"
        label={`noted “${name}” from the Bench`}
        kind="note"
        data={{ name, text, ...middle }}
        page="plan"
      />
      {lines.length > 0 && (
        <PutButton
          word="Add to needs"
          label={`added the pieces of “${name}” to the needs`}
          kind="partList"
          data={{
            ...{ name, use: 'need', purpose: 'other', notes: text },
            lines: lines.map((line) => ({ colour: 'any', ...line })),
          }}
          page="stockpile?sheet=lists"
        />
      )}
    </>
  );
}

/** A button that adds one thing to the display; refused with the reason where one's role may not. */
export function PutButton<K extends Kind>({
  word,
  label,
  kind,
  data,
  also = [],
  page,
}: {
  word: string;
  /** As the history tells it. */
  label: string;
  kind: K;
  data: Partial<DataOf<K>>;
  /** What comes with it, in the same act. */
  also?: readonly Change[];
  /** Where it is shown then. */
  page: string;
}) {
  const edit = useEdit();
  const link = useLink();
  const navigate = useNavigate();
  const denied = useDenialReason()({ op: 'add', kind, id: 'new', data });
  const put = () => {
    if (edit.change(label, [{ op: 'add', kind, id: freshId(kind), data }, ...also]))
      toast('Added.', {
        action: { label: 'Show it', onClick: () => void navigate(`/d/${link.id}/${page}`) },
      });
  };
  return (
    <button
      type="button"
      className="btn btn-sm"
      disabled={denied !== null}
      title={denied ?? undefined}
      onClick={put}
    >
      {word}
    </button>
  );
}
