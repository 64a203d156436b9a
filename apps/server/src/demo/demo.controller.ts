import { Body, Controller, Get, HttpCode, Inject, Post, Req, Res } from '@nestjs/common';
import { ApiTags } from '@nestjs/swagger';
import type { Request, Response } from 'express';
import { z } from 'zod';
import { AccountsService, type User } from '../accounts/accounts.service.ts';
import { beginSession } from '../accounts/session.ts';
import { CONFIG, type Config } from '../config.ts';
import { notFound, parseBody } from '../http/errors.ts';
import { DemoService, type CrewMember } from './demo.service.ts';

const signInSchema = z.strictObject({ login: z.string().max(40) });

/** Signing in without a password as one of the demo crew; answers 404 on a real instance. */
@ApiTags('demo')
@Controller('api/demo')
export class DemoController {
  constructor(
    @Inject(CONFIG) private readonly config: Config,
    @Inject(DemoService) private readonly demo: DemoService,
    @Inject(AccountsService) private readonly accounts: AccountsService,
  ) {}

  @Get('crew')
  crew(): readonly CrewMember[] {
    if (!this.config.demo) throw notFound('demo');
    return this.demo.crew();
  }

  @Post('session')
  @HttpCode(200)
  signIn(
    @Body() body: unknown,
    @Req() request: Request,
    @Res({ passthrough: true }) response: Response,
  ): User {
    if (!this.config.demo) throw notFound('demo');
    const { login } = parseBody(signInSchema, body);
    const user = this.demo.crew().some((member) => member.login === login)
      ? this.accounts.byLogin(login)
      : undefined;
    if (!user) throw notFound('member of the demo crew');
    return beginSession(this.accounts, user, request, response);
  }
}
