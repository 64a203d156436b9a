import { Controller, Get, HttpStatus, Inject, Param, Query, Res, UseGuards } from '@nestjs/common';
import { ApiQuery, ApiTags } from '@nestjs/swagger';
import { formatISO } from 'date-fns';
import type { Response } from 'express';
import { z } from 'zod';
import { OUTLINE_TEXT, planDrawing, surveyDrawing, writeAsc, writeDxf, writeSvg } from '@quarry/core/formats';
import { compileRelief } from '@quarry/core/relief';
import { idSchema, type Scene } from '@quarry/core/scene';
import { withPlace } from '@quarry/core/site';
import type { User } from '../accounts/accounts.service.ts';
import { CurrentUser, SignedInGuard } from '../accounts/session.ts';
import { CONFIG, type Config } from '../config.ts';
import { DisplaysService } from '../displays/displays.service.ts';
import { ApiError, notFound, parseBody } from '../http/errors.ts';
import { fileStem } from '../http/fileStem.ts';
import { planSheet, planTiles } from './planSheet.ts';
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
});

/** Texts and the finest line of a plan's outlines, mm of the drawing. */
const PLAN_TEXT = 14;
const PLAN_PEN = 0.8;

/** Sheets to print and outlines to work from, made from the display as it stands. */
@ApiTags('sheets')
@Controller('api/displays/:id/sheets')
@UseGuards(SignedInGuard)
export class SheetsController {
  constructor(
    @Inject(DisplaysService) private readonly displays: DisplaysService,
    @Inject(CONFIG) private readonly config: Config,
  ) {}

  @Get(':file')
  @ApiQuery({ name: 'units', enum: ['mm', 'in'], required: false })
  @ApiQuery({ name: 'place', required: false })
  @ApiQuery({ name: 'scale', required: false })
  @ApiQuery({ name: 'module', required: false })
  async sheet(
    @Param('id') id: string,
    @Param('file') file: string,
    @Query() query: unknown,
    @CurrentUser() user: User,
    @Res() response: Response,
  ): Promise<void> {
    this.displays.actor(id, user);
    const { units, place, scale, module } = parseBody(querySchema, query);
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
    } else throw notFound('sheet');
  }

  private at(scene: Scene, place: string): Scene {
    if (!scene.place[place])
      throw new ApiError(HttpStatus.NOT_FOUND, 'not-found', `This display has no place «${place}».`);
    return withPlace(scene, place);
  }
}
