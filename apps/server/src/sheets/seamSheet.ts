import { seamLines, seamStrip, type Drawing } from '@quarry/core/formats';
import { formatPlates } from '@quarry/core/grid';
import type { SeamRemedy, SeamSheet, SeamState } from '@quarry/core/cut';
import type { BuildUp } from '@quarry/core/assembly';
import { displayOf, type Scene, type Seam } from '@quarry/core/document';
import { PdfPage, rectCorners, type Print } from './paper.ts';

const MARGIN = 14;

const STATES: Record<SeamState['state'], string> = {
  open: 'not signed',
  half: 'signed by one side',
  agreed: 'agreed by both sides',
  reopened: 'reopened: it is not as it was signed',
};

/** The seam sheet: both edges as profiles, what crosses, connectors, signatures, and what is to be mended. */
export async function seamSheetPdf(
  scene: Scene,
  {
    sheet: seam,
    state,
    mends,
    written,
  }: { sheet: SeamSheet; state: SeamState; mends: readonly SeamRemedy[]; written?: Seam },
  print: Print,
): Promise<Buffer> {
  const { a, b, line } = seam.neighbours;
  const sheet = new PdfPage(print, {
    title: `Seam ${a.name}–${b.name} of ${displayOf(scene).name}`,
  });
  const right = sheet.w - MARGIN;
  sheet.head(`Seam ${a.name}–${b.name}`, displayOf(scene).name, MARGIN);
  const signed = written?.signs.map(
    ({ side, by, at }) => `${side === 'a' ? a.name : b.name}: ${by}, ${at.slice(0, 10)}`,
  );
  sheet.text(
    `${STATES[state.state]}${signed?.length ? ` (${signed.join('; ')})` : ''}`,
    MARGIN,
    MARGIN + 10,
    { size: 3 },
  );
  profile(sheet, seam, { x: MARGIN + 14, y: MARGIN + 18, w: right - MARGIN - 14, d: 62 });
  let y = MARGIN + 96;
  const say = (label: string, value: string) => {
    const lines = sheet.wrapped(value, right - MARGIN - 40, 3);
    if (y + lines.length * 4.2 > sheet.d - MARGIN - 8) {
      sheet.newPage();
      y = MARGIN + 4;
    }
    sheet.text(label, MARGIN, y, { size: 3, grey: true });
    lines.forEach((text, i) => sheet.text(text, MARGIN + 40, y + i * 4.2, { size: 3 }));
    y += lines.length * 4.2 + 1;
  };
  for (const [label, value] of seamLines(seam)) say(label, value);
  for (const { words } of mends) say('To mend', words);
  sheet.text(
    `Studs from the ${line.upright ? 'north' : 'west'} end; solid: ${a.name}, dashed: ${b.name}. Printed ${print.printed} from Open Quarry.`,
    MARGIN,
    sheet.d - 8,
    { size: 2.4, grey: true },
  );
  return sheet.finish();
}

function profile(
  sheet: PdfPage,
  { studs, neighbours: { line } }: SeamSheet,
  box: { x: number; y: number; w: number; d: number },
): void {
  const heights = studs.flatMap((pair) => (pair ? [pair.a.height, pair.b.height] : []));
  const low = Math.min(...heights, 0);
  const high = Math.max(...heights, low + 9);
  const at = (stud: number) => box.x + (stud / line.length) * box.w;
  const up = (plates: number) => box.y + box.d - ((plates - low) / (high - low)) * box.d;
  sheet.line(
    [
      { x: box.x, y: box.y },
      { x: box.x, y: box.y + box.d },
      { x: box.x + box.w, y: box.y + box.d },
    ],
    { width: 0.2 },
  );
  for (const level of new Set([low, Math.min(...heights, high), Math.max(...heights, low)]))
    sheet.text(formatPlates(level), box.x - 1.5, up(level) + 1, { size: 2.6, align: 'right' });
  for (let stud = 0; stud <= line.length; stud += 8)
    sheet.text(String(stud), at(stud), box.y + box.d + 4, {
      size: 2.4,
      align: 'center',
      grey: stud % 16 !== 0,
    });
  for (const side of ['a', 'b'] as const) {
    let points: { x: number; y: number }[] = [];
    const stroke = () => points.length > 1 && sheet.line(points, { width: 0.5, dashed: side === 'b' });
    studs.forEach((pair, i) => {
      if (!pair) {
        stroke();
        points = [];
        return;
      }
      const y = up(pair[side].height);
      points.push({ x: at(i), y }, { x: at(i + 1), y });
    });
    stroke();
  }
}

/** Millimetres of a strip on one page, and how much of it is on the next one too, to join them by. */
const OVERLAP = 16;

/** The strip at 1 : 1, on as many pages as its length takes, each with a cross where the next begins. */
export async function seamStripPdf(scene: Scene, seam: SeamSheet, print: Print): Promise<Buffer> {
  const drawing = seamStrip(seam);
  const sheet = new PdfPage(print, { title: drawing.title });
  const room = sheet.w - 2 * MARGIN;
  const pages = Math.max(1, Math.ceil((drawing.bounds.w - OVERLAP) / (room - OVERLAP)));
  for (let page = 0; page < pages; page++) {
    if (page > 0) sheet.newPage();
    const from = drawing.bounds.x + page * (room - OVERLAP);
    const middle = sheet.d / 2;
    const on = ({ x, y }: { x: number; y: number }) => ({ x: MARGIN + x - from, y: middle + y });
    sheet.clipped({ x: MARGIN, y: 0, w: room, d: sheet.d }, () => draw(sheet, drawing, on));
    for (const x of [MARGIN, MARGIN + room])
      sheet.line([
        { x, y: middle - 34 },
        { x, y: middle + 34 },
      ]);
    sheet.text(
      `${displayOf(scene).name} · ${drawing.title} · page ${page + 1} of ${pages}`,
      MARGIN,
      sheet.d - 14,
      {
        size: 3.2,
        bold: true,
        within: room,
      },
    );
    sheet.text(
      `1 : 1, print without scaling; pages overlap by ${OVERLAP} mm · ${print.printed}`,
      MARGIN,
      sheet.d - 9,
      {
        size: 2.4,
        grey: true,
      },
    );
  }
  return sheet.finish();
}

function draw(
  sheet: PdfPage,
  { items }: Drawing,
  on: (point: { x: number; y: number }) => { x: number; y: number },
): void {
  for (const item of items)
    if (item.kind === 'line')
      sheet.line(item.points.map(on), {
        closed: item.closed,
        dashed: item.dashed,
        width: item.weight * 0.12,
      });
    else {
      const { x, y } = on(item.at);
      sheet.text(item.text, x, y, { size: item.size, align: 'center' });
    }
}

/** The order of building up as a list to tick off at the table. */
export async function orderSheet(scene: Scene, order: BuildUp, print: Print): Promise<Buffer> {
  const sheet = new PdfPage(print, {
    title: `Building up ${displayOf(scene).name}`,
    upright: true,
  });
  let y = 0;
  const head = () => {
    sheet.head('Order of building up', displayOf(scene).name, MARGIN);
    sheet.text(
      `Printed ${print.printed} from Open Quarry. Two lift what is long or heavy; local rules and qualified people decide.`,
      MARGIN,
      sheet.d - 9,
      { size: 2.3, grey: true },
    );
    y = MARGIN + 14;
  };
  head();
  const steps = order.ok
    ? order.steps.map(({ words }) => words)
    : order.cycles.map((cycle) => `A circle: ${cycle.join(' → ')}`);
  if (steps.length === 0) sheet.text('Not cut yet: there is nothing to put up.', MARGIN, y, { size: 3.2 });
  steps.forEach((words, i) => {
    const lines = sheet.wrapped(words, sheet.w - 2 * MARGIN - 16, 3.2);
    if (y + lines.length * 4.6 > sheet.d - MARGIN - 6) {
      sheet.newPage();
      head();
    }
    sheet.line(rectCorners({ x: MARGIN, y: y - 1.5, w: 3, d: 3 }), { closed: true });
    sheet.text(String(i + 1), MARGIN + 12, y, { size: 3.2, align: 'right' });
    lines.forEach((text, k) => sheet.text(text, MARGIN + 15, y + k * 4.6, { size: 3.2 }));
    y += lines.length * 4.6 + 1.4;
  });
  return sheet.finish();
}
