import { z } from 'zod';
import { countOf, formatPercent, formatChance } from '../grid/index.ts';
import { colourName, partName } from '../catalogue/index.ts';
import { dateIn, progressOf, workDone, type Outlook } from '../progress/index.ts';
import {
  STAGES,
  differencesOf,
  displayOf,
  isComing,
  isoAfter,
  listOf,
  promisesOf,
  stageWord,
  wishWord,
  wishesOf,
  wishesWord,
  type Entity,
  type Kind,
  zoneSchema,
  type Scene,
} from '../document/index.ts';
import type { DescribedEntry } from './sentences.ts';
import { compareTotals } from './visitors.ts';

// “Since last report”: what changed, the figures, what is missing, what is next. Computed, then edited by a person.

const share = z.number().min(0).max(1);
const count = z.int().min(0).max(1e9);
const words = z.string().max(400);
const missingSchema = z.strictObject({ part: z.string().max(60), colour: z.string().max(60), qty: count });
const sectionReportSchema = z.strictObject({
  id: z.string().max(60).nullable(),
  /** “B, Mill street”, or “The whole display” for what belongs to no section. */
  name: words,
  owner: words.nullable(),
  /** Shares of its stages done, 0 to 1; null where it was not there, or has no stages. */
  before: share.nullable(),
  after: share.nullable(),
  stage: words.nullable(),
  /** The latest first, each once. */
  sentences: z.array(z.string().max(8000)).max(60),
});

/** A report as it is worked out, and as it is sent to be printed. */
export const sinceReportSchema = z.strictObject({
  title: words,
  /** The log after `from` up to and with `upto`. */
  from: count,
  upto: count,
  /** Milliseconds since the epoch, UTC; null: since the beginning. */
  fromAt: z.number().nullable(),
  at: z.number(),
  /** In which its moments have their days; empty: UTC. */
  zone: zoneSchema,
  batches: count,
  people: z.array(words).max(200),
  done: z.strictObject({ before: share, after: share }),
  sections: z.array(sectionReportSchema).max(5001),
  figures: z.array(z.strictObject({ word: words, before: count, after: count })).max(20),
  missing: z.array(missingSchema).max(100),
  /** Short altogether, pieces; null: not counted. */
  short: count.nullable(),
  next: z.array(words).max(6000),
  /** What milestones promised, of those of this time and the next one. */
  promised: z
    .array(
      z.strictObject({
        name: words,
        date: z.iso.date(),
        words: z.array(words).max(60),
        met: z.array(words).max(60),
      }),
    )
    .max(60)
    .default([]),
  /** What followers wish for: all in one line, then each with what became of it. */
  wishes: z.array(words).max(60).default([]),
  /** What is lost or broken. */
  lookedFor: z.array(words).max(400).default([]),
  /** Each version with how much differs in it, and which one stands. */
  versions: z.array(words).max(100).default([]),
  /** What sessions logged between the two moments. */
  work: z.strictObject({ sessions: count, hours: z.number().min(0), pieces: count }),
  /** The chance to be ready for each show; null: not played. */
  odds: z
    .array(z.strictObject({ name: words, date: z.iso.date(), chance: share }))
    .max(200)
    .nullable(),
  /** Letters of the sections that the odds leave out, since too little is known of them. */
  without: z.array(words).max(5000),
});
export type SinceReport = z.infer<typeof sinceReportSchema>;
export type Missing = z.infer<typeof missingSchema>;
type SectionReport = z.infer<typeof sectionReportSchema>;

/** The most sentences a section's part has, and lines of what is missing. */
const MAX_SENTENCES = 12;
const MAX_MISSING = 12;

/**
 * @param before the scene at the last report
 * @param after the scene as it stands
 * @param entries the log between them
 * @param options.zone IANA name, in which moments have their days; empty: UTC
 * @param options.section only what belongs to this section
 * @param options.names whether people are named
 * @param options.missing what is short, of all sections or of that one; null: not counted
 * @param options.outlook the odds for the shows; null: not played
 */
export function reportSince(
  before: Scene,
  after: Scene,
  entries: readonly DescribedEntry[],
  options: {
    from: number;
    fromAt: number | null;
    upto: number;
    at: number;
    zone: string;
    section: string | null;
    names: boolean;
    missing: readonly (Missing & { section: string | null })[] | null;
    outlook: Pick<Outlook, 'shows' | 'without'> | null;
  },
): SinceReport {
  const { section: only, names, missing, from, fromAt, upto, at, zone, outlook } = options;
  const of = only === null ? undefined : after.section[only];
  const concerned = entries.filter(
    (entry) => only === null || entry.descriptions.some(({ section }) => section === only),
  );
  const sections = sectionReports(before, after, concerned, only, names);
  const short = missing?.filter(({ section }) => only === null || section === only) ?? null;
  return {
    title: of ? `${displayOf(after).name}: section ${of.letter}, ${of.name}` : displayOf(after).name,
    ...{ from, upto, fromAt, at, zone },
    batches: concerned.length,
    people: names ? [...new Set(concerned.map(({ author }) => author))].sort() : [],
    done: of
      ? { before: shareOf(before, of.id) ?? 0, after: shareOf(after, of.id) ?? 0 }
      : { before: progressOf(before).done, after: progressOf(after).done },
    sections,
    figures: compareTotals(before, after),
    missing: mostMissing(short ?? []),
    short: short && short.reduce((sum, { qty }) => sum + qty, 0),
    next: nextOf(after, only, names, dateIn(at, zone)),
    // Promises and what is looked for are those of the whole display.
    promised:
      only === null ? promisedIn(after, fromAt === null ? '' : dateIn(fromAt, zone), dateIn(at, zone)) : [],
    wishes: only === null ? wishLines(after) : [],
    lookedFor: only === null ? lookedFor(after, names) : [],
    versions: only === null ? versionLines(before, after) : [],
    work: workBetween(after, only, fromAt ?? 0, at),
    odds: outlook && outlook.shows.map(({ name, date, chance }) => ({ name, date, chance })),
    without: outlook?.without ?? [],
  };
}

const shareOf = (scene: Scene, id: string): number | null =>
  scene.section[id] ? workDone(scene, scene.section[id]) : null;

/** Kinds left out of a report: messages, single sessions (they are summed) and reports. */
const UNTOLD: ReadonlySet<Kind> = new Set<Kind>([
  'thread',
  'reply',
  'report',
  'session',
  'calendar',
  'slot',
  'handling',
  'chore',
  'incident',
  'difference',
  'swap',
]);

function sectionReports(
  before: Scene,
  after: Scene,
  entries: readonly DescribedEntry[],
  only: string | null,
  names: boolean,
): SectionReport[] {
  const people = [...listOf(before, 'person'), ...listOf(after, 'person')].map(({ name }) => name);
  const bySection = new Map<string | null, Set<string>>();
  for (const { descriptions: sentences, author } of entries.toReversed())
    for (const { section, sentence, kind, id, counts } of sentences) {
      if (UNTOLD.has(kind) || (only !== null && section !== only)) continue;
      // What is again as it was, or came and went, is no news.
      if (!counts && alike(before, after, kind, id)) continue;
      const set = bySection.get(section) ?? new Set();
      bySection.set(section, set.add(names ? `${author} ${sentence}` : nameless(sentence, people)));
    }
  const part = (id: string | null, name: string): SectionReport => {
    const all = [...(bySection.get(id) ?? [])];
    const more = all.length - MAX_SENTENCES;
    const owner = id === null ? null : after.section[id]?.owner;
    return {
      id,
      name,
      owner: names && owner ? (after.person[owner]?.name ?? null) : null,
      before: id === null ? null : shareOf(before, id),
      after: id === null ? null : shareOf(after, id),
      stage: after.section[id ?? ''] ? stageWord(after, after.section[id ?? ''].stage) : null,
      sentences: more > 0 ? [...all.slice(0, MAX_SENTENCES), `and ${countOf(more, 'change')} more`] : all,
    };
  };
  const named = listOf(after, 'section')
    .filter(({ id }) => only === null || id === only)
    .toSorted((a, b) => (a.letter < b.letter ? -1 : 1))
    .map(({ id, letter, name }) => part(id, `${letter}, ${name}`));
  return only === null && bySection.has(null) ? [...named, part(null, 'The whole display')] : named;
}

/** Whether a thing is in one scene what it is in another. */
function alike(before: Scene, after: Scene, kind: Kind, id: string): boolean {
  const [a, b] = [before, after].map((scene) => {
    const { v: _v, ...fields }: Partial<Entity<Kind>> = Object.hasOwn(scene[kind], id) ? scene[kind][id] : {};
    return JSON.stringify(fields);
  });
  return a === b;
}

/** Sessions that began between two moments and are over. */
function workBetween(scene: Scene, only: string | null, from: number, to: number): SinceReport['work'] {
  const over = listOf(scene, 'session').filter(({ start, minutes, section }) => {
    const began = Date.parse(start);
    return minutes !== null && began > from && began <= to && (only === null || section === only);
  });
  return {
    sessions: over.length,
    hours: over.reduce((sum, { minutes }) => sum + (minutes ?? 0), 0) / 60,
    pieces: over.reduce((sum, { pieces }) => sum + (pieces ?? 0), 0),
  };
}

/** Replaces the names of people in a sentence with “a builder”. */
const nameless = (sentence: string, people: readonly string[]): string =>
  people.reduce((text, name) => text.replaceAll(name, 'a builder'), sentence);

function mostMissing(short: readonly (Missing & { section: string | null })[]): Missing[] {
  const lines = new Map<string, Missing>();
  for (const { part, colour, qty } of short) {
    const line = lines.get(`${part} ${colour}`) ?? { part, colour, qty: 0 };
    lines.set(`${part} ${colour}`, { ...line, qty: line.qty + qty });
  }
  return [...lines.values()]
    .sort((a, b) => b.qty - a.qty || (a.part + a.colour < b.part + b.colour ? -1 : 1))
    .slice(0, MAX_MISSING);
}

/** The next stage of each section, and what the calendar brings within four weeks. */
function nextOf(scene: Scene, only: string | null, names: boolean, today: string): string[] {
  const soon = isoAfter(today, 28);
  const stages = listOf(scene, 'section')
    .filter(({ id, stage }) => (only === null || id === only) && stage !== 'done')
    .toSorted((a, b) => (a.letter < b.letter ? -1 : 1))
    .map(({ letter, stage, stageDone, owner }) => {
      const who = names && owner ? ` (${scene.person[owner]?.name ?? owner})` : '';
      const word = stageWord(scene, stage);
      const left = stageDone > 0 ? `the other ${100 - stageDone} % of ${word}` : word;
      return `Section ${letter}${who}: ${left}, then ${stageWord(scene, STAGES[STAGES.indexOf(stage) + 1])}`;
    });
  const { showDate, showName } = displayOf(scene);
  const days = [
    ...listOf(scene, 'milestone').map(({ date, name }) => ({ date, name })),
    ...(showDate ? [{ date: showDate, name: showName || 'the show' }] : []),
    ...listOf(scene, 'order').flatMap((order) =>
      order.expected && isComing(order) ? [{ date: order.expected, name: `parcel: ${order.name}` }] : [],
    ),
  ];
  return [
    ...stages,
    ...days
      .filter(({ date }) => date >= today && date <= soon)
      .sort((a, b) => (a.date < b.date ? -1 : a.date > b.date ? 1 : 0))
      .map(({ date, name }) => `${date}: ${name}`),
  ];
}

/** So many milestones and lost things are told. */
const MAX_TOLD = 40;

/** Promises of milestones since the last report, and of the next one. @param from ISO date; empty: the beginning */
function promisedIn(scene: Scene, from: string, today: string): SinceReport['promised'] {
  const all = listOf(scene, 'milestone')
    .filter(({ promises }) => promises.length > 0)
    .sort((a, b) => (a.date < b.date ? -1 : a.date > b.date ? 1 : 0));
  const next = all.find(({ date }) => date > today);
  return all
    .filter((one) => (one.date >= from && one.date <= today) || one === next)
    .slice(-MAX_TOLD)
    .map((milestone) => {
      const states = promisesOf(scene, milestone);
      const told = (isMet: boolean) =>
        states.filter(({ state }) => (state === 'met') === isMet).map((one) => one.words);
      return { name: milestone.name, date: milestone.date, words: told(false), met: told(true) };
    });
}

/** All wishes in one line, then those that most followers have. */
function wishLines(scene: Scene): string[] {
  const wishes = wishesOf(scene);
  const all = wishesWord(wishes);
  return all === null ? [] : [all, ...wishes.slice(0, MAX_TOLD).map(wishWord)];
}

/** Characters that are lost or broken, with whose they are. */
const lookedFor = (scene: Scene, names: boolean): string[] =>
  listOf(scene, 'character')
    .filter(({ state }) => state === 'lost' || state === 'broken')
    .sort((a, b) => (a.name < b.name ? -1 : 1))
    .slice(0, MAX_TOLD)
    .map(({ name, state, owner }) => {
      const whose = names && owner !== null ? scene.person[owner]?.name : undefined;
      return `${name}${whose === undefined ? '' : ` (${whose})`}, ${state}`;
    });

const percent = (share: number | null) => (share === null ? 'new' : formatPercent(share));
/** Characters that Markdown would take for marks of its own. */
const plain = (text: string) => text.replace(/[\\`*_{}[\]<>#|~]/g, '\\$&').replace(/\n/g, ' ');

/** “First snow”, 8 things differ, 6 before; it stands now. Those that are gone last; none where there never was one. */
function versionLines(before: Scene, after: Scene): string[] {
  const countIn = (scene: Scene, id: string) => (scene.version[id] ? differencesOf(scene, id).length : null);
  const { stands } = displayOf(after);
  return [
    ...listOf(after, 'version').map(({ id, name }) => {
      const [old, now] = [countIn(before, id), differencesOf(after, id).length];
      const since = old === null ? ', new' : old === now ? '' : `, ${old} before`;
      return `${name}: ${countOf(now, 'thing')} ${now === 1 ? 'differs' : 'differ'}${since}${stands === id ? '; it stands now' : ''}`;
    }),
    ...listOf(before, 'version').flatMap(({ id, name }) =>
      after.version[id] ? [] : [`${name}: no version any more`],
    ),
  ];
}

/** “12.5 hours at the table in 6 sessions, 3,400 pieces counted”. */
export const workWords = ({ hours, sessions, pieces }: SinceReport['work']): string =>
  `${hours.toFixed(1)} hours at the table in ${countOf(sessions, 'session')}${pieces > 0 ? `, ${countOf(pieces, 'piece')} counted` : ''}`;

/** The days that a report is about: “From 2031-05-01 to 2031-05-30”, in its zone. */
export const spanWords = ({ fromAt, at, zone }: Pick<SinceReport, 'fromAt' | 'at' | 'zone'>): string =>
  `From ${fromAt === null ? 'the beginning' : dateIn(fromAt, zone)} to ${dateIn(at, zone)}`;

/** The report as Markdown. @param words introduction by the author */
export function reportMarkdown(report: SinceReport, words = ''): string {
  const { title, done, sections, figures, missing, short, next, batches, people } = report;
  const { work, odds, without } = report;
  const lines = [`# ${plain(title)}`, '', `${spanWords(report)}.`];
  if (words.trim() !== '') lines.push('', words.trim());
  lines.push(
    '',
    `Done: ${percent(done.before)} → **${percent(done.after)}**, in ${countOf(batches, 'change')}${people.length > 0 ? ` by ${people.map(plain).join(', ')}` : ''}.`,
  );
  if (work.sessions > 0) lines.push('', `${workWords(work)}.`);
  if (odds !== null && odds.length > 0) {
    lines.push('', '## Odds', '');
    lines.push(
      ...odds.map(
        ({ name, date, chance }) =>
          `- Ready for ${plain(name)}, ${date}${without.length > 0 ? `, but for section ${without.map(plain).join(', ')}` : ''}: **${formatChance(chance)}**`,
      ),
    );
  }
  lines.push('', '## What changed');
  const changed = sections.filter(({ sentences, before, after }) => sentences.length > 0 || before !== after);
  if (changed.length === 0) lines.push('', 'Nothing.');
  for (const { name, owner, before, after, stage, sentences } of changed) {
    lines.push('', `### ${plain(name)}${owner ? ` (${plain(owner)})` : ''}`, '');
    if (after !== null) lines.push(`- ${percent(before)} → ${percent(after)}, at ${stage}`);
    lines.push(...sentences.map((sentence) => `- ${plain(sentence)}`));
  }
  lines.push('', '## Figures', '', '| | before | now |', '|---|---:|---:|');
  lines.push(...figures.map(({ word, before, after }) => `| ${word} | ${before} | ${after} |`));
  if (short !== null) {
    lines.push(
      '',
      '## Missing',
      '',
      short === 0 ? 'Nothing is short.' : `${countOf(short, 'piece')} in all.`,
      '',
    );
    lines.push(
      ...missing.map(
        ({ part, colour, qty }) => `- ${qty} × ${plain(partName(part))} in ${plain(colourName(colour))}`,
      ),
    );
  }
  if (report.promised.length > 0) lines.push('', '## Promised', '');
  for (const { name, date, words: open, met } of report.promised)
    lines.push(
      `- ${plain(name)}, ${date}: ${met.length} of ${met.length + open.length} met`,
      ...met.map((one) => `  - met: ${plain(one)}`),
      ...open.map((one) => `  - open: ${plain(one)}`),
    );
  const [allWishes, ...wishes] = report.wishes;
  if (allWishes !== undefined)
    lines.push(
      '',
      '## Wishes of followers',
      '',
      `${plain(allWishes)}.`,
      '',
      ...wishes.map((one) => `- ${plain(one)}`),
    );
  if (report.versions.length > 0)
    lines.push('', '## Versions', '', ...report.versions.map((one) => `- ${plain(one)}`));
  if (report.lookedFor.length > 0)
    lines.push('', '## Lost or broken', '', ...report.lookedFor.map((one) => `- ${plain(one)}`));
  lines.push('', '## Next', '', ...next.map((line) => `- ${plain(line)}`));
  return `${lines.join('\n').trimEnd()}\n`;
}
