import { Controller, Get, Inject, Res } from '@nestjs/common';
import { ApiTags } from '@nestjs/swagger';
import type { Response } from 'express';
import type { User } from '@quarry/protocol/accounts';
import { CurrentUser, OnDisplay } from '../http/access.ts';
import { PathId } from '../http/validated.ts';
import { PicturesService } from './pictures.service.ts';

const WEEK_S = 7 * 24 * 3600;

@ApiTags('sheets')
@Controller('api/displays/:id/picture')
@OnDisplay()
export class PicturesController {
  constructor(@Inject(PicturesService) private readonly pictures: PicturesService) {}

  /** The plan as a small picture. Who asks names the number of the log, so that a browser may keep what it has. */
  @Get()
  async picture(@PathId() id: string, @CurrentUser() user: User, @Res() response: Response): Promise<void> {
    const svg = await this.pictures.of(id, user.id);
    response.type('image/svg+xml').setHeader('Cache-Control', `private, max-age=${WEEK_S}`).send(svg);
  }
}
