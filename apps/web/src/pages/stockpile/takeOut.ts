import { colourName, partName } from '@quarry/core/catalogue';
import { writeCsv } from '@quarry/core/formats';
import type { Supply } from '@quarry/core/materials';
import type { Scene } from '@quarry/core/document';
import { STATE_WORDS, type NeedRow } from './rows.ts';

// Needs and pick lists as files.

const HEAD = [
  'section',
  'part',
  'part id',
  'colour',
  'colour id',
  'family',
  'owner',
  'needed',
  'own',
  'from others',
  'ordered',
  'late',
  'short',
  'state',
  'needed by',
];

const cellsOf = (row: NeedRow): (string | number)[] => [
  ...[row.sectionWord, row.partWord, row.part, row.colourWord, row.colour, row.familyWord, row.owner],
  ...[row.qty, row.own, row.handed, row.ordered, row.late, row.short, STATE_WORDS[row.state], row.by ?? ''],
];

export const needsCsv = (rows: readonly NeedRow[]): Blob =>
  new Blob([writeCsv([HEAD, ...rows.map(cellsOf)])], { type: 'text/csv' });

/** The widest column of a workbook, letters. */
const MAX_WIDE = 40;

/** A workbook with a heading that stays; the library that writes it is loaded when it is asked for. */
export async function needsXlsx(rows: readonly NeedRow[]): Promise<Blob> {
  // Its other forms work in threads of their own making, which the page forbids.
  const { default: write } = await import('write-excel-file/universal');
  const cells = rows.map(cellsOf);
  const columns = HEAD.map((word, i) => ({
    width: Math.min(MAX_WIDE, 2 + Math.max(word.length, ...cells.map((row) => String(row[i]).length))),
  }));
  const head = HEAD.map((value) => ({ value, fontWeight: 'bold' as const }));
  return write([head, ...cells], { sheet: 'Needs', stickyRowsCount: 1, columns }).toBlob();
}

/** What is taken out of which drawer for some needs, drawer by drawer. */
export interface PickLine {
  place: string;
  person: string;
  part: string;
  colour: string;
  qty: number;
  section: string;
}

export function pickLines(scene: Scene, rows: readonly NeedRow[], supplies: readonly Supply[]): PickLine[] {
  const byId = new Map(supplies.map((one) => [one.id, one]));
  const lines = rows.flatMap((row) =>
    row.given.flatMap(({ supply: id, qty }) => {
      const supply = byId.get(id);
      if (!supply || supply.kind === 'order') return [];
      return [
        {
          place: supply.place,
          person: (supply.person !== null && scene.person[supply.person]?.name) || 'everybody’s',
          part: partName(supply.part),
          colour: colourName(supply.colour),
          qty,
          section: row.section === null ? '–' : (scene.section[row.section]?.letter ?? '–'),
        },
      ];
    }),
  );
  const key = ({ person, place, part, colour }: PickLine) => `${person} ${place} ${part} ${colour}`;
  return lines.toSorted((a, b) => (key(a) < key(b) ? -1 : 1));
}
