import { displayOf, type Scene } from '@quarry/core/document';
import { z } from 'zod';
import { PdfPage, rectCorners, type Print } from './paper.ts';

const MARGIN = 14;
const ROW = 5;

/** What is taken out of which drawer, as the page worked it out. */
export const pickSchema = z.strictObject({
  lines: z
    .array(
      z.strictObject({
        place: z.string().max(80),
        person: z.string().max(80),
        part: z.string().max(80),
        colour: z.string().max(80),
        section: z.string().max(8),
        qty: z.int().min(1).max(1_000_000),
      }),
    )
    .min(1, 'nothing is to be picked')
    .max(5000),
});

/** A pick list: drawer by drawer, with a box to tick before each line. */
export async function pickSheet(
  scene: Scene,
  { lines }: z.infer<typeof pickSchema>,
  print: Print,
): Promise<Buffer> {
  const name = displayOf(scene).name;
  const sheet = new PdfPage(print, { title: `Pick list of ${name}`, upright: true });
  const right = sheet.w - MARGIN;
  let y = MARGIN + 13;
  let drawer = '';
  const drawerHead = (text: string) => {
    sheet.wrapped(text, right - MARGIN, 3.6, true).forEach((line) => {
      sheet.text(line, MARGIN, y, { size: 3.6, bold: true });
      y += ROW;
    });
    y += 1;
  };
  /** Goes on to the next page where this one is full; a drawer that goes on there is named again. */
  const room = (needed: number) => {
    if (y + needed <= sheet.d - MARGIN) return;
    sheet.newPage();
    y = MARGIN + 3;
    if (drawer !== '') drawerHead(`${drawer}, continued`);
  };
  sheet.head('Pick list', name, MARGIN);
  for (const line of lines) {
    const here = `${line.place}, ${line.person}`;
    if (here !== drawer) {
      drawer = '';
      room(4 * ROW);
      y += 3;
      drawerHead(here);
      drawer = here;
    }
    const words = sheet.wrapped(`${line.part} in ${line.colour}`, right - MARGIN - 48, 3.2);
    room(ROW * words.length);
    const box = rectCorners({ x: MARGIN, y: y - 1.4, w: 2.8, d: 2.8 });
    sheet.line(box, { closed: true });
    sheet.text(line.qty.toLocaleString('en'), MARGIN + 18, y, { size: 3.2, align: 'right', bold: true });
    words.forEach((text, i) => sheet.text(text, MARGIN + 22, y + i * ROW, { size: 3.2 }));
    sheet.text(`section ${line.section}`, right, y, { size: 3.2, align: 'right', grey: true });
    y += ROW * words.length;
  }
  drawer = '';
  room(ROW * 2);
  const pieces = lines.reduce((sum, { qty }) => sum + qty, 0);
  sheet.text(
    `${pieces.toLocaleString('en')} pieces in all. Printed ${print.printed} from Open Quarry.`,
    MARGIN,
    y + 4,
    {
      size: 2.4,
      grey: true,
    },
  );
  return sheet.finish();
}
