import { ChevronRight } from 'lucide-react';
import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { toast } from 'sonner';
import { readPieceFile } from '@quarry/core/document';
import { countOf } from '@quarry/core/grid';
import type { KeptPiece } from '@quarry/protocol/displays';
import { ApiProblem, api, keys } from '../../data/api.ts';
import { freshId, useDenialReason, useEdit, useLink } from '../../data/useDisplay.tsx';

/** Pieces kept in one’s other displays: read into this one they lie beside its own, to be set out. */
export function OtherPieces() {
  const link = useLink();
  const [isOpen, setOpen] = useState(false);
  const pieces = useQuery({
    queryKey: keys.keptPieces,
    queryFn: api.keptPieces,
    enabled: isOpen,
    staleTime: 0,
  });
  const others = pieces.data?.filter(({ display }) => display !== link.id);
  return (
    <details
      className="border-b hair py-1"
      open={isOpen}
      onToggle={(event) => setOpen(event.currentTarget.open)}
    >
      <summary className="cursor-pointer flex items-center gap-1">
        <ChevronRight size={12} aria-hidden className="[details[open]_&]:rotate-90" />
        Pieces in my other displays
      </summary>
      {pieces.isLoading && (
        <p role="status" className="ink-2 text-xs py-1">
          Reading them …
        </p>
      )}
      {pieces.isError && (
        <p role="alert" className="text-error text-xs py-1">
          They could not be read: {pieces.error.message}
        </p>
      )}
      {others?.length === 0 && (
        <p className="ink-2 text-xs py-1">
          None yet. In another display of yours pick a building, a tree or a scene and keep it as a piece; it
          is found here then.
        </p>
      )}
      {others && others.length > 0 && (
        <ul>
          {others.map((one) => (
            <OtherPiece key={`${one.display} ${one.id}`} piece={one} />
          ))}
        </ul>
      )}
    </details>
  );
}

function OtherPiece({ piece: { display, displayName, id, card } }: { piece: KeptPiece }) {
  const edit = useEdit();
  const may = useDenialReason();
  const [isReading, setReading] = useState(false);
  const name = card?.name ?? 'A large piece';
  const denied = may({ op: 'add', kind: 'piece', id: 'x', data: { name } });
  const bringIn = async () => {
    setReading(true);
    try {
      const { text } = await api.pieceText(display, id);
      const read = readPieceFile(text);
      if (!read.ok) toast.error(read.error, { duration: 12_000 });
      else if (
        edit.add(`brought ${read.piece.name} from ${displayName}`, 'piece', freshId('piece'), read.piece)
      )
        toast.success(`“${read.piece.name}” lies under Pieces now, to be set out.`);
    } catch (error) {
      if (!(error instanceof ApiProblem)) throw error;
      toast.error(`“${name}” could not be read: ${error.message}`);
    } finally {
      setReading(false);
    }
  };
  return (
    <li className="flex items-center gap-1 border-b hair py-1">
      <span className="flex-1 min-w-0">
        <span className="block truncate" title={name}>
          {name}
        </span>
        <span className="block truncate ink-2 text-xs" title={displayName}>
          {card && `${card.w} × ${card.d} studs, ${countOf(card.things, 'thing')} · `}
          {displayName}
        </span>
      </span>
      <button
        type="button"
        className="btn btn-xs"
        aria-label={`Bring in ${name} from ${displayName}`}
        disabled={denied !== null || isReading}
        title={denied ?? undefined}
        onClick={() => void bringIn()}
      >
        Bring in
      </button>
    </li>
  );
}
