import {
  Controller,
  Get,
  Headers,
  HttpStatus,
  Inject,
  Param,
  Post,
  Query,
  Req,
  Res,
  UseGuards,
} from '@nestjs/common';
import { ApiConsumes, ApiQuery, ApiTags } from '@nestjs/swagger';
import type { Request, Response } from 'express';
import { z } from 'zod';
import type { User } from '../accounts/accounts.service.ts';
import { CurrentUser, SignedInGuard } from '../accounts/session.ts';
import { parseBody } from '../http/errors.ts';
import { PhotosService, type KeptPhoto } from './photos.service.ts';

const digestSchema = z.string().regex(/^[0-9a-f]{64}$/, 'a photo is told by the digest of its file');

@ApiTags('photos')
@Controller('api/displays/:id/photos')
@UseGuards(SignedInGuard)
export class PhotosController {
  constructor(@Inject(PhotosService) private readonly photos: PhotosService) {}

  /** Takes a picture in as the body of the request: it is made anew, at most 1,600 px, without place and camera. */
  @Post()
  @ApiConsumes('image/jpeg', 'image/png', 'image/webp')
  keep(@Param('id') id: string, @Req() request: Request, @CurrentUser() user: User): Promise<KeptPhoto> {
    const body: unknown = request.body;
    return this.photos.keep(id, user, body instanceof Uint8Array ? body : null);
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
    const etag = `"${digest}${small === undefined ? '' : '-s'}"`;
    // Never another's: what is kept is asked for again by its tag, so that whoever left sees nothing more.
    response.set({ etag, 'cache-control': 'private, no-cache', 'x-content-type-options': 'nosniff' });
    if (known === etag) response.status(HttpStatus.NOT_MODIFIED).end();
    else response.type('image/jpeg').send(bytes);
  }
}
