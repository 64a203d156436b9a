import { footprintBounds } from '@quarry/core/terrain';
import { displayOf, labelOf, resizeDisplay, type EntityRef, type Resizing } from '@quarry/core/document';
import { useDisplay, useDenialReason, useEdit } from '../data/useDisplay.tsx';
import { GridSizeField, useSizeDraft } from './GridSizeField.tsx';
import { Dialog } from './parts.tsx';

/** The most names in one sentence. */
const MAX_NAMES = 8;

/** Gives the display another size as one act: what it takes with it, and why it may not be done. */
export function useResize() {
  const scene = useDisplay(({ scene }) => scene);
  const edit = useEdit();
  const may = useDenialReason();
  return {
    preview: (w: number, d: number) => resizeDisplay(scene, w, d),
    forbids: ({ changes }: Resizing) => changes.map(may).find((reason) => reason !== null) ?? null,
    resize: ({ changes }: Resizing, w: number, d: number) =>
      changes.length > 0 && edit.change(`resized the display to ${w} × ${d} studs`, changes),
  };
}

/** The display in another size: scene, ground, sections and what it stands on in one act. */
export function ResizeDialog({ open, onClose }: { open: boolean; onClose: () => void }) {
  return (
    <Dialog title="Resize the display" open={open} onClose={onClose}>
      {open && <ResizeForm onDone={onClose} />}
    </Dialog>
  );
}

function ResizeForm({ onDone }: { onDone: () => void }) {
  const scene = useDisplay(({ scene }) => scene);
  const bounds = footprintBounds(scene);
  const draft = useSizeDraft(bounds ? `${bounds.w} × ${bounds.d}` : '');
  const { preview, forbids, resize } = useResize();
  const size = draft.read.ok ? draft.read.size : null;
  const resizing = size && preview(size.w, size.d);
  const reason = resizing && forbids(resizing);
  const names = (list: readonly EntityRef[]) => {
    const shown = list.slice(0, MAX_NAMES).map(({ kind, id }) => labelOf(scene, kind, id));
    return [...shown, ...(list.length > MAX_NAMES ? [`${list.length - MAX_NAMES} more`] : [])].join(', ');
  };
  return (
    <form
      className="flex flex-col gap-2"
      onSubmit={(event) => {
        event.preventDefault();
        if (size && resizing && reason === null && resize(resizing, size.w, size.d)) onDone();
      }}
    >
      <GridSizeField draft={draft} label="Size, width × depth" />
      {resizing && resizing.changes.length > 0 && (
        <p>
          The north-west corner stays. The new size is taken by: {names(resizing.follows)}.
          {displayOf(scene).place !== null && ' Tables of a room keep their size.'}
        </p>
      )}
      {resizing && resizing.outside.length > 0 && (
        <p className="text-warning">
          <span aria-hidden>△</span> {resizing.outside.length} would lie outside, wholly or in part:{' '}
          {names(resizing.outside)}.
        </p>
      )}
      {reason && <p className="text-error">{reason}</p>}
      <button
        type="submit"
        className="btn btn-sm btn-primary self-start"
        disabled={!resizing || resizing.changes.length === 0 || reason !== null}
      >
        {size ? `Resize to ${size.w} × ${size.d} studs` : 'Resize'}
      </button>
    </form>
  );
}
