import { colourName, partName } from '@quarry/core/catalogue';
import { planDrawing } from '@quarry/core/formats';
import { MM_PER_STUD, type Rect, formatPercent, formatChance } from '@quarry/core/grid';
import { sinceReportSchema, spanWords, workWords } from '@quarry/core/history';
import { compileRelief } from '@quarry/core/terrain';
import { MAX_STUDS, listOf, type Scene } from '@quarry/core/document';
import { z } from 'zod';
import { PdfPage, rectCorners, type Print } from './paper.ts';
import { labelsOf, paintPlan } from './planArt.ts';

const MARGIN = 16;
const TEXT = 3.1;
const ROW = 4.6;

const stud = z.number().min(-MAX_STUDS).max(MAX_STUDS);
export const reportBodySchema = z.strictObject({
  report: sinceReportSchema,
  words: z.string().max(20_000),
  /** Somebody edited the whole of it: the words are all there is besides the plans. */
  whole: z.boolean().default(false),
  /** Where the plan changed between the two moments, studs. */
  changed: z
    .array(z.strictObject({ x: stud, y: stud, w: stud, d: stud }))
    .max(400)
    .default([]),
});

const percent = (share: number | null) => (share === null ? 'new' : formatPercent(share));

/** The report on paper: what was written, the plans before and now side by side, what changed, figures, what is next. */
export async function reportSheet(
  { report, words, whole, changed }: z.infer<typeof reportBodySchema>,
  plans: { before: Scene; now: Scene },
  print: Print,
): Promise<Buffer> {
  const sheet = new PdfPage(print, { title: `Report of ${report.title}`, upright: true });
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
    sheet.text(`Printed ${print.printed} from Open Quarry`, MARGIN, y + ROW, { size: 2.6, grey: true });
    return sheet.finish();
  };

  for (const line of sheet.wrapped(report.title, width, 6.4, true)) {
    sheet.text(line, MARGIN, y, { size: 6.4, bold: true });
    y += 8;
  }
  write(
    `${spanWords(report)}: ${percent(report.done.before)} done before, ${percent(report.done.after)} now.`,
  );
  if (report.work.sessions > 0 && !whole) write(`${workWords(report.work)}.`);
  const besides = report.without.length > 0 ? `, but for section ${report.without.join(', ')}` : '';
  if (!whole)
    for (const { name, date, chance } of report.odds ?? [])
      write(`Ready for ${name}, ${date}${besides}: ${formatChance(chance)}`);
  if (words.trim() !== '' && !whole) {
    y += 2;
    write(words.trim());
  }
  y += 3;
  const half = (width - 6) / 2;
  room(60);
  const shares = (of: 'before' | 'after') =>
    new Map(report.sections.flatMap((one) => (one.id === null ? [] : [[one.id, one[of]] as const])));
  const depth = Math.max(
    progressPlan(sheet, plans.before, shares('before'), [], { x: MARGIN, y: y + 4, w: half, d: 80 }),
    progressPlan(sheet, plans.now, shares('after'), changed, {
      x: MARGIN + half + 6,
      y: y + 4,
      w: half,
      d: 80,
    }),
  );
  sheet.text('Before', MARGIN, y, { size: TEXT, bold: true });
  sheet.text('Now', MARGIN + half + 6, y, { size: TEXT, bold: true });
  y += depth + 8;
  write('Bars: how much of a section is done. Hatched: where the plan changed.', { size: 2.6 });
  y += 2;
  if (whole) {
    for (const line of words.split('\n')) {
      const mark = /^(#+)\s+(.*)$/.exec(line);
      if (mark) heading(mark[2] ?? '');
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
  if (report.promised.length > 0) heading('Promised');
  for (const { name: milestone, date, words, met } of report.promised) {
    write(`${milestone}, ${date}: ${met.length} of ${met.length + words.length} met`, { bold: true });
    for (const one of met) write(`– met: ${one}`, { indent: 4 });
    for (const one of words) write(`– open: ${one}`, { indent: 4 });
  }
  const [allWishes, ...wishes] = report.wishes;
  if (allWishes !== undefined) {
    heading('Wishes of followers');
    write(`${allWishes}.`);
  }
  for (const line of wishes) write(`– ${line}`);
  if (report.versions.length > 0) heading('Versions');
  for (const line of report.versions) write(`– ${line}`);
  if (report.lookedFor.length > 0) heading('Lost or broken');
  for (const line of report.lookedFor) write(`– ${line}`);
  heading('Next');
  for (const line of report.next) write(`– ${line}`);
  return finished();
}

const CHANGED = '#a8442a';

/**
 * A plan with what is done of each section, and where it changed.
 * @param shares 0 to 1 by section; null: unknown
 * @returns how deep it is, mm of the sheet
 */
function progressPlan(
  sheet: PdfPage,
  scene: Scene,
  shares: ReadonlyMap<string, number | null>,
  changed: readonly Rect[],
  box: Rect<'mm'>,
): number {
  const relief = compileRelief(scene);
  const whole = planDrawing(scene, relief, { textSize: 1 });
  const { bounds } = whole;
  const scale = Math.max(bounds.w / box.w, bounds.d / box.d);
  // Small as it is, it shows no modules and of the contours each fifth.
  const drawing = {
    ...whole,
    items: whole.items.filter(
      (item) =>
        item.kind === 'line' && item.layer !== 'MODULES' && (item.layer !== 'CONTOURS' || item.weight > 1),
    ),
  };
  const laid = { drawing, relief, scale, origin: bounds, at: { x: box.x, y: box.y }, size: NAMES };
  paintPlan(sheet, laid, labelsOf(sheet, scene, drawing, relief, NAMES * scale));
  const on = ({ x, y, w, d }: Rect): Rect<'mm'> => ({
    x: box.x + (x * MM_PER_STUD - bounds.x) / scale,
    y: box.y + (y * MM_PER_STUD - bounds.y) / scale,
    w: (w * MM_PER_STUD) / scale,
    d: (d * MM_PER_STUD) / scale,
  });
  const areas = changed.map(on);
  sheet.clipped({ ...box, d: bounds.d / scale }, () => {
    sheet.hatch(areas, 'fall', CHANGED);
    sheet.lines(areas.map(rectCorners), { closed: true, width: 0.3, colour: CHANGED });
  });
  for (const section of listOf(scene, 'section')) {
    const { x, y, w, d } = on(section);
    const share = shares.get(section.id) ?? null;
    const words = share === null ? section.letter : `${section.letter} ${percent(share)}`;
    sheet.text(words, x + w - 1, y + d - 5, { size: NAMES, align: 'right', halo: '#ffffff' });
    if (share === null) continue;
    const bar = { x: x + 1, y: y + d - 3, w: Math.max(0, w - 2), d: 2 };
    sheet.fills([bar], '#ffffff');
    sheet.fills([{ ...bar, w: bar.w * share }], '#22292e');
    sheet.line(rectCorners(bar), { closed: true, width: 0.2 });
  }
  return bounds.d / scale;
}
/** Height of names on a report's plans, mm. */
const NAMES = 2.2;
