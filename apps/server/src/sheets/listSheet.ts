import { displayOf, type Scene } from '@quarry/core/document';
import { z } from 'zod';
import { PdfPage, rectCorners, type Print } from './paper.ts';

const MARGIN = 14;
const SIZE = 3.1;
const LINE = 4.5;
/** Room for a box to tick, mm. */
const BOX = 6;
const GAP = 3;

const column = z.strictObject({
  head: z.string().max(40),
  /** Of the width, against the other columns. */
  share: z.number().min(1).max(100),
  align: z.enum(['left', 'right']).default('left'),
});

/** Lists that the page worked out: tables under their headings. */
export const listsSchema = z.strictObject({
  title: z.string().min(1).max(80),
  sections: z
    .array(
      z.strictObject({
        head: z.string().min(1).max(120),
        note: z.string().max(2000).default(''),
        columns: z.array(column).min(1).max(6),
        /** A box to tick before each row. */
        tick: z.boolean().default(false),
        rows: z.array(z.array(z.string().max(600)).max(6)).max(2000, 'a list has at most 2,000 rows'),
      }),
    )
    .min(1, 'there is no list to print')
    .max(30),
});
type Lists = z.infer<typeof listsSchema>;

/** Lists on upright paper, one after the other; a table that goes on is named again on the next page. */
export async function listSheet(scene: Scene, { title, sections }: Lists, print: Print): Promise<Buffer> {
  const { name } = displayOf(scene);
  const sheet = new PdfPage(print, { title: `${title} of ${name}`, upright: true });
  const [left, right, foot] = [MARGIN, sheet.w - MARGIN, sheet.d - MARGIN];
  let y = MARGIN + 13;
  sheet.head(title, name, MARGIN);
  /** Begins a page where this one has no room. @returns whether it did */
  const breakFor = (height: number): boolean => {
    if (y + height <= foot) return false;
    sheet.newPage();
    y = MARGIN + 3;
    return true;
  };
  for (const { head, note, columns, tick, rows } of sections) {
    const start = left + (tick ? BOX : 0);
    const shares = columns.reduce((sum, { share }) => sum + share, 0);
    const room = right - start - GAP * (columns.length - 1);
    let at = start;
    const places = columns.map(({ head: word, share, align }) => {
      const w = (room * share) / shares;
      const place = { word, x: at, w, align };
      at += w + GAP;
      return place;
    });
    const headings = (words: string) => {
      sheet.text(words, left, y, { size: 4, bold: true, within: right - left });
      y += 6;
    };
    const heads = () => {
      if (places.every(({ word }) => word === '')) return;
      for (const { word, x, w, align } of places)
        sheet.text(word, align === 'right' ? x + w : x, y, { size: 2.4, grey: true, align, within: w });
      y += 4;
    };
    const need = (height: number, words: string | null) => {
      if (!breakFor(height) || words === null) return;
      headings(`${words}, continued`);
      heads();
    };
    need(6 + 4 + 2 * LINE, null);
    headings(head);
    for (const line of note === '' ? [] : sheet.wrapped(note, right - left, 2.7)) {
      need(LINE, head);
      sheet.text(line, left, y, { size: 2.7, grey: true });
      y += 4;
    }
    heads();
    if (rows.length === 0) {
      sheet.text('Nothing.', left, y, { size: SIZE, grey: true });
      y += LINE;
    }
    for (const row of rows) {
      const cells = places.map((place, i) => ({
        ...place,
        lines: sheet.wrapped(row[i] ?? '', place.w, SIZE),
      }));
      const height = LINE * Math.max(1, ...cells.map(({ lines }) => lines.length));
      need(height, head);
      if (tick) sheet.line(rectCorners({ x: left, y: y - 1.5, w: 3, d: 3 }), { closed: true });
      for (const { x, w, align, lines } of cells)
        lines.forEach((text, k) =>
          sheet.text(text, align === 'right' ? x + w : x, y + k * LINE, { size: SIZE, align, within: w }),
        );
      y += height;
    }
    y += 6;
  }
  breakFor(LINE);
  sheet.text(`Printed ${print.printed} from Open Quarry. Local rules and qualified people decide.`, left, y, {
    size: 2.4,
    grey: true,
  });
  return sheet.finish();
}
