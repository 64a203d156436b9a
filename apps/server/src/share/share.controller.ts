import { Controller, Delete, Get, Headers, HttpCode, Inject, Put, Req, Res } from '@nestjs/common';
import { ApiTags } from '@nestjs/swagger';
import type { Request, Response } from 'express';
import type { z } from 'zod';
import { digestSchema, photoQuerySchema } from '@quarry/protocol/photos';
import { setShareSchema, type ShareState } from '@quarry/protocol/share';
import { Anyone, OnDisplay } from '../http/access.ts';
import { ApiError } from '../http/errors.ts';
import { PathId, ValidBody, ValidParam, ValidQuery } from '../http/validated.ts';
import { sendPhoto } from '../photos/sendPhoto.ts';
import { ShareService } from './share.service.ts';

/** Switching the public page of a display on and off. */
@ApiTags('share')
@Controller('api/displays/:id/share')
@OnDisplay()
export class ShareController {
  constructor(@Inject(ShareService) private readonly share: ShareService) {}

  @Get()
  state(@PathId() id: string): ShareState {
    return this.share.state(id);
  }

  @Put()
  @OnDisplay('owner', 'share a display with the public')
  set(@PathId() id: string, @ValidBody(setShareSchema) set: z.output<typeof setShareSchema>): ShareState {
    return this.share.set(id, set);
  }

  @Delete()
  @OnDisplay('owner', 'switch off the public page')
  @HttpCode(204)
  off(@PathId() id: string): void {
    this.share.off(id);
  }
}

/** The public page: no account, no cookie, nothing to write. */
@ApiTags('share')
@Controller('s')
@Anyone()
export class PublicController {
  constructor(@Inject(ShareService) private readonly share: ShareService) {}

  @Get(':token')
  async page(
    @PathId('token') token: string,
    @Req() request: Request,
    @Res() response: Response,
  ): Promise<void> {
    response.set({ 'cache-control': 'no-cache', 'x-robots-tag': 'noindex' }).type('html');
    try {
      const { html, gzip, etag } = await this.share.page(token);
      response.set({ etag }).vary('accept-encoding');
      if (request.headers['if-none-match'] === etag) response.status(304).end();
      else if (request.acceptsEncodings('gzip')) response.set('content-encoding', 'gzip').send(gzip);
      else response.send(html);
    } catch (error) {
      if (!(error instanceof ApiError)) throw error;
      response.status(error.getStatus()).send(this.share.nothing(error.message));
    }
  }

  @Get(':token/photos/:digest')
  photo(
    @PathId('token') token: string,
    @ValidParam('digest', digestSchema) digest: string,
    @ValidQuery(photoQuerySchema) { small }: z.output<typeof photoQuerySchema>,
    @Headers('if-none-match') known: string | undefined,
    @Res() response: Response,
  ): void {
    const isSmall = small !== undefined;
    sendPhoto(response, { bytes: this.share.photo(token, digest, isSmall), digest, small: isSmall, known });
  }
}
