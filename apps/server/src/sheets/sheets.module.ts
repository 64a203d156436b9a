import { Module } from '@nestjs/common';
import { DisplaysModule } from '../displays/displays.module.ts';
import { HistoryModule } from '../history/history.module.ts';
import { PicturesController } from './pictures.controller.ts';
import { PicturesService } from './pictures.service.ts';
import { PressService } from './press.service.ts';
import { SheetsController } from './sheets.controller.ts';

/** Prints and files, made in threads of their own. */
@Module({
  imports: [DisplaysModule, HistoryModule],
  controllers: [SheetsController, PicturesController],
  providers: [PressService, PicturesService],
  exports: [PressService],
})
export class SheetsModule {}
