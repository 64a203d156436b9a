import { useState } from 'react';
import { MM_PER_PLATE, MM_PER_STUD, countOf, formatPercent } from '@quarry/core/grid';
import { SIDE_WORDS } from '@quarry/core/document';
import { WATCHERS, type SeenCliff, type Sight } from '@quarry/core/visibility';
import { useView } from '../../data/view.ts';
import { DataTable, type Column } from '../../ui/DataTable.tsx';
import { Basis, Heading } from '../../ui/parts.tsx';
import { useMeasureFormat } from '../../ui/useMeasureFormat.ts';
import { WATCHER_HEADS } from './watchers.ts';

/** Less of a cliff that is seen is marked, share of lines. */
const LITTLE = 0.5;
/** So many are listed at first. */
const FEW = 10;

/** What is seen of cliffs and of the edges of the display: what nobody sees needs no rock and no colour. */
export function SeenCliffs({ sight }: { sight: Sight }) {
  const { pick } = useView();
  const { say } = useMeasureFormat();
  const [isAll, setAll] = useState(false);
  if (sight.cliffs.length === 0) return null;
  const nameOf = ({ name, side }: SeenCliff) => `${name}, ${SIDE_WORDS[side]}`;
  const sizeOf = ({ studs, area, nearest }: SeenCliff) => {
    const high = say(Math.round(area / studs / MM_PER_STUD / MM_PER_PLATE), 'plates');
    const from = nearest === null ? 'seen from nowhere' : `seen from ${say(Math.round(nearest), 'mm')} on`;
    return `${countOf(studs, 'stud')} long, ${high} high, ${from}`;
  };
  const shown = isAll ? sight.cliffs : sight.cliffs.slice(0, FEW);
  return (
    <>
      <Heading aside="where the ground falls by a brick or more">Cliffs and edges</Heading>
      <DataTable
        label="Cliffs and edges"
        rows={shown}
        keyOf={({ kind, id, side, isEdge }) => `${kind} ${id} ${side} ${isEdge}`}
        columns={[
          {
            head: 'What, and where it looks',
            wraps: true,
            cell: (cliff) => (
              <span className="block">
                {cliff.id === '' ? (
                  nameOf(cliff)
                ) : (
                  <button
                    type="button"
                    className="link link-hover text-left"
                    onClick={() => pick({ kind: cliff.kind, id: cliff.id })}
                  >
                    {nameOf(cliff)}
                  </button>
                )}
                <span className="block ink-2 text-[11px]">{sizeOf(cliff)}</span>
              </span>
            ),
          },
          ...WATCHERS.map((who): Column<SeenCliff> => ({
            head: WATCHER_HEADS[who],
            number: true,
            cell: ({ free }) => {
              const share = free[who];
              return share === null ? '–' : formatPercent(share);
            },
            tone: ({ free }) => ((free[who] ?? 1) < LITTLE ? 'warning' : null),
          })),
          { head: 'Nobody, studs', number: true, cell: ({ hidden }) => hidden.toLocaleString('en') },
        ]}
      />
      {shown.length < sight.cliffs.length && (
        <button type="button" className="btn btn-sm my-1" onClick={() => setAll(true)}>
          Show all {sight.cliffs.length}
        </button>
      )}
      <Basis>
        Of all straight lines from eyes before a face to points one over the other on each stud of it, the
        share that nothing cuts off; – where no eye is before it. Their height is the mean, “from” the
        shortest free line. A cliff falls from stud to stud by a brick or more.
      </Basis>
    </>
  );
}
