import { formatPercent } from '@quarry/core/grid';
import { DISTINCT_DELTA_E, colourName } from '@quarry/core/catalogue';
import { SIDE_WORDS } from '@quarry/core/document';
import { WATCHERS, type SeenFloor, type SeenThing } from '@quarry/core/visibility';
import { useView } from '../../data/view.ts';
import { DataTable, type Column } from '../../ui/DataTable.tsx';
import { Basis, Heading } from '../../ui/parts.tsx';
import { WATCHER_HEADS, shareOrNone } from './watchers.ts';

/** So much of a thing before its own colour is marked, share of its outline. */
const MUCH = 0.5;

const shares = (): Column<SeenFloor>[] =>
  WATCHERS.map((who) => ({
    head: WATCHER_HEADS[who],
    number: true,
    cell: ({ free }) => shareOrNone(free[who]),
  }));

const depthWords = ({ depths }: SeenFloor): string =>
  depths.map(({ side, seen, of }) => `${seen} of ${of} from the ${SIDE_WORDS[side]}`).join(', ');

/** What of the floors of a building is seen when all over them is off. */
export function SeenRooms({ name, rooms }: { name: string; rooms: readonly SeenFloor[] }) {
  return (
    <>
      <Heading aside="shares of the floor that somebody sees">{name} with its roof off</Heading>
      <DataTable
        label={`Floors of ${name}`}
        rows={rooms}
        keyOf={({ name: floor }) => floor}
        columns={[
          { head: 'Floor', cell: ({ name: floor }) => floor },
          ...shares(),
          { head: 'Studs deep', wraps: true, cell: depthWords },
        ]}
      />
      <Basis>
        All that is over a floor is taken off, and the walls of its storey stand round it. Furniture hides
        nothing. Of a large floor 96 studs are looked at.
      </Basis>
    </>
  );
}

/** How deep one sees into tunnels, caves and cellars. */
export function SeenCavities({ cavities }: { cavities: readonly (SeenFloor & { id: string })[] }) {
  const { pick } = useView();
  if (cavities.length === 0) return null;
  return (
    <>
      <Heading aside="shares of the floor that somebody sees">Into tunnels, caves and cellars</Heading>
      <DataTable
        label="Tunnels, caves and cellars"
        rows={cavities}
        keyOf={({ id }) => id}
        columns={[
          {
            head: 'What',
            cell: ({ id, name }) => (
              <button
                type="button"
                className="link link-hover text-left"
                onClick={() => pick({ kind: 'cavity', id })}
              >
                {name}
              </button>
            ),
          },
          ...shares(),
          { head: 'Studs deep', wraps: true, cell: depthWords },
        ]}
      />
    </>
  );
}

/** Where a thing has the colour of what lies behind it. */
export function StandsOut({ thing: { name, kind, blends } }: { thing: SeenThing }) {
  if (!blends)
    return (
      <p className="ink-2 text-xs py-1">
        {kind === 'plot'
          ? 'Whether it stands out is told when its walls or roof have a colour, and somebody sees it.'
          : 'Whether it stands out is told when its figures are named and their torsos have a colour.'}
      </p>
    );
  return (
    <>
      <Heading aside="of what is seen of its outline">Stands out</Heading>
      <p className="text-xs pb-1">
        <span className={`fig ${blends.share >= MUCH ? 'text-warning' : ''}`}>
          {blends.share >= MUCH && '△ '}
          {formatPercent(blends.share)}
        </span>{' '}
        of {name} is seen before its own colour.
      </p>
      {blends.against.length > 0 && (
        <DataTable
          label={`What ${name} is lost against`}
          rows={blends.against}
          keyOf={({ name: behind, colour, own }) => `${behind} ${colour} ${own}`}
          columns={[
            { head: 'Behind it', cell: ({ name: behind }) => behind },
            {
              head: 'Colours',
              wraps: true,
              cell: ({ own, colour }) => `${colourName(own)} before ${colourName(colour)}`,
            },
            { head: 'Difference', number: true, cell: ({ deltaE }) => deltaE.toFixed(1) },
            { head: 'Share', number: true, cell: ({ share }) => formatPercent(share) },
          ]}
        />
      )}
      <Basis>
        Lines from eyes past its top edge, or past the heads of its figures, to the ground or building behind.
        Below {DISTINCT_DELTA_E} by CIEDE2000 two colours are one. Plants and the hall behind count as another
        colour.
      </Basis>
    </>
  );
}
