import { Controller, Get, Inject } from '@nestjs/common';
import { ApiTags } from '@nestjs/swagger';
import { sql } from 'drizzle-orm';
import { Anyone } from './access.ts';
import { STORE } from '../config.ts';
import type { Store } from '../store/database.ts';

@ApiTags('health')
@Controller('api/health')
@Anyone()
export class HealthController {
  constructor(@Inject(STORE) private readonly store: Store) {}

  /** Answers only when the database answers. */
  @Get()
  health(): { status: 'ok' } {
    this.store.db.get(sql`select 1`);
    return { status: 'ok' };
  }
}
