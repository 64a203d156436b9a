import { Controller, Get, HttpCode, Inject, Param, ParseIntPipe, Post, UseGuards } from '@nestjs/common';
import { ApiTags } from '@nestjs/swagger';
import type { User } from '../accounts/accounts.service.ts';
import { CurrentUser, SignedInGuard } from '../accounts/session.ts';
import { LettersService, type Letter } from './letters.service.ts';

/** One's own letters: this instance sends no mail, it shows what it would send. */
@ApiTags('letters')
@Controller('api/letters')
@UseGuards(SignedInGuard)
export class LettersController {
  constructor(@Inject(LettersService) private readonly letters: LettersService) {}

  @Get()
  all(@CurrentUser() user: User): Letter[] {
    return this.letters.of(user);
  }

  @Get('unread')
  unread(@CurrentUser() user: User): { unread: number } {
    return { unread: this.letters.unread(user) };
  }

  @Post(':id/read')
  @HttpCode(204)
  read(@Param('id', ParseIntPipe) id: number, @CurrentUser() user: User): void {
    this.letters.read(user, id);
  }
}
