import { colourName, partName } from '@quarry/core/catalogue';
import { planDrawing } from '@quarry/core/formats';
import { sinceReportSchema, workWords, type SinceReport } from '@quarry/core/record';
import { compileRelief } from '@quarry/core/relief';
import type { Scene } from '@quarry/core/scene';
import { z } from 'zod';
import { Sheet, type Paper } from './paper.ts';
import { drawPlan } from './planSheet.ts';

const MARGIN = 16;
const TEXT = 3.1;
const ROW = 4.6;

export const reportBodySchema = z.strictObject({
  report: sinceReportSchema,
  words: z.string().max(20_000),
  /** Somebody edited the whole of it: the words are all there is besides the plans. */
  whole: z.boolean().default(false),
});

const day = (at: number | null) => (at === null ? 'the beginning' : new Date(at).toISOString().slice(0, 10));
const percent = (share: number | null) => (share === null ? 'new' : `${(100 * share).toFixed(0)} %`);

/** The report on paper: what was written, the plans before and now side by side, what changed, figures, what is next. */
export async function reportSheet(
  { report, words, whole }: { report: SinceReport; words: string; whole: boolean },
  plans: { before: Scene; now: Scene },
  { fonts, paper, printed }: { fonts: string; paper: Paper; printed: string },
): Promise<Buffer> {
  const sheet = new Sheet(fonts, paper, { title: `Report of ${report.title}`, upright: true });
  const width = sheet.w - 2 * MARGIN;
  let y = MARGIN + 4;
  const room = (needed: number) => {
    if (y + needed <= sheet.d - MARGIN) return;
    sheet.newPage();
    y = MARGIN + 4;
  };
  const write = (text: string, { bold = false, indent = 0, size = TEXT } = {}) => {
    for (const line of sheet.wrapped(text, width - indent, size, bold)) {
      room(ROW);
      sheet.text(line, MARGIN + indent, y, { size, bold });
      y += (ROW * size) / TEXT;
    }
  };
  const heading = (text: string) => {
    room(3 * ROW);
    y += ROW;
    sheet.text(text, MARGIN, y, { size: 4.4, bold: true });
    y += 6.4;
  };

  const finished = () => {
    room(2 * ROW);
    sheet.text(`Printed ${printed} from Open Quarry`, MARGIN, y + ROW, { size: 2.6, grey: true });
    return sheet.finish();
  };

  sheet.text(report.title, MARGIN, y, { size: 6.4, bold: true });
  y += 8;
  write(
    `From ${day(report.fromAt)} to ${day(report.at)}: ${percent(report.done.before)} done before, ${percent(report.done.after)} now.`,
  );
  if (report.work.sessions > 0 && !whole) write(`${workWords(report.work)}.`);
  const besides = report.without.length > 0 ? `, but for section ${report.without.join(', ')}` : '';
  if (!whole)
    for (const { name, date, chance } of report.odds ?? [])
      write(`Ready for ${name}, ${date}${besides}: ${percent(chance)}`);
  if (words.trim() !== '' && !whole) {
    y += 2;
    write(words.trim());
  }
  y += 3;
  const half = (width - 6) / 2;
  const depth = Math.max(
    drawPlan(sheet, drawn(plans.before), { x: MARGIN, y: y + 5, w: half, d: 70 }),
    drawPlan(sheet, drawn(plans.now), { x: MARGIN + half + 6, y: y + 5, w: half, d: 70 }),
  );
  sheet.text('Before', MARGIN, y, { size: TEXT, bold: true });
  sheet.text('Now', MARGIN + half + 6, y, { size: TEXT, bold: true });
  y += depth + 8;
  if (whole) {
    for (const line of words.split('\n')) {
      const mark = /^(#+)\s+(.*)$/.exec(line);
      if (mark) heading(mark[2]);
      else if (line.trim() !== '') write(line.replace(/\*\*|\\(?=[\\`*_{}[\]<>#|~])/g, ''));
    }
    return finished();
  }

  heading('What changed');
  for (const { name, owner, before, after, stage, sentences } of report.sections) {
    if (sentences.length === 0 && before === after) continue;
    room(3 * ROW);
    write(`${name}${owner ? ` (${owner})` : ''}`, { bold: true });
    if (after !== null) write(`${percent(before)} before, ${percent(after)} now, at ${stage}`, { indent: 4 });
    for (const sentence of sentences) write(`– ${sentence}`, { indent: 4 });
    y += 1.5;
  }
  heading('Figures');
  for (const { word, before, after } of report.figures) write(`${word}: ${before} before, ${after} now`);
  if (report.short !== null) {
    heading('Missing');
    write(report.short === 0 ? 'Nothing is short.' : `${report.short.toLocaleString('en')} pieces in all.`);
    for (const { part, colour, qty } of report.missing)
      write(`${qty.toLocaleString('en')} × ${partName(part)} in ${colourName(colour)}`, { indent: 4 });
  }
  heading('Next');
  for (const line of report.next) write(`– ${line}`);
  return finished();
}

const drawn = (scene: Scene) => planDrawing(scene, compileRelief(scene), { textSize: 30 });
