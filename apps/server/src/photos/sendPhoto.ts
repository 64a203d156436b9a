import { HttpStatus } from '@nestjs/common';
import type { Response } from 'express';

/** Sends a photo by its tag. Caches must revalidate, so that lost access takes effect at once. */
export function sendPhoto(
  response: Response,
  {
    bytes,
    digest,
    small,
    known,
  }: { bytes: Buffer; digest: string; small: boolean; known: string | undefined },
): void {
  const etag = `"${digest}${small ? '-s' : ''}"`;
  response.set({ etag, 'cache-control': 'private, no-cache', 'x-content-type-options': 'nosniff' });
  if (known === etag) response.status(HttpStatus.NOT_MODIFIED).end();
  else response.type('image/jpeg').send(bytes);
}
