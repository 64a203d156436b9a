import { Module } from '@nestjs/common';
import { DisplaysModule } from '../displays/displays.module.ts';
import { HistoryController } from './history.controller.ts';
import { HistoryService } from './history.service.ts';

/** The log read back: entries, earlier scenes, what may be taken back. */
@Module({
  imports: [DisplaysModule],
  controllers: [HistoryController],
  providers: [HistoryService],
  exports: [HistoryService],
})
export class HistoryModule {}
