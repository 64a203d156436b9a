import { PAPERS, surveyDrawing, type Drawing, type DrawingUnits, type Paper } from '@quarry/core/formats';
import { displayOf, type Scene } from '@quarry/core/document';
import { currentPlace, wayOf, widestOf } from '@quarry/core/venue';
import { MM, formatInches, formatMm, present } from '@quarry/core/grid';
import { PdfPage, rectCorners, type Print } from './paper.ts';

/** Scales a sheet may have, the largest drawing first; feet and inches have their own round ones. */
const SCALES: Record<DrawingUnits, readonly number[]> = {
  mm: [5, 10, 20, 25, 50, 100, 200, 500],
  in: [6, 12, 16, 24, 48, 96, 192, 384],
};
const MARGIN = 10;
const FOOT = 24;
/** Height of the texts on paper, mm. */
const TEXT = 2.2;

/** The largest scale at which the drawing fits the paper. */
function fitted(scene: Scene, units: DrawingUnits, paper: Paper): { drawing: Drawing; scale: number } {
  const { w, d } = PAPERS[paper];
  const [most, deep] = [w - 2 * MARGIN - 4, d - 2 * MARGIN - FOOT - 4];
  for (const scale of SCALES[units]) {
    const drawing = surveyDrawing(scene, { units, textSize: TEXT * scale });
    if (drawing.bounds.w / scale <= most && drawing.bounds.d / scale <= deep) return { drawing, scale };
  }
  const scale = present(SCALES[units].at(-1), 'a scale');
  return { drawing: surveyDrawing(scene, { units, textSize: TEXT * scale }), scale };
}

/** The Survey sheet: the place of a scene to scale with its dimensions, on one sheet of paper. */
export async function surveySheet(scene: Scene, print: Print): Promise<Buffer> {
  const { drawing, scale } = fitted(scene, print.units, print.paper);
  const sheet = new PdfPage(print, { title: `Survey of ${drawing.title}` });
  const { bounds } = drawing;
  const left = MARGIN + (sheet.w - 2 * MARGIN - bounds.w / scale) / 2;
  const top = MARGIN + (sheet.d - 2 * MARGIN - FOOT - bounds.d / scale) / 2;
  const on = ({ x, y }: { x: number; y: number }) => ({
    x: left + (x - bounds.x) / scale,
    y: top + (y - bounds.y) / scale,
  });
  for (const item of drawing.items)
    if (item.kind === 'line')
      sheet.line(item.points.map(on), {
        closed: item.closed,
        dashed: item.dashed,
        width: item.weight * 0.15,
      });
    else {
      const { x, y } = on(item.at);
      sheet.text(item.text, x, y, { size: item.size / scale, align: 'center', turn: item.turn });
    }
  foot(sheet, scene, { ...print, scale });
  return sheet.finish();
}

function foot(
  sheet: PdfPage,
  scene: Scene,
  { units, scale, paper, printed }: Print & { scale: number },
): void {
  const display = displayOf(scene);
  const place = currentPlace(scene);
  const top = sheet.d - MARGIN - FOOT;
  const [left, right] = [MARGIN, sheet.w - MARGIN];
  const frame = { x: left, y: MARGIN, w: right - left, d: sheet.d - 2 * MARGIN };
  sheet.line(rectCorners(frame), { closed: true, width: 0.35 });
  sheet.line([
    { x: left, y: top },
    { x: right, y: top },
  ]);
  const say = (mm: number) => (units === 'in' ? formatInches(Math.round(mm * MM)) : formatMm(mm * MM));
  sheet.text(display.name, left + 4, top + 6.5, { size: 4.6, bold: true, within: 82 });
  sheet.text(place ? `Survey of ${place.name}` : 'Survey, no room described', left + 4, top + 13, {
    size: 3,
    within: 82,
  });
  sheet.text(`Printed ${printed} from Open Quarry`, left + 4, top + 19.5, { size: 2.4, grey: true });
  const way = wayOf(scene);
  const middle = left + 88;
  sheet.text(`Largest module ${display.moduleMaxW} × ${display.moduleMaxD} studs`, middle, top + 6.5, {
    size: 2.8,
    bold: true,
  });
  const steps = way.map((passage) => `${passage.name} ${say(widestOf(passage))}`).join('; ');
  const lines = sheet.wrapped(steps === '' ? 'No way in listed' : `Way in: ${steps}`, 92, 2.4);
  lines
    .slice(0, 3)
    .forEach((text, i) => sheet.text(text, middle, top + 11.5 + i * 4, { size: 2.4, grey: true }));
  sheet.text(`1 : ${scale} on ${PAPERS[paper].word}`, right - 4, top + 6.5, {
    size: 4,
    bold: true,
    align: 'right',
  });
  // A bar of a round true length, to check the print with a ruler.
  const unit = units === 'in' ? 304.8 : 1000;
  const count = [0.25, 0.5, 1, 2, 5, 10].find((many) => (many * unit) / scale >= 30) ?? 10;
  const length = (count * unit) / scale;
  const [x, y] = [right - 4 - length, top + 17];
  sheet.line(
    [
      { x, y: y - 1.5 },
      { x, y },
      { x: x + length, y },
      { x: x + length, y: y - 1.5 },
    ],
    { width: 0.35 },
  );
  sheet.text(`${count} ${units === 'in' ? 'ft' : 'm'}`, x + length / 2, y + 3, {
    size: 2.4,
    align: 'center',
  });
}
