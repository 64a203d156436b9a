import { Controller, Get, HttpCode, Inject, Post } from '@nestjs/common';
import { ApiTags } from '@nestjs/swagger';
import type { z } from 'zod';
import type { SharesOfDay, TakingBack } from '@quarry/core/history';
import { toRows, type Actor, type Change } from '@quarry/core/document';
import type { User } from '@quarry/protocol/accounts';
import {
  countSchema,
  historyFilterSchema,
  momentQuerySchema,
  restoreSchema,
  sharesQuerySchema,
  type HistoryFilter,
  type HistoryPage,
  type Past,
  type Restored,
} from '@quarry/protocol/history';
import { CurrentActor, CurrentUser, OnDisplay } from '../http/access.ts';
import { PathId, ValidBody, ValidParam, ValidQuery } from '../http/validated.ts';
import { HistoryService } from './history.service.ts';

/** The log of a display: read, looked back through, taken back. */
@ApiTags('history')
@Controller('api/displays/:id')
@OnDisplay()
export class HistoryController {
  constructor(@Inject(HistoryService) private readonly history: HistoryService) {}

  @Get('history')
  page(
    @PathId() id: string,
    @ValidQuery(historyFilterSchema) filter: HistoryFilter,
    @CurrentUser() user: User,
  ): HistoryPage {
    return this.history.page(id, user, filter);
  }

  /** The number of the log at a moment. */
  @Get('moment')
  moment(
    @PathId() id: string,
    @ValidQuery(momentQuerySchema) { at }: z.output<typeof momentQuerySchema>,
  ): { seq: number } {
    return { seq: this.history.seqAt(id, at) };
  }

  /** How far each section was at the end of every day on which one moved. */
  @Get('shares')
  shares(
    @PathId() id: string,
    @ValidQuery(sharesQuerySchema) { zone }: z.output<typeof sharesQuerySchema>,
  ): SharesOfDay[] {
    return this.history.shares(id, zone);
  }

  /** The display as it was after a number of its log. */
  @Get('history/:seq')
  past(@PathId() id: string, @ValidParam('seq', countSchema) seq: number): Past {
    const { scene, at, seq: of } = this.history.sceneAt(id, seq);
    return { seq: of, at, rows: toRows(scene) };
  }

  @Get('history/:seq/back')
  takingBack(
    @PathId() id: string,
    @ValidParam('seq', countSchema) seq: number,
    @CurrentUser() user: User,
    @CurrentActor() actor: Actor,
  ): TakingBack {
    return this.history.takingBack(id, user, actor, seq);
  }

  @Get('history/:seq/restoring')
  restoring(@PathId() id: string, @ValidParam('seq', countSchema) seq: number): Record<Change['op'], number> {
    return this.history.restoringTo(id, seq);
  }

  @Post('history/:seq/restore')
  @OnDisplay('planner', 'bring a display back')
  @HttpCode(200)
  restore(
    @PathId() id: string,
    @ValidParam('seq', countSchema) seq: number,
    @ValidBody(restoreSchema) body: z.output<typeof restoreSchema>,
    @CurrentUser() user: User,
    @CurrentActor() actor: Actor,
  ): Promise<Restored> {
    return this.history.restore(id, { user, actor }, seq, body.id);
  }
}
