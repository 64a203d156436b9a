import {
  Body,
  Controller,
  Get,
  HttpCode,
  HttpStatus,
  Inject,
  Param,
  Post,
  Query,
  Res,
  UseGuards,
} from '@nestjs/common';
import { ApiQuery, ApiTags } from '@nestjs/swagger';
import { addDays, formatISO } from 'date-fns';
import type { Response } from 'express';
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
import type { User } from '../accounts/accounts.service.ts';
import { CurrentUser, SignedInGuard } from '../accounts/session.ts';
import { CONFIG, type Config } from '../config.ts';
import { DisplaysService } from '../displays/displays.service.ts';
import { HistoryService } from '../history/history.service.ts';
import { ApiError, notFound, parseBody } from '../http/errors.ts';
import { fileStem } from '../http/fileStem.ts';
import { layerSheets, pickSchema, pickSheet } from './materialsSheet.ts';
import { planSheet, planTiles } from './planSheet.ts';
import { orderSheet, seamSheetPdf, seamStripPdf } from './seamSheet.ts';
import { reportBodySchema, reportSheet } from './reportSheet.ts';
import { rulesSheet } from './rulesSheet.ts';
import { surveySheet } from './surveySheet.ts';

const querySchema = z.strictObject({
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

/** Sheets to print and outlines to work from, made from the display as it stands. */
@ApiTags('sheets')
@Controller('api/displays/:id/sheets')
@UseGuards(SignedInGuard)
export class SheetsController {
  constructor(
    @Inject(DisplaysService) private readonly displays: DisplaysService,
    @Inject(HistoryService) private readonly history: HistoryService,
    @Inject(CONFIG) private readonly config: Config,
  ) {}

  @Get(':file')
  @ApiQuery({ name: 'units', enum: ['mm', 'in'], required: false })
  @ApiQuery({ name: 'place', required: false })
  @ApiQuery({ name: 'scale', required: false })
  @ApiQuery({ name: 'module', required: false })
  @ApiQuery({ name: 'seam', required: false })
  @ApiQuery({ name: 'side', enum: ['a', 'b'], required: false })
  async sheet(
    @Param('id') id: string,
    @Param('file') file: string,
    @Query() query: unknown,
    @CurrentUser() user: User,
    @Res() response: Response,
  ): Promise<void> {
    const { person } = this.displays.actor(id, user);
    const { units, place, scale, module, seam, side } = parseBody(querySchema, query);
    const { scene } = this.displays.hold(id);
    const seen = place === undefined ? scene : this.at(scene, place);
    const print = {
      units,
      printed: formatISO(new Date(), { representation: 'date' }),
      fonts: this.config.fonts,
    };
    const outline = () => surveyDrawing(seen, { units, textSize: OUTLINE_TEXT });
    const plan = () => planDrawing(scene, compileRelief(scene), { textSize: PLAN_TEXT });
    const name = `${fileStem(scene)}-${file}`;
    const send = (type: string, body: Buffer | string) =>
      void response.type(type).set('Content-Disposition', `inline; filename="${name}"`).send(body);
    if (file === 'survey.pdf') send('application/pdf', await surveySheet(seen, print));
    else if (file === 'rules.pdf') send('application/pdf', await rulesSheet(scene, print));
    else if (file === 'survey.svg')
      // A drawing made by people with names of their own: shown as a picture, never run.
      send('image/svg+xml', writeSvg(outline()));
    else if (file === 'survey.dxf') {
      response.attachment(name);
      response.type('image/vnd.dxf').send(writeDxf(outline()));
    } else if (file === 'plan.pdf') send('application/pdf', await planSheet(scene, print, scale));
    else if (file === 'tiles.pdf') {
      if (module !== undefined && !scene.module[module]) throw notFound('module');
      send(
        'application/pdf',
        await planTiles(scene, print, module === undefined ? undefined : scene.module[module]),
      );
    } else if (file === 'plan.svg') send('image/svg+xml', writeSvg(plan(), PLAN_PEN));
    else if (file === 'plan.dxf') {
      response.attachment(name);
      response.type('image/vnd.dxf').send(writeDxf(plan()));
    } else if (file === 'heights.asc') {
      response.attachment(name);
      response.type('text/plain').send(writeAsc(compileRelief(scene)));
    } else if (file === 'agenda.ics') {
      const day = (ahead: number) => formatISO(addDays(new Date(), ahead), { representation: 'date' });
      const span = { from: day(-AGENDA_BACK), to: day(AGENDA_AHEAD), id, stamp: Date.now() };
      response.attachment(name);
      response.type('text/calendar').send(writeAgenda(scene, person, span));
    } else if (file === 'order.pdf') {
      const relief = compileRelief(scene);
      send('application/pdf', await orderSheet(scene, buildUp(scene, relief, reachOf(scene, relief)), print));
    } else if (file === 'layers.pdf') {
      const built = module === undefined ? null : builtBlock(scene, compile(scene), module);
      if (!built || module === undefined) throw notFound('module');
      const { printed, fonts } = print;
      const sheets = await layerSheets(scene, `Module ${built.ground.block.name}`, built, {
        ...{ printed, fonts, paper: units === 'in' ? 'letter' : 'a4' },
      });
      send('application/pdf', sheets);
    } else if (SEAM_FILES.some((one) => one === file)) {
      const relief = compileRelief(scene);
      const found = seamOf(scene, relief, seam);
      if (file === 'seam.pdf') send('application/pdf', await seamSheetPdf(scene, found, print));
      else if (file === 'strip.pdf') send('application/pdf', await seamStripPdf(scene, found.sheet, print));
      else if (file === 'strip.svg') send('image/svg+xml', writeSvg(seamStrip(found.sheet), STRIP_PEN));
      else {
        response.attachment(name);
        if (file === 'seam.csv') response.type('text/csv').send(seamCsv(found.sheet));
        else if (file === 'seam.json')
          response
            .type('application/json')
            .send(seamJson(found.sheet, found.written, found.state, found.mends));
        else response.type('text/plain').send(writeAsc(edgeRelief(relief, found.sheet, side)));
      }
    } else throw notFound('sheet');
  }

  /** Prints a list that the page worked out: nothing of the display is changed. */
  @Post('pick.pdf')
  @HttpCode(HttpStatus.OK)
  async pick(
    @Param('id') id: string,
    @Body() body: unknown,
    @CurrentUser() user: User,
    @Res() response: Response,
  ): Promise<void> {
    this.displays.actor(id, user);
    const { scene } = this.displays.hold(id);
    const printed = formatISO(new Date(), { representation: 'date' });
    const sheet = await pickSheet(scene, parseBody(pickSchema, body), {
      ...{ printed, fonts: this.config.fonts, paper: 'a4' },
    });
    response.type('application/pdf').send(sheet);
  }

  /** Prints a report that the page worked out and somebody edited, with the plans of both its moments. */
  @Post('report.pdf')
  @HttpCode(HttpStatus.OK)
  async report(
    @Param('id') id: string,
    @Body() body: unknown,
    @CurrentUser() user: User,
    @Res() response: Response,
  ): Promise<void> {
    this.displays.actor(id, user);
    const read = parseBody(reportBodySchema, body);
    const plans = {
      before: this.history.sceneAt(id, read.report.from).scene,
      now: this.history.sceneAt(id, read.report.upto).scene,
    };
    const printed = formatISO(new Date(), { representation: 'date' });
    const sheet = await reportSheet(read, plans, { printed, fonts: this.config.fonts, paper: 'a4' });
    response.type('application/pdf').send(sheet);
  }

  private at(scene: Scene, place: string): Scene {
    if (!scene.place[place])
      throw new ApiError(HttpStatus.NOT_FOUND, 'not-found', `This display has no place «${place}».`);
    return withPlace(scene, place);
  }
}
