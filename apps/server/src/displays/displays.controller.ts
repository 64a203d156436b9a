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
  Res,
  UseGuards,
} from '@nestjs/common';
import { ApiBody, ApiTags } from '@nestjs/swagger';
import type { Response } from 'express';
import { createZodDto } from 'nestjs-zod';
import { z } from 'zod';
import { fileName } from '@quarry/core/formats';
import {
  line,
  blankDisplay,
  displayOf,
  presetSchema,
  readFile,
  toRows,
  writeFile,
  type Actor,
  type EntityRow,
} from '@quarry/core/document';
import type { User } from '../accounts/accounts.service.ts';
import { CurrentUser, SignedInGuard } from '../accounts/session.ts';
import { ApiError, parseBody } from '../http/errors.ts';
import { initialsOf } from '../http/initials.ts';
import { DisplaysService, type DisplayLine } from './displays.service.ts';

const createSchema = z.strictObject({
  name: line().trim().min(1, 'a name is needed').max(80),
  preset: presetSchema,
});
class CreateDisplayDto extends createZodDto(createSchema) {}

@ApiTags('displays')
@Controller('api/displays')
@UseGuards(SignedInGuard)
export class DisplaysController {
  constructor(@Inject(DisplaysService) private readonly displays: DisplaysService) {}

  @Get()
  list(@CurrentUser() user: User): DisplayLine[] {
    return this.displays.list(user);
  }

  @Post()
  @ApiBody({ type: CreateDisplayDto })
  create(@Body() body: unknown, @CurrentUser() user: User): DisplayLine {
    const { name, preset } = parseBody(createSchema, body);
    return this.displays.create(
      user,
      blankDisplay(name, preset, { name: user.name, initials: initialsOf(user.name) }),
      'me',
    );
  }

  /** Takes a display file as text, so that its size and nesting are checked before it is parsed. */
  @Post('import')
  @ApiBody({ description: 'A display file (docs/schema/display.schema.json)', schema: { type: 'object' } })
  import(@Body() body: unknown, @CurrentUser() user: User): DisplayLine {
    const reading = readFile(typeof body === 'string' ? body : '');
    if (!reading.ok) throw new ApiError(HttpStatus.UNPROCESSABLE_ENTITY, 'invalid', reading.error);
    const mine = Object.values(reading.scene.person).find(({ name }) => name === user.name);
    return this.displays.create(user, reading.scene, mine?.id ?? null);
  }

  @Get(':id')
  read(
    @Param('id') id: string,
    @CurrentUser() user: User,
  ): { id: string; epoch: number; seq: number; actor: Actor; rows: EntityRow[] } {
    const actor = this.displays.actor(id, user);
    const { scene, seq } = this.displays.load(id);
    return { id, actor, epoch: this.displays.epoch, seq, rows: toRows(scene) };
  }

  @Get(':id/file')
  file(@Param('id') id: string, @CurrentUser() user: User, @Res() response: Response): void {
    this.displays.actor(id, user);
    const { scene } = this.displays.load(id);
    response
      .type('application/json')
      .attachment(fileName([displayOf(scene).name], 'quarry.json'))
      .send(writeFile(scene));
  }

  @Delete(':id')
  @HttpCode(204)
  remove(@Param('id') id: string, @CurrentUser() user: User): void {
    this.displays.remove(id, user);
  }
}
