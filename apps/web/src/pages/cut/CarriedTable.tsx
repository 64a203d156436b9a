import type { CarriedPiece, ModuleLift } from '@quarry/core/cut';
import { formatKg } from '@quarry/core/grid';
import { displayOf } from '@quarry/core/document';
import { useScene } from '../../data/useDisplay.tsx';
import { useView } from '../../data/view.ts';
import { DataTable, type Column, type Tone } from '../../ui/DataTable.tsx';
import { Empty, Loading } from '../../ui/parts.tsx';
import { useMeasureFormat } from '../../ui/useMeasureFormat.ts';
import { useWorkerQuery } from '../../workers/useWorkerQuery.ts';

/** What modules and tables carry in the display's place, and everything that is carried by itself; null until it is weighed. */
export function useLoads() {
  const { place } = displayOf(useScene('display'));
  return useWorkerQuery((core) => core.loads(place), place ?? '');
}

/** Everything that is carried by itself, the heaviest first, under the board of the page. */
export function CarriedList() {
  const now = useLoads();
  if (!now) return <Loading what="Weighing what is carried" />;
  if (now.carried.length === 0)
    return <Empty title="Nothing to carry yet">Cut the scene first; then each module is weighed.</Empty>;
  const grams = now.carried.reduce((sum, piece) => sum + piece.grams, 0);
  return (
    <section aria-label="What is carried" className="h-full overflow-auto px-3 py-1.5">
      <h2 className="text-xs font-semibold flex gap-2">
        Carried, as it is cut now
        <span className="ink-2 font-normal">
          {now.carried.length} {now.carried.length === 1 ? 'piece' : 'pieces'}, {formatKg(grams)},{' '}
          {now.counted ? 'ground as counted' : 'a guess until the ground is counted'}
        </span>
      </h2>
      <CarriedTable label="What is carried" pieces={now.carried} />
    </section>
  );
}

/**
 * Carried pieces with what they stand on, what comes off first, size, mass, lift indices and the angle they tip at.
 * @param props.compact in a narrow place: what has no column stands under the name
 */
export function CarriedTable({
  pieces,
  label,
  compact = false,
}: {
  pieces: readonly CarriedPiece[];
  label: string;
  compact?: boolean;
}) {
  const pick = useView((view) => view.pick);
  const { say } = useMeasureFormat();
  const { tipLimit } = displayOf(useScene('display'));
  const names = new Map(pieces.map((piece) => [piece.id, piece.title]));
  const rows = pieces.toSorted((a, b) => b.grams - a.grams);
  const mm = (value: number) => say(Math.round(value), 'mm').replace(/ mm$/, '');
  const sizeOf = ({ w, d, h }: CarriedPiece) => `${mm(w)} × ${mm(d)} × ${say(Math.round(h), 'mm')}`;
  const onOf = ({ on }: CarriedPiece) => on.map(({ name }) => name).join(', ') || 'no table';
  const firstOf = ({ first }: CarriedPiece) => first.map((id) => names.get(id) ?? id).join(', ') || '–';
  const wide: Column<CarriedPiece>[] = [
    { head: 'Stands on', cell: onOf },
    { head: 'First off', cell: firstOf },
    { head: 'Size', number: true, cell: sizeOf },
  ];
  return (
    <DataTable
      label={label}
      rows={rows}
      keyOf={({ id }) => id}
      columns={[
        {
          head: 'Piece',
          cell: (piece) => (
            <>
              <button type="button" className="link link-hover text-left" onClick={() => pick(piece.ref)}>
                {piece.title}
              </button>
              {compact && (
                <span className="ink-2 block">
                  on {onOf(piece)}
                  {piece.first.length > 0 && `, after ${firstOf(piece)}`}
                  <span className="fig block">{sizeOf(piece)}</span>
                </span>
              )}
            </>
          ),
        },
        ...(compact ? [] : wide),
        {
          head: 'Mass',
          number: true,
          cell: ({ grams, basis }) => `${formatKg(grams)}${basis === 'guess' ? ' guess' : ''}`,
        },
        ...LIFT_COLUMNS,
        {
          head: 'Tips at',
          number: true,
          cell: ({ tips }) => `${tips.toFixed(0)}°`,
          tone: ({ tips }) => (tips < tipLimit ? 'error' : null),
        },
      ]}
    />
  );
}

/** The class of a lifting index: above 1 the risk grows, above 3 it is high. */
const toneOfIndex = (index: number): Tone => (index > 3 ? 'error' : index > 1 ? 'warning' : null);
const indexWord = (index: number): string => (Number.isFinite(index) ? index.toFixed(1) : 'not at all');

/** The lift indices of what is lifted by one and by two. */
export const LIFT_COLUMNS: readonly Column<{ lift: ModuleLift }>[] = (['one', 'two'] as const).map((by) => ({
  head: by === 'one' ? 'Lift index, 1 person' : '2 people',
  number: true,
  cell: ({ lift }) => indexWord(lift[by].index),
  tone: ({ lift }) => toneOfIndex(lift[by].index),
}));
