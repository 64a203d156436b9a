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
import contentDisposition from 'content-disposition';
import { formatISO } from 'date-fns';
import { fileName } from '@quarry/core/formats';
import type { Response } from 'express';
import type { User } from '../accounts/accounts.service.ts';
import { CurrentUser, SignedInGuard } from '../accounts/session.ts';
import { CONFIG, type Config } from '../config.ts';
import { DisplaysService } from '../displays/displays.service.ts';
import { HistoryService } from '../history/history.service.ts';
import { parseBody } from '../http/errors.ts';
import { pickSchema } from './pickSheet.ts';
import { PressService } from './press.service.ts';
import { reportBodySchema } from './reportSheet.ts';
import type { Print } from './paper.ts';
import { paperFor, paperQuerySchema, querySchema, type RenderedDocument } from './sheet.ts';

/** Sheets to print and outlines to work from, made from the display as it stands, in worker threads. */
@ApiTags('sheets')
@Controller('api/displays/:id/sheets')
@UseGuards(SignedInGuard)
export class SheetsController {
  constructor(
    @Inject(DisplaysService) private readonly displays: DisplaysService,
    @Inject(HistoryService) private readonly history: HistoryService,
    @Inject(PressService) private readonly press: PressService,
    @Inject(CONFIG) private readonly config: Config,
  ) {}

  @Get(':file')
  @ApiQuery({ name: 'units', enum: ['mm', 'in'], required: false })
  @ApiQuery({ name: 'paper', enum: ['a4', 'letter'], required: false })
  @ApiQuery({ name: 'of', enum: ['plan', 'modules'], required: false })
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
    const { scene } = this.displays.load(id);
    const ask = {
      ...{ id, file, person, author: user.name, query: parseBody(querySchema, query) },
      ...{ fonts: this.config.fonts, now: new Date().toISOString() },
    };
    const made = await this.press.make(
      user.id,
      { what: 'sheet', rows: this.press.textOf(scene), ask },
      goneSignal(response),
    );
    send(response, made);
  }

  /** Prints a list that the page worked out: nothing of the display is changed. */
  @Post('pick.pdf')
  @HttpCode(HttpStatus.OK)
  async pick(
    @Param('id') id: string,
    @Query() query: unknown,
    @Body() body: unknown,
    @CurrentUser() user: User,
    @Res() response: Response,
  ): Promise<void> {
    this.displays.actor(id, user);
    const { scene } = this.displays.load(id);
    const pick = parseBody(pickSchema, body);
    const job = {
      ...{ what: 'pick' as const, rows: this.press.textOf(scene), pick },
      print: this.print(query, user),
    };
    send(response, await this.press.make(user.id, job, goneSignal(response)));
  }

  /** Prints a report, edited or as computed, with the plans of both its moments. */
  @Post('report.pdf')
  @HttpCode(HttpStatus.OK)
  async report(
    @Param('id') id: string,
    @Query() query: unknown,
    @Body() body: unknown,
    @CurrentUser() user: User,
    @Res() response: Response,
  ): Promise<void> {
    this.displays.actor(id, user);
    const report = parseBody(reportBodySchema, body);
    const now = this.history.sceneAt(id, report.report.upto).scene;
    const job = {
      ...{ what: 'report' as const, report, print: this.print(query, user) },
      before: this.press.textOf(this.history.sceneAt(id, report.report.from).scene),
      rows: this.press.textOf(now),
    };
    send(response, await this.press.make(user.id, job, goneSignal(response)));
  }

  private print(query: unknown, { name }: User): Print {
    const { units, paper } = parseBody(paperQuerySchema, query);
    const printed = formatISO(new Date(), { representation: 'date' });
    return { printed, units, author: name, fonts: this.config.fonts, paper: paperFor(units, paper) };
  }
}

/** Aborts when the one who asked has gone. */
function goneSignal(response: Response): AbortSignal {
  const gone = new AbortController();
  response.on('close', () => gone.abort());
  return gone.signal;
}

function send(response: Response, { type, body, attached, name, ending }: RenderedDocument): void {
  if (response.destroyed) return;
  response
    .type(type)
    .set(
      'Content-Disposition',
      contentDisposition(fileName(name, ending), { type: attached ? 'attachment' : 'inline' }),
    )
    .send(typeof body === 'string' ? body : Buffer.from(body));
}
