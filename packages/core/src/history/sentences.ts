import { dequal } from 'dequal/lite';
import { countOf } from '../grid/index.ts';
import {
  KINDS,
  STAGES,
  labelOf,
  reduce,
  sectionOfEntity,
  stageWord,
  type Batch,
  type Change,
  type Entity,
  type Kind,
  type Scene,
} from '../document/index.ts';
import { fieldWord, valueWord } from './words.ts';

// The log as a person reads it: “raised Upper yard from 6b to 7b”.

/** What was done to one thing. */
export interface ChangeDescription {
  kind: Kind;
  id: string;
  /** Without its subject: “raised Upper yard from 6b to 7b”. */
  sentence: string;
  /** The section it belongs to, or belonged to. */
  section: string | null;
  /** Set on the line that counts the changes left out. */
  counts?: true;
}

/** A batch of the log. */
export interface Entry extends Batch {
  seq: number;
  author: string;
  /** Milliseconds since the epoch, UTC. */
  at: number;
}
export interface DescribedEntry extends Omit<Entry, 'changes'> {
  descriptions: ChangeDescription[];
  /** Number of changes; one description may cover several. */
  changes: number;
}

/** Largest number of descriptions of one batch: the rest is counted. */
const MAX_TOLD = 40;

/**
 * A batch in sentences, the changes to one thing together.
 * @param before the scene it was made in
 * @param after the scene it led to
 */
export function describeBatch(before: Scene, after: Scene, changes: readonly Change[]): ChangeDescription[] {
  const things = new Map<string, { kind: Kind; id: string }>();
  for (const { kind, id } of changes) things.set(`${kind}/${id}`, { kind, id });
  const told = [...things.values()].flatMap(({ kind, id }) => tellThing(before, after, kind, id));
  if (told.length <= MAX_TOLD) return told;
  const rest = told.slice(MAX_TOLD - 1);
  return [
    ...told.slice(0, MAX_TOLD - 1),
    {
      ...{ kind: 'display', id: 'display', section: null, counts: true },
      sentence: `and ${countOf(rest.length, 'change')} more`,
    },
  ];
}

/** Describes the log from a scene on. @returns the entries in their order, and the scene they lead to */
export function describeLog(
  from: Scene,
  entries: readonly Entry[],
): { told: DescribedEntry[]; scene: Scene } {
  let scene = from;
  const told = entries.map(({ changes, ...entry }): DescribedEntry => {
    const reduction = reduce(scene, changes);
    // The server let it land: a log that does not replay is a damaged one.
    if (!reduction.ok)
      throw new Error(`Change ${entry.seq} of the log does not fit: ${reduction.refusal.sentence}`);
    const sentences = describeBatch(scene, reduction.scene, changes);
    scene = reduction.scene;
    return { ...entry, descriptions: sentences, changes: changes.length };
  });
  return { told, scene };
}

function tellThing(before: Scene, after: Scene, kind: Kind, id: string): ChangeDescription[] {
  const old = fieldsOf(before, kind, id);
  const now = fieldsOf(after, kind, id);
  const tell = (sentence: string): ChangeDescription[] => [
    { kind, id, sentence, section: sectionOfEntity(after, kind, id) ?? sectionOfEntity(before, kind, id) },
  ];
  if (!old && !now) return [];
  if (!old) return tell(added(after, kind, id));
  if (!now) return tell(`removed ${nameIn(before, kind, id)}`);
  const changed = Object.keys(now).filter((key) => !dequal(old[key], now[key]));
  return changed.length === 0
    ? []
    : tell(patched(before, after, kind, id, old, now, new Set(changed)).join(', '));
}

type Fields = Readonly<Record<string, unknown>>;
function fieldsOf(scene: Scene, kind: Kind, id: string): Fields | null {
  if (!Object.hasOwn(scene[kind], id)) return null;
  const { id: _id, v: _v, ...fields }: Entity<Kind> = scene[kind][id];
  return fields;
}

/** A thing with its kind where its name alone does not tell: “the pad Upper yard”, “section B, Mill street”. */
function nameIn(scene: Scene, kind: Kind, id: string): string {
  const label = labelOf(scene, kind, id);
  const word = KINDS[kind].word;
  if (kind === 'display') return 'the display';
  return label.toLowerCase().includes(word.toLowerCase()) || SAYS_ITSELF.has(kind)
    ? label
    : `the ${word} ${label}`;
}
const SAYS_ITSELF: ReadonlySet<Kind> = new Set<Kind>(['person', 'thread', 'lot', 'pad', 'hill', 'plot']);

function added(after: Scene, kind: Kind, id: string): string {
  if (kind === 'thread') {
    const { use, title, proposal, askedBy } = after.thread[id];
    if (use === 'handover') return `wrote down the hand-over “${title}”`;
    if (use === 'wish') return `wrote down the wish “${title}” of ${countOf(askedBy, 'follower')}`;
    return proposal.length > 0
      ? `proposed “${title}” (${countOf(proposal.length, 'change')})`
      : `advised “${title}”`;
  }
  if (kind === 'reply') return `answered “${after.thread[after.reply[id].thread]?.title ?? 'advice'}”`;
  if (kind === 'person') return `added ${after.person[id].name} to the people`;
  if (kind === 'session') {
    const { minutes, pieces } = after.session[id];
    return minutes === null ? 'sat down at the table' : satFor(minutes, pieces);
  }
  return `added ${nameIn(after, kind, id)}`;
}

const satFor = (minutes: number, pieces: number | null): string =>
  `was at the table for ${minutes} min${pieces === null ? '' : `, ${countOf(pieces, 'piece')} placed`}`;

/** Phrases for all that changed of one thing; the commonest fields have verbs of their own. */
function patched(
  before: Scene,
  after: Scene,
  kind: Kind,
  id: string,
  old: Fields,
  now: Fields,
  changed: Set<string>,
): string[] {
  const name = nameIn(after, kind, id);
  const phrases: string[] = [];
  const say = (field: string, value: unknown, scene: Scene) => valueWord(scene, kind, field, value);
  const take = (...fields: string[]) => {
    const some = fields.some((field) => changed.has(field));
    fields.forEach((field) => changed.delete(field));
    return some;
  };
  const figures = (field: string): [number, number] | null => {
    const [was, is] = [old[field], now[field]];
    return typeof was === 'number' && typeof is === 'number' ? [was, is] : null;
  };

  if (changed.has('name') && take('name')) phrases.push(`renamed ${String(old.name)} to ${String(now.name)}`);
  const [x, y] = [figures('x'), figures('y')];
  if (x && y && take('x', 'y')) {
    const way = [
      [x[1] - x[0], 'east', 'west', 'x'],
      [y[1] - y[0], 'south', 'north', 'y'],
    ] as const;
    const steps = way
      .filter(([by]) => by !== 0)
      .map(([by, plus, minus, field]) => `${say(field, Math.abs(by), after)} ${by > 0 ? plus : minus}`);
    phrases.push(`moved ${name} ${steps.join(' and ')}`);
  }
  if (figures('w') && figures('d') && take('w', 'd'))
    phrases.push(
      `resized ${name} from ${say('w', old.w, before)} × ${say('d', old.d, before)} to ${say('w', now.w, after)} × ${say('d', now.d, after)}`,
    );
  for (const field of ['height', 'offset'] as const) {
    const pair = figures(field);
    if (!pair || !changed.has(field) || !take(field)) continue;
    phrases.push(
      `${pair[1] > pair[0] ? 'raised' : 'lowered'} ${name} from ${say(field, pair[0], before)} to ${say(field, pair[1], after)}`,
    );
  }
  if (kind === 'section') phrases.push(...sectionPhrases(after, id, old, now, changed));
  if (kind === 'thread' && changed.has('state')) {
    const reason = now.reason && changed.has('reason') ? `: ${String(now.reason)}` : '';
    phrases.push(now.state === 'open' ? `opened ${name} again` : `${String(now.state)} ${name}${reason}`);
    take('state', 'reason', 'answeredBy');
  }
  if (kind === 'session' && old.minutes === null && now.minutes !== null) {
    const { minutes, pieces } = after.session[id];
    phrases.push(satFor(minutes ?? 0, pieces));
    take('minutes', 'pieces', 'ticked', 'note');
  }
  if (kind === 'task' && take('done'))
    phrases.push(now.done === null ? `took up ${name} again` : `finished ${name}`);
  for (const field of changed) {
    const plain = [old[field], now[field]].every(
      (value) => value === null || ['string', 'number', 'boolean'].includes(typeof value),
    );
    const list = now[field];
    const ofWords = Array.isArray(list) && list.length > 0 && list.every((one) => typeof one === 'string');
    phrases.push(
      plain && (typeof now[field] !== 'string' || String(now[field]).length <= 60)
        ? `set the ${fieldWord(field)} of ${name} from ${say(field, old[field], before)} to ${say(field, now[field], after)}`
        : ofWords
          ? `set the ${fieldWord(field)} of ${name} to ${say(field, now[field], after)}`
          : `changed the ${fieldWord(field)} of ${name}`,
    );
  }
  return phrases;
}

function sectionPhrases(after: Scene, id: string, old: Fields, now: Fields, changed: Set<string>): string[] {
  const section = `section ${after.section[id].letter}`;
  const phrases: string[] = [];
  const word = (stage: unknown) => {
    const known = STAGES.find((one) => one === stage);
    return known ? stageWord(after, known) : String(stage);
  };
  if (changed.delete('stage')) {
    phrases.push(`moved ${section} from ${word(old.stage)} to ${word(now.stage)}`);
    changed.delete('stageDone');
  }
  if (changed.delete('stageDone'))
    phrases.push(`brought ${section} to ${String(now.stageDone)} % of ${word(now.stage)}`);
  if (changed.delete('owner')) {
    const person = (of: unknown) => (typeof of === 'string' ? (after.person[of]?.name ?? of) : 'nobody');
    phrases.push(
      old.owner === null
        ? `gave ${section} to ${person(now.owner)}`
        : `handed ${section} from ${person(old.owner)} to ${person(now.owner)}`,
    );
  }
  return phrases;
}
