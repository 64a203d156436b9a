import { countOf, formatPercent } from '@quarry/core/grid';
import { type Scene } from '@quarry/core/document';
import { sectionShares, shareOf, type Reach } from '@quarry/core/reach';
import { currentPlace } from '@quarry/core/venue';
import { useEdit } from '../../data/useDisplay.tsx';
import { DataTable } from '../../ui/DataTable.tsx';
import { QuantityField } from '../../ui/fields.tsx';
import { Basis, Heading, DefinitionRow, Loading } from '../../ui/parts.tsx';
import { useMeasureFormat } from '../../ui/useMeasureFormat.ts';
import { useWorkerQuery } from '../../workers/useWorkerQuery.ts';

/** What can be reached from where one can stand, section by section, and what would mend most. */
export function ReachPanel({
  scene,
  reach,
  disabled,
}: {
  scene: Scene;
  reach: Reach | null;
  disabled: boolean;
}) {
  const edit = useEdit();
  const { say } = useMeasureFormat();
  const place = currentPlace(scene);
  if (!place) return null;
  if (!reach) return <Loading what="Measuring" />;
  const all = shareOf(reach);
  const size = { measure: 'mm', min: 100, max: 3000, disabled } as const;
  const percent = (count: number, of: number) => formatPercent(of === 0 ? 0 : count / of);
  return (
    <>
      <dl>
        <DefinitionRow
          label="Past an arm’s reach"
          note={`${all.pastArm.toLocaleString('en')} of ${countOf(all.studs, 'stud')}`}
        >
          <span className={all.pastArm > 0 ? 'text-warning' : ''}>{percent(all.pastArm, all.studs)}</span>
        </DefinitionRow>
        <DefinitionRow
          label="Past a step ladder’s"
          note={`farthest ${Number.isFinite(all.farthest) ? say(Math.round(all.farthest), 'mm') : 'without end'}`}
        >
          <span className={all.pastLadder > 0 ? 'text-error' : ''}>{percent(all.pastLadder, all.studs)}</span>
        </DefinitionRow>
      </dl>
      <DataTable
        label="Reach by section"
        rows={sectionShares(scene, reach)}
        keyOf={({ section }) => section.id}
        columns={[
          {
            head: 'Section',
            cell: ({ section }) => (
              <>
                <b>{section.letter}</b> {section.name}
              </>
            ),
          },
          {
            head: 'Past arm',
            number: true,
            cell: ({ share }) => percent(share.pastArm, share.studs),
            tone: ({ share }) => (share.pastArm > 0 ? 'warning' : 'quiet'),
          },
          {
            head: 'Past ladder',
            number: true,
            cell: ({ share }) => percent(share.pastLadder, share.studs),
            tone: ({ share }) => (share.pastLadder > 0 ? 'error' : 'quiet'),
          },
          {
            head: 'Farthest',
            number: true,
            cell: ({ share }) =>
              Number.isFinite(share.farthest) ? say(Math.round(share.farthest), 'mm') : 'without end',
          },
        ]}
      />
      <Moves place={place.id} disabled={disabled} worth={all.pastArm > 0} />
      <Heading>Measured with</Heading>
      <QuantityField
        label="An arm reaches"
        value={place.armReach}
        {...size}
        onCommit={(armReach) => edit.patch('changed the arm reach', 'place', place, { armReach })}
      />
      <QuantityField
        label="A step ladder from"
        value={place.ladderReach}
        {...size}
        onCommit={(ladderReach) => edit.patch('changed the ladder reach', 'place', place, { ladderReach })}
      />
      <QuantityField
        label="Floor one stands on"
        value={place.standDepth}
        {...size}
        onCommit={(standDepth) => edit.patch('changed the standing depth', 'place', place, { standDepth })}
      />
      <p className="ink-2 text-xs pt-1">
        △ Reaching over about 1 m from a step ladder breaks things, and people fall: have somebody hold it,
        and follow the ladder’s own rules.
      </p>
      <Basis>
        The straight distance from each stud’s centre to the nearest edge of a table or of the scene with free
        floor before it: as deep as one stands on, at least 450 mm wide, clear of walls, tables and obstacles.
        It is not asked whether one can walk there.
      </Basis>
    </>
  );
}

/** Rearrangements tried by computation, the best three, each to be taken with one press. */
function Moves({ place, disabled, worth }: { place: string; disabled: boolean; worth: boolean }) {
  const { tell } = useMeasureFormat();
  const edit = useEdit();
  const moves = useWorkerQuery(worth ? (core) => core.moves(place) : null, place);
  if (!worth) return <p className="text-success pt-2">Everything can be reached by hand.</p>;
  return (
    <section aria-labelledby="moves" className="pt-2">
      <Heading id="moves">What would mend most</Heading>
      {moves === null && <Loading what="Trying moves" />}
      {moves?.length === 0 && (
        <p className="ink-2">No pull, turn, split or cleared table that fits the room brings 1 % or more.</p>
      )}
      <ol>
        {moves?.map((move) => (
          <li key={move.words} className="border-b hair py-1">
            <p>{tell(move.words)}.</p>
            <p className="flex items-center justify-between gap-2">
              <span className="fig text-xs">
                {formatPercent(move.before)} → {formatPercent(move.after)} past an arm
              </span>
              {move.changes.length > 0 ? (
                <button
                  type="button"
                  className="btn btn-xs"
                  disabled={disabled}
                  onClick={() => edit.change(move.words.toLowerCase(), move.changes)}
                >
                  Do it
                </button>
              ) : (
                <span className="ink-2 text-xs">while building</span>
              )}
            </p>
          </li>
        ))}
      </ol>
    </section>
  );
}
