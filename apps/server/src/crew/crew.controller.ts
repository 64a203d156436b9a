import {
  Body,
  Controller,
  Delete,
  Get,
  HttpCode,
  Inject,
  Param,
  Patch,
  Post,
  Put,
  Req,
  Res,
  UseGuards,
} from '@nestjs/common';
import { ApiBody, ApiTags } from '@nestjs/swagger';
import type { Request, Response } from 'express';
import { createZodDto } from 'nestjs-zod';
import { z } from 'zod';
import { ROLES, idSchema, line } from '@quarry/core/document';
import { AccountsService, type User } from '../accounts/accounts.service.ts';
import { CurrentUser, SignedInGuard, beginSession, sessionToken } from '../accounts/session.ts';
import { fullName, login, newPassword } from '../accounts/words.ts';
import { parseBody } from '../http/errors.ts';
import { SignInGuard } from '../http/signInGuard.ts';
import { CrewService, type Member } from './crew.service.ts';
import { InvitationsService, type InvitationLine, type Invited } from './invitations.service.ts';
import { MarksService } from './marks.service.ts';

const memberSchema = z.strictObject({
  role: z.enum(ROLES).optional(),
  person: idSchema.nullable().optional(),
});
const ownerSchema = z.strictObject({ userId: z.string().max(60) });
const inviteSchema = z.strictObject({
  role: z.enum(['planner', 'builder', 'viewer']),
  person: idSchema.nullable().default(null),
  days: z.int().min(1).max(60).default(14),
  note: line().trim().max(200).default(''),
});
const joinSchema = z.strictObject({ login, name: fullName, password: newPassword });
const askSchema = z.strictObject({ login });
const markSchema = z.strictObject({
  what: z.union([z.literal('log'), idSchema]),
  upTo: z.int().min(0).max(1e9),
});
class MemberDto extends createZodDto(memberSchema) {}
class OwnerDto extends createZodDto(ownerSchema) {}
class InviteDto extends createZodDto(inviteSchema) {}
class JoinDto extends createZodDto(joinSchema) {}
class AskDto extends createZodDto(askSchema) {}
class MarkDto extends createZodDto(markSchema) {}

/** The people of one display. */
@ApiTags('crew')
@Controller('api/displays/:id')
@UseGuards(SignedInGuard)
export class CrewController {
  constructor(
    @Inject(CrewService) private readonly crew: CrewService,
    @Inject(InvitationsService) private readonly invitations: InvitationsService,
    @Inject(MarksService) private readonly marks: MarksService,
  ) {}

  @Get('members')
  members(@Param('id') id: string, @CurrentUser() user: User): Member[] {
    return this.crew.list(id, user);
  }

  @Patch('members/:userId')
  @HttpCode(204)
  @ApiBody({ type: MemberDto })
  change(
    @Param('id') id: string,
    @Param('userId') userId: string,
    @Body() body: unknown,
    @CurrentUser() user: User,
  ): void {
    this.crew.change(id, user, userId, parseBody(memberSchema, body));
  }

  @Delete('members/:userId')
  @HttpCode(204)
  leave(@Param('id') id: string, @Param('userId') userId: string, @CurrentUser() user: User): void {
    this.crew.leave(id, user, userId);
  }

  /** A code by which a member sets a new password: shown once, good for a day. */
  @Post('members/:userId/reset')
  resetCode(
    @Param('id') id: string,
    @Param('userId') userId: string,
    @CurrentUser() user: User,
  ): { code: string; expiresAt: number } {
    return this.crew.resetCode(id, user, userId);
  }

  @Put('owner')
  @HttpCode(204)
  @ApiBody({ type: OwnerDto })
  owner(@Param('id') id: string, @Body() body: unknown, @CurrentUser() user: User): void {
    this.crew.handOver(id, user, parseBody(ownerSchema, body).userId);
  }

  @Get('invitations')
  invited(@Param('id') id: string, @CurrentUser() user: User): InvitationLine[] {
    return this.invitations.list(id, user);
  }

  @Post('invitations')
  @ApiBody({ type: InviteDto })
  invite(
    @Param('id') id: string,
    @Body() body: unknown,
    @CurrentUser() user: User,
  ): { id: string; token: string; expiresAt: number } {
    return this.invitations.make(id, user, parseBody(inviteSchema, body));
  }

  @Delete('invitations/:invitation')
  @HttpCode(204)
  revoke(@Param('id') id: string, @Param('invitation') invitation: string, @CurrentUser() user: User): void {
    this.invitations.revoke(id, user, invitation);
  }

  /** How far one has read: the log by its number, threads by their stamps. */
  @Get('marks')
  read(@Param('id') id: string, @CurrentUser() user: User): Record<string, number> {
    return this.marks.of(id, user);
  }

  @Put('marks')
  @HttpCode(204)
  @ApiBody({ type: MarkDto })
  mark(@Param('id') id: string, @Body() body: unknown, @CurrentUser() user: User): void {
    const { what, upTo } = parseBody(markSchema, body);
    this.marks.set(id, user, what, upTo);
  }
}

/** Joining by a link, and asking for a new password: before anybody is signed in. */
@ApiTags('crew')
@Controller('api')
@UseGuards(SignInGuard)
export class JoinController {
  constructor(
    @Inject(AccountsService) private readonly accounts: AccountsService,
    @Inject(InvitationsService) private readonly invitations: InvitationsService,
    @Inject(CrewService) private readonly crew: CrewService,
  ) {}

  @Get('join/:token')
  look(@Param('token') token: string): Invited {
    return this.invitations.look(token);
  }

  /** Joins as the signed-in user, or creates an account first. */
  @Post('join/:token')
  @HttpCode(200)
  @ApiBody({ type: JoinDto, required: false })
  async join(
    @Param('token') token: string,
    @Body() body: unknown,
    @Req() request: Request,
    @Res({ passthrough: true }) response: Response,
  ): Promise<{ display: string }> {
    this.invitations.look(token);
    const session = sessionToken(request);
    const known = session ? this.accounts.userOf(session) : null;
    if (known) return { display: await this.invitations.join(token, known) };
    const { login: name, name: full, password } = parseBody(joinSchema, body);
    const { user, insert } = await this.accounts.prepare(name, full, password);
    const display = await this.invitations.join(token, user, insert);
    beginSession(this.accounts, user, request, response);
    return { display };
  }

  /** Answers the same whether the name exists or not. */
  @Post('reset/ask')
  @HttpCode(202)
  @ApiBody({ type: AskDto })
  ask(@Body() body: unknown): { message: string } {
    const { login: name } = parseBody(askSchema, body);
    // Looked up once the answer is on its way: its duration does not reveal whether the name exists.
    setImmediate(() => this.crew.askReset(name));
    return {
      message:
        'If there is such an account, an owner has been asked. They hand you a code, in person or by telephone.',
    };
  }
}
