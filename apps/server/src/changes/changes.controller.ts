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
import { batchSchema } from '@quarry/core/scene';
import type { User } from '../accounts/accounts.service.ts';
import { CurrentUser, SignedInGuard } from '../accounts/session.ts';
import { DisplaysService } from '../displays/displays.service.ts';
import { parseBody } from '../http/errors.ts';
import { HubService, type Landed } from './hub.service.ts';
import { WriterService } from './writer.service.ts';

class BatchDto extends createZodDto(batchSchema) {}
const afterSchema = z.coerce.number().int().min(0).catch(0);
/** Proxies close a silent line after half a minute or more. */
const HEARTBEAT_MS = 20_000;

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
  async land(
    @Param('id') id: string,
    @Body() body: unknown,
    @CurrentUser() user: User,
  ): Promise<{ seq: number }> {
    const actor = this.displays.actor(id, user);
    return { seq: await this.writer.write(id, user, actor, parseBody(batchSchema, body)) };
  }

  @Get('batches')
  @ApiQuery({ name: 'after', required: false, description: 'number of the last batch already known' })
  since(@Param('id') id: string, @Query('after') after: unknown, @CurrentUser() user: User): Landed[] {
    this.displays.actor(id, user);
    return this.writer.since(id, afterSchema.parse(after));
  }

  /** Server-sent events: first what was missed, then every batch as it lands. */
  @Get('stream')
  stream(
    @Param('id') id: string,
    @Query('after') after: unknown,
    @Headers('last-event-id') last: unknown,
    @CurrentUser() user: User,
    @Req() request: Request,
    @Res() response: Response,
  ): void {
    this.displays.actor(id, user);
    response.writeHead(200, {
      'content-type': 'text/event-stream',
      'cache-control': 'no-store',
      connection: 'keep-alive',
      'x-accel-buffering': 'no',
    });
    const send = (landed: Landed) => response.write(`id: ${landed.seq}\ndata: ${JSON.stringify(landed)}\n\n`);
    response.write(': open\n\n');
    for (const landed of this.writer.since(id, afterSchema.parse(last ?? after))) send(landed);
    const leave = this.hub.subscribe(id, { deliver: send, end: () => response.end() });
    const beat = setInterval(() => response.write(': still here\n\n'), HEARTBEAT_MS);
    request.on('close', () => {
      clearInterval(beat);
      leave();
    });
  }
}
