import { Module } from '@nestjs/common';
import { DisplaysModule } from '../displays/displays.module.ts';
import { PhotosModule } from '../photos/photos.module.ts';
import { SheetsModule } from '../sheets/sheets.module.ts';
import { PublicController, ShareController } from './share.controller.ts';
import { ShareService } from './share.service.ts';

/** The public page of a display, and who may switch it on. */
@Module({
  imports: [DisplaysModule, PhotosModule, SheetsModule],
  controllers: [ShareController, PublicController],
  providers: [ShareService],
  exports: [ShareService],
})
export class ShareModule {}
