import { formatPercent } from '@quarry/core/grid';
import type { Scene, Section } from '@quarry/core/document';
import { effortOf } from '@quarry/core/progress';
import { EYE_STEP, WATCHERS, type SeenPart, type Sight } from '@quarry/core/visibility';
import { DataTable, type Column } from '../../ui/DataTable.tsx';
import { Basis, Heading } from '../../ui/parts.tsx';
import { useMeasureFormat } from '../../ui/useMeasureFormat.ts';
import { useCounts } from '../../workers/useCounts.ts';
import { PlainGround } from './PlainGround.tsx';
import { SeenCliffs } from './SeenCliffs.tsx';
import { WATCHER_HEADS, shareOrNone } from './watchers.ts';

/** Less of a section that is seen is marked, share of its studs. */
const LITTLE = 0.5;
/** An hour shows this many times as much as elsewhere, or as little: marked. */
const MUCH = 1.5;

/** What of each section is seen, by whom, and what its hours show. */
export function SeenSections({ scene, sight }: { scene: Scene; sight: Sight }) {
  const { say } = useMeasureFormat();
  return (
    <>
      <Heading aside="shares of studs whose top is seen">Seen by somebody</Heading>
      <DataTable
        label="Seen by section"
        rows={sight.parts}
        keyOf={({ section }) => section ?? 'all'}
        columns={[
          { head: 'Section', cell: (part) => <PartName scene={scene} part={part} /> },
          ...WATCHERS.map((who): Column<SeenPart> => ({
            head: WATCHER_HEADS[who],
            number: true,
            cell: ({ seen }) => shareOrNone(seen[who]),
            tone: ({ seen }) => ((seen[who] ?? 1) < LITTLE ? 'warning' : null),
          })),
          { head: 'Nobody, studs', number: true, cell: ({ hidden }) => hidden.toLocaleString('en') },
        ]}
      />
      <SeenCliffs sight={sight} />
      <PlainGround scene={scene} sight={sight} />
      <WhereHoursShow scene={scene} sight={sight} />
      <Basis>
        One pair of eyes of each height stands every {say(EYE_STEP, 'mm')} along the sides the display is
        looked at from, as far off as the nearest barrier. A stud is seen when a straight line from an eye to
        the middle of its top passes no ground, building, wall or plant; it may pass under decks and through
        tunnels. Figures hide nothing. The view is the solid angle that tops and sides fill in all those eyes.
      </Basis>
    </>
  );
}

function PartName({ scene, part }: { scene: Scene; part: Pick<SeenPart, 'section'> }) {
  const section = part.section === null ? undefined : scene.section[part.section];
  if (!section) return <>The whole display</>;
  return (
    <span>
      <b>{section.letter}</b> {section.name}
    </span>
  );
}

interface Budget {
  section: Section;
  view: number;
  hours: number;
}

/** The share of the view that each section has beside its share of the hours. */
function WhereHoursShow({ scene, sight }: { scene: Scene; sight: Sight }) {
  const counts = useCounts();
  if (!counts) return <p className="ink-2 text-xs pt-2">Where hours show: the parts are being counted …</p>;
  const rows = sight.parts.flatMap(({ section: id, view }): Budget[] => {
    const section = id === null ? undefined : scene.section[id];
    return section ? [{ section, view, hours: effortOf(scene, section, counts).hours ?? 0 }] : [];
  });
  const all = rows.reduce((sum, { hours }) => sum + hours, 0);
  const inSections = rows.reduce((sum, { view }) => sum + view, 0);
  if (all === 0 || inSections === 0) return null;
  // How much an hour in it shows against an hour anywhere: 1 is the mean of all sections.
  const showsOf = ({ view, hours }: Budget) => (hours > 0 ? view / inSections / (hours / all) : null);
  const told = rows
    .map((row) => ({ ...row, ofHours: row.hours / all, shows: showsOf(row) }))
    .toSorted((a, b) => (b.shows ?? Infinity) - (a.shows ?? Infinity));
  return (
    <>
      <Heading aside="1 is the mean of all sections">Where an hour shows most</Heading>
      <DataTable
        label="Where an hour shows most"
        rows={told}
        keyOf={({ section }) => section.id}
        columns={[
          {
            head: 'Section',
            cell: ({ section }) => <PartName scene={scene} part={{ section: section.id }} />,
          },
          { head: 'Of the view', number: true, cell: ({ view }) => formatPercent(view) },
          { head: 'Of the hours', number: true, cell: ({ ofHours }) => formatPercent(ofHours) },
          {
            head: 'An hour shows',
            number: true,
            cell: ({ shows }) => (shows === null ? 'no hours yet' : `× ${shows.toFixed(1)}`),
            tone: ({ shows }) => (shows === null ? 'quiet' : shows < 1 / MUCH ? 'warning' : null),
          },
        ]}
      />
      <p className="ink-2 text-[11px] py-1">
        Hours as on Progress: typed, or counted pieces at their builder’s rate. A section that fills much of
        the view for few hours is where more detail is seen; one marked takes hours that few see.
      </p>
    </>
  );
}
