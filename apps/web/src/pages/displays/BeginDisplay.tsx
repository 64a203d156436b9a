import { useMutation } from '@tanstack/react-query';
import { Upload } from 'lucide-react';
import { useRef, useState } from 'react';
import { useNavigate } from 'react-router';
import { toast } from 'sonner';
import { MM, countOf, type GridSize } from '@quarry/core/grid';
import { STARTS, type Start } from '@quarry/core/document';
import { api, keys, queryClient } from '../../data/api.ts';
import { recall, remember } from '../../data/remembered.ts';
import { beginSteps } from '../../data/stepPaths.ts';
import { GridSizeField, useSizeDraft } from '../../ui/GridSizeField.tsx';
import { Trouble } from '../../ui/forms.tsx';

const KINDS = [
  { id: 'vignette', word: 'Vignette', note: 'a rule or a shelf sets its size' },
  { id: 'diorama', word: 'Diorama', note: 'a landscape in modules' },
  { id: 'city', word: 'City', note: 'streets of plots' },
] as const;
type KindOfDisplay = (typeof KINDS)[number]['id'];
const STANDS = [
  { id: 'table', word: 'a table' },
  { id: 'shelf', word: 'a shelf, seen from the south' },
  { id: 'floor', word: 'the floor' },
] as const;
/** Ground to begin with, plates above the base. */
const DECKS = [
  { plates: 0, word: 'the bare base' },
  { plates: 3, word: 'one brick up (room for water)' },
  { plates: 15, word: 'five bricks up (a landscape module)' },
] as const;

const CURRENCY = 'quarry-currency';
/** The currency that this person counted in last: it is asked once. */
const lastCurrency = () => recall(CURRENCY) ?? '';

/** A form that begins a display with a size of one's own, or opens a display file. */
export function BeginDisplay() {
  const navigate = useNavigate();
  const [name, setName] = useState('');
  const [kind, setKind] = useState<KindOfDisplay>('vignette');
  const [stand, setStand] = useState<(typeof STANDS)[number]['id']>('table');
  const [deck, setDeck] = useState(0);
  const [isLimit, setIsLimit] = useState(true);
  const [currency, setCurrency] = useState(lastCurrency);
  const size = useSizeDraft('16 × 16');
  const create = useMutation({
    mutationFn: (start: Start) => api.createDisplay(name.trim(), start),
    onSuccess: ({ id }) => {
      if (currency.trim() !== '') remember(CURRENCY, currency.trim());
      void queryClient.invalidateQueries({ queryKey: keys.displays });
      beginSteps(id);
      void navigate(`/d/${id}/brief`);
    },
  });
  const startOf = ({ w, d, room }: GridSize): Start => ({
    ...{ kind, w, d, stand, deck, isLimit },
    top: room && { w: room.w / MM, d: room.d / MM },
    ...(currency.trim() === '' ? {} : { currency: currency.trim() }),
  });
  const take = (start: (typeof STARTS)[number]['start']) => {
    setKind(start.kind);
    size.setText(`${start.w} × ${start.d}`);
    setStand('stand' in start ? start.stand : 'table');
    setIsLimit('isLimit' in start);
  };
  const select = 'select select-sm w-full';
  return (
    <section aria-labelledby="new">
      <h2 id="new" className="font-semibold text-sm pb-2">
        Begin a display
      </h2>
      <form
        className="flex flex-col gap-2"
        onSubmit={(event) => {
          event.preventDefault();
          if (size.read.ok) create.mutate(startOf(size.read.size));
        }}
      >
        <label>
          <span className="block pb-0.5">Name</span>
          <input
            className="input input-sm w-full"
            maxLength={80}
            required
            value={name}
            onChange={(event) => setName(event.currentTarget.value)}
          />
        </label>
        <div role="group" aria-label="Common sizes" className="flex flex-wrap gap-1">
          {STARTS.map(({ id, word, start }) => (
            <button key={id} type="button" className="btn btn-xs" onClick={() => take(start)}>
              {word}
            </button>
          ))}
        </div>
        <GridSizeField draft={size} label="Size, width × depth" />
        <fieldset className="grid grid-cols-3 gap-1">
          <legend className="sr-only">Kind</legend>
          {KINDS.map(({ id, word, note }) => (
            <label
              key={id}
              className={`border rounded-[3px] px-2 py-1 cursor-pointer has-focus-visible:outline-2 ${kind === id ? 'border-base-content bg-base-100' : 'hair'}`}
            >
              <input
                type="radio"
                name="kind"
                className="sr-only"
                checked={kind === id}
                onChange={() => {
                  setKind(id);
                  setIsLimit(id === 'vignette');
                }}
              />
              <span className="font-semibold block">{word}</span>
              <span className="ink-2 text-xs">{note}</span>
            </label>
          ))}
        </fieldset>
        <label>
          <span className="block pb-0.5">Stands on</span>
          <select
            className={select}
            value={stand}
            onChange={(event) =>
              setStand(STANDS.find(({ id }) => id === event.currentTarget.value)?.id ?? stand)
            }
          >
            {STANDS.map(({ id, word }) => (
              <option key={id} value={id}>
                {word}
              </option>
            ))}
          </select>
        </label>
        <label>
          <span className="block pb-0.5">Ground begins on</span>
          <select
            className={select}
            value={deck}
            onChange={(event) => setDeck(Number(event.currentTarget.value))}
          >
            {DECKS.map(({ plates, word }) => (
              <option key={plates} value={plates}>
                {word}
              </option>
            ))}
          </select>
        </label>
        <label className="flex items-center gap-2">
          <span className="flex-1">Money is counted in</span>
          <input
            className="input input-sm w-20"
            maxLength={4}
            placeholder="¤"
            value={currency}
            onChange={(event) => setCurrency(event.currentTarget.value)}
          />
        </label>
        <label className="flex items-center gap-2 min-h-6">
          <input
            type="checkbox"
            className="checkbox checkbox-sm"
            checked={isLimit}
            onChange={(event) => setIsLimit(event.currentTarget.checked)}
          />
          The size is a rule: warn when the scene is larger
        </label>
        <div className="flex flex-wrap gap-2 pt-1">
          <button
            type="submit"
            className="btn btn-sm btn-primary"
            disabled={name.trim() === '' || !size.read.ok || create.isPending}
          >
            Begin
          </button>
          <OpenFile />
        </div>
        <Trouble error={create.error} />
      </form>
    </section>
  );
}

/** Opens a display file, or an archive of one with its photos, as a new display. */
function OpenFile() {
  const navigate = useNavigate();
  const [photos, setPhotos] = useState<string | null>(null);
  const file = useRef<HTMLInputElement>(null);
  const load = useMutation({
    mutationFn: async (chosen: File) => {
      const { importDisplay } = await import('../../data/importDisplay.ts');
      return importDisplay(chosen, (done, of) => setPhotos(of > 0 ? `Photo ${done + 1} of ${of}` : null));
    },
    onSuccess: ({ id, without }) => {
      if (without > 0) toast.warning(`${countOf(without, 'photo')} of this display are not in the file.`);
      void queryClient.invalidateQueries({ queryKey: keys.displays });
      void navigate(`/d/${id}/plan`);
    },
    onSettled: () => setPhotos(null),
  });
  return (
    <>
      <button
        type="button"
        className="btn btn-sm"
        disabled={load.isPending}
        onClick={() => file.current?.click()}
      >
        <Upload size={14} aria-hidden /> {photos ?? 'Open a display file'}
      </button>
      <input
        ref={file}
        type="file"
        accept=".json,.zip,application/json,application/zip"
        className="hidden"
        aria-label="Display file"
        onChange={(event) => {
          const [chosen] = event.currentTarget.files ?? [];
          if (chosen) load.mutate(chosen);
          event.currentTarget.value = '';
        }}
      />
      <Trouble error={load.error} />
    </>
  );
}
