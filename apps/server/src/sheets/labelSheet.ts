import { encode } from 'uqr';
import { MM, formatInches, formatKg, formatMm, type Rect } from '@quarry/core/grid';
import { SIDE_WORDS, displayOf, type Scene, type Side } from '@quarry/core/document';
import type { ShowLabel } from '@quarry/core/transport';
import { PdfPage, rectCorners, type Print } from './paper.ts';

const MARGIN = 9;
const [COLUMNS, ROWS] = [2, 4];
/** Air within a label, side of its code, and of its small plan, mm. */
const AIR = 4;
const CODE = 25;
const PLAN = { w: 26, d: 18 };
const TEXT = 3.5;
const LINE = 4.9;
/** A long name is written smaller. */
const NAME_SIZES = [8, 6, 4.5] as const;

/** Labels to cut out, eight to a page: what it is, how heavy, which way round, where it stands, and a code of its page. */
export async function labelSheet(
  scene: Scene,
  labels: readonly ShowLabel[],
  addressOf: (label: ShowLabel) => string,
  print: Print,
): Promise<Buffer> {
  const { name } = displayOf(scene);
  const sheet = new PdfPage(print, { title: `Labels of ${name}`, upright: true });
  const [w, d] = [(sheet.w - 2 * MARGIN) / COLUMNS, (sheet.d - 2 * MARGIN) / ROWS];
  if (labels.length === 0)
    sheet.text('Nothing is carried yet: cut the scene into modules.', MARGIN, MARGIN + 4, { size: 3.2 });
  labels.forEach((label, i) => {
    const at = i % (COLUMNS * ROWS);
    if (i > 0 && at === 0) sheet.newPage();
    const box = { x: MARGIN + (at % COLUMNS) * w, y: MARGIN + Math.trunc(at / COLUMNS) * d, w, d };
    drawLabel(sheet, label, box, name, addressOf(label), print);
  });
  return sheet.finish();
}

function drawLabel(
  sheet: PdfPage,
  label: ShowLabel,
  box: Rect<'mm'>,
  display: string,
  address: string,
  print: Print,
): void {
  sheet.line(rectCorners(box), { closed: true, dashed: true });
  const [left, top, right] = [box.x + AIR, box.y + AIR, box.x + box.w - AIR];
  const beside = right - left - CODE - 3;
  const size = NAME_SIZES.find((one) => sheet.widthOf(label.name, one, true) <= beside) ?? NAME_SIZES[2];
  sheet.text(label.name, left, top + 4, { size, bold: true, within: beside });
  sheet.text(`${label.what} of ${display}`, left, top + 10, { size: 2.8, grey: true, within: beside });
  drawCode(sheet, address, { x: right - CODE, y: top, w: CODE, d: CODE });
  const isPlanned = label.what === 'module' && label.area !== null;
  if (isPlanned && label.area) drawPlan(sheet, label, label.area, { x: left, y: top + 15, ...PLAN });
  const x = isPlanned ? left + PLAN.w + 4 : left;
  let y = top + 16;
  for (const [words, bold] of wordsOf(label, print)) {
    // Beside the code at first, under it as wide as the label.
    const room = (y < top + CODE + 2 ? right - CODE - 3 : right) - x;
    for (const line of sheet.wrapped(words, room, TEXT, bold)) {
      if (y > box.y + box.d - AIR) return;
      sheet.text(line, x, y, { size: TEXT, bold, within: room });
      y += LINE;
    }
  }
}

/** What a label says, line by line; what is bold stands out. */
function wordsOf(label: ShowLabel, { units }: Print): [words: string, bold: boolean][] {
  const length = (mm: number) =>
    units === 'in' ? formatInches(Math.round(mm) * MM) : formatMm(Math.round(mm) * MM);
  const { w, d, h, grams, hands, standsOn, holds, inside, turn, front } = label;
  const carried = hands === null ? '' : hands === 1 ? ', 1 person' : `, ${hands} people`;
  return [
    [`${formatKg(grams)}${carried}`, true],
    [`${length(w)} × ${length(d)} × ${length(h)} high`, false],
    ...(front.length > 0
      ? [[`Front: ${front.map((side) => SIDE_WORDS[side]).join(', ')}`, true] as [string, boolean]]
      : []),
    ...(standsOn.length > 0 ? [[`On ${standsOn.join(', ')}`, false] as [string, boolean]] : []),
    ...(turn ? [[`Step ${turn.at} of ${turn.of} of building up`, false] as [string, boolean]] : []),
    ...(inside === null ? [] : [[`In ${inside}`, false] as [string, boolean]]),
    ...(holds.length > 0 ? [[`Holds ${holds.join(', ')}`, false] as [string, boolean]] : []),
  ];
}

/** Its outline with north up, the front as a thick side. */
function drawPlan(sheet: PdfPage, { front }: ShowLabel, area: Rect, into: Rect<'mm'>): void {
  const scale = Math.min((into.w - 6) / area.w, into.d / area.d);
  const [w, d] = [area.w * scale, area.d * scale];
  const { x, y } = into;
  sheet.line(rectCorners({ x, y, w, d }), { closed: true, width: 0.3 });
  const sides: Record<Side, [Point, Point]> = {
    n: [
      { x, y },
      { x: x + w, y },
    ],
    s: [
      { x, y: y + d },
      { x: x + w, y: y + d },
    ],
    w: [
      { x, y },
      { x, y: y + d },
    ],
    e: [
      { x: x + w, y },
      { x: x + w, y: y + d },
    ],
  };
  for (const side of front) sheet.line(sides[side], { width: 1.2 });
  const arrow = into.x + into.w - 2.5;
  sheet.line(
    [
      { x: arrow, y: y + 11 },
      { x: arrow, y: y + 4 },
    ],
    { width: 0.4 },
  );
  sheet.fillShape(
    [
      { x: arrow - 1.3, y: y + 5 },
      { x: arrow + 1.3, y: y + 5 },
      { x: arrow, y: y + 2.4 },
    ],
    '#22292e',
  );
  sheet.text('N', arrow, y + 1, { size: 2.6, bold: true, align: 'center' });
}

interface Point {
  x: number;
  y: number;
}

/** A code that a phone reads, with the quiet border that it needs. */
function drawCode(sheet: PdfPage, address: string, { x, y, w }: Rect<'mm'>): void {
  const { data, size } = encode(address, { ecc: 'M', border: 2 });
  const cell = w / size;
  sheet.fills(
    data.flatMap((row, j) =>
      row.flatMap((dark, i) => (dark ? [{ x: x + i * cell, y: y + j * cell, w: cell, d: cell }] : [])),
    ),
    '#000000',
  );
}
