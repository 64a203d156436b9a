import {
  Body,
  Controller,
  Delete,
  Get,
  HttpCode,
  HttpStatus,
  Inject,
  Param,
  Post,
  Put,
  Req,
  Res,
  UseGuards,
} from '@nestjs/common';
import { ApiBody, ApiOkResponse, ApiTags } from '@nestjs/swagger';
import type { Request, Response } from 'express';
import { createZodDto } from 'nestjs-zod';
import { z } from 'zod';
import { HubService } from '../changes/hub.service.ts';
import { CONFIG, type Config } from '../config.ts';
import { ApiError, notFound, parseBody } from '../http/errors.ts';
import { SignInGuard } from '../http/signInGuard.ts';
import { LettersService } from '../letters/letters.service.ts';
import { AccountsService, digest, type SessionLine, type User } from './accounts.service.ts';
import { CurrentUser, SignedInGuard, beginSession, clearSessionCookie, sessionToken } from './session.ts';
import { anyPassword, fullName, login, newPassword } from './words.ts';

const signInSchema = z.strictObject({ login, password: anyPassword });
const setUpSchema = z.strictObject({
  code: z.string().max(40),
  login,
  name: fullName,
  password: newPassword,
});
const passwordSchema = z.strictObject({ old: anyPassword, password: newPassword });
const resetSchema = z.strictObject({ login, code: z.string().max(40), password: newPassword });
const leaveSchema = z.strictObject({ password: anyPassword });
class SignInDto extends createZodDto(signInSchema) {}
class SetUpDto extends createZodDto(setUpSchema) {}
class PasswordDto extends createZodDto(passwordSchema) {}
class ResetDto extends createZodDto(resetSchema) {}
class LeaveDto extends createZodDto(leaveSchema) {}

@ApiTags('accounts')
@Controller('api')
export class AccountsController {
  constructor(
    @Inject(AccountsService) private readonly accounts: AccountsService,
    @Inject(HubService) private readonly hub: HubService,
    @Inject(LettersService) private readonly letters: LettersService,
    @Inject(CONFIG) private readonly config: Config,
  ) {}

  /** What a page must know before anybody is signed in. */
  @Get('welcome')
  @ApiOkResponse({ description: 'Whether the first account is still to be made, and whether this is a demo' })
  welcome(): { setupNeeded: boolean; demo: boolean } {
    return { setupNeeded: this.accounts.setupNeeded(), demo: this.config.demo };
  }

  @Get('me')
  @UseGuards(SignedInGuard)
  me(@CurrentUser() user: User): User {
    return user;
  }

  @Post('session')
  @UseGuards(SignInGuard)
  @HttpCode(200)
  @ApiBody({ type: SignInDto })
  async signIn(
    @Body() body: unknown,
    @Req() request: Request,
    @Res({ passthrough: true }) response: Response,
  ): Promise<User> {
    const { login: name, password } = parseBody(signInSchema, body);
    return beginSession(this.accounts, await this.accounts.signIn(name, password), request, response);
  }

  @Post('setup')
  @UseGuards(SignInGuard)
  @ApiBody({ type: SetUpDto })
  async setUp(
    @Body() body: unknown,
    @Req() request: Request,
    @Res({ passthrough: true }) response: Response,
  ): Promise<User> {
    const { code, login: name, name: full, password } = parseBody(setUpSchema, body);
    return beginSession(
      this.accounts,
      await this.accounts.setUp(code, name, full, password),
      request,
      response,
    );
  }

  @Delete('session')
  @HttpCode(204)
  signOut(@Req() request: Request, @Res({ passthrough: true }) response: Response): void {
    const token = sessionToken(request);
    if (token) {
      this.accounts.endSession(token);
      this.hub.endSession(digest(token));
    }
    clearSessionCookie(response);
  }

  /** Where one is signed in. */
  @Get('sessions')
  @UseGuards(SignedInGuard)
  sessions(@CurrentUser() user: User, @Req() request: Request): SessionLine[] {
    return this.accounts.sessionsOf(user, digest(sessionToken(request) ?? ''));
  }

  @Delete('sessions/:session')
  @UseGuards(SignedInGuard)
  @HttpCode(204)
  endSession(@Param('session') id: string, @CurrentUser() user: User): void {
    const ended = this.accounts.endSessionById(user, id);
    if (!ended) throw notFound('session');
    this.hub.endSession(ended);
  }

  /** Sets another password and ends every other session. */
  @Put('me/password')
  @UseGuards(SignInGuard, SignedInGuard)
  @HttpCode(204)
  @ApiBody({ type: PasswordDto })
  async password(@Body() body: unknown, @CurrentUser() user: User, @Req() request: Request): Promise<void> {
    const { old, password } = parseBody(passwordSchema, body);
    await this.accounts.checkPassword(user, old);
    const here = digest(sessionToken(request) ?? '');
    await this.accounts.setPassword(user.id, password, here);
    this.hub.endUser(user.id, here);
    this.tellChanged(user, 'by you, with the old one');
  }

  /** Sets a password by a code that an owner handed over, and signs in. */
  @Post('reset')
  @UseGuards(SignInGuard)
  @HttpCode(200)
  @ApiBody({ type: ResetDto })
  async reset(
    @Body() body: unknown,
    @Req() request: Request,
    @Res({ passthrough: true }) response: Response,
  ): Promise<User> {
    const { login: name, code, password } = parseBody(resetSchema, body);
    const user = await this.accounts.useReset(name, code, password);
    this.hub.endUser(user.id, null);
    this.tellChanged(user, 'by a code that an owner or the keeper made');
    return beginSession(this.accounts, user, request, response);
  }

  /** Whoever did not change it themselves learns of it. */
  private tellChanged(user: User, how: string): void {
    this.letters.put({
      ...{ userId: user.id, displayId: null, at: Date.now(), about: 'reset', link: '/account' },
      subject: 'Your password was changed',
      body: `It was changed ${how}; every other session has ended. If that was not you, ask the keeper of this server for a new one.`,
    });
  }

  /** Deletes the caller's account. Contributions and messages stay on the displays, under the caller's name. */
  @Delete('me')
  @UseGuards(SignInGuard, SignedInGuard)
  @HttpCode(204)
  @ApiBody({ type: LeaveDto })
  async leave(
    @Body() body: unknown,
    @CurrentUser() user: User,
    @Res({ passthrough: true }) response: Response,
  ): Promise<void> {
    await this.accounts.checkPassword(user, parseBody(leaveSchema, body).password);
    const held = this.accounts.soleOwnerOf(user.id);
    if (held.length > 0)
      throw new ApiError(
        HttpStatus.CONFLICT,
        'sole-owner',
        `You are the only owner of ${held.map(({ name }) => `«${name}»`).join(', ')}. Make somebody else owner there, or delete it; then your account can go.`,
      );
    this.accounts.remove(user.id);
    this.hub.endUser(user.id, null);
    clearSessionCookie(response);
  }
}
