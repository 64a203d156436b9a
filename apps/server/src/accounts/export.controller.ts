import { Controller, Get, Inject, Res } from '@nestjs/common';
import { ApiTags } from '@nestjs/swagger';
import type { Response } from 'express';
import { present } from '@quarry/core/grid';
import { ARCHIVED_DISPLAY, fileName } from '@quarry/core/formats';
import { writeFile } from '@quarry/core/document';
import { WriterService } from '../changes/writer.service.ts';
import { DisplaysService } from '../displays/displays.service.ts';
import { CurrentUser, SignedIn } from '../http/access.ts';
import { LettersService } from '../letters/letters.service.ts';
import { sendArchive, textParts, type ArchiveFile } from '../photos/archive.ts';
import { PhotosService } from '../photos/photos.service.ts';
import type { User } from '@quarry/protocol/accounts';

/** Batches read at a time: a long log is written out piece by piece. */
const AT_A_TIME = 500;

@ApiTags('accounts')
@Controller('api/me/export')
@SignedIn()
export class ExportController {
  constructor(
    @Inject(DisplaysService) private readonly displays: DisplaysService,
    @Inject(WriterService) private readonly writer: WriterService,
    @Inject(LettersService) private readonly letters: LettersService,
    @Inject(PhotosService) private readonly photos: PhotosService,
  ) {}

  /** Everything one may see here: the account, its letters, and each display with its log and photos, in a ZIP archive. */
  @Get()
  async everything(@CurrentUser() user: User, @Res() response: Response): Promise<void> {
    response.type('application/zip').attachment('open-quarry.zip');
    await sendArchive(response, this.files(user));
  }

  private *files(user: User): Generator<ArchiveFile> {
    const about = { account: user, letters: this.letters.of(user) };
    yield { name: 'account.json', parts: textParts(`${JSON.stringify(about, null, 2)}\n`) };
    for (const [i, { id, name, role }] of this.displays.list(user).entries()) {
      const { scene } = this.displays.load(id);
      // Two displays may have one name.
      const folder = fileName([String(i + 1), name], role);
      const inside = [
        { name: ARCHIVED_DISPLAY, parts: textParts(writeFile(scene)) },
        { name: 'log.json', parts: () => this.log(id) },
        ...this.photos.archived(id, scene),
      ];
      for (const file of inside) yield { ...file, name: `${folder}/${file.name}` };
    }
  }

  /** A display's log as a JSON list, piece by piece. */
  private *log(id: string): Generator<Uint8Array> {
    const encode = (text: string) => new TextEncoder().encode(text);
    const { seq } = this.displays.load(id);
    yield encode('[');
    let after = 0;
    let part = this.writer.since(id, after, AT_A_TIME);
    while (part.length > 0 && after < seq) {
      yield encode(`${after > 0 ? ',' : ''}${part.map((batch) => JSON.stringify(batch)).join(',\n')}`);
      after = present(part.at(-1), 'the last batch').seq;
      part = this.writer.since(id, after, AT_A_TIME);
    }
    yield encode(']\n');
  }
}
