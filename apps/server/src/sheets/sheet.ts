import { HttpStatus } from '@nestjs/common';
import { addDays, formatISO, parseISO } from 'date-fns';
import { z } from 'zod';
import { mendList, neighboursOf, seamSheet, seamState } from '@quarry/core/cut';
import {
  OUTLINE_TEXT,
  edgeRelief,
  planDrawing,
  seamCsv,
  seamJson,
  seamStrip,
  surveyDrawing,
  writeAgenda,
  writeAsc,
  writeDxf,
  writeSvg,
} from '@quarry/core/formats';
import { buildUp } from '@quarry/core/haul';
import { builtBlock } from '@quarry/core/masonry';
import { compile, compileRelief, type Relief } from '@quarry/core/relief';
import { reachOf } from '@quarry/core/sight';
import { SEAM_SIDES, idSchema, type Scene } from '@quarry/core/scene';
import { withPlace } from '@quarry/core/site';
import { ApiError, notFound } from '../http/errors.ts';
import { layerSheets } from './materialsSheet.ts';
import { planSheet, planTiles } from './planSheet.ts';
import { orderSheet, seamSheetPdf, seamStripPdf } from './seamSheet.ts';
import { rulesSheet } from './rulesSheet.ts';
import { surveySheet } from './surveySheet.ts';

export const querySchema = z.strictObject({
  units: z.enum(['mm', 'in']).default('mm'),
  /** The place to draw; left out: where the display stands. */
  place: idSchema.optional(),
  /** Of the plan: 1 to this. Left out: as large as fits. */
  scale: z.coerce.number().int().min(1).max(500).optional(),
  /** Of the tiles: one module only. */
  module: idSchema.optional(),
  /** Of seam sheets: which seam, and of an edge which side. */
  seam: idSchema.optional(),
  side: z.enum(SEAM_SIDES).default('a'),
});

/** Texts and the finest line of a plan's outlines, mm of the drawing. */
const PLAN_TEXT = 14;
const PLAN_PEN = 0.8;

const SEAM_FILES = ['seam.pdf', 'strip.pdf', 'strip.svg', 'seam.csv', 'seam.json', 'edge.asc'] as const;
/** How far an agenda goes back and ahead, days. */
const AGENDA_BACK = 7;
const AGENDA_AHEAD = 200;
/** The finest line of a strip, mm. */
const STRIP_PEN = 0.12;

/** A seam that somebody asks for, with how it stands. */
function seamOf(scene: Scene, relief: Relief, id: string | undefined) {
  const neighbours = neighboursOf(scene).find((pair) => pair.id === id);
  if (!neighbours) throw notFound('seam');
  const sheet = seamSheet(scene, relief, neighbours);
  const written = scene.seam[neighbours.id];
  return { sheet, written, state: seamState(written, sheet), mends: written ? mendList(written, sheet) : [] };
}

/** What a sheet is made of besides the display. */
export interface SheetAsk {
  id: string;
  file: string;
  query: z.infer<typeof querySchema>;
  person: string | null;
  fonts: string;
  /** Now, ISO. */
  now: string;
}

/** A file as it is sent. */
export interface Made {
  type: string;
  body: Uint8Array | string;
  /** To be kept rather than shown. */
  attached: boolean;
}

/** Makes one of the files of a display. @throws ApiError 404 for what there is not */
export async function makeSheet(
  scene: Scene,
  { id, file, query, person, fonts, now }: SheetAsk,
): Promise<Made> {
  const { units, place, scale, module, seam, side } = query;
  const seen = place === undefined ? scene : atPlace(scene, place);
  const printed = formatISO(parseISO(now), { representation: 'date' });
  const print = { units, printed, fonts };
  const outline = () => surveyDrawing(seen, { units, textSize: OUTLINE_TEXT });
  const plan = () => planDrawing(scene, compileRelief(scene), { textSize: PLAN_TEXT });
  const pdf = (body: Uint8Array): Made => ({ type: 'application/pdf', body, attached: false });
  // A drawing made by people with names of their own: shown as a picture, never run.
  const svg = (body: string): Made => ({ type: 'image/svg+xml', body, attached: false });
  const kept = (type: string, body: string): Made => ({ type, body, attached: true });
  const asked = module === undefined ? undefined : moduleOf(scene, module);
  switch (file) {
    case 'survey.pdf':
      return pdf(await surveySheet(seen, print));
    case 'rules.pdf':
      return pdf(await rulesSheet(scene, print));
    case 'survey.svg':
      return svg(writeSvg(outline()));
    case 'survey.dxf':
      return kept('image/vnd.dxf', writeDxf(outline()));
    case 'plan.pdf':
      return pdf(await planSheet(scene, print, scale));
    case 'tiles.pdf':
      return pdf(await planTiles(scene, print, asked));
    case 'plan.svg':
      return svg(writeSvg(plan(), PLAN_PEN));
    case 'plan.dxf':
      return kept('image/vnd.dxf', writeDxf(plan()));
    case 'heights.asc':
      return kept('text/plain', writeAsc(compileRelief(scene)));
    case 'agenda.ics': {
      const day = (ahead: number) => formatISO(addDays(parseISO(now), ahead), { representation: 'date' });
      const span = { from: day(-AGENDA_BACK), to: day(AGENDA_AHEAD), id, stamp: parseISO(now).getTime() };
      return kept('text/calendar', writeAgenda(scene, person, span));
    }
    case 'order.pdf': {
      const relief = compileRelief(scene);
      return pdf(await orderSheet(scene, buildUp(scene, relief, reachOf(scene, relief)), print));
    }
    case 'layers.pdf': {
      const built = asked ? builtBlock(scene, compile(scene), asked.id) : null;
      if (!built) throw notFound('module');
      const paper = units === 'in' ? 'letter' : 'a4';
      const title = `Module ${built.ground.block.name}`;
      return pdf(await layerSheets(scene, title, built, { printed, fonts, paper }));
    }
  }
  if (!SEAM_FILES.some((one) => one === file)) throw notFound('sheet');
  const relief = compileRelief(scene);
  const found = seamOf(scene, relief, seam);
  if (file === 'seam.pdf') return pdf(await seamSheetPdf(scene, found, print));
  if (file === 'strip.pdf') return pdf(await seamStripPdf(scene, found.sheet, print));
  if (file === 'strip.svg') return svg(writeSvg(seamStrip(found.sheet), STRIP_PEN));
  if (file === 'seam.csv') return kept('text/csv', seamCsv(found.sheet));
  if (file === 'seam.json')
    return kept('application/json', seamJson(found.sheet, found.written, found.state, found.mends));
  return kept('text/plain', writeAsc(edgeRelief(relief, found.sheet, side)));
}

function moduleOf(scene: Scene, module: string) {
  if (!Object.hasOwn(scene.module, module)) throw notFound('module');
  return scene.module[module];
}

function atPlace(scene: Scene, place: string): Scene {
  if (!Object.hasOwn(scene.place, place))
    throw new ApiError(HttpStatus.NOT_FOUND, 'not-found', `This display has no place «${place}».`);
  return withPlace(scene, place);
}
