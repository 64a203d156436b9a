import { Controller, Get, Headers, Inject, Param, Post, Query, Req, Res, UseGuards } from '@nestjs/common';
import { ApiConsumes, ApiQuery, ApiTags } from '@nestjs/swagger';
import type { Request, Response } from 'express';
import type { User } from '../accounts/accounts.service.ts';
import { CurrentUser, SignedInGuard } from '../accounts/session.ts';
import { parseBody } from '../http/errors.ts';
import { sendArchive } from './archive.ts';
import { PhotosService, type KeptPhoto } from './photos.service.ts';
import { digestSchema, sendPhoto } from './sendPhoto.ts';

@ApiTags('photos')
@Controller('api/displays/:id/photos')
@UseGuards(SignedInGuard)
export class PhotosController {
  constructor(@Inject(PhotosService) private readonly photos: PhotosService) {}

  /** Takes a picture in as the body of the request: it is re-encoded, at most 1,600 px, without place and camera. */
  @Post()
  @ApiConsumes('image/jpeg', 'image/png', 'image/webp')
  keep(@Param('id') id: string, @Req() request: Request, @CurrentUser() user: User): Promise<KeptPhoto> {
    const body: unknown = request.body;
    return this.photos.keep(id, user, body instanceof Uint8Array ? body : null);
  }

  /** The display file with its photos, in a ZIP archive. */
  @Get()
  async archive(
    @Param('id') id: string,
    @CurrentUser() user: User,
    @Res() response: Response,
  ): Promise<void> {
    const { name, files } = this.photos.archive(id, user);
    response.type('application/zip').attachment(name);
    await sendArchive(response, files);
  }

  @Get(':digest')
  @ApiQuery({ name: 'small', required: false })
  photo(
    @Param('id') id: string,
    @Param('digest') digest: string,
    @Query('small') small: unknown,
    @Headers('if-none-match') known: string | undefined,
    @CurrentUser() user: User,
    @Res() response: Response,
  ): void {
    const bytes = this.photos.bytes(id, user, parseBody(digestSchema, digest), small !== undefined);
    sendPhoto(response, { bytes, digest, small: small !== undefined, known });
  }
}
