import { HttpStatus } from '@nestjs/common';
import { addDays, formatISO, parseISO } from 'date-fns';
import { z } from 'zod';
import { seamRemedies, neighboursOf, seamSheet, seamState } from '@quarry/core/cut';
import {
  OUTLINE_TEXT,
  PAPER_NAMES,
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
  type Paper,
} from '@quarry/core/formats';
import { buildUp } from '@quarry/core/assembly';
import { countedRelief } from '@quarry/core/masonry';
import { compileRelief, type Relief } from '@quarry/core/terrain';
import { reachOf } from '@quarry/core/reach';
import { showLabels, showOf } from '@quarry/core/transport';
import { SEAM_SIDES, displayOf, idSchema, listOf, type Scene } from '@quarry/core/document';
import { currentPlace, withPlace } from '@quarry/core/venue';
import { ApiError, notFound } from '../http/errors.ts';
import { buildSheets, buildingSheets } from './buildSheets.ts';
import type { Print } from './paper.ts';
import { labelSheet } from './labelSheet.ts';
import { planSheet, planTiles } from './planSheet.ts';
import { orderSheet, seamSheetPdf, seamStripPdf } from './seamSheet.ts';
import { rulesSheet } from './rulesSheet.ts';
import { surveySheet } from './surveySheet.ts';

export const paperQuerySchema = z.strictObject({
  units: z.enum(['mm', 'in']).default('mm'),
  /** Left out: Letter with inches, else A4. */
  paper: z.enum(PAPER_NAMES).optional(),
});
export const querySchema = paperQuerySchema.extend({
  /** The version of the display; left out: its base. */
  version: idSchema.optional(),
  /** The place to draw; left out: where the display stands. */
  place: idSchema.optional(),
  /** Of the plan: 1 to this. Left out: as large as fits. */
  scale: z.coerce.number().int().min(1).max(500).optional(),
  /** Of tiles and build sheets: one module only. */
  module: idSchema.optional(),
  /** Of build sheets: one building only. */
  plot: idSchema.optional(),
  /** Of tiles: of what, where no module is named: the whole plan, or each module for itself. */
  of: z.enum(['plan', 'modules']).default('plan'),
  /** Of seam sheets: which seam, and of an edge which side. */
  seam: idSchema.optional(),
  side: z.enum(SEAM_SIDES).default('a'),
  /** Of labels: where this program is reached, for their codes. */
  base: z
    .url({ protocol: /^https?$/ })
    .max(200)
    .optional(),
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

/** A requested seam with its state. */
function seamOf(scene: Scene, relief: Relief, id: string | undefined) {
  const neighbours = neighboursOf(scene).find((pair) => pair.id === id);
  if (!neighbours) throw notFound('seam');
  const sheet = seamSheet(scene, relief, neighbours);
  const written = scene.seam[neighbours.id];
  return {
    sheet,
    written,
    state: seamState(written, sheet),
    mends: written ? seamRemedies(written, sheet) : [],
  };
}

/** What a sheet is made of besides the display. */
export interface DocumentRequest {
  id: string;
  file: string;
  query: z.infer<typeof querySchema>;
  person: string | null;
  /** Who asks, for the file's author. */
  author: string;
  fonts: string;
  /** Now, ISO. */
  now: string;
}

/** A file as it is sent. */
export interface RenderedDocument {
  type: string;
  body: Uint8Array | string;
  /** To be kept rather than shown. */
  attached: boolean;
  /** What it is called, in words: “Skarn Edge”, “seam”, “A3”, “C1”, and its ending. */
  name: readonly string[];
  ending: string;
}

/** The paper that units usually go with. */
export const paperFor = (units: Print['units'], paper?: Paper): Paper =>
  paper ?? (units === 'in' ? 'letter' : 'a4');

/** Makes one of the files of a display. @throws ApiError 404 for what there is not */
export async function makeSheet(scene: Scene, ask: DocumentRequest): Promise<RenderedDocument> {
  const { id, file, query, person, author, fonts, now } = ask;
  const { units, place, scale, module, plot, of, seam, side, base } = query;
  const seen = place === undefined ? scene : atPlace(scene, place);
  const printed = formatISO(parseISO(now), { representation: 'date' });
  const print: Print = { units, printed, fonts, author, paper: paperFor(units, query.paper) };
  const outline = () => surveyDrawing(seen, { units, textSize: OUTLINE_TEXT });
  const plan = () => planDrawing(scene, compileRelief(scene), { textSize: PLAN_TEXT });
  const as =
    (type: string, attached: boolean) =>
    (body: Uint8Array | string, ...name: string[]): RenderedDocument => ({
      ...{ type, body, attached, ending: file.split('.').at(-1) ?? '' },
      name: [displayOf(scene).name, ...name],
    });
  const pdf = as('application/pdf', false);
  // A drawing made by people with names of their own: shown as a picture, never run.
  const svg = as('image/svg+xml', false);
  const kept = (type: string) => as(type, true);
  const asked = module === undefined ? undefined : moduleOf(scene, module);
  switch (file) {
    case 'survey.pdf':
      return pdf(await surveySheet(seen, print), 'survey', placeName(seen));
    case 'rules.pdf':
      return pdf(await rulesSheet(scene, print), 'house rules');
    case 'survey.svg':
      return svg(writeSvg(outline()), 'survey', placeName(seen));
    case 'survey.dxf':
      return kept('image/vnd.dxf')(writeDxf(outline()), 'survey', placeName(seen));
    case 'plan.pdf':
      return pdf(await planSheet(scene, print, scale), 'plan', scale === undefined ? '' : `1 to ${scale}`);
    case 'tiles.pdf': {
      const modules = asked ? [asked] : of === 'modules' ? listOf(scene, 'module') : undefined;
      return pdf(
        await planTiles(scene, print, modules),
        'tiles',
        asked?.name ?? (modules ? 'all modules' : ''),
      );
    }
    case 'plan.svg':
      return svg(writeSvg(plan(), PLAN_PEN), 'plan');
    case 'plan.dxf':
      return kept('image/vnd.dxf')(writeDxf(plan()), 'plan');
    case 'heights.asc':
      return kept('text/plain')(writeAsc(compileRelief(scene)), 'heights');
    case 'agenda.ics': {
      const day = (ahead: number) => formatISO(addDays(parseISO(now), ahead), { representation: 'date' });
      const span = { from: day(-AGENDA_BACK), to: day(AGENDA_AHEAD), id, stamp: parseISO(now).getTime() };
      return kept('text/calendar')(writeAgenda(scene, person, span), 'agenda');
    }
    case 'order.pdf': {
      // Who lifts hangs on what is weighed: by counted pieces, as the pages do.
      const relief = countedRelief(scene);
      const order = buildUp(scene, relief, reachOf(scene, relief));
      return pdf(await orderSheet(scene, order, print), 'order of building up');
    }
    case 'labels.pdf': {
      if (base === undefined)
        throw new ApiError(
          HttpStatus.BAD_REQUEST,
          'bad-request',
          'Labels need a base: where this program is reached.',
        );
      const labels = showLabels(showOf(scene, countedRelief(scene)));
      const addressOf = ({ key }: { key: string }) =>
        new URL(`/d/${id}/transport?sheet=load&thing=${encodeURIComponent(key)}`, base).href;
      return pdf(await labelSheet(scene, labels, addressOf, print), 'labels');
    }
    case 'layers.pdf': {
      const building = plot === undefined ? undefined : plotOf(scene, plot);
      return building
        ? pdf(await buildingSheets(scene, building, print), 'build sheets', building.name)
        : pdf(await buildSheets(scene, module, print), 'build sheets', asked?.name ?? 'all modules');
    }
  }
  if (!SEAM_FILES.some((one) => one === file)) throw notFound('sheet');
  const relief = compileRelief(scene);
  const found = seamOf(scene, relief, seam);
  const { a, b } = found.sheet.neighbours;
  if (file === 'seam.pdf') return pdf(await seamSheetPdf(scene, found, print), 'seam', a.name, b.name);
  if (file === 'strip.pdf')
    return pdf(await seamStripPdf(scene, found.sheet, print), 'strip', a.name, b.name);
  if (file === 'strip.svg') return svg(writeSvg(seamStrip(found.sheet), STRIP_PEN), 'strip', a.name, b.name);
  if (file === 'seam.csv') return kept('text/csv')(seamCsv(scene, found.sheet), 'seam', a.name, b.name);
  if (file === 'seam.json') {
    const json = seamJson(found.sheet, found.written, found.state, found.mends);
    return kept('application/json')(json, 'seam', a.name, b.name);
  }
  const own = side === 'a' ? a.name : b.name;
  const other = side === 'a' ? b.name : a.name;
  const edge = writeAsc(edgeRelief(relief, found.sheet, side));
  return kept('text/plain')(edge, 'edge of', own, 'at', other);
}

const placeName = (scene: Scene) => currentPlace(scene)?.name ?? '';

function moduleOf(scene: Scene, module: string) {
  if (!Object.hasOwn(scene.module, module)) throw notFound('module');
  return scene.module[module];
}

function plotOf(scene: Scene, plot: string) {
  if (!Object.hasOwn(scene.plot, plot)) throw notFound('building');
  return scene.plot[plot];
}

function atPlace(scene: Scene, place: string): Scene {
  if (!Object.hasOwn(scene.place, place))
    throw new ApiError(HttpStatus.NOT_FOUND, 'not-found', `This display has no place “${place}”.`);
  return withPlace(scene, place);
}
