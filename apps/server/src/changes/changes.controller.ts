import { randomUUID } from 'node:crypto';
import { setImmediate as nextTurn } from 'node:timers/promises';
import {
  Body,
  Controller,
  Get,
  Headers,
  HttpCode,
  Inject,
  Param,
  Post,
  Query,
  Req,
  Res,
  UseGuards,
} from '@nestjs/common';
import { ApiBody, ApiQuery, ApiTags } from '@nestjs/swagger';
import type { Request, Response } from 'express';
import { createZodDto } from 'nestjs-zod';
import { z } from 'zod';
import { batchSchema, idSchema, kindSchema } from '@quarry/core/document';
import { digest, type User } from '../accounts/accounts.service.ts';
import { CurrentUser, SignedInGuard, sessionToken } from '../accounts/session.ts';
import { DisplaysService } from '../displays/displays.service.ts';
import { parseBody } from '../http/errors.ts';
import { HubService, committedText, type CommittedBatch, type Listener } from './hub.service.ts';
import { WriterService, type Acknowledged } from './writer.service.ts';

class BatchDto extends createZodDto(batchSchema) {}
const afterSchema = z.coerce.number().int().min(0).catch(0);

/** −1: unknown, which does not force a reload. */
const epochSchema = z.coerce.number().int().min(0).catch(-1);
const clientSchema = z.uuid().catch('');
const hereSchema = z.strictObject({
  client: z.uuid(),
  page: z.string().max(20),
  section: idSchema.nullable(),
  picked: z.array(z.strictObject({ kind: kindSchema, id: idSchema })).max(20),
});
class HereDto extends createZodDto(hereSchema) {}

/** Proxies close a silent line after half a minute or more. */
const HEARTBEAT_MS = 20_000;
/** A client that missed more batches than this reloads the display: that is less to send. */
const MAX_MISSED = 1000;
/** A reader that takes nothing off its line is let go at this many bytes; it comes back by itself. */
const MAX_UNREAD = 4_000_000;

@ApiTags('changes')
@Controller('api/displays/:id')
@UseGuards(SignedInGuard)
export class ChangesController {
  constructor(
    @Inject(DisplaysService) private readonly displays: DisplaysService,
    @Inject(WriterService) private readonly writer: WriterService,
    @Inject(HubService) private readonly hub: HubService,
  ) {}

  /** Lands a batch whole or not at all. Sent again with the same id it answers the same and changes nothing. */
  @Post('batches')
  @HttpCode(200)
  @ApiBody({ type: BatchDto })
  async commit(
    @Param('id') id: string,
    @Body() body: unknown,
    @CurrentUser() user: User,
  ): Promise<Acknowledged> {
    const actor = this.displays.actor(id, user);
    const batch = parseBody(batchSchema, body);
    // Reading a long one took a while: others have their turn before it is judged.
    await nextTurn();
    return this.writer.write(id, user, actor, batch);
  }

  /** The log after a number, at most a thousand batches at a time. */
  @Get('batches')
  @ApiQuery({ name: 'after', required: false, description: 'number of the last batch already known' })
  since(
    @Param('id') id: string,
    @Query('after') after: unknown,
    @CurrentUser() user: User,
  ): CommittedBatch[] {
    this.displays.actor(id, user);
    return this.writer.since(id, afterSchema.parse(after), MAX_MISSED);
  }

  /** Says where a window is: which page, which section, what is picked. Forgotten when its stream ends. */
  @Post('here')
  @HttpCode(204)
  @ApiBody({ type: HereDto })
  here(@Param('id') id: string, @Body() body: unknown, @CurrentUser() user: User): void {
    this.displays.actor(id, user);
    const { client, ...where } = parseBody(hereSchema, body);
    this.hub.moved(id, user.id, client, where);
  }

  /**
   * Server-sent events: first what was missed, then every batch as it lands (unnamed events, numbered); `here` with
   * everybody's whereabouts and `moved` with what changes of them, `membership-changed` when the reader's own role changed, `behind` when too much was missed to send,
   * `gone` when one may not listen any longer.
   */
  @Get('stream')
  stream(
    @Param('id') id: string,
    @Query('after') after: unknown,
    @Query('epoch') epoch: unknown,
    @Query('client') client: unknown,
    @Headers('last-event-id') last: unknown,
    @CurrentUser() user: User,
    @Req() request: Request,
    @Res() response: Response,
  ): void {
    const { person } = this.displays.actor(id, user);
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
    const known = afterSchema.parse(last ?? after);
    const { seq } = this.displays.load(id);
    // What was read from another copy of the database, or from a longer log than the present one, is reloaded.
    const read = epochSchema.parse(epoch ?? -1);
    const isOther = (read >= 0 && read !== this.displays.epoch) || known > seq;
    if (isOther || seq - known > MAX_MISSED) send('event: behind\ndata: {}\n\n');
    else for (const landed of this.writer.since(id, known, MAX_MISSED)) send(committedText(landed));
    const listener: Listener = {
      userId: user.id,
      session: digest(sessionToken(request) ?? ''),
      present: {
        client: clientSchema.parse(client) || randomUUID(),
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
