import { HttpStatus } from '@nestjs/common';
import {
  BUILT_WAYS,
  ENLARGED_MARGIN,
  MAX_ENLARGED,
  MAX_ENLARGED_PAGES,
  PAPERS,
  enlargedPages,
  enlargedTo,
  rowMm,
  type BuiltWay,
  type EnlargedPage,
} from '@quarry/core/formats';
import { MM_PER_STUD, PLATES_PER_BRICK, formatPlates } from '@quarry/core/grid';
import { displayOf, type Scene } from '@quarry/core/document';
import sharp from 'sharp';
import { z } from 'zod';
import { ApiError } from '../http/errors.ts';
import { PdfPage, rectCorners, type PaperPoint, type Print } from './paper.ts';

/** A drawing to be printed at so many studs; the picture comes from the page and is kept nowhere. */
export const enlargedSchema = z.strictObject({
  title: z.string().trim().min(1).max(80),
  way: z.enum(BUILT_WAYS),
  studs: z.int().min(1).max(MAX_ENLARGED),
  picture: z
    .string()
    .max(3_500_000, 'a picture of 2.6 MB is the most')
    .regex(/^data:image\/(?:png|jpeg);base64,[A-Za-z0-9+/]+=*$/, 'the picture is a PNG or a JPEG'),
});

/** The drawing is paler than the lines over it, so that both are seen. */
const PALE = 0.55;

/** A drawing at 1 : 1 with the lines of studs and of plates over it, on as many pages as it takes. */
export async function enlargedSheet(
  scene: Scene,
  { title, way, studs, picture }: z.infer<typeof enlargedSchema>,
  print: Print,
): Promise<Buffer> {
  const sheet = new PdfPage(print, { title: `${title}, enlarged`, upright: true });
  const image = await redrawn(Buffer.from(picture.slice(picture.indexOf(',') + 1), 'base64'));
  const drawing = enlargedTo(image, way, studs);
  const { columns, lines, pages } = enlargedPages(drawing, print.paper);
  if (pages.length > MAX_ENLARGED_PAGES)
    throw refused(
      `At ${studs} studs this takes ${pages.length.toLocaleString('en')} pages of ${PAPERS[print.paper].word}; the most is ${MAX_ENLARGED_PAGES}. Make it narrower.`,
    );
  const { side: left, top, foot } = ENLARGED_MARGIN;
  for (const [i, page] of pages.entries()) {
    if (i > 0) sheet.newPage();
    const area = { x: left, y: top, w: page.studs * MM_PER_STUD, d: page.rows * rowMm(way) };
    sheet.clipped(area, () =>
      sheet.image(
        image.url,
        {
          ...{ x: left - page.stud * MM_PER_STUD, y: top - page.from * rowMm(way) },
          ...{ w: drawing.wMm, d: drawing.dMm },
        },
        PALE,
      ),
    );
    for (const strong of [false, true])
      sheet.lines(linesOf(page, way, strong), { width: strong ? 0.18 : 0.06, colour: '#6b6860' });
    sheet.line(rectCorners(area), { closed: true, width: 0.3 });
    const y = sheet.d - foot + 8;
    sheet.text(
      `${title}: row ${page.row + 1} of ${lines}, column ${page.column + 1} of ${columns}`,
      left,
      y,
      {
        ...{ size: 3.4, bold: true, within: sheet.w - 2 * left },
      },
    );
    sheet.text(
      `${displayOf(scene).name} · studs ${page.stud} to ${page.stud + page.studs}, ${rowWords(page, way)} · 1 : 1, print without scaling: 10 studs are 80 mm · ${print.printed}`,
      left,
      y + 4.6,
      { size: 2.4, grey: true, within: sheet.w - 2 * left },
    );
  }
  return sheet.finish();
}

/** More pixels than a page sends. */
const MAX_PIXELS = 4_000_000;

/** A picture drawn again, on white: what is no whole picture comes no further. @throws ApiError 422 */
async function redrawn(bytes: Buffer): Promise<{ url: string; width: number; height: number }> {
  try {
    const { data, info } = await sharp(bytes, { limitInputPixels: MAX_PIXELS })
      .flatten({ background: '#ffffff' })
      .jpeg({ quality: 85 })
      .toBuffer({ resolveWithObject: true });
    return {
      ...{ width: info.width, height: info.height },
      url: `data:image/jpeg;base64,${data.toString('base64')}`,
    };
  } catch {
    throw refused('The picture cannot be read: it is no whole PNG or JPEG of at most 4 million pixels.');
  }
}

const refused = (message: string) => new ApiError(HttpStatus.UNPROCESSABLE_ENTITY, 'invalid', message);

const rowWords = ({ from, rows }: EnlargedPage, way: BuiltWay): string =>
  way === 'lying'
    ? `${from} to ${from + rows} down`
    : `${formatPlates(from)} to ${formatPlates(from + rows)} down`;

/** Lines of studs and rows on a page; each eighth stud, and each eighth row or brick, is stronger. */
function linesOf({ stud, studs, from, rows }: EnlargedPage, way: BuiltWay, strong: boolean): PaperPoint[][] {
  const { side: left, top } = ENLARGED_MARGIN;
  const [right, foot] = [left + studs * MM_PER_STUD, top + rows * rowMm(way)];
  const each = way === 'lying' ? 8 : PLATES_PER_BRICK;
  const some = (count: number, first: number, step: number) =>
    Array.from({ length: count - 1 }, (_, i) => i + 1).filter((i) => ((first + i) % step === 0) === strong);
  return [
    ...some(studs, stud, 8).map((i) => {
      const x = left + i * MM_PER_STUD;
      return [
        { x, y: top },
        { x, y: foot },
      ];
    }),
    ...some(rows, from, each).map((i) => {
      const y = top + i * rowMm(way);
      return [
        { x: left, y },
        { x: right, y },
      ];
    }),
  ];
}
