import {
  Body,
  Controller,
  Delete,
  Get,
  Headers,
  HttpCode,
  Inject,
  Param,
  Put,
  Query,
  Res,
  UseGuards,
} from '@nestjs/common';
import { ApiBody, ApiQuery, ApiTags } from '@nestjs/swagger';
import type { Response } from 'express';
import { createZodDto } from 'nestjs-zod';
import { z } from 'zod';
import type { User } from '../accounts/accounts.service.ts';
import { CurrentUser, SignedInGuard } from '../accounts/session.ts';
import { parseBody } from '../http/errors.ts';
import { digestSchema, sendPhoto } from '../photos/sendPhoto.ts';
import { ShareService, type ShareState } from './share.service.ts';

const shareSchema = z.strictObject({ names: z.boolean().default(false), fresh: z.boolean().default(false) });
class ShareDto extends createZodDto(shareSchema) {}

/** Switching the public page of a display on and off. */
@ApiTags('share')
@Controller('api/displays/:id/share')
@UseGuards(SignedInGuard)
export class ShareController {
  constructor(@Inject(ShareService) private readonly share: ShareService) {}

  @Get()
  state(@Param('id') id: string, @CurrentUser() user: User): ShareState {
    return this.share.state(id, user);
  }

  @Put()
  @ApiBody({ type: ShareDto })
  set(@Param('id') id: string, @Body() body: unknown, @CurrentUser() user: User): ShareState {
    return this.share.set(id, user, parseBody(shareSchema, body));
  }

  @Delete()
  @HttpCode(204)
  off(@Param('id') id: string, @CurrentUser() user: User): void {
    this.share.off(id, user);
  }
}

/** The public page: no account, no cookie, nothing to write. */
@ApiTags('share')
@Controller('api/share')
export class PublicController {
  constructor(@Inject(ShareService) private readonly share: ShareService) {}

  @Get(':token')
  async page(
    @Param('token') token: string,
    @Headers('if-none-match') known: string | undefined,
    @Res() response: Response,
  ): Promise<void> {
    const { page, etag } = await this.share.page(token);
    response.set({ etag, 'cache-control': 'no-cache', 'x-robots-tag': 'noindex' });
    if (known === etag) response.status(304).end();
    else response.type('application/json').send(page);
  }

  @Get(':token/photos/:digest')
  @ApiQuery({ name: 'small', required: false })
  photo(
    @Param('token') token: string,
    @Param('digest') digest: string,
    @Query('small') small: unknown,
    @Headers('if-none-match') known: string | undefined,
    @Res() response: Response,
  ): void {
    const bytes = this.share.photo(token, parseBody(digestSchema, digest), small !== undefined);
    sendPhoto(response, { bytes, digest, small: small !== undefined, known });
  }
}
