import { ANY_COLOUR, colourName, colourOf, partName } from '@quarry/core/catalogue';
import { formatPlates } from '@quarry/core/lattice';
import { layerCounts, type Built } from '@quarry/core/masonry';
import { displayOf, type Scene } from '@quarry/core/scene';
import { z } from 'zod';
import { Sheet, type Paper } from './paper.ts';

const MARGIN = 14;
const ROW = 5;

interface Print {
  printed: string;
  fonts: string;
  paper: Paper;
}

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
  const sheet = new Sheet(print.fonts, print.paper, { title: `Pick list of ${name}`, upright: true });
  const right = sheet.w - MARGIN;
  let y = MARGIN + 3;
  sheet.text('Pick list', MARGIN, y, { size: 6, bold: true });
  sheet.text(name, right, y, { size: 4, align: 'right' });
  y += 10;
  const room = (needed: number) => {
    if (y + needed <= sheet.d - MARGIN) return;
    sheet.newPage();
    y = MARGIN + 3;
  };
  let drawer = '';
  for (const line of lines) {
    const here = `${line.place}, ${line.person}`;
    if (here !== drawer) {
      room(4 * ROW);
      y += 3;
      sheet.text(here, MARGIN, y, { size: 3.6, bold: true });
      y += ROW + 1;
      drawer = here;
    }
    room(ROW);
    const box = [
      { x: MARGIN, y: y - 1.4 },
      { x: MARGIN + 2.8, y: y - 1.4 },
      { x: MARGIN + 2.8, y: y + 1.4 },
      { x: MARGIN, y: y + 1.4 },
    ];
    sheet.line(box, { closed: true });
    sheet.text(line.qty.toLocaleString('en'), MARGIN + 18, y, { size: 3.2, align: 'right', bold: true });
    sheet.text(`${line.part} in ${line.colour}`, MARGIN + 22, y, { size: 3.2 });
    sheet.text(`section ${line.section}`, right, y, { size: 3.2, align: 'right', grey: true });
    y += ROW;
  }
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

/** Build sheets of a block: a page for each step, with the pieces from above and the list of what it takes. */
export async function layerSheets(scene: Scene, name: string, built: Built, print: Print): Promise<Buffer> {
  const { masonry, colours, ground } = built;
  const sheet = new Sheet(print.fonts, print.paper, { title: `Build sheets of ${name}` });
  const steps = new Map<number, number[]>();
  masonry.layers.forEach(({ z }, i) => steps.set(z, [...(steps.get(z) ?? []), i]));
  const right = sheet.w - MARGIN;
  const list = 74;
  let page = 0;
  for (const [z, indices] of steps) {
    if (page++ > 0) sheet.newPage();
    sheet.text(`${name}, layer ${page} of ${steps.size}`, MARGIN, MARGIN + 3, { size: 6, bold: true });
    sheet.text(displayOf(scene).name, right, MARGIN + 3, { size: 4, align: 'right' });
    sheet.text(`${formatPlates(z + ground.floor)} above datum`, MARGIN, MARGIN + 10, { size: 3.4 });
    const box = { x: MARGIN, y: MARGIN + 15, w: right - MARGIN - list - 6, d: sheet.d - 2 * MARGIN - 22 };
    const scale = Math.min(box.w / masonry.w, box.d / masonry.d);
    const outline = (x: number, y: number, w: number, d: number, width: number) =>
      sheet.line(
        [
          [x, y],
          [x + w, y],
          [x + w, y + d],
          [x, y + d],
        ].map(([px, py]) => ({ x: box.x + px * scale, y: box.y + py * scale })),
        { closed: true, width },
      );
    outline(0, 0, masonry.w, masonry.d, 0.4);
    for (const i of indices) {
      const { laid } = masonry.layers[i];
      for (let p = 0; p < laid.length; p += 4) {
        const colour = colours[i][p / 4];
        const paint = colour === ANY_COLOUR ? null : (colourOf(colour)?.hex ?? null);
        if (paint)
          sheet.fill(
            box.x + laid[p] * scale,
            box.y + laid[p + 1] * scale,
            laid[p + 2] * scale,
            laid[p + 3] * scale,
            paint,
          );
        outline(laid[p], laid[p + 1], laid[p + 2], laid[p + 3], 0.12);
      }
    }
    const rows = indices.flatMap((i) => layerCounts(masonry.layers[i], colours[i]));
    const fits = Math.floor((sheet.d - 2 * MARGIN - 16) / 4.4);
    let y = MARGIN + 17;
    for (const { part, colour, qty } of rows.slice(0, rows.length > fits ? fits - 1 : fits)) {
      sheet.text(String(qty), right - list + 8, y, { size: 3, bold: true, align: 'right' });
      sheet.text(`${partName(part)} in ${colourName(colour)}`, right - list + 11, y, { size: 3 });
      y += 4.4;
    }
    if (rows.length > fits)
      sheet.text(`and ${rows.length - fits + 1} lines more`, right - list + 11, y, { size: 3, grey: true });
    sheet.text(
      `North is up; ${masonry.w} × ${masonry.d} studs. White pieces: any colour. Printed ${print.printed} from Open Quarry.`,
      MARGIN,
      sheet.d - 8,
      { size: 2.4, grey: true },
    );
  }
  if (page === 0)
    sheet.text(`${name}: nothing is to be built here`, MARGIN, MARGIN + 3, { size: 6, bold: true });
  return sheet.finish();
}
