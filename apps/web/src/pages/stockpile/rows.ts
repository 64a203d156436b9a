import { FAMILIES, colourName, partName, type Family } from '@quarry/core/catalogue';
import type { Netted } from '@quarry/core/materials';
import { familyOfPart } from '@quarry/core/masonry';
import { listOf, type Scene } from '@quarry/core/document';

// The rows of the table of needs, with what they are grouped and filtered by.

export const STATES = ['short', 'late', 'coming', 'handed', 'covered'] as const;
export type State = (typeof STATES)[number];
export const STATE_WORDS: Record<State, string> = {
  short: 'short',
  late: 'comes late',
  coming: 'on order',
  handed: 'from others',
  covered: 'covered',
};

export interface NeedRow extends Netted {
  id: string;
  part: string;
  partWord: string;
  colour: string;
  colourWord: string;
  family: Family;
  familyWord: string;
  section: string | null;
  /** “A, Skarn benches”. */
  sectionWord: string;
  owner: string;
  /** Where it may come from only; empty: anywhere. */
  sourceWord: string;
  state: State;
  qty: number;
  by: string | null;
}

const SOURCE_WORDS = { any: '', kits: 'kits only', own: 'own stock only' } as const;

const stateOf = ({ short, late, ordered, handed }: Netted): State =>
  short > 0 ? 'short' : late > 0 ? 'late' : ordered > 0 ? 'coming' : handed > 0 ? 'handed' : 'covered';

export function rowsOf(scene: Scene, netted: readonly Netted[]): NeedRow[] {
  return netted.map((one) => {
    const { id, part, colour, section, qty, by, person } = one.demand;
    const at = section === null ? null : scene.section[section];
    const family = familyOfPart(part, scene.partType);
    return {
      ...one,
      ...{ id, part, colour, section, qty, by, family },
      partWord: scene.partType[part]?.name || partName(part),
      colourWord: colourName(colour),
      familyWord: FAMILIES[family].word,
      sectionWord: at ? `${at.letter}, ${at.name}` : one.demand.counted === 0 ? 'spares' : 'no section',
      sourceWord: SOURCE_WORDS[one.demand.source ?? 'any'],
      owner: (person !== null && scene.person[person]?.name) || 'nobody yet',
      state: stateOf(one),
    };
  });
}

export const GROUPINGS = ['none', 'section', 'colour', 'family', 'owner', 'state'] as const;
export type Grouping = (typeof GROUPINGS)[number];
export const GROUPING_WORDS: Record<Grouping, string> = {
  none: 'no groups',
  section: 'by section',
  colour: 'by colour',
  family: 'by family',
  owner: 'by owner',
  state: 'by state',
};

/** What of the address filters the table. */
export interface Filter {
  words: string;
  section: string;
  family: string;
  state: string;
}

export function matches(row: NeedRow, { words, section, family, state }: Filter): boolean {
  if (section !== '' && (row.section ?? '-') !== section) return false;
  if (family !== '' && row.family !== family) return false;
  if (state !== '' && row.state !== state) return false;
  const text = `${row.partWord} ${row.colourWord} ${row.sectionWord} ${row.owner} ${row.part}`.toLowerCase();
  return words
    .toLowerCase()
    .split(/\s+/)
    .every((word) => text.includes(word.replace('x', '×')) || text.includes(word));
}

/** Sections that have needs, for the filter. */
export const sectionChoices = (scene: Pick<Scene, 'section'>): { value: string; word: string }[] => [
  { value: '', word: 'all sections' },
  ...listOf(scene, 'section').map(({ id, letter, name }) => ({ value: id, word: `${letter}, ${name}` })),
  { value: '-', word: 'no section' },
];
