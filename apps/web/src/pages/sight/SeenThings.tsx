import { formatPercent } from '@quarry/core/grid';
import { Search, Square } from 'lucide-react';
import { toast } from 'sonner';
import { SIDES, SIDE_WORDS, type Scene } from '@quarry/core/document';
import {
  WATCHERS,
  WATCHER_WORDS,
  type Hider,
  type SeenFloor,
  type SeenThing,
  type Sight,
} from '@quarry/core/visibility';
import { useEdit, useIsPlanner } from '../../data/useDisplay.tsx';
import { useView } from '../../data/view.ts';
import { DataTable, type Column } from '../../ui/DataTable.tsx';
import { Basis, Empty, Failure, Heading } from '../../ui/parts.tsx';
import { useMeasureFormat } from '../../ui/useMeasureFormat.ts';
import { useViewHelps } from '../../workers/useSight.ts';
import { PlainBacks } from './PlainBacks.tsx';
import { SeenCavities, SeenRooms, StandsOut } from './SeenInto.tsx';
import { WATCHER_HEADS } from './watchers.ts';

/** Less of a thing that is free is marked, share of lines. */
const LITTLE = 0.5;
/** So many of those that hide it are listed. */
const MAX_HIDERS = 6;

/** What is seen of each building, small scene and signboard, what hides the one that is picked, and what would free it. */
export function SeenThings({ scene, sight }: { scene: Scene; sight: Sight }) {
  const { picked, pick } = useView();
  if (sight.things.length === 0)
    return (
      <Empty title="No buildings, small scenes or signboards yet">
        Draw some on Plan; then this tells how much of each is seen, and what hides it.
      </Empty>
    );
  const chosen = sight.things.find(({ kind, id }) => picked?.kind === kind && picked.id === id);
  return (
    <>
      {chosen ? (
        <Chosen
          key={`${chosen.kind} ${chosen.id}`}
          scene={scene}
          thing={chosen}
          rooms={sight.rooms[chosen.id]}
        />
      ) : (
        <p className="ink-2 text-xs pb-1">Pick one, here or on the plan, to see what hides it.</p>
      )}
      <Heading aside="the least seen first">All of them</Heading>
      <DataTable
        label="Buildings, small scenes and signboards"
        rows={sight.things}
        keyOf={({ kind, id }) => `${kind} ${id}`}
        isPicked={(thing) => thing === chosen}
        columns={[
          {
            head: 'What',
            cell: (thing) => (
              <button
                type="button"
                aria-pressed={thing === chosen}
                className="link link-hover text-left"
                onClick={() => pick({ kind: thing.kind, id: thing.id })}
              >
                {thing.name}
              </button>
            ),
          },
          ...WATCHERS.map((who): Column<SeenThing> => ({
            head: WATCHER_HEADS[who],
            number: true,
            cell: ({ free }) => freeWords(free[who]),
            tone: ({ free }) => ((free[who] ?? 0) < LITTLE ? 'warning' : null),
          })),
          {
            head: 'Mostly hidden by',
            wraps: true,
            cell: ({ hiders: [first] }) => (first ? first.name : 'nothing'),
          },
        ]}
      />
      <SeenCavities cavities={sight.cavities} />
      <PlainBacks scene={scene} sight={sight} />
      <Basis>
        Of all straight lines from eyes to those faces of a building that face them, the share that nothing
        cuts off; of a small scene the lines to the heads of its figures, of a signboard those to its letters,
        which eyes behind it do not see. What cuts a line off nearest to the thing is what hides it. A
        building’s own walls, and figures, hide nothing; lines pass under decks and through tunnels. Visitors
        count by how many of each come, and by how busy their side is.
      </Basis>
    </>
  );
}

const freeWords = (share: number | null): string => (share === null ? 'faces nobody' : formatPercent(share));

function Chosen({ scene, thing, rooms }: { scene: Scene; thing: SeenThing; rooms?: SeenFloor[] }) {
  const { pick } = useView();
  const { say } = useMeasureFormat();
  const { name, sides, hiders } = thing;
  const unfaced = SIDES.filter((side) => sides.every((one) => one.side !== side));
  return (
    <>
      <Heading aside={`${formatPercent(thing.mean)} free, the mean of all visitors`}>{name}</Heading>
      {thing.nearest && (
        <p className="text-xs pb-1">
          Seen from <span className="fig">{say(Math.round(thing.nearest.distance), 'mm')}</span> on, looking{' '}
          <span className="fig">
            {Math.abs(Math.round(thing.nearest.down))}° {thing.nearest.down < 0 ? 'up' : 'down'}
          </span>
          .
        </p>
      )}
      {sides.length > 0 && thing.kind !== 'signboard' && (
        <p className="text-xs pb-1">
          By the side it faces:{' '}
          <span className="fig">
            {sides.map(({ side, free }) => `${SIDE_WORDS[side]} ${formatPercent(free)}`).join(', ')}
          </span>
          {unfaced.length > 0 &&
            `; nobody stands before its ${unfaced.map((side) => SIDE_WORDS[side]).join(' and ')}: that may stay plain`}
        </p>
      )}
      {hiders.length === 0 ? (
        <p className="text-xs ink-2 pb-2">Nothing hides any of it.</p>
      ) : (
        <DataTable
          label={`What hides ${name}`}
          rows={hiders.slice(0, MAX_HIDERS)}
          keyOf={({ kind, id }) => `${kind} ${id}`}
          columns={[
            {
              head: 'Hidden by',
              cell: ({ kind, id, name: hider }: Hider) =>
                id === '' ? (
                  hider
                ) : (
                  <button
                    type="button"
                    className="link link-hover text-left"
                    onClick={() => pick({ kind, id })}
                  >
                    {hider}
                  </button>
                ),
            },
            { head: 'Cuts off, of all lines to it', number: true, cell: ({ share }) => formatPercent(share) },
          ]}
        />
      )}
      {hiders.length > 0 && <Helps scene={scene} thing={thing} />}
      <StandsOut thing={thing} />
      {thing.reads && <ReadFrom reads={thing.reads} />}
      {rooms && thing.kind === 'plot' && <SeenRooms name={name} rooms={rooms} />}
    </>
  );
}

/** From how many places a signboard is read. */
function ReadFrom({ reads }: { reads: NonNullable<SeenThing['reads']> }) {
  const there = WATCHERS.filter((who) => reads[who] !== null);
  return (
    <p className="text-xs pb-1">
      Its letters are read from{' '}
      <span className="fig">
        {there
          .map((who) => `${formatPercent(reads[who] ?? 0)} of the places of ${WATCHER_WORDS[who]}`)
          .join(', ')}
      </span>
      .
    </p>
  );
}

/** What frees the view of a thing: looked for by hand, each with what it comes to. */
function Helps({ scene, thing }: { scene: Scene; thing: SeenThing }) {
  const plans = useIsPlanner();
  const edit = useEdit();
  const { state, ask, end } = useViewHelps(scene, thing);
  if (state.is === 'asking')
    return (
      <div className="flex items-center gap-2 py-2 text-xs" role="status">
        <button type="button" className="btn btn-sm" onClick={end}>
          <Square size={13} aria-hidden /> Stop
        </button>
        <progress
          className="progress progress-primary flex-1"
          aria-label="Tried"
          value={state.share}
          max={1}
        />
        Trying moves and turns …
      </div>
    );
  if (state.is === 'failed') return <Failure title="The looking failed" message={state.error} />;
  if (state.is === 'idle')
    return (
      <button type="button" className="btn btn-sm my-2" onClick={ask}>
        <Search size={13} aria-hidden /> What would free it
      </button>
    );
  if (state.answer.length === 0)
    return (
      <p className="text-xs ink-2 py-2">
        No move, no other place of an even grid, no turn and no lower tree frees 3 % of it without another
        error or warning.
      </p>
    );
  return (
    <>
      <Heading aside="each was tried on the whole display">What would free {thing.name}</Heading>
      <ul className="flex flex-col gap-1 text-xs pb-2">
        {state.answer.map(({ words, changes, free }) => (
          <li key={words} className="flex items-center gap-2">
            <span className="flex-1">
              {words}: <span className="fig">{formatPercent(free)} free</span>
            </span>
            {plans && (
              <button
                type="button"
                className="btn btn-xs"
                onClick={() => {
                  if (edit.change(words, changes)) toast.success(`${words}: done`);
                }}
              >
                Apply
              </button>
            )}
          </li>
        ))}
      </ul>
    </>
  );
}
