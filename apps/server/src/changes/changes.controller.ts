import { randomUUID } from 'node:crypto';
import { setImmediate as nextTurn } from 'node:timers/promises';
import { Controller, Get, Headers, HttpCode, Inject, Post, Req, Res } from '@nestjs/common';
import { ApiTags } from '@nestjs/swagger';
import type { Request, Response } from 'express';
import type { z } from 'zod';
import { batchSchema, type Actor, type Batch } from '@quarry/core/document';
import {
  hereSchema,
  sinceQuerySchema,
  streamQuerySchema,
  type Acknowledged,
  type CommittedBatch,
} from '@quarry/protocol/changes';
import type { User } from '@quarry/protocol/accounts';
import { digest } from '../accounts/accounts.service.ts';
import { sessionToken } from '../accounts/session.ts';
import { DisplaysService } from '../displays/displays.service.ts';
import { CurrentActor, CurrentUser, OnDisplay } from '../http/access.ts';
import { PathId, ValidBody, ValidQuery } from '../http/validated.ts';
import { HubService, committedText, type Listener } from './hub.service.ts';
import { WriterService } from './writer.service.ts';

/** Proxies close a silent line after half a minute or more. */
const HEARTBEAT_MS = 20_000;
/** A client that missed more batches than this reloads the display: that is less to send. */
const MAX_MISSED = 1000;
/** A reader that takes nothing off its line is let go at this many bytes; it comes back by itself. */
const MAX_UNREAD = 4_000_000;

@ApiTags('changes')
@Controller('api/displays/:id')
@OnDisplay()
export class ChangesController {
  constructor(
    @Inject(DisplaysService) private readonly displays: DisplaysService,
    @Inject(WriterService) private readonly writer: WriterService,
    @Inject(HubService) private readonly hub: HubService,
  ) {}

  /** Lands a batch whole or not at all. Sent again with the same id it answers the same and changes nothing. */
  @Post('batches')
  @HttpCode(200)
  async commit(
    @PathId() id: string,
    @ValidBody(batchSchema) batch: Batch,
    @CurrentUser() user: User,
    @CurrentActor() actor: Actor,
  ): Promise<Acknowledged> {
    // Reading a long one took a while: others have their turn before it is judged.
    await nextTurn();
    return this.writer.write(id, user, actor, batch);
  }

  /** The log after a number, at most a thousand batches at a time. */
  @Get('batches')
  since(
    @PathId() id: string,
    @ValidQuery(sinceQuerySchema) { after }: z.output<typeof sinceQuerySchema>,
  ): CommittedBatch[] {
    return this.writer.since(id, after, MAX_MISSED);
  }

  /** Says where a window is: which page, which section, what is picked. Forgotten when its stream ends. */
  @Post('here')
  @HttpCode(204)
  here(
    @PathId() id: string,
    @ValidBody(hereSchema) { client, ...where }: z.output<typeof hereSchema>,
    @CurrentUser() user: User,
  ): void {
    this.hub.moved(id, user.id, client, where);
  }

  /**
   * Server-sent events: first what was missed, then every batch as it lands (unnamed events, numbered); `here` with
   * everybody's whereabouts and `moved` with what changes of them, `membership-changed` when the reader's own role changed, `behind` when too much was missed to send,
   * `gone` when one may not listen any longer.
   */
  @Get('stream')
  stream(
    @PathId() id: string,
    @ValidQuery(streamQuerySchema) { after, epoch, client }: z.output<typeof streamQuerySchema>,
    @Headers('last-event-id') last: string | undefined,
    @CurrentUser() user: User,
    @CurrentActor() { person }: Actor,
    @Req() request: Request,
    @Res() response: Response,
  ): void {
    this.hub.refuseTooMany(id, user.id);
    response.writeHead(200, {
      'content-type': 'text/event-stream',
      'cache-control': 'no-store',
      connection: 'keep-alive',
      'x-accel-buffering': 'no',
    });
    const send = (text: string) => {
      if (response.writableLength > MAX_UNREAD) response.destroy();
      else response.write(text);
    };
    send(': open\n\n');
    const known = last === undefined ? after : sinceQuerySchema.parse({ after: last }).after;
    const { seq } = this.displays.load(id);
    // What was read from another copy of the database, or from a longer log than the present one, is reloaded.
    const isOther = (epoch >= 0 && epoch !== this.displays.epoch) || known > seq;
    if (isOther || seq - known > MAX_MISSED) send('event: behind\ndata: {}\n\n');
    else for (const landed of this.writer.since(id, known, MAX_MISSED)) send(committedText(landed));
    const listener: Listener = {
      userId: user.id,
      session: digest(sessionToken(request) ?? ''),
      present: {
        client: client || randomUUID(),
        name: user.name,
        person,
        page: '',
        section: null,
        picked: [],
      },
      send,
      end: () => response.end(),
    };
    const leave = this.hub.subscribe(id, listener);
    const beat = setInterval(() => send(': still here\n\n'), HEARTBEAT_MS);
    request.on('close', () => {
      clearInterval(beat);
      leave();
    });
  }
}
