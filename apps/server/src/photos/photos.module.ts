import { Module } from '@nestjs/common';
import { DisplaysModule } from '../displays/displays.module.ts';
import { PhotosController } from './photos.controller.ts';
import { PhotosService } from './photos.service.ts';

/** Photos as files, beside the display that lists them. */
@Module({
  imports: [DisplaysModule],
  controllers: [PhotosController],
  providers: [PhotosService],
  exports: [PhotosService],
})
export class PhotosModule {}
