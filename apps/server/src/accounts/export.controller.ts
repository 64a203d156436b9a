import { Controller, Get, Inject, Res, UseGuards } from '@nestjs/common';
import { ApiTags } from '@nestjs/swagger';
import type { Response } from 'express';
import { writeFile } from '@quarry/core/scene';
import { WriterService } from '../changes/writer.service.ts';
import { DisplaysService } from '../displays/displays.service.ts';
import { LettersService } from '../letters/letters.service.ts';
import type { User } from './accounts.service.ts';
import { CurrentUser, SignedInGuard } from './session.ts';

/** Batches read at a time: a long log is written out piece by piece. */
const AT_A_TIME = 500;

@ApiTags('accounts')
@Controller('api/me/export')
@UseGuards(SignedInGuard)
export class ExportController {
  constructor(
    @Inject(DisplaysService) private readonly displays: DisplaysService,
    @Inject(WriterService) private readonly writer: WriterService,
    @Inject(LettersService) private readonly letters: LettersService,
  ) {}

  /** Everything one may see here, as one JSON: the account, its letters, and each display with its log. */
  @Get()
  async everything(@CurrentUser() user: User, @Res() response: Response): Promise<void> {
    response.attachment('open-quarry.json').type('application/json');
    const write = async (text: string) => {
      if (!response.write(text)) await new Promise((resolve) => response.once('drain', resolve));
    };
    await write(
      `{"account":${JSON.stringify(user)},"letters":${JSON.stringify(this.letters.of(user))},"displays":[`,
    );
    for (const [i, { id, role }] of this.displays.list(user).entries()) {
      const { scene, seq } = this.displays.hold(id);
      await write(`${i > 0 ? ',' : ''}{"role":"${role}","file":${writeFile(scene).trimEnd()},"log":[`);
      let after = 0;
      let part = this.writer.since(id, after, AT_A_TIME);
      while (part.length > 0 && after < seq) {
        await write(`${after > 0 ? ',' : ''}${part.map((batch) => JSON.stringify(batch)).join(',')}`);
        after = part[part.length - 1].seq;
        part = this.writer.since(id, after, AT_A_TIME);
      }
      await write(']}');
    }
    await write(']}\n');
    response.end();
  }
}
