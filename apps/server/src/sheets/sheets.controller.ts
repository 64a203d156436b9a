import { Controller, Get, HttpCode, HttpStatus, Inject, Post, Res } from '@nestjs/common';
import { ApiTags } from '@nestjs/swagger';
import contentDisposition from 'content-disposition';
import { formatISO } from 'date-fns';
import { fileName } from '@quarry/core/formats';
import type { Response } from 'express';
import { z } from 'zod';
import type { Actor } from '@quarry/core/document';
import type { User } from '@quarry/protocol/accounts';
import { CONFIG, type Config } from '../config.ts';
import { DisplaysService } from '../displays/displays.service.ts';
import { HistoryService } from '../history/history.service.ts';
import { ApiError } from '../http/errors.ts';
import { CurrentActor, CurrentUser, OnDisplay } from '../http/access.ts';
import { PathId, ValidBody, ValidParam, ValidQuery } from '../http/validated.ts';
import { enlargedSchema } from './enlargedSheet.ts';
import { listsSchema } from './listSheet.ts';
import { pickSchema } from './pickSheet.ts';
import { PressService } from './press.service.ts';
import { reportBodySchema } from './reportSheet.ts';
import type { Print } from './paper.ts';
import { paperFor, paperQuerySchema, querySchema, type RenderedDocument } from './sheet.ts';

/** Name of a sheet with its ending. */
const fileSchema = z.string().max(60);
type PaperQuery = z.output<typeof paperQuerySchema>;

/** Sheets to print and outlines to work from, made from the display as it stands, in worker threads. */
@ApiTags('sheets')
@Controller('api/displays/:id/sheets')
@OnDisplay()
export class SheetsController {
  constructor(
    @Inject(DisplaysService) private readonly displays: DisplaysService,
    @Inject(HistoryService) private readonly history: HistoryService,
    @Inject(PressService) private readonly press: PressService,
    @Inject(CONFIG) private readonly config: Config,
  ) {}

  @Get(':file')
  async sheet(
    @PathId() id: string,
    @ValidParam('file', fileSchema) file: string,
    @ValidQuery(querySchema) query: z.output<typeof querySchema>,
    @CurrentUser() user: User,
    @CurrentActor() { person }: Actor,
    @Res() response: Response,
  ): Promise<void> {
    // A code that a phone opens leads here and nowhere else.
    if (query.base !== undefined && new URL(query.base).host !== response.req.get('host'))
      throw new ApiError(
        HttpStatus.BAD_REQUEST,
        'bad-request',
        `Codes of labels lead to ${response.req.get('host')}, where this program runs, not to ${new URL(query.base).host}.`,
      );
    const { scene } = this.displays.load(id);
    const ask = {
      ...{ id, file, person, author: user.name, query },
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
    @PathId() id: string,
    @ValidQuery(paperQuerySchema) query: PaperQuery,
    @ValidBody(pickSchema) pick: z.output<typeof pickSchema>,
    @CurrentUser() user: User,
    @Res() response: Response,
  ): Promise<void> {
    const { scene } = this.displays.load(id);
    const job = {
      ...{ what: 'pick' as const, rows: this.press.textOf(scene), pick },
      print: this.print(query, user),
    };
    send(response, await this.press.make(user.id, job, goneSignal(response)));
  }

  /** Prints lists that the page worked out: nothing of the display is changed. */
  @Post('lists.pdf')
  @HttpCode(HttpStatus.OK)
  async lists(
    @PathId() id: string,
    @ValidQuery(paperQuerySchema) query: PaperQuery,
    @ValidBody(listsSchema) lists: z.output<typeof listsSchema>,
    @CurrentUser() user: User,
    @Res() response: Response,
  ): Promise<void> {
    const { scene } = this.displays.load(id);
    const job = {
      ...{ what: 'lists' as const, rows: this.press.textOf(scene), lists },
      print: this.print(query, user),
    };
    send(response, await this.press.make(user.id, job, goneSignal(response)));
  }

  /** Prints a drawing that a page enlarged: it is kept nowhere. */
  @Post('enlarged.pdf')
  @HttpCode(HttpStatus.OK)
  async enlarged(
    @PathId() id: string,
    @ValidQuery(paperQuerySchema) query: PaperQuery,
    @ValidBody(enlargedSchema) enlarged: z.output<typeof enlargedSchema>,
    @CurrentUser() user: User,
    @Res() response: Response,
  ): Promise<void> {
    const { scene } = this.displays.load(id);
    const job = {
      ...{ what: 'enlarged' as const, rows: this.press.textOf(scene), enlarged },
      print: this.print(query, user),
    };
    send(response, await this.press.make(user.id, job, goneSignal(response)));
  }

  /** Prints a report, edited or as computed, with the plans of both its moments. */
  @Post('report.pdf')
  @HttpCode(HttpStatus.OK)
  async report(
    @PathId() id: string,
    @ValidQuery(paperQuerySchema) query: PaperQuery,
    @ValidBody(reportBodySchema) report: z.output<typeof reportBodySchema>,
    @CurrentUser() user: User,
    @Res() response: Response,
  ): Promise<void> {
    const now = this.history.sceneAt(id, report.report.upto).scene;
    const job = {
      ...{ what: 'report' as const, report, print: this.print(query, user) },
      before: this.press.textOf(this.history.sceneAt(id, report.report.from).scene),
      rows: this.press.textOf(now),
    };
    send(response, await this.press.make(user.id, job, goneSignal(response)));
  }

  private print({ units, paper }: PaperQuery, { name }: User): Print {
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
