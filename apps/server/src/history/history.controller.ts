import { Body, Controller, Get, HttpCode, Inject, Param, Post, Query, UseGuards } from '@nestjs/common';
import { ApiBody, ApiQuery, ApiTags } from '@nestjs/swagger';
import { createZodDto } from 'nestjs-zod';
import { z } from 'zod';
import type { SharesOfDay, TakingBack } from '@quarry/core/history';
import { idSchema, toRows, type Change, type EntityRow } from '@quarry/core/document';
import type { User } from '../accounts/accounts.service.ts';
import { CurrentUser, SignedInGuard } from '../accounts/session.ts';
import { DisplaysService } from '../displays/displays.service.ts';
import { parseBody } from '../http/errors.ts';
import { HistoryService, type HistoryPage } from './history.service.ts';

const count = z.coerce.number().int().min(0).max(1e15);
const filterSchema = z.object({
  before: count.optional(),
  after: count.optional(),
  author: z.string().max(80).optional(),
  section: idSchema.optional(),
  kind: z.string().max(20).optional(),
  from: count.optional(),
  to: count.optional(),
  limit: z.coerce.number().int().min(1).max(500).default(60),
});
const momentSchema = z.object({ at: count });
const restoreSchema = z.strictObject({ id: z.uuid() });
class RestoreDto extends createZodDto(restoreSchema) {}

/** The log of a display: read, looked back through, taken back. */
@ApiTags('history')
@Controller('api/displays/:id')
@UseGuards(SignedInGuard)
export class HistoryController {
  constructor(
    @Inject(HistoryService) private readonly history: HistoryService,
    @Inject(DisplaysService) private readonly displays: DisplaysService,
  ) {}

  @Get('history')
  @ApiQuery({ name: 'author', required: false })
  @ApiQuery({ name: 'section', required: false })
  @ApiQuery({ name: 'kind', required: false })
  page(@Param('id') id: string, @Query() query: unknown, @CurrentUser() user: User): HistoryPage {
    return this.history.page(id, user, parseBody(filterSchema, query));
  }

  /** The number of the log at a moment. */
  @Get('moment')
  @ApiQuery({ name: 'at', description: 'milliseconds since the epoch' })
  moment(@Param('id') id: string, @Query() query: unknown, @CurrentUser() user: User): { seq: number } {
    this.displays.actor(id, user);
    return { seq: this.history.seqAt(id, parseBody(momentSchema, query).at) };
  }

  /** How far each section was at the end of every day on which one moved. */
  @Get('shares')
  shares(@Param('id') id: string, @CurrentUser() user: User): SharesOfDay[] {
    return this.history.shares(id, user);
  }

  /** The display as it was after a number of its log. */
  @Get('history/:seq')
  past(
    @Param('id') id: string,
    @Param('seq') seq: string,
    @CurrentUser() user: User,
  ): { seq: number; at: number; rows: EntityRow[] } {
    this.displays.actor(id, user);
    const { scene, at, seq: of } = this.history.sceneAt(id, parseBody(count, seq));
    return { seq: of, at, rows: toRows(scene) };
  }

  @Get('history/:seq/back')
  takingBack(@Param('id') id: string, @Param('seq') seq: string, @CurrentUser() user: User): TakingBack {
    return this.history.takingBack(id, user, parseBody(count, seq));
  }

  @Get('history/:seq/restoring')
  restoring(
    @Param('id') id: string,
    @Param('seq') seq: string,
    @CurrentUser() user: User,
  ): Record<Change['op'], number> {
    return this.history.restoringTo(id, user, parseBody(count, seq));
  }

  @Post('history/:seq/restore')
  @HttpCode(200)
  @ApiBody({ type: RestoreDto })
  restore(
    @Param('id') id: string,
    @Param('seq') seq: string,
    @Body() body: unknown,
    @CurrentUser() user: User,
  ): Promise<{ seq: number | null }> {
    return this.history.restore(id, user, parseBody(count, seq), parseBody(restoreSchema, body).id);
  }
}
