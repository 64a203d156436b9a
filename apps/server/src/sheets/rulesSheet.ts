import { houseRules } from '@quarry/core/formats';
import { displayOf, type Scene } from '@quarry/core/document';
import { PdfPage, type Print } from './paper.ts';

const MARGIN = 16;
const GAP = 10;

/** The house rules on one upright sheet in two columns; more than fits goes on to the next. */
export async function rulesSheet(scene: Scene, print: Print): Promise<Buffer> {
  const { name } = displayOf(scene);
  const sheet = new PdfPage(print, { title: `House rules of ${name}`, upright: true });
  const width = (sheet.w - 2 * MARGIN - GAP) / 2;
  const head = () => {
    sheet.head('House rules', name, MARGIN);
    sheet.line(
      [
        { x: MARGIN, y: MARGIN + 9 },
        { x: sheet.w - MARGIN, y: MARGIN + 9 },
      ],
      { width: 0.4 },
    );
    sheet.text(
      `Printed ${print.printed} from Open Quarry. Local rules and qualified people decide where the work can hurt someone.`,
      MARGIN,
      sheet.d - 10,
      { size: 2.3, grey: true },
    );
  };
  const top = MARGIN + 18;
  const bottom = sheet.d - MARGIN - 4;
  let column = 0;
  let y = top;
  head();
  /** Takes so much height, in the next column or on the next page where this one is full. */
  const room = (height: number) => {
    if (y + height <= bottom) return;
    column = (column + 1) % 2;
    if (column === 0) {
      sheet.newPage();
      head();
    }
    y = top;
  };
  for (const { heading, lines } of houseRules(scene, print.units)) {
    room(16);
    const x = () => MARGIN + column * (width + GAP);
    sheet.text(heading, x(), y, { size: 3.6, bold: true });
    y += 6;
    for (const [label, value] of lines) {
      const across = label === '' ? width : width * 0.56;
      const values = sheet.wrapped(value, across, 2.9);
      const labels = sheet.wrapped(label, width * 0.42, 2.9);
      const height = Math.max(values.length, labels.length) * 4.1 + 1.6;
      room(height);
      labels.forEach((text, i) => sheet.text(text, x(), y + i * 4.1, { size: 2.9, grey: true }));
      values.forEach((text, i) =>
        label === ''
          ? sheet.text(text, x(), y + i * 4.1, { size: 2.9 })
          : sheet.text(text, x() + width, y + i * 4.1, { size: 2.9, align: 'right' }),
      );
      y += height;
      sheet.line(
        [
          { x: x(), y: y - 2.9 },
          { x: x() + width, y: y - 2.9 },
        ],
        { width: 0.08 },
      );
    }
    y += 5;
  }
  return sheet.finish();
}
