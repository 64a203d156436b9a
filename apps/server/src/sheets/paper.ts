import { join } from 'node:path';
import PDFDocument from 'pdfkit';

/** A sheet of paper: millimetres from its upper left corner, whatever the format counts in. */

export const PAPERS = {
  a4: { word: 'A4', w: 297, d: 210 },
  letter: { word: 'Letter', w: 279.4, d: 215.9 },
} as const;
export type Paper = keyof typeof PAPERS;

const POINTS = 72 / 25.4;
/** Letters of the second font file: Latin beyond the common ones. */
const EXTENDED = /[\u0100-\u024f\u1e00-\u1eff]/;

type Align = 'left' | 'center' | 'right';
export interface TextStyle {
  size: number;
  bold?: boolean;
  align?: Align;
  /** Degrees clockwise about the point. */
  turn?: number;
  grey?: boolean;
}

export class Sheet {
  readonly w: number;
  readonly d: number;
  private readonly doc: PDFKit.PDFDocument;

  /** @param fonts the folder with the font files */
  constructor(fonts: string, paper: Paper, { title, upright = false }: { title: string; upright?: boolean }) {
    const { w, d } = PAPERS[paper];
    [this.w, this.d] = upright ? [d, w] : [w, d];
    this.doc = new PDFDocument({
      size: [this.w * POINTS, this.d * POINTS],
      margin: 0,
      info: { Title: title, Creator: 'Open Quarry' },
    });
    for (const weight of [400, 600])
      for (const set of ['latin', 'latin-ext'])
        this.doc.registerFont(`${set}-${weight}`, join(fonts, `archivo-${set}-${weight}-normal.woff`));
  }

  line(
    points: readonly { x: number; y: number }[],
    { closed = false, dashed = false, width = 0.2 } = {},
  ): void {
    const { doc } = this;
    doc.lineWidth(width * POINTS).strokeColor('#22292e');
    if (dashed) doc.dash(1.4 * POINTS, { space: 1 * POINTS });
    else doc.undash();
    points.forEach(({ x, y }, i) =>
      i === 0 ? doc.moveTo(x * POINTS, y * POINTS) : doc.lineTo(x * POINTS, y * POINTS),
    );
    if (closed) doc.closePath();
    doc.stroke();
  }

  /** A rectangle of one colour, without an outline. */
  fill(x: number, y: number, w: number, d: number, colour: string): void {
    this.doc
      .rect(x * POINTS, y * POINTS, w * POINTS, d * POINTS)
      .fillColor(colour)
      .fill();
  }

  /** One line of text, its baseline about on the point's height; returns its width, mm. */
  text(
    text: string,
    x: number,
    y: number,
    { size, bold, align = 'left', turn = 0, grey }: TextStyle,
  ): number {
    const { doc } = this;
    const runs = this.runs(text, size, bold ?? false);
    const width = runs.reduce((sum, run) => sum + run.width, 0);
    doc.save();
    if (turn !== 0) doc.rotate(turn, { origin: [x * POINTS, y * POINTS] });
    doc.fillColor(grey ? '#5b646a' : '#22292e');
    let at = x - (align === 'center' ? width / 2 : align === 'right' ? width : 0);
    for (const run of runs) {
      doc
        .font(run.font)
        .fontSize(size * POINTS)
        .text(run.text, at * POINTS, (y - size * 0.36) * POINTS, { lineBreak: false, baseline: 'top' });
      at += run.width;
    }
    doc.restore();
    return width;
  }

  /** Text broken into lines no wider than `width` mm; returns the lines. */
  wrapped(text: string, width: number, size: number, bold = false): string[] {
    return text.split('\n').flatMap((paragraph) => {
      const lines: string[] = [];
      for (const word of paragraph.split(' ')) {
        const last = lines.at(-1);
        const joined = last === undefined ? word : `${last} ${word}`;
        const fits = this.runs(joined, size, bold).reduce((sum, run) => sum + run.width, 0) <= width;
        if (last !== undefined && fits) lines[lines.length - 1] = joined;
        else lines.push(word);
      }
      return lines;
    });
  }

  /** Draws only inside a rectangle of the sheet. */
  clipped({ x, y, w, d }: { x: number; y: number; w: number; d: number }, paint: () => void): void {
    this.doc.save();
    this.doc.rect(x * POINTS, y * POINTS, w * POINTS, d * POINTS).clip();
    paint();
    this.doc.restore();
  }

  newPage(): void {
    this.doc.addPage();
  }

  /** Ends the document. */
  async finish(): Promise<Buffer> {
    const parts: Buffer[] = [];
    this.doc.on('data', (part: Buffer) => parts.push(part));
    const ended = new Promise<void>((resolve) => this.doc.once('end', resolve));
    this.doc.end();
    await ended;
    return Buffer.concat(parts);
  }

  /** Parts of a text by the font file that has their letters, with their widths in mm. */
  private runs(text: string, size: number, bold: boolean): { text: string; font: string; width: number }[] {
    const weight = bold ? 600 : 400;
    const runs: { text: string; font: string; width: number }[] = [];
    for (const letter of text) {
      const font = `${EXTENDED.test(letter) ? 'latin-ext' : 'latin'}-${weight}`;
      const last = runs.at(-1);
      if (last?.font === font) last.text += letter;
      else runs.push({ text: letter, font, width: 0 });
    }
    for (const run of runs)
      run.width =
        this.doc
          .font(run.font)
          .fontSize(size * POINTS)
          .widthOfString(run.text) / POINTS;
    return runs;
  }
}
