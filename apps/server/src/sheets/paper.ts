import PDFDocument from 'pdfkit';
import { PAPERS, type DrawingUnits, type Paper } from '@quarry/core/formats';
import type { Rect } from '@quarry/core/grid';
import { faceRuns } from './faces.ts';

// A sheet of paper: millimetres from its upper left corner, whatever the format counts in.

/** What every printed sheet is made with. */
export interface Print {
  paper: Paper;
  units: DrawingUnits;
  /** The day of printing, ISO. */
  printed: string;
  /** The folder in which the font packages lie. */
  fonts: string;
  /** Who prints: the author that the file names. */
  author: string;
}

const POINTS = 72 / 25.4;
const INK = '#22292e';
const GREY = '#5b646a';
/** From the paper's edge to the page number, mm. */
const EDGE = 10;
const FOOT = 5;
/** From the middle of a capital down to its foot, as a share of the size: one line for all faces. */
const MIDDLE = 0.35;

export type PaperPoint = Readonly<{ x: number; y: number }>;
type Align = 'left' | 'center' | 'right';
export interface TextStyle {
  size: number;
  bold?: boolean;
  align?: Align;
  /** Degrees clockwise about the point. */
  turn?: number;
  grey?: boolean;
  /** Instead of ink or grey. */
  colour?: string;
  /** The most room it may take, mm: a longer text ends in “…”. */
  within?: number;
  /** A colour behind the letters, so that nothing crosses them. */
  halo?: string;
}
export interface LineStyle {
  closed?: boolean;
  dashed?: boolean;
  /** Length of the dashes and of the gaps, mm; instead of `dashed`. */
  dash?: readonly [number, number];
  /** mm. */
  width?: number;
  colour?: string;
}

/** Side of the tile that a hatch repeats, mm. */
const TILE = 2.4;
/** Hatches that tell areas apart without colour: strokes over a tile, in shares of its side. */
const HATCHES = {
  rise: '0 0 m 1 1 l S',
  fall: '0 1 m 1 0 l S',
  across: '0 .5 m 1 .5 l S',
  along: '.5 0 m .5 1 l S',
  squares: '0 .5 m 1 .5 l .5 0 m .5 1 l S',
  diamonds: '0 0 m 1 1 l 0 1 m 1 0 l S',
  dashes: '.25 .5 m .75 .5 l S',
  ticks: '.1 .3 m .25 .6 l .4 .3 l .6 .75 m .75 1 l .9 .75 l S',
  chevrons: '.1 .2 m .35 .6 l .6 .2 l S',
  strokes: '.05 .25 m .3 .25 l .55 .75 m .8 .75 l S',
  grains: '.2 .2 m .26 .2 l .7 .7 m .76 .7 l S',
  bricks: '0 0 m 1 0 l 0 .5 m 1 .5 l .25 0 m .25 .5 l .75 .5 m .75 1 l S',
  stones: '.15 .15 m .35 .35 l .85 .15 m .65 .35 l .15 .85 m .35 .65 l S',
  crosses: '.1 .25 m .4 .25 l .25 .1 m .25 .4 l .6 .75 m .9 .75 l .75 .6 m .75 .9 l S',
  rings:
    '.1 .25 m .1 .45 .4 .45 .4 .25 c .4 .05 .1 .05 .1 .25 c .6 .75 m .6 .95 .9 .95 .9 .75 c .9 .55 .6 .55 .6 .75 c S',
  diagonals: '0 .5 m .5 0 l 0 1 m 1 0 l .5 1 m 1 .5 l S',
  flakes:
    '.1 .25 m .4 .25 l .17 .12 m .33 .38 l .33 .12 m .17 .38 l .6 .75 m .9 .75 l .67 .62 m .83 .88 l .83 .62 m .67 .88 l S',
  waves: '0 .5 m .25 .2 l .75 .8 l 1 .5 l S',
} as const;
export type Hatch = keyof typeof HATCHES;

/** Corners of a rectangle, for its outline. */
export const rectCorners = ({ x, y, w, d }: Rect<'mm'>): PaperPoint[] => [
  { x, y },
  { x: x + w, y },
  { x: x + w, y: y + d },
  { x, y: y + d },
];

export class PdfPage {
  readonly w: number;
  readonly d: number;
  private readonly doc: PDFKit.PDFDocument;
  private readonly missing = new Set<string>();
  private readonly hatches = new Map<Hatch, PDFKit.PDFTilingPattern>();

  /** @param upright the paper stands instead of lying */
  constructor(
    private readonly print: Print,
    { title, upright = false }: { title: string; upright?: boolean },
  ) {
    const { w, d } = PAPERS[print.paper];
    [this.w, this.d] = upright ? [d, w] : [w, d];
    this.doc = new PDFDocument({
      size: [this.w * POINTS, this.d * POINTS],
      margin: 0,
      // Page numbers are written when the number of pages is known.
      bufferPages: true,
      lang: 'en',
      displayTitle: true,
      info: { Title: title, Author: print.author, Creator: 'Open Quarry' },
    });
  }

  line(points: readonly PaperPoint[], style: LineStyle = {}): void {
    this.lines([points], style);
  }

  /** Many lines of one style, stroked at once. */
  lines(
    all: readonly (readonly PaperPoint[])[],
    { closed = false, dashed = false, dash, width = 0.2, colour = INK }: LineStyle = {},
  ): void {
    const { doc } = this;
    const pattern = dash ?? (dashed ? ([1.4, 1] as const) : null);
    doc.save();
    doc.lineWidth(width * POINTS).strokeColor(colour);
    if (pattern) doc.dash(pattern[0] * POINTS, { space: pattern[1] * POINTS });
    for (const points of all) {
      this.trace(points);
      if (closed) doc.closePath();
    }
    doc.stroke();
    doc.restore();
  }

  private trace(points: readonly PaperPoint[]): void {
    points.forEach(({ x, y }, i) =>
      i === 0 ? this.doc.moveTo(x * POINTS, y * POINTS) : this.doc.lineTo(x * POINTS, y * POINTS),
    );
  }

  /** A rectangle of one colour, without an outline. */
  fill(x: number, y: number, w: number, d: number, colour: string): void {
    this.fills([{ x, y, w, d }], colour);
  }

  /** Rectangles of one colour, filled at once. */
  fills(rects: readonly Rect<'mm'>[], colour: string): void {
    if (rects.length === 0) return;
    for (const { x, y, w, d } of rects) this.doc.rect(x * POINTS, y * POINTS, w * POINTS, d * POINTS);
    this.doc.fillColor(colour).fill();
  }

  /** Rectangles under a hatch. */
  hatch(rects: readonly Rect<'mm'>[], hatch: Hatch, colour: string): void {
    if (rects.length === 0) return;
    let pattern = this.hatches.get(hatch);
    if (!pattern) {
      const side = TILE * POINTS;
      const scaled = `${side} 0 0 ${side} 0 0 cm ${0.1 / TILE} w ${HATCHES[hatch]}`;
      pattern = this.doc.pattern([0, 0, side, side], side, side, scaled);
      this.hatches.set(hatch, pattern);
    }
    for (const { x, y, w, d } of rects) this.doc.rect(x * POINTS, y * POINTS, w * POINTS, d * POINTS);
    this.doc.fillColor([pattern, colour]).fill();
  }

  /** A shape of one colour, without an outline. */
  fillShape(points: readonly PaperPoint[], colour: string): void {
    this.trace(points);
    this.doc.closePath().fillColor(colour).fill();
  }

  /** One line of text, the middle of its capitals on the point's height; returns its width, mm. */
  text(text: string, x: number, y: number, style: TextStyle): number {
    const { size, bold = false, align = 'left', turn = 0, grey, colour, within, halo } = style;
    const { doc } = this;
    const runs = this.runs(
      within === undefined ? text : this.shortened(text, within, size, bold),
      size,
      bold,
    );
    const width = runs.reduce((sum, run) => sum + run.width, 0);
    doc.save();
    if (turn !== 0) doc.rotate(turn, { origin: [x * POINTS, y * POINTS] });
    const left = x - (align === 'center' ? width / 2 : align === 'right' ? width : 0);
    if (halo) this.fill(left - size * 0.15, y - size * 0.55, width + size * 0.3, size * 1.1, halo);
    doc.fillColor(colour ?? (grey ? GREY : INK));
    let at = left;
    for (const run of runs) {
      doc
        .font(run.file)
        .fontSize(size * POINTS)
        .text(run.text, at * POINTS, (y + size * MIDDLE) * POINTS, {
          lineBreak: false,
          baseline: 'alphabetic',
        });
      at += run.width;
    }
    doc.restore();
    return width;
  }

  /** Width of a text, mm. */
  widthOf(text: string, size: number, bold = false): number {
    return this.runs(text, size, bold).reduce((sum, run) => sum + run.width, 0);
  }

  private shortened(text: string, width: number, size: number, bold: boolean): string {
    if (this.widthOf(text, size, bold) <= width) return text;
    const letters = [...text];
    let [least, most] = [0, letters.length];
    while (least < most) {
      const middle = Math.ceil((least + most) / 2);
      if (this.widthOf(`${letters.slice(0, middle).join('')}…`, size, bold) <= width) least = middle;
      else most = middle - 1;
    }
    return `${letters.slice(0, least).join('').trimEnd()}…`;
  }

  /** Text broken into lines no wider than `width` mm, a word that is wider between its letters. @returns the lines */
  wrapped(text: string, width: number, size: number, bold = false): string[] {
    return text.split('\n').flatMap((paragraph) => {
      const lines: string[] = [''];
      for (const word of paragraph.split(' ')) {
        const last = lines[lines.length - 1];
        const joined = last === '' ? word : `${last} ${word}`;
        if (this.widthOf(joined, size, bold) <= width) lines[lines.length - 1] = joined;
        else {
          const parts = this.parts(word, width, size, bold);
          if (last === '') lines.pop();
          lines.push(...parts);
        }
      }
      return lines;
    });
  }

  /** A word in pieces that are no wider than `width`, a letter at least each. */
  private parts(word: string, width: number, size: number, bold: boolean): string[] {
    const parts = [''];
    let used = 0;
    for (const letter of word.normalize('NFC')) {
      const wide = this.widthOf(letter, size, bold);
      if (used > 0 && used + wide > width) {
        parts.push('');
        used = 0;
      }
      parts[parts.length - 1] += letter;
      used += wide;
    }
    return parts;
  }

  /** A picture over a rectangle of the sheet. @param url its bytes as a data URL: embedded once, however often drawn */
  image(url: string, { x, y, w, d }: Rect<'mm'>, opacity: number): void {
    this.doc.save();
    this.doc.opacity(opacity);
    this.doc.image(url, x * POINTS, y * POINTS, { width: w * POINTS, height: d * POINTS });
    this.doc.restore();
  }

  /** Draws only inside rectangles of the sheet. */
  clipped(rects: Rect<'mm'> | readonly Rect<'mm'>[], paint: () => void): void {
    this.doc.save();
    for (const { x, y, w, d } of 'length' in rects ? rects : [rects])
      this.doc.rect(x * POINTS, y * POINTS, w * POINTS, d * POINTS);
    this.doc.clip();
    paint();
    this.doc.restore();
  }

  newPage(): void {
    this.doc.addPage();
  }

  /** Pages so far. */
  get pages(): number {
    return this.doc.bufferedPageRange().count;
  }

  /** Title at the left and the display's name at the right of a page's head, `margin` mm from its edges. */
  head(title: string, name: string, margin: number): void {
    const room = this.w - 2 * margin;
    const used = this.text(title, margin, margin + 3, { size: 6, bold: true, within: room * 0.62 });
    this.text(name, this.w - margin, margin + 3, { size: 4, align: 'right', within: room - used - 6 });
  }

  /** Numbers the pages and ends the document. */
  async finish(): Promise<Buffer> {
    const { count } = this.doc.bufferedPageRange();
    for (let page = 0; page < count; page++) {
      this.doc.switchToPage(page);
      this.text(`page ${page + 1} of ${count}`, this.w - EDGE, this.d - FOOT, {
        size: 2.4,
        align: 'right',
        grey: true,
      });
      if (this.missing.size > 0)
        this.text(
          `□: this print has no letters for ${[...this.missing].map((letter) => `U+${(letter.codePointAt(0) ?? 0).toString(16).toUpperCase().padStart(4, '0')}`).join(', ')}`,
          EDGE,
          this.d - FOOT,
          { size: 2.4, within: this.w - 2 * EDGE - 30 },
        );
    }
    const parts: Buffer[] = [];
    this.doc.on('data', (part: Buffer) => parts.push(part));
    const ended = new Promise<void>((resolve) => this.doc.once('end', resolve));
    this.doc.end();
    await ended;
    return Buffer.concat(parts);
  }

  /** Parts of a text by the font file that has their letters, with their widths in mm. */
  private runs(text: string, size: number, bold: boolean): { text: string; file: string; width: number }[] {
    return faceRuns(text, bold ? 'bold' : 'regular', this.print.fonts, (letter) =>
      this.missing.add(letter),
    ).map((run) => ({
      ...run,
      width:
        this.doc
          .font(run.file)
          .fontSize(size * POINTS)
          .widthOfString(run.text) / POINTS,
    }));
  }
}
