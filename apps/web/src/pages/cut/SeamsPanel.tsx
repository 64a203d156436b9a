import { Download } from 'lucide-react';
import { useState } from 'react';
import { toast } from 'sonner';
import { SEAM_WORDS, readReadings, signSeam, type SeamState } from '@quarry/core/cut';
import { formatPlates } from '@quarry/core/grid';
import { SEAM_SIDES, type Change, type Seam, type SeamSide } from '@quarry/core/document';
import { useSheets } from '../../data/sheets.ts';
import { useDisplay, useEdit, useDenialReason, useScene } from '../../data/useDisplay.tsx';
import { localDay } from '../../ui/clock.ts';
import { DataTable, type Column } from '../../ui/DataTable.tsx';
import { QuantityField } from '../../ui/fields.tsx';
import { Basis, Empty, Heading, DefinitionRow, Loading } from '../../ui/parts.tsx';
import type { SeamEntry } from '../../workers/useDerived.ts';
import { useWorkerQuery } from '../../workers/useWorkerQuery.ts';
import { SeamProfile } from './SeamProfile.tsx';

const STATE_WORDS: Record<SeamState['state'], { word: string; mark: string; tone: string }> = {
  open: { word: 'not signed', mark: '○', tone: 'ink-2' },
  half: { word: 'one side signed', mark: '◐', tone: 'text-warning' },
  agreed: { word: 'agreed', mark: '●', tone: 'text-success' },
  reopened: { word: 'reopened', mark: '!', tone: 'text-error' },
};

/** Every seam: what is along it, whether both sides have signed it, and what stands there. */
export function SeamsPanel({
  chosen,
  onChoose,
}: {
  chosen: string | null;
  onChoose: (seam: string) => void;
}) {
  const seams = useWorkerQuery((core) => core.seams());
  if (!seams) return <Loading what="Reading the seams" />;
  const entry = seams.find(({ sheet }) => sheet.neighbours.id === chosen) ?? seams[0];
  if (!entry)
    return (
      <Empty title="No seams yet">
        Cut the scene into two modules or more; then their seams are listed here.
      </Empty>
    );
  const agreed = seams.filter(({ state }) => state.state === 'agreed').length;
  return (
    <>
      <Heading aside={`${agreed} of ${seams.length} agreed`}>Seams</Heading>
      <div className="flex flex-wrap gap-1 pb-1" role="group" aria-label="Seams">
        {seams.map(({ sheet: { neighbours }, state, mends }) => {
          const { word, mark, tone } = STATE_WORDS[state.state];
          const on = neighbours.id === entry.sheet.neighbours.id;
          return (
            <button
              key={neighbours.id}
              type="button"
              aria-pressed={on}
              title={`${word}${mends.length > 0 ? `, ${mends.length} to mend` : ''}`}
              className={`btn btn-xs fig font-medium ${on ? 'btn-neutral' : ''}`}
              onClick={() => onChoose(neighbours.id)}
            >
              <span aria-hidden className={on ? '' : tone}>
                {mark}
              </span>
              {neighbours.a.name}–{neighbours.b.name}
              <span className="sr-only"> {word}</span>
              {mends.length > 0 && <span aria-hidden>△</span>}
            </button>
          );
        })}
      </div>
      <SeamSheetPart key={entry.sheet.neighbours.id} entry={entry} />
    </>
  );
}

function SeamSheetPart({ entry }: { entry: SeamEntry }) {
  const { sheet, state, mends } = entry;
  const { neighbours, crossings, connectors, standard, water, over } = sheet;
  const { a, b, line, id } = neighbours;
  const { seam: seams } = useScene('seam');
  const seam = seams[id];
  const { word, mark, tone } = STATE_WORDS[state.state];
  return (
    <>
      <p className="py-1">
        <span className={`font-semibold ${tone}`}>
          {mark} {word}
        </span>
        {seam?.signs.map(({ side, by, at }) => (
          <span key={side} className="ink-2 text-xs">
            {' '}
            · {side === 'a' ? a.name : b.name} by {by}, {localDay(at)}
          </span>
        ))}
      </p>
      {state.state === 'reopened' && (
        <p className="text-xs pb-1">
          {state.moved
            ? 'The seam lies elsewhere or has another length than when it was signed.'
            : `${state.differences.length} studs are not as they were signed: they are marked below.`}
        </p>
      )}
      <SeamProfile
        sheet={sheet}
        seam={seam}
        differences={state.state === 'reopened' ? state.differences : []}
      />
      <Signing entry={entry} seam={seam} />
      <Heading aside={`${line.length} studs`}>What crosses it</Heading>
      {crossings.length === 0 ? (
        <p className="ink-2">No way, track, stream or wall.</p>
      ) : (
        <DataTable
          label="What crosses the seam"
          rows={crossings}
          keyOf={({ id, centre }) => `${id} ${centre}`}
          columns={CROSSING_COLUMNS}
        />
      )}
      <dl>
        <DefinitionRow
          label="Connectors"
          note={
            standard === 'street'
              ? 'street standard, from its beginning'
              : 'two studs in the middle of each 16'
          }
        >
          {connectors.map(({ from, to }) => `${from + 1}–${to}`).join(', ') || 'none'}
        </DefinitionRow>
        {(water.a.length > 0 || water.b.length > 0) && (
          <DefinitionRow label="Water at" note={`${a.name} | ${b.name}`}>
            {water.a.map((level) => formatPlates(level)).join(', ') || '—'} |{' '}
            {water.b.map((level) => formatPlates(level)).join(', ') || '—'}
          </DefinitionRow>
        )}
        <DefinitionRow label="Lies over">
          {over.map((one) => `${one.studs} ${SEAM_WORDS[one.over]}`).join(', ')}
        </DefinitionRow>
      </dl>
      <Readings entry={entry} />
      {mends.length > 0 && (
        <>
          <Heading aside={`${mends.length}`}>To mend</Heading>
          <ul>
            {mends.map(({ words }) => (
              <li key={words} className="border-b hair py-0.5">
                {words}
              </li>
            ))}
          </ul>
        </>
      )}
      <SeamFiles a={a.name} b={b.name} seam={id} />
      <Basis>
        The relief read off on both sides of the line, stud by stud from its {line.upright ? 'north' : 'west'}{' '}
        end. Crossing width = width ÷ cos of its slant. A signature holds while every stud stays as it was
        signed: streets, ways and tracks exactly, rough ground within the tolerance.
      </Basis>
    </>
  );
}

const CROSSING_COLUMNS: readonly Column<SeamEntry['sheet']['crossings'][number]>[] = [
  { head: 'Name', wraps: true, cell: ({ name }) => name },
  { head: 'Middle at stud', number: true, cell: ({ centre }) => centre.toFixed(1) },
  { head: 'Wide', number: true, cell: ({ width }) => `${width.toFixed(1)} st` },
  {
    head: 'From square',
    number: true,
    cell: ({ angle }) => `${angle.toFixed(0)}°`,
    tone: ({ kind, angle }) => (kind === 'track' && angle > 2 ? 'error' : null),
  },
  {
    head: 'Height',
    number: true,
    cell: ({ height }) => (height === null ? '' : formatPlates(Math.round(height))),
  },
];

/** Signs the seam for either module, and says by how much rough ground may differ. */
function Signing({ entry: { sheet, state }, seam }: { entry: SeamEntry; seam: Seam | undefined }) {
  const { a, b, id } = sheet.neighbours;
  const { person } = useScene('person');
  const actor = useDisplay(({ actor }) => actor);
  const edit = useEdit();
  const may = useDenialReason();
  const me = actor.person === null ? undefined : person[actor.person];
  const signAs = (side: SeamSide): Change =>
    signSeam(seam, sheet, {
      side,
      person: actor.person,
      by: me?.name ?? actor.role,
      at: new Date().toISOString(),
    });
  return (
    <>
      <div className="flex flex-wrap gap-1.5 py-1.5">
        {SEAM_SIDES.map((side) => {
          const module = side === 'a' ? a : b;
          const change = signAs(side);
          const why = may(change);
          const signed = state.state !== 'reopened' && seam?.signs.some((sign) => sign.side === side);
          return (
            <button
              key={side}
              type="button"
              className="btn btn-xs btn-primary"
              disabled={why !== null || signed === true}
              title={why ?? (signed ? 'Signed as it is' : undefined)}
              onClick={() => edit.change(`signed the seam ${a.name}–${b.name} for ${module.name}`, [change])}
            >
              {signed ? `${module.name} signed` : `Sign for ${module.name}`}
            </button>
          );
        })}
      </div>
      {seam && (
        <QuantityField
          measure="plates"
          label="Rough ground may differ by"
          value={seam.tolerance}
          min={0}
          max={30}
          disabled={
            may({ op: 'patch', kind: 'seam', id, v: seam.v, set: { tolerance: seam.tolerance + 1 } }) !== null
          }
          onCommit={(tolerance) =>
            edit.patch(`changed what the seam ${a.name}–${b.name} tolerates`, 'seam', seam, {
              tolerance: tolerance ?? 1,
            })
          }
        />
      )}
    </>
  );
}

const SEAM_FILES = [
  ['seam.pdf', 'Seam sheet'],
  ['strip.pdf', 'Strip 1:1'],
  ['strip.svg', 'Strip, SVG'],
  ['seam.csv', 'CSV'],
  ['seam.json', 'JSON'],
] as const;

/** What of a seam leaves the program. @param a name of its first module */
function SeamFiles({ a, b, seam }: { a: string; b: string; seam: string }) {
  const sheets = useSheets();
  return (
    <>
      <Heading>Take it along</Heading>
      <p className="flex flex-wrap gap-2">
        {SEAM_FILES.map(([name, what]) => (
          <a
            key={name}
            className="btn btn-xs btn-ghost"
            href={sheets(name, { seam })}
            target="_blank"
            rel="noreferrer"
          >
            <Download size={12} aria-hidden /> {what}
          </a>
        ))}
        {SEAM_SIDES.map((side) => (
          <a
            key={side}
            className="btn btn-xs btn-ghost"
            href={sheets('edge.asc', { seam, side })}
            title="The first 8 studs of this side as heights, for the builder of the other side"
          >
            <Download size={12} aria-hidden /> Edge of {side === 'a' ? a : b}
          </a>
        ))}
      </p>
    </>
  );
}

/** What stands, typed or from a file. */
function Readings({ entry: { sheet } }: { entry: SeamEntry }) {
  const { neighbours } = sheet;
  const { a, b, id } = neighbours;
  const scene = useScene('seam');
  const seam = scene.seam[id];
  const edit = useEdit();
  const may = useDenialReason();
  const [text, setText] = useState<string | null>(null);
  const [error, setError] = useState<string | null>(null);
  const said = (seam?.readings ?? [])
    .map(({ side, at, height }) => `${side === 'a' ? a.name : b.name}, ${at + 1}, ${height}`)
    .join('\n');
  const change = (readings: unknown): Change =>
    seam
      ? { op: 'patch', kind: 'seam', id, v: seam.v, set: { readings } }
      : { op: 'add', kind: 'seam', id, data: { a: a.id, b: b.id, readings } };
  const write = (typed: string) => {
    const read = readReadings(typed, neighbours);
    setError(read.ok ? null : read.error);
    if (!read.ok) return;
    const made = change(read.readings);
    const why = may(made);
    if (why) setError(why);
    else if (edit.change(`read what stands at the seam ${a.name}–${b.name}`, [made])) {
      setText(null);
      toast(`${read.readings.length} readings kept`);
    }
  };
  return (
    <details className="border-b hair py-1" open={said !== ''}>
      <summary className="cursor-pointer font-semibold text-[13px]">
        What stands there{' '}
        <span className="ink-2 font-normal text-xs">{seam?.readings.length ?? 0} readings</span>
      </summary>
      <textarea
        className="textarea textarea-xs w-full fig h-20 mt-1"
        aria-label={`Readings at the seam of ${a.name} and ${b.name}`}
        placeholder={`${a.name}, 12, 5b1p\n${b.name}, 12, 16`}
        value={text ?? said}
        onChange={(event) => setText(event.currentTarget.value)}
      />
      {error && (
        <p role="alert" className="text-error text-xs">
          {error}
        </p>
      )}
      <div className="flex items-center gap-2">
        <button
          type="button"
          className="btn btn-xs"
          disabled={text === null}
          onClick={() => text !== null && write(text)}
        >
          Keep readings
        </button>
        <label className="btn btn-xs btn-ghost">
          From a CSV file
          <input
            type="file"
            accept=".csv,text/csv,text/plain"
            className="sr-only"
            onChange={(event) => {
              const [chosen] = event.currentTarget.files ?? [];
              event.currentTarget.value = '';
              if (!chosen) return;
              if (chosen.size > 1_000_000)
                setError(`“${chosen.name}” is ${(chosen.size / 1e6).toFixed(1)} MB; at most 1 MB is read.`);
              else void chosen.text().then(write);
            }}
          />
        </label>
        <span className="ink-2 text-xs">module, stud, height in plates or as 5b1p</span>
      </div>
    </details>
  );
}
