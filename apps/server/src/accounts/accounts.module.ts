import { Module } from '@nestjs/common';
import { DisplaysModule } from '../displays/displays.module.ts';
import { LettersModule } from '../letters/letters.module.ts';
import { PhotosModule } from '../photos/photos.module.ts';
import { AccountsController } from './accounts.controller.ts';
import { AccountsService } from './accounts.service.ts';
import { ExportController } from './export.controller.ts';

/** People, their sessions, and everything of one person as an export. */
@Module({
  imports: [DisplaysModule, LettersModule, PhotosModule],
  controllers: [AccountsController, ExportController],
  providers: [AccountsService],
  exports: [AccountsService],
})
export class AccountsModule {}
