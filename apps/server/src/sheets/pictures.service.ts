import { Inject, Injectable } from '@nestjs/common';
import { LRUCache } from 'lru-cache';
import { DisplaysService } from '../displays/displays.service.ts';
import { PressService } from './press.service.ts';

/** Pictures kept in memory, in characters of SVG. */
const MAX_KEPT = 32_000_000;

/** Plans of displays as small pictures: each is drawn once for a number of its log, and one at a time for each person. */
@Injectable()
export class PicturesService {
  private readonly kept = new LRUCache<string, { seq: number; svg: string }>({
    maxSize: MAX_KEPT,
    sizeCalculation: ({ svg }) => svg.length + 1,
  });
  /** The last drawing that each person waits for. */
  private readonly turns = new Map<string, Promise<unknown>>();

  constructor(
    @Inject(DisplaysService) private readonly displays: DisplaysService,
    @Inject(PressService) private readonly press: PressService,
  ) {}

  /** @param userId whose turn it takes @returns an SVG document without names */
  async of(displayId: string, userId: string): Promise<string> {
    const before = this.turns.get(userId) ?? Promise.resolve();
    const drawing = before.catch(() => undefined).then(() => this.draw(displayId, userId));
    this.turns.set(userId, drawing);
    try {
      return await drawing;
    } finally {
      if (this.turns.get(userId) === drawing) this.turns.delete(userId);
    }
  }

  private async draw(displayId: string, userId: string): Promise<string> {
    const { scene, seq } = this.displays.load(displayId);
    const known = this.kept.get(displayId);
    if (known?.seq === seq) return known.svg;
    const job = { what: 'picture' as const, rows: this.press.textOf(scene) };
    const { body } = await this.press.make(`picture ${userId}`, job);
    const svg = typeof body === 'string' ? body : Buffer.from(body).toString('utf8');
    this.kept.set(displayId, { seq, svg });
    return svg;
  }
}
