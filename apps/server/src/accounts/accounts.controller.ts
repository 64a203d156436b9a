import { Body, Controller, Delete, Get, HttpCode, Inject, Post, Req, Res, UseGuards } from '@nestjs/common';
import { ApiBody, ApiOkResponse, ApiTags } from '@nestjs/swagger';
import { ThrottlerGuard } from '@nestjs/throttler';
import type { Request, Response } from 'express';
import { createZodDto } from 'nestjs-zod';
import { z } from 'zod';
import { CONFIG, type Config } from '../config.ts';
import { parseBody } from '../http/errors.ts';
import { AccountsService, type User } from './accounts.service.ts';
import { CurrentUser, SignedInGuard, clearSessionCookie, sessionToken, setSessionCookie } from './session.ts';

const login = z
  .string()
  .trim()
  .toLowerCase()
  .regex(/^[a-z0-9._-]{2,40}$/, 'a sign-in name has 2 to 40 letters, digits, dots, hyphens or underscores');
const signInSchema = z.strictObject({ login, password: z.string().min(1).max(200) });
const setUpSchema = z.strictObject({
  code: z.string().max(40),
  login,
  name: z.string().trim().min(1).max(80),
  password: z.string().min(10, 'a password has at least 10 characters').max(200),
});
class SignInDto extends createZodDto(signInSchema) {}
class SetUpDto extends createZodDto(setUpSchema) {}

@ApiTags('accounts')
@Controller('api')
export class AccountsController {
  constructor(
    @Inject(AccountsService) private readonly accounts: AccountsService,
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
  @UseGuards(ThrottlerGuard)
  @HttpCode(200)
  @ApiBody({ type: SignInDto })
  async signIn(
    @Body() body: unknown,
    @Req() request: Request,
    @Res({ passthrough: true }) response: Response,
  ): Promise<User> {
    const { login: name, password } = parseBody(signInSchema, body);
    return this.begin(await this.accounts.signIn(name, password), request, response);
  }

  @Delete('session')
  @HttpCode(204)
  signOut(@Req() request: Request, @Res({ passthrough: true }) response: Response): void {
    const token = sessionToken(request);
    if (token) this.accounts.endSession(token);
    clearSessionCookie(response);
  }

  @Post('setup')
  @UseGuards(ThrottlerGuard)
  @ApiBody({ type: SetUpDto })
  async setUp(
    @Body() body: unknown,
    @Req() request: Request,
    @Res({ passthrough: true }) response: Response,
  ): Promise<User> {
    const { code, login: name, name: fullName, password } = parseBody(setUpSchema, body);
    return this.begin(await this.accounts.setUp(code, name, fullName, password), request, response);
  }

  private begin(user: User, request: Request, response: Response): User {
    const { token, maxAge } = this.accounts.startSession(user);
    setSessionCookie(request, response, token, maxAge);
    return user;
  }
}
