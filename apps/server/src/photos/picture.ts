import { HttpStatus } from '@nestjs/common';
import { ApiError } from '../http/errors.ts';

/** The largest picture that is opened. */
const MAX_PIXELS = 60_000_000;
/** What is opened: pictures of dots only, never drawings with instructions in them. */
const FORMATS = ['jpeg', 'png', 'webp', 'gif', 'tiff', 'heif'] as const;
/** The longer side of what is kept, px. */
const KEPT = 1600;
const SMALL = 240;
const QUALITY = 80;

/** What opens pictures is large: it comes with the first of them, not with the server. */
const opener = async () => (await import('sharp')).default;

/** A picture opened and drawn again: upright, no larger than is looked at, without anything that was written into it. */
export async function reencode(
  sent: Uint8Array,
): Promise<{ bytes: Buffer; small: Buffer; width: number; height: number }> {
  const sharp = await opener();
  try {
    const opened = sharp(sent, { limitInputPixels: MAX_PIXELS, failOn: 'error' }).rotate();
    const { format } = await opened.metadata();
    if (!FORMATS.some((one) => one === format)) throw new Error(`not ${format}`);
    const shrink = (side: number) =>
      opened
        .clone()
        .resize(side, side, { fit: 'inside', withoutEnlargement: true })
        .flatten({ background: '#fff' });
    const { data, info } = await shrink(KEPT)
      .jpeg({ quality: QUALITY })
      .toBuffer({ resolveWithObject: true });
    const small = await shrink(SMALL).jpeg({ quality: QUALITY }).toBuffer();
    return { bytes: data, small, width: info.width, height: info.height };
  } catch (error) {
    const tooLarge = error instanceof Error && error.message.includes('pixel limit');
    throw new ApiError(
      HttpStatus.BAD_REQUEST,
      tooLarge ? 'too-large' : 'no-picture',
      tooLarge
        ? `This picture has more than ${MAX_PIXELS / 1e6} million pixels.`
        : `This file (${sent.length.toLocaleString('en')} bytes) does not open as a picture: JPEG, PNG, WebP and the like do.`,
    );
  }
}

/** A drawing of our own as a picture of dots. @param path an SVG file that ships with the program */
export async function rasterizeSvg(path: string): Promise<Buffer> {
  const sharp = await opener();
  return sharp(path).png().toBuffer();
}
