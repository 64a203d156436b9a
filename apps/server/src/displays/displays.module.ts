import { Module } from '@nestjs/common';
import { ChangesController } from '../changes/changes.controller.ts';
import { HubService } from '../changes/hub.service.ts';
import { LimitsService } from '../changes/limits.service.ts';
import { WriterService } from '../changes/writer.service.ts';
import { LettersModule } from '../letters/letters.module.ts';
import { DisplaysController } from './displays.controller.ts';
import { DisplaysService } from './displays.service.ts';

/** Displays and every change to them: one writer, one hub that tells of what was committed. */
@Module({
  imports: [LettersModule],
  controllers: [DisplaysController, ChangesController],
  providers: [DisplaysService, HubService, LimitsService, WriterService],
  exports: [DisplaysService, HubService, WriterService],
})
export class DisplaysModule {}
