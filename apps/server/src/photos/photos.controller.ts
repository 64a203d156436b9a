import { Controller, Get, Headers, Inject, Post, Req, Res } from '@nestjs/common';
import { ApiConsumes, ApiTags } from '@nestjs/swagger';
import type { Request, Response } from 'express';
import type { z } from 'zod';
import type { User } from '@quarry/protocol/accounts';
import { digestSchema, photoQuerySchema, type KeptPhoto } from '@quarry/protocol/photos';
import { CurrentUser, OnDisplay } from '../http/access.ts';
import { PathId, ValidParam, ValidQuery } from '../http/validated.ts';
import { sendArchive } from './archive.ts';
import { PhotosService } from './photos.service.ts';
import { sendPhoto } from './sendPhoto.ts';

@ApiTags('photos')
@Controller('api/displays/:id/photos')
@OnDisplay()
export class PhotosController {
  constructor(@Inject(PhotosService) private readonly photos: PhotosService) {}

  /** Takes a picture in as the body of the request: it is re-encoded, at most 1,600 px, without place and camera. */
  @Post()
  @OnDisplay('builder', 'add photos')
  @ApiConsumes('image/jpeg', 'image/png', 'image/webp')
  keep(@PathId() id: string, @Req() request: Request, @CurrentUser() user: User): Promise<KeptPhoto> {
    const body: unknown = request.body;
    return this.photos.keep(id, user, body instanceof Uint8Array ? body : null);
  }

  /** The display file with its photos, in a ZIP archive. */
  @Get()
  async archive(@PathId() id: string, @Res() response: Response): Promise<void> {
    const { name, files } = this.photos.archive(id);
    response.type('application/zip').attachment(name);
    await sendArchive(response, files);
  }

  @Get(':digest')
  photo(
    @PathId() id: string,
    @ValidParam('digest', digestSchema) digest: string,
    @ValidQuery(photoQuerySchema) { small }: z.output<typeof photoQuerySchema>,
    @Headers('if-none-match') known: string | undefined,
    @Res() response: Response,
  ): void {
    const isSmall = small !== undefined;
    sendPhoto(response, { bytes: this.photos.bytes(id, digest, isSmall), digest, small: isSmall, known });
  }
}
