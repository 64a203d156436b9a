import { Module } from '@nestjs/common';
import { AccountsModule } from '../accounts/accounts.module.ts';
import { DisplaysModule } from '../displays/displays.module.ts';
import { PhotosModule } from '../photos/photos.module.ts';
import { ShareModule } from '../share/share.module.ts';
import { DemoController } from './demo.controller.ts';
import { DemoService } from './demo.service.ts';

/** The demo's crew and displays. */
@Module({
  imports: [AccountsModule, DisplaysModule, PhotosModule, ShareModule],
  controllers: [DemoController],
  providers: [DemoService],
})
export class DemoModule {}
