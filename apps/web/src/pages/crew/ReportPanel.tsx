import { useQuery } from '@tanstack/react-query';
import { subDays } from 'date-fns';
import { useEffect, useMemo, useState } from 'react';
import { colourName, partName } from '@quarry/core/catalogue';
import { reportSince, workWords, type SinceReport } from '@quarry/core/history';
import { type Rect, formatChance, formatPercent } from '@quarry/core/grid';
import { footprintBounds } from '@quarry/core/terrain';
import { kindSchema, listOf, placeIn, type Scene } from '@quarry/core/document';
import { keys } from '../../data/api.ts';
import type { HistoryLine } from '@quarry/protocol/history';
import { crewApi } from '../../data/crewApi.ts';
import { useDisplay, useLink, useScene } from '../../data/useDisplay.tsx';
import { localZone } from '../../ui/clock.ts';
import { Basis, Failure, Heading, DefinitionRow, Loading } from '../../ui/parts.tsx';
import { PlanPicture } from '../../ui/PlanPicture.tsx';
import { capital, dayWord } from '../../ui/words.ts';
import { useDerived } from '../../workers/useDerived.ts';
import { useOutlook } from '../../workers/useOutlook.ts';
import { SendReport } from './SendReport.tsx';
import { usePast } from './usePast.ts';

/** From when a report may reach. */
const REACHES = [
  { id: 'last', word: 'the last report' },
  { id: 'week', word: 'a week ago', days: 7 },
  { id: 'fortnight', word: 'two weeks ago', days: 14 },
  { id: 'month', word: 'four weeks ago', days: 28 },
  { id: 'all', word: 'the beginning' },
] as const;
type Reach = (typeof REACHES)[number]['id'];

/** A log longer than this is reported by its latest part. */
const MAX_LINES = 2000;

async function linesSince(id: string, after: number): Promise<HistoryLine[]> {
  const lines: HistoryLine[] = [];
  let before: number | undefined;
  while (lines.length < MAX_LINES) {
    const page = await crewApi.history(id, { after, limit: 500, before });
    lines.push(...page.lines);
    if (page.lines.length < 500) break;
    before = page.lines.at(-1)?.seq;
  }
  return lines.reverse();
}

/** What changed since the last report, worked out from the log, edited by a person, and sent. */
export function ReportPanel() {
  const scene = useScene('report', 'section');
  const seq = useDisplay(({ seq }) => seq);
  const link = useLink();
  const [reach, setReach] = useState<Reach>('last');
  const [section, setSection] = useState('');
  const reports = listOf(scene, 'report')
    .filter((report) => (report.section ?? '') === section)
    .toSorted((a, b) => b.upto - a.upto);
  const [last] = reports;
  const days = REACHES.find((one) => one.id === reach);
  const from = useQuery({
    queryKey: [...keys.history(link.id), 'since', reach, last?.upto ?? 0, section],
    queryFn: async () => {
      if (reach === 'last' && last) return last.upto;
      const at = days && 'days' in days ? subDays(new Date(), days.days).getTime() : 0;
      return (await crewApi.moment(link.id, at)).seq;
    },
  });
  const since = from.data ?? null;
  const past = usePast(since);
  const log = useQuery({
    queryKey: [...keys.history(link.id), 'lines', since, seq],
    enabled: since !== null,
    queryFn: () => linesSince(link.id, since ?? 0),
  });
  const trouble = from.error ?? past.error ?? log.error;
  return (
    <div className="p-3 sm:p-4 max-w-[1180px]">
      <div className="flex flex-wrap items-center gap-3 pb-2 border-b border-base-content">
        <label className="flex items-center gap-2">
          <span>Since</span>
          <select
            className="select select-sm w-44"
            value={reach}
            onChange={(event) =>
              setReach(REACHES.find(({ id }) => id === event.currentTarget.value)?.id ?? reach)
            }
          >
            {REACHES.map(({ id, word }) => (
              <option key={id} value={id}>
                {id === 'last' && last?.at
                  ? `${word}, ${dayWord(last.at)}`
                  : id === 'last' && !last
                    ? 'the beginning (no report yet)'
                    : word}
              </option>
            ))}
          </select>
        </label>
        <label className="flex items-center gap-2">
          <span>about</span>
          <select
            className="select select-sm w-44"
            value={section}
            onChange={(event) => setSection(event.currentTarget.value)}
          >
            <option value="">the whole display</option>
            {listOf(scene, 'section').map(({ id, letter, name }) => (
              <option key={id} value={id}>
                {letter}, {name}
              </option>
            ))}
          </select>
        </label>
        {last && (
          <span className="ink-2 text-xs">
            {reports.length} sent, the last “{last.name}”
          </span>
        )}
      </div>
      {trouble && <Failure title="The report cannot be made" message={trouble.message} />}
      {!trouble && (!past.scene || !log.data || since === null) && <Loading what="Going through the log" />}
      {past.scene && log.data && since !== null && (
        <Report
          key={`${since} ${section}`}
          before={past.scene}
          lines={log.data}
          since={since}
          sinceAt={past.at}
          section={section === '' ? null : section}
        />
      )}
    </div>
  );
}

interface ReportProps {
  before: Scene;
  lines: readonly HistoryLine[];
  since: number;
  sinceAt: number | null;
  section: string | null;
}

function Report({ before, lines, since, sinceAt, section }: ReportProps) {
  const scene = useDisplay(({ scene }) => scene);
  const [now] = useState(() => Date.now());
  const { report, playing } = useReport({ before, lines, since, sinceAt, section }, now);
  const made = useMemo(() => report(true), [report]);
  const places = useMemo(() => placesOf(scene, lines), [scene, lines]);
  return (
    <div className="grid gap-6 grid-cols-1 lg:grid-cols-[minmax(0,1fr)_300px] pt-3 items-start">
      <article aria-label="Report">
        <h2 className="font-bold text-base">{made.title}</h2>
        <p className="ink-2">
          {percent(made.done.before)} done then,{' '}
          <strong className="text-base-content">{percent(made.done.after)}</strong> now; {made.batches}{' '}
          {made.batches === 1 ? 'change' : 'changes'}
          {made.people.length > 0 && ` by ${made.people.join(', ')}`}.
        </p>
        <div className="grid sm:grid-cols-2 gap-3 py-3">
          <Plan title="Before" scene={before} />
          <Plan title="Now, with what changed" scene={scene} changed={places} />
        </div>
        <WorkAndOdds made={made} />
        <WhatChanged made={made} />
        {made.promised.length > 0 && <Heading>Promised</Heading>}
        {made.promised.map(({ name, date, words, met }) => (
          <section key={`${date} ${name}`} aria-label={name}>
            <h3 className="font-semibold pt-1">
              {name}, {date}{' '}
              <span className="ink-2 text-xs font-normal">
                {met.length} of {met.length + words.length} met
              </span>
            </h3>
            <ul className="list-disc pl-5">
              {words.map((one) => (
                <li key={one}>△ open: {one}</li>
              ))}
              {met.map((one) => (
                <li key={one} className="ink-2">
                  ✓ met: {one}
                </li>
              ))}
            </ul>
          </section>
        ))}
        {made.wishes.length > 0 && (
          <>
            <Heading>Wishes of followers</Heading>
            <p>{made.wishes[0]}.</p>
            <Points lines={made.wishes.slice(1)} />
          </>
        )}
        {made.versions.length > 0 && (
          <>
            <Heading>Versions</Heading>
            <Points lines={made.versions} />
          </>
        )}
        {made.lookedFor.length > 0 && (
          <>
            <Heading>Lost or broken</Heading>
            <Points lines={made.lookedFor} />
          </>
        )}
        <Heading>Next</Heading>
        <Points lines={made.next} />
      </article>
      <aside aria-label="Figures and sending">
        <Figures made={made} />
        <SendReport {...{ report, made, since, sinceAt, section, now, playing }} changed={places} />
      </aside>
    </div>
  );
}

/**
 * What happened since a moment, worked out as soon as it is asked for.
 * @param now ms
 * @returns the report, with or without names; and whether the outlook in it is still being worked out
 */
function useReport({ before, lines, since, sinceAt, section }: ReportProps, now: number) {
  const scene = useDisplay(({ scene }) => scene);
  const seq = useDisplay(({ seq }) => seq);
  const rows = useDerived(({ materials }) => materials?.rows ?? null);
  const { answer } = useOutlook();
  const report = useMemo((): ((names: boolean) => SinceReport) => {
    const entries = lines.map((line) => ({
      ...line,
      changes: line.descriptions.length,
      descriptions: line.descriptions.flatMap(({ kind, ...one }) => {
        const known = kindSchema.safeParse(kind);
        return known.success ? [{ kind: known.data, ...one }] : [];
      }),
    }));
    const missing =
      rows?.flatMap(({ demand: { part, colour, section: of }, short }) =>
        short > 0 ? [{ part, colour, qty: short, section: of }] : [],
      ) ?? null;
    return (names) =>
      reportSince(before, scene, entries, {
        ...{
          from: since,
          fromAt: since === 0 ? null : sinceAt,
          upto: seq,
          at: now,
          zone: localZone(),
          section,
          names,
          missing,
        },
        outlook: answer?.ok ? answer.outlook : null,
      });
  }, [lines, rows, before, scene, since, sinceAt, seq, now, section, answer]);
  return { report, playing: answer === null };
}

const Points = ({ lines }: { lines: readonly string[] }) => (
  <ul className="list-disc pl-5">
    {lines.map((line) => (
      <li key={line}>{line}</li>
    ))}
  </ul>
);

function WorkAndOdds({ made }: { made: SinceReport }) {
  const odds = made.odds ?? [];
  if (made.work.sessions === 0 && odds.length === 0) return null;
  return (
    <>
      <Heading>Work and odds</Heading>
      {made.work.sessions > 0 && <p>{workWords(made.work)}.</p>}
      <ul>
        {odds.map(({ name: show, date, chance }) => (
          <li key={show + date}>
            Ready for {show}, {dayWord(date)}
            {made.without.length > 0 && `, but for section ${made.without.join(', ')}`}:{' '}
            <strong>{formatChance(chance)}</strong>
          </li>
        ))}
      </ul>
    </>
  );
}

function WhatChanged({ made }: { made: SinceReport }) {
  const changed = made.sections.filter(
    ({ sentences, before: was, after }) => sentences.length > 0 || was !== after,
  );
  return (
    <>
      <Heading>What changed</Heading>
      {changed.length === 0 && <p className="ink-2">Nothing since then.</p>}
      {changed.map(({ id, name: of, owner, before: was, after, stage, sentences }) => (
        <section key={id ?? ''} className="pb-2">
          <h3 className="font-semibold">
            {of}
            {owner && <span className="font-normal ink-2"> {owner}</span>}
            {after !== null && (
              <span className="fig font-normal text-xs">
                {' '}
                {percent(was)} → {percent(after)}, {stage}
              </span>
            )}
          </h3>
          <ul className="list-disc pl-5">
            {sentences.map((sentence) => (
              <li key={sentence} className="break-words">
                {capital(sentence)}
              </li>
            ))}
          </ul>
        </section>
      ))}
    </>
  );
}

function Figures({ made }: { made: SinceReport }) {
  return (
    <>
      <Heading>Figures</Heading>
      <dl>
        {made.figures.map(({ word, before: was, after }) => (
          <DefinitionRow key={word} label={capital(word)} note={was === after ? undefined : `${was} before`}>
            {after}
          </DefinitionRow>
        ))}
        <DefinitionRow label="Pieces short">
          {made.short === null ? 'counting …' : made.short.toLocaleString('en')}
        </DefinitionRow>
      </dl>
      {made.missing.length > 0 && (
        <details>
          <summary className="cursor-pointer py-1">What is missing most</summary>
          <ul className="text-xs">
            {made.missing.map(({ part, colour, qty }) => (
              <li key={`${part} ${colour}`}>
                <span className="fig">{qty.toLocaleString('en')}</span> × {partName(part)} in{' '}
                {colourName(colour)}
              </li>
            ))}
          </ul>
        </details>
      )}
      <Basis>
        The log between the two moments, told by section; done is weighed by area as on Progress; pieces are
        short after stock, loans and orders as on Stockpile; next is the following stage of each section and
        what the calendar brings within four weeks. Advice is left out.
      </Basis>
    </>
  );
}

function Plan({
  title,
  scene,
  changed = NOWHERE,
}: {
  title: string;
  scene: Scene;
  changed?: readonly Rect[];
}) {
  const core = useDerived(({ core }) => core);
  const [svg, setSvg] = useState<string | null>(null);
  useEffect(() => {
    let wanted = true;
    void core?.pagePlan(scene, changed).then((drawn) => wanted && setSvg(drawn));
    return () => {
      wanted = false;
    };
  }, [core, scene, changed]);
  return (
    <figure>
      <figcaption className="font-semibold pb-0.5">{title}</figcaption>
      {svg ? <PlanPicture svg={svg} alt={`Plan: ${title.toLowerCase()}`} /> : <Loading what="Drawing" />}
    </figure>
  );
}

const NOWHERE: readonly Rect[] = [];

/** Where things of the plan have changed: what is small enough to be pointed at. */
function placesOf(scene: Scene, lines: readonly HistoryLine[]): Rect[] {
  const whole = footprintBounds(scene);
  const keys = new Set(
    lines.flatMap(({ descriptions }) => descriptions.map(({ kind, id }) => `${kind}/${id}`)),
  );
  return [...keys].flatMap((key) => {
    const [kind, id = ''] = key.split('/');
    const known = kindSchema.safeParse(kind);
    if (!known.success || ['section', 'module', 'footprint'].includes(known.data)) return [];
    const place = placeIn(scene, known.data, id);
    return place && whole && place.w * place.d < (whole.w * whole.d) / 4 ? [place] : [];
  });
}

const percent = (share: number | null) => (share === null ? 'new' : formatPercent(share));
