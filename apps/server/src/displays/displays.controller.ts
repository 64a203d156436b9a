import { Controller, Delete, Get, HttpCode, HttpStatus, Inject, Post, Res } from '@nestjs/common';
import { ApiTags } from '@nestjs/swagger';
import type { Response } from 'express';
import { z } from 'zod';
import { fileName } from '@quarry/core/formats';
import {
  blankDisplay,
  displayOf,
  readFile,
  toRows,
  writeFile,
  writePieceFile,
  type Actor,
} from '@quarry/core/document';
import type { User } from '@quarry/protocol/accounts';
import {
  type CreatedDisplay,
  type DisplayLine,
  type KeptPiece,
  type PieceText,
} from '@quarry/protocol/displays';
import { copyDisplaySchema, createDisplaySchema, type DisplayDocument } from '@quarry/protocol/document';
import { CurrentActor, CurrentUser, OnDisplay, SignedIn } from '../http/access.ts';
import { ApiError, notFound } from '../http/errors.ts';
import { initialsOf } from '../http/initials.ts';
import { PathId, ValidBody } from '../http/validated.ts';
import { DisplaysService } from './displays.service.ts';

/** A display file as text, so that its size and nesting are checked before it is parsed. */
const fileTextSchema = z.string();

@ApiTags('displays')
@Controller('api/displays')
@SignedIn()
export class DisplaysController {
  constructor(@Inject(DisplaysService) private readonly displays: DisplaysService) {}

  @Get()
  list(@CurrentUser() user: User): DisplayLine[] {
    return this.displays.list(user);
  }

  @Post()
  create(
    @ValidBody(createDisplaySchema) { name, start }: z.output<typeof createDisplaySchema>,
    @CurrentUser() user: User,
  ): CreatedDisplay {
    return this.displays.create(
      user,
      blankDisplay(name, start, { name: user.name, initials: initialsOf(user.name) }),
      'me',
    );
  }

  @Post('import')
  import(
    @ValidBody(fileTextSchema, { description: 'A display file (docs/schema/display.schema.json)' })
    text: string,
    @CurrentUser() user: User,
  ): CreatedDisplay {
    const reading = readFile(text);
    if (!reading.ok) throw new ApiError(HttpStatus.UNPROCESSABLE_ENTITY, 'invalid', reading.error);
    const mine = Object.values(reading.scene.person).find(({ name }) => name === user.name);
    return this.displays.create(user, reading.scene, mine?.id ?? null);
  }

  /** The pieces that are kept in all displays of this user. */
  @Get('pieces')
  pieces(@CurrentUser() user: User): KeptPiece[] {
    return this.displays.pieces(user);
  }

  @Get(':id')
  @OnDisplay()
  read(@PathId() id: string, @CurrentActor() actor: Actor): DisplayDocument {
    const { scene, seq } = this.displays.load(id);
    return { id, actor, epoch: this.displays.epoch, seq, rows: toRows(scene) };
  }

  /** A piece of a display as its file, so that another display reads it. */
  @Get(':id/pieces/:piece')
  @OnDisplay()
  piece(@PathId() id: string, @PathId('piece') pieceId: string): PieceText {
    const { piece } = this.displays.load(id).scene;
    const kept = Object.hasOwn(piece, pieceId) ? piece[pieceId] : undefined;
    if (!kept) throw notFound('piece');
    return { text: writePieceFile(kept) };
  }

  @Get(':id/file')
  @OnDisplay()
  file(@PathId() id: string, @Res() response: Response): void {
    const { scene } = this.displays.load(id);
    response
      .type('application/json')
      .attachment(fileName([displayOf(scene).name], 'quarry.json'))
      .send(writeFile(scene));
  }

  /** Another display that begins as this one stands, with its photos. */
  @Post(':id/copy')
  @OnDisplay()
  copy(
    @PathId() id: string,
    @ValidBody(copyDisplaySchema) { name }: z.output<typeof copyDisplaySchema>,
    @CurrentUser() user: User,
    @CurrentActor() { person }: Actor,
  ): CreatedDisplay {
    return this.displays.copy(id, name, user, person);
  }

  @Delete(':id')
  @OnDisplay('owner', 'delete a display')
  @HttpCode(204)
  remove(@PathId() id: string): void {
    this.displays.remove(id);
  }
}
