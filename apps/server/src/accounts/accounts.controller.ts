import {
  Controller,
  Delete,
  Get,
  HttpCode,
  HttpStatus,
  Inject,
  Post,
  Put,
  Req,
  Res,
  UseGuards,
} from '@nestjs/common';
import { ApiOkResponse, ApiTags } from '@nestjs/swagger';
import type { Request, Response } from 'express';
import type { z } from 'zod';
import {
  removeAccountSchema,
  signInSchema,
  type SessionLine,
  type User,
  type Welcome,
} from '@quarry/protocol/accounts';
import { HubService } from '../changes/hub.service.ts';
import { CONFIG, type Config } from '../config.ts';
import { Anyone, CurrentUser, SignedIn } from '../http/access.ts';
import { ApiError, notFound } from '../http/errors.ts';
import { SignInGuard } from '../http/signInGuard.ts';
import { PathId, ValidBody } from '../http/validated.ts';
import { LettersService } from '../letters/letters.service.ts';
import { AccountsService, digest } from './accounts.service.ts';
import { beginSession, clearSessionCookie, sessionToken } from './session.ts';
import { strongResetSchema, strongSetPasswordSchema, strongSetUpSchema } from './strongPassword.ts';

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
  @Anyone()
  @ApiOkResponse({ description: 'Whether the first account is still to be made, and whether this is a demo' })
  welcome(): Welcome {
    return { setupNeeded: this.accounts.setupNeeded(), demo: this.config.demo };
  }

  @Get('me')
  @SignedIn()
  me(@CurrentUser() user: User): User {
    return user;
  }

  @Post('session')
  @Anyone()
  @UseGuards(SignInGuard)
  @HttpCode(200)
  async signIn(
    @ValidBody(signInSchema) { login, password }: z.output<typeof signInSchema>,
    @Req() request: Request,
    @Res({ passthrough: true }) response: Response,
  ): Promise<User> {
    return beginSession(this.accounts, await this.accounts.signIn(login, password), request, response);
  }

  @Post('setup')
  @Anyone()
  @UseGuards(SignInGuard)
  async setUp(
    @ValidBody(strongSetUpSchema) { code, login, name, password }: z.output<typeof strongSetUpSchema>,
    @Req() request: Request,
    @Res({ passthrough: true }) response: Response,
  ): Promise<User> {
    return beginSession(
      this.accounts,
      await this.accounts.setUp(code, login, name, password),
      request,
      response,
    );
  }

  @Delete('session')
  @Anyone()
  @HttpCode(204)
  signOut(@Req() request: Request, @Res({ passthrough: true }) response: Response): void {
    const token = sessionToken(request);
    if (token) {
      this.accounts.endSession(token);
      this.hub.endSession(digest(token));
    }
    clearSessionCookie(response);
  }

  /** The sessions of the user. */
  @Get('sessions')
  @SignedIn()
  sessions(@CurrentUser() user: User, @Req() request: Request): SessionLine[] {
    return this.accounts.sessionsOf(user, digest(sessionToken(request) ?? ''));
  }

  @Delete('sessions/:session')
  @SignedIn()
  @HttpCode(204)
  endSession(@PathId('session') id: string, @CurrentUser() user: User): void {
    const ended = this.accounts.endSessionById(user, id);
    if (!ended) throw notFound('session');
    this.hub.endSession(ended);
  }

  /** Sets another password and ends every other session. */
  @Put('me/password')
  @SignedIn()
  @UseGuards(SignInGuard)
  @HttpCode(204)
  async password(
    @ValidBody(strongSetPasswordSchema) { old, password }: z.output<typeof strongSetPasswordSchema>,
    @CurrentUser() user: User,
    @Req() request: Request,
  ): Promise<void> {
    await this.accounts.checkPassword(user, old);
    const here = digest(sessionToken(request) ?? '');
    await this.accounts.setPassword(user.id, password, here);
    this.hub.endUser(user.id, here);
    this.notifyChanged(user, 'by you, with the old one');
  }

  /** Sets a password by a code that an owner handed over, and signs in. */
  @Post('reset')
  @Anyone()
  @UseGuards(SignInGuard)
  @HttpCode(200)
  async reset(
    @ValidBody(strongResetSchema) { login, code, password }: z.output<typeof strongResetSchema>,
    @Req() request: Request,
    @Res({ passthrough: true }) response: Response,
  ): Promise<User> {
    const user = await this.accounts.useReset(login, code, password);
    this.hub.endUser(user.id, null);
    this.notifyChanged(user, 'by a code that an owner or the keeper made');
    return beginSession(this.accounts, user, request, response);
  }

  /** A user who did not change the password learns of it. */
  private notifyChanged(user: User, how: string): void {
    this.letters.put({
      ...{ userId: user.id, displayId: null, at: Date.now(), about: 'reset', link: '/account' },
      subject: 'Your password was changed',
      body: `It was changed ${how}; every other session has ended. If that was not you, ask the keeper of this server for a new one.`,
    });
  }

  /** Deletes the caller's account. Contributions and messages stay on the displays, under the caller's name. */
  @Delete('me')
  @SignedIn()
  @UseGuards(SignInGuard)
  @HttpCode(204)
  async leave(
    @ValidBody(removeAccountSchema) { password }: z.output<typeof removeAccountSchema>,
    @CurrentUser() user: User,
    @Res({ passthrough: true }) response: Response,
  ): Promise<void> {
    await this.accounts.checkPassword(user, password);
    const owned = this.accounts.soleOwnerOf(user.id);
    if (owned.length > 0)
      throw new ApiError(
        HttpStatus.CONFLICT,
        'sole-owner',
        `You are the only owner of ${owned.map(({ name }) => `“${name}”`).join(', ')}. Make somebody else owner there, or delete it; then your account can go.`,
      );
    this.accounts.remove(user.id);
    this.hub.endUser(user.id, null);
    clearSessionCookie(response);
  }
}
