import UFuzzy from '@leeoniya/ufuzzy';
import { centreOf } from '@quarry/core/grid';
import type { EvaluatedFinding } from '@quarry/core/findings';
import {
  KINDS,
  KIND_NAMES,
  entityOf,
  labelOf,
  listOf,
  placeIn,
  type Kind,
  type Scene,
} from '@quarry/core/document';
import { PAGES, PAGE_SHEETS } from './pages.ts';
import { WHEREABOUTS } from './whereabouts.ts';

/** Where a finder entry leads. */
export type Target =
  | { to: 'page'; path: string }
  | { to: 'entity'; kind: Kind; id: string; board: 'plan' | 'survey'; place: { x: number; y: number } | null }
  | { to: 'finding'; finding: EvaluatedFinding }
  | { to: 'act'; act: string };

/** One thing that can be found: its label, what it is, and further words it is found by. */
export interface FinderEntry {
  id: string;
  label: string;
  note: string;
  also: string;
  /** Among equal matches the smallest comes first. */
  weight: number;
  target: Target;
}

const GROUPS = { page: 0, sheet: 1, act: 2, entity: 3, finding: 4 } as const;

/** Pages and their sheets. */
export function placeEntries(): FinderEntry[] {
  return PAGES.flatMap(({ id, word, question }): FinderEntry[] => [
    {
      ...{ id: `page ${id}`, label: word, note: `page · g ${PAGES.find((page) => page.id === id)?.key}` },
      ...{ also: `go ${question}`, weight: GROUPS.page, target: { to: 'page', path: id } },
    },
    ...PAGE_SHEETS[id].map((sheet): FinderEntry => ({
      ...{ id: `sheet ${id} ${sheet.id}`, label: sheet.word, note: `${word}, sheet` },
      also: `go ${word} ${sheet.also}`,
      ...{ weight: GROUPS.sheet, target: { to: 'page', path: `${id}?sheet=${sheet.id}` } },
    })),
  ]);
}

/** Every entity that is shown somewhere by its name. */
export function entityEntries(scene: Scene): FinderEntry[] {
  return KIND_NAMES.flatMap((kind) => {
    const where = WHEREABOUTS[kind];
    if (where === null || kind === 'display') return [];
    return listOf(scene, kind).map(({ id }): FinderEntry => {
      const label = labelOf(scene, kind, id);
      const more = kind === 'thread' ? `&thread=${id}` : '';
      const target: Target =
        where === 'plan' || where === 'survey'
          ? {
              to: 'entity',
              kind,
              id,
              board: where,
              place: where === 'plan' ? middleOf(scene, kind, id) : null,
            }
          : { to: 'page', path: `${where.page}?sheet=${where.sheet}${more}` };
      const name = nameIn(scene, kind, id);
      return {
        ...{ id: `${kind} ${id}`, label: name ?? label, note: KINDS[kind].word },
        ...{ also: name === null ? '' : label, weight: GROUPS.entity, target },
      };
    });
  });
}

function middleOf(scene: Scene, kind: Kind, id: string): { x: number; y: number } | null {
  const place = placeIn(scene, kind, id);
  return place && centreOf(place);
}

/** The name that a person gave it; null where its kind has none. */
function nameIn(scene: Scene, kind: Kind, id: string): string | null {
  const fields: Readonly<Record<string, unknown>> = { ...entityOf(scene, kind, id) };
  const { letter, name, title } = fields;
  if (typeof letter === 'string' && typeof name === 'string') return `${letter} · ${name}`;
  return typeof name === 'string' ? name : typeof title === 'string' ? title : null;
}

export const findingEntries = (findings: readonly EvaluatedFinding[]): FinderEntry[] =>
  findings.map((finding) => ({
    ...{
      id: `finding ${finding.key}`,
      label: finding.sentence,
      note: `finding, ${finding.severity}`,
      also: '',
    },
    ...{ weight: GROUPS.finding, target: { to: 'finding', finding } },
  }));

/** An act by its words. */
export const actEntry = (act: string, label: string, also = '', note = 'act'): FinderEntry => ({
  ...{ id: `act ${act}`, label, note, also, weight: GROUPS.act, target: { to: 'act', act } },
});

const fuzzy = new UFuzzy({ intraMode: 0 });
/** Beyond so many matches the order of the words is not compared. */
const MAX_RANKED = 2000;

/** How well a label begins with what was typed: 0 whole, 1 at its start, 2 at a word's start, 3 elsewhere. */
function closeness(label: string, typed: string): number {
  const name = label.toLowerCase();
  if (name === typed) return 0;
  if (name.startsWith(typed)) return 1;
  return name.includes(` ${typed}`) ? 2 : 3;
}

/** Entries that have the words typed, the closest first. @param most how many at most */
export function findEntries(entries: readonly FinderEntry[], typed: string, most: number): FinderEntry[] {
  const needle = typed.trim().toLowerCase();
  if (needle === '') return [];
  const haystack = entries.map(({ label, note, also }) => `${label} ${note} ${also}`);
  const [found] = fuzzy.search(haystack, needle, 1, MAX_RANKED);
  return (found ?? [])
    .flatMap((index, order) => {
      const entry = entries[index];
      return entry ? [{ entry, order, close: closeness(entry.label, needle) }] : [];
    })
    .sort((a, b) => a.close - b.close || a.entry.weight - b.entry.weight || a.order - b.order)
    .slice(0, most)
    .map(({ entry }) => entry);
}
