import { Module } from '@nestjs/common';
import { LettersController } from './letters.controller.ts';
import { LettersService } from './letters.service.ts';

/** Messages to people, by simulated mail. */
@Module({
  controllers: [LettersController],
  providers: [LettersService],
  exports: [LettersService],
})
export class LettersModule {}
