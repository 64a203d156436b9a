import { Controller, Get, HttpCode, Inject, Post } from '@nestjs/common';
import { ApiTags } from '@nestjs/swagger';
import { letterIdSchema, type Letter, type User } from '@quarry/protocol/accounts';
import { CurrentUser, SignedIn } from '../http/access.ts';
import { ValidParam } from '../http/validated.ts';
import { LettersService } from './letters.service.ts';

/** The user's messages: this instance sends no mail, it shows what it would send. */
@ApiTags('letters')
@Controller('api/letters')
@SignedIn()
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
  read(@ValidParam('id', letterIdSchema) id: number, @CurrentUser() user: User): void {
    this.letters.read(user, id);
  }
}
