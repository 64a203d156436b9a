import {
  Controller,
  Delete,
  Get,
  HttpCode,
  Inject,
  Patch,
  Post,
  Put,
  Req,
  Res,
  UseGuards,
} from '@nestjs/common';
import { ApiTags } from '@nestjs/swagger';
import type { Request, Response } from 'express';
import { z } from 'zod';
import type { Actor } from '@quarry/core/document';
import { askResetSchema, type User } from '@quarry/protocol/accounts';
import {
  inviteSchema,
  markSchema,
  ownerSchema,
  setMemberSchema,
  type InvitationLine,
  type Invited,
  type Joined,
  type MadeInvitation,
  type Member,
  type ResetCode,
} from '@quarry/protocol/crew';
import { AccountsService } from '../accounts/accounts.service.ts';
import { beginSession, sessionToken } from '../accounts/session.ts';
import { strongAccountSchema } from '../accounts/strongPassword.ts';
import { Anyone, CurrentActor, CurrentUser, OnDisplay } from '../http/access.ts';
import { parseBody } from '../http/errors.ts';
import { SignInGuard } from '../http/signInGuard.ts';
import { PathId, ValidBody } from '../http/validated.ts';
import { CrewService } from './crew.service.ts';
import { InvitationsService } from './invitations.service.ts';
import { MarksService } from './marks.service.ts';

/** The people of one display. */
@ApiTags('crew')
@Controller('api/displays/:id')
@OnDisplay()
export class CrewController {
  constructor(
    @Inject(CrewService) private readonly crew: CrewService,
    @Inject(InvitationsService) private readonly invitations: InvitationsService,
    @Inject(MarksService) private readonly marks: MarksService,
  ) {}

  @Get('members')
  members(@PathId() id: string, @CurrentUser() user: User, @CurrentActor() actor: Actor): Member[] {
    return this.crew.list(id, user, actor);
  }

  @Patch('members/:userId')
  @OnDisplay('owner', 'change what people may do')
  @HttpCode(204)
  change(
    @PathId() id: string,
    @PathId('userId') userId: string,
    @ValidBody(setMemberSchema) set: z.output<typeof setMemberSchema>,
    @CurrentUser() user: User,
  ): void {
    this.crew.change(id, user, userId, set);
  }

  @Delete('members/:userId')
  @HttpCode(204)
  leave(
    @PathId() id: string,
    @PathId('userId') userId: string,
    @CurrentUser() user: User,
    @CurrentActor() actor: Actor,
  ): void {
    this.crew.leave(id, user, actor, userId);
  }

  /** A code by which a member sets a new password: shown once, good for a day. */
  @Post('members/:userId/reset')
  resetCode(@PathId() id: string, @PathId('userId') userId: string, @CurrentUser() user: User): ResetCode {
    return this.crew.resetCode(id, user, userId);
  }

  @Put('owner')
  @OnDisplay('owner', 'make somebody else owner')
  @HttpCode(204)
  owner(
    @PathId() id: string,
    @ValidBody(ownerSchema) { userId }: z.output<typeof ownerSchema>,
    @CurrentUser() user: User,
    @CurrentActor() actor: Actor,
  ): void {
    this.crew.handOver(id, user, actor, userId);
  }

  @Get('invitations')
  @OnDisplay('owner', 'see its invitations')
  invited(@PathId() id: string): InvitationLine[] {
    return this.invitations.list(id);
  }

  @Post('invitations')
  @OnDisplay('owner', 'invite people')
  invite(
    @PathId() id: string,
    @ValidBody(inviteSchema) invitation: z.output<typeof inviteSchema>,
    @CurrentUser() user: User,
  ): MadeInvitation {
    return this.invitations.make(id, user, invitation);
  }

  @Delete('invitations/:invitation')
  @OnDisplay('owner', 'take back invitations')
  @HttpCode(204)
  revoke(@PathId() id: string, @PathId('invitation') invitation: string): void {
    this.invitations.revoke(id, invitation);
  }

  /** The user's read markers: of the log by its number, of threads by their stamps. */
  @Get('marks')
  read(@PathId() id: string, @CurrentUser() user: User): Record<string, number> {
    return this.marks.of(id, user);
  }

  @Put('marks')
  @HttpCode(204)
  mark(
    @PathId() id: string,
    @ValidBody(markSchema) { what, upTo }: z.output<typeof markSchema>,
    @CurrentUser() user: User,
  ): void {
    this.marks.set(id, user, what, upTo);
  }
}

/** Joining by a link, and asking for a new password: before anybody is signed in. */
@ApiTags('crew')
@Controller('api')
@Anyone()
@UseGuards(SignInGuard)
export class JoinController {
  constructor(
    @Inject(AccountsService) private readonly accounts: AccountsService,
    @Inject(InvitationsService) private readonly invitations: InvitationsService,
    @Inject(CrewService) private readonly crew: CrewService,
  ) {}

  @Get('join/:token')
  look(@PathId('token') token: string): Invited {
    return this.invitations.look(token);
  }

  /** Joins as the signed-in user; without a session the body holds a new account. */
  @Post('join/:token')
  @HttpCode(200)
  async join(
    @PathId('token') token: string,
    @ValidBody(z.unknown(), { description: 'A new account, unless signed in', required: false })
    body: unknown,
    @Req() request: Request,
    @Res({ passthrough: true }) response: Response,
  ): Promise<Joined> {
    this.invitations.look(token);
    const session = sessionToken(request);
    const known = session ? this.accounts.userOf(session) : null;
    if (known) return { display: await this.invitations.join(token, known) };
    const { login, name, password } = parseBody(strongAccountSchema, body);
    const { user, insert } = await this.accounts.prepare(login, name, password);
    const display = await this.invitations.join(token, user, insert);
    beginSession(this.accounts, user, request, response);
    return { display };
  }

  /** Answers the same whether the name exists or not. */
  @Post('reset/ask')
  @HttpCode(202)
  ask(@ValidBody(askResetSchema) { login }: z.output<typeof askResetSchema>): { message: string } {
    // Looked up once the answer is on its way: its duration does not reveal whether the name exists.
    setImmediate(() => this.crew.askReset(login));
    return {
      message:
        'If there is such an account, an owner has been asked. They hand you a code, in person or by telephone.',
    };
  }
}
