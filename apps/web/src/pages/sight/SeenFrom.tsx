import { formatPercent } from '@quarry/core/grid';
import { Fragment } from 'react';
import { Link } from 'react-router';
import { SIDES, SIDE_WORDS, displayOf, runsEast, type Scene, type Side } from '@quarry/core/document';
import { currentPlace, highestTable } from '@quarry/core/venue';
import { WATCHERS, eyeHeights, type Sight, type ViewFrom } from '@quarry/core/visibility';
import { useEdit, useIsPlanner, useLink } from '../../data/useDisplay.tsx';
import { DataTable } from '../../ui/DataTable.tsx';
import { NumberField } from '../../ui/fields.tsx';
import { Basis, Heading } from '../../ui/parts.tsx';
import { useMeasureFormat } from '../../ui/useMeasureFormat.ts';
import { WATCHER_HEADS, shareOrNone } from './watchers.ts';

/** Who looks, how busy each side is, and what is seen from the doors and from where photos are taken. */
export function SeenFrom({ scene, sight }: { scene: Scene; sight: Sight }) {
  const { id } = useLink();
  const { say } = useMeasureFormat();
  const place = currentPlace(scene);
  const heights = place && eyeHeights(place);
  const table = highestTable(scene);
  const [whole] = sight.parts;
  return (
    <>
      <Heading aside={place?.name}>Who looks</Heading>
      <DataTable
        label="Who looks"
        rows={WATCHERS}
        keyOf={(who) => who}
        columns={[
          { head: 'Eyes', cell: (who) => WATCHER_HEADS[who] },
          { head: 'Of visitors', number: true, cell: (who) => formatPercent(sight.shares[who]) },
          {
            head: 'Over the table',
            number: true,
            cell: (who) => (heights ? say(heights[who] - table, 'mm') : ''),
          },
          { head: 'Studs seen', number: true, cell: (who) => shareOrNone(whole?.seen[who] ?? null) },
        ]}
      />
      <p className="text-xs py-1">
        Heights of eyes and who comes:{' '}
        <Link className="link inline-flex min-h-6 items-center" to={`/d/${id}/survey?sheet=public`}>
          Survey, Visitors
        </Link>
      </p>
      <Crowd scene={scene} />
      <FirstViews scene={scene} views={sight.views} />
    </>
  );
}

/** Its thirds, as the plan has them. */
const thirdsOf = (side: Side): readonly string[] =>
  runsEast(side) ? ['west', 'middle', 'east'] : ['north', 'middle', 'south'];

/** How many stand along each side that is looked at. */
function Crowd({ scene }: { scene: Scene }) {
  const edit = useEdit();
  const plans = useIsPlanner();
  const display = displayOf(scene);
  return (
    <>
      <Heading aside="% of the busiest, thirds % of their side">How busy each side is</Heading>
      {SIDES.filter((side) => display.viewedSides.includes(side)).map((side) => (
        <Fragment key={side}>
          <NumberField
            label={`The ${SIDE_WORDS[side]} side`}
            unit="%"
            whole
            value={display.crowd[side]}
            min={1}
            max={100}
            disabled={!plans}
            onCommit={(busy) =>
              busy !== null &&
              edit.patch('changed how busy a side is', 'display', display, {
                crowd: { ...display.crowd, [side]: busy },
              })
            }
          />
          <div
            className="flex items-center justify-between gap-1 border-b hair pl-4"
            role="group"
            aria-label={`Along the ${SIDE_WORDS[side]} side`}
          >
            {thirdsOf(side).map((word, i) => (
              <span key={word} className="flex items-center gap-1 text-xs">
                <span aria-hidden className="ink-2">
                  {word}
                </span>
                <NumberField
                  bare
                  label={`The ${SIDE_WORDS[side]} side, ${word} third`}
                  unit="%"
                  whole
                  value={display.crowdAlong[side][i] ?? 100}
                  min={1}
                  max={100}
                  disabled={!plans}
                  onCommit={(busy) => {
                    if (busy === null) return;
                    const thirds: [number, number, number] = [...display.crowdAlong[side]];
                    thirds[i] = busy;
                    edit.patch(
                      `changed how busy the ${SIDE_WORDS[side]} side is along it`,
                      'display',
                      display,
                      {
                        crowdAlong: { ...display.crowdAlong, [side]: thirds },
                      },
                    );
                  }}
                />
              </span>
            ))}
          </div>
        </Fragment>
      ))}
    </>
  );
}

/** What is seen from the doors of the hall, and from where photos are taken. */
function FirstViews({ scene, views }: { scene: Scene; views: readonly ViewFrom[] }) {
  const { say } = useMeasureFormat();
  return (
    <>
      <Heading aside="an adult’s eyes">First views, and photos</Heading>
      {views.length === 0 ? (
        <p className="ink-2 text-xs pb-1">
          None: doors of the hall are drawn on Survey, photos with their place are taken on Progress, and
          photo spots are chosen on Plan.
        </p>
      ) : (
        <DataTable
          label="First views and photos"
          rows={views}
          keyOf={({ kind, id }) => `${kind} ${id}`}
          columns={[
            { head: 'From', wraps: true, cell: ({ name }) => name },
            { head: 'Off', number: true, cell: ({ distance }) => say(Math.round(distance), 'mm') },
            { head: 'Studs seen', number: true, cell: ({ seen }) => formatPercent(seen) },
            {
              head: 'Catches the eye first',
              wraps: true,
              cell: ({ first }) =>
                first.length === 0
                  ? 'nothing that stands'
                  : first.map(({ name, share }) => `${name} ${formatPercent(share)}`).join(', '),
            },
          ]}
        />
      )}
      <Basis>
        From the middle of each door of {currentPlace(scene)?.name ?? 'the place'}, from where photos were
        taken, and from photo spots that have none yet; of a photo whose place lies on the display one stands
        back to its edge. What catches the eye first fills most of the view: shares of the solid angle of the
        whole display. Walls, pillars and people in the hall hide nothing.
      </Basis>
    </>
  );
}
