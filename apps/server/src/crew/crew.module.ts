import { Module } from '@nestjs/common';
import { AccountsModule } from '../accounts/accounts.module.ts';
import { DisplaysModule } from '../displays/displays.module.ts';
import { LettersModule } from '../letters/letters.module.ts';
import { RemindersService } from '../letters/reminders.service.ts';
import { CrewController, JoinController } from './crew.controller.ts';
import { CrewService } from './crew.service.ts';
import { InvitationsService } from './invitations.service.ts';
import { MarksService } from './marks.service.ts';

/** Who is on a display: roles, invitations, what each has read, reminders of due days. */
@Module({
  imports: [AccountsModule, DisplaysModule, LettersModule],
  controllers: [JoinController, CrewController],
  providers: [CrewService, InvitationsService, MarksService, RemindersService],
})
export class CrewModule {}
