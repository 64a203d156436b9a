import { Controller, Get, HttpCode, Inject, Post, Req, Res } from '@nestjs/common';
import { ApiTags } from '@nestjs/swagger';
import type { Request, Response } from 'express';
import type { z } from 'zod';
import { demoSignInSchema, type DemoMember } from '@quarry/protocol/accounts';
import type { User } from '@quarry/protocol/accounts';
import { AccountsService } from '../accounts/accounts.service.ts';
import { beginSession } from '../accounts/session.ts';
import { CONFIG, type Config } from '../config.ts';
import { Anyone } from '../http/access.ts';
import { notFound } from '../http/errors.ts';
import { ValidBody } from '../http/validated.ts';
import { DemoService } from './demo.service.ts';

/** Signing in without a password as one of the demo crew; answers 404 on a real instance. */
@ApiTags('demo')
@Controller('api/demo')
@Anyone()
export class DemoController {
  constructor(
    @Inject(CONFIG) private readonly config: Config,
    @Inject(DemoService) private readonly demo: DemoService,
    @Inject(AccountsService) private readonly accounts: AccountsService,
  ) {}

  @Get('crew')
  crew(): readonly DemoMember[] {
    if (!this.config.demo) throw notFound('demo');
    return this.demo.crew();
  }

  @Post('session')
  @HttpCode(200)
  signIn(
    @ValidBody(demoSignInSchema) { login }: z.output<typeof demoSignInSchema>,
    @Req() request: Request,
    @Res({ passthrough: true }) response: Response,
  ): User {
    if (!this.config.demo) throw notFound('demo');
    const user = this.demo.crew().some((member) => member.login === login)
      ? this.accounts.byLogin(login)
      : undefined;
    if (!user) throw notFound('member of the demo crew');
    return beginSession(this.accounts, user, request, response);
  }
}
