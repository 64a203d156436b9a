import { useRef, useState } from 'react';
import { toast } from 'sonner';
import { useDisplay, useEdit, useDenialReason } from '../../data/useDisplay.tsx';
import { useView } from '../../data/view.ts';
import { HeightsDialog } from './HeightsDialog.tsx';
import { importFile, type ReadHeights } from './imports.ts';

/** Files that become ground, pads, pieces, or a picture to draw after. */
export function BringIn({ onDone }: { onDone: () => void }) {
  const scene = useDisplay(({ scene }) => scene);
  const edit = useEdit();
  const may = useDenialReason();
  const pickAll = useView((view) => view.pickAll);
  const input = useRef<HTMLInputElement>(null);
  const means = useRef<'picture' | 'ground'>('picture');
  const [heights, setHeights] = useState<ReadHeights | null>(null);
  const forbids = may({ op: 'add', kind: 'picture', id: 'x', data: {} });

  const take = async (file: File | undefined) => {
    if (!file) return;
    const read = await importFile(scene, file, means.current);
    if (!read.ok) toast.error(read.error, { duration: 12_000 });
    else if (read.as === 'heights') {
      setHeights(read.heights);
      return;
    } else if (edit.change(read.label, read.changes)) {
      if (read.picks.length > 0) pickAll(read.picks);
      else toast.success(`It lies under Pieces, at the end of the outline: ${read.label}.`);
    }
    onDone();
  };
  const choose = (as: 'picture' | 'ground', accept: string) => {
    means.current = as;
    if (!input.current) return;
    input.current.accept = accept;
    input.current.click();
  };
  return (
    <>
      {heights && <HeightsDialog heights={heights} onDone={onDone} />}
      <input
        ref={input}
        type="file"
        className="hidden"
        aria-label="A file for the plan"
        onChange={(event) => {
          void take(event.currentTarget.files?.[0]);
          event.currentTarget.value = '';
        }}
      />
      <div className="w-60">
        {forbids && <p className="ink-2 text-xs p-1">{forbids}</p>}
        {(
          [
            ['A picture to draw after …', 'picture', 'image/png,image/jpeg,image/webp'],
            ['Ground from a height file …', 'ground', '.asc,.pgm,image/png'],
            ['Pads from an exported plan …', 'picture', '.svg'],
            ['A piece of another display …', 'picture', '.json'],
          ] as const
        ).map(([word, as, accept]) => (
          <button
            key={word}
            type="button"
            className="btn btn-xs btn-ghost justify-start font-normal w-full"
            disabled={forbids !== null}
            onClick={() => choose(as, accept)}
          >
            {word}
          </button>
        ))}
        <p className="ink-2 text-[11px] px-2 py-1">
          Height files: ESRI ASCII grid, PGM or grey PNG. Pictures are made smaller and drawn again; nothing
          else of the file is kept.
        </p>
      </div>
    </>
  );
}
