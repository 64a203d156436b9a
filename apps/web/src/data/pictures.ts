import { MAX_PICTURE } from '@quarry/core/document';

// Pictures as the browser reads them.

/** A picture of a file; null where the browser cannot read it. */
export async function decodePicture(file: File): Promise<ImageBitmap | null> {
  try {
    return await createImageBitmap(file);
  } catch {
    return null;
  }
}

/** A picture redrawn in so many pixels; null where the browser draws none. */
export function canvasOf(image: ImageBitmap, width: number, height: number): CanvasRenderingContext2D | null {
  const canvas = document.createElement('canvas');
  canvas.width = width;
  canvas.height = height;
  const ctx = canvas.getContext('2d');
  if (ctx) ctx.imageSmoothingQuality = 'high';
  ctx?.drawImage(image, 0, 0, width, height);
  return ctx;
}

/** The longest side of a picture that is kept, px. */
export const MAX_PICTURE_PIXELS = 1600;

/** A picture no larger than so many pixels a side. */
export function shrunkPicture(image: ImageBitmap, most: number): CanvasRenderingContext2D | null {
  const share = Math.min(1, most / Math.max(image.width, image.height));
  const pixels = (side: number) => Math.max(2, Math.round(side * share));
  return canvasOf(image, pixels(image.width), pixels(image.height));
}

/** A picture redrawn and encoded as JPEG: nothing of the file but its pixels is kept. Smaller until it fits. */
export function encodePicture(image: ImageBitmap, most: number): string | null {
  for (const pixels of [most, most / 2, most / 4]) {
    const url = shrunkPicture(image, pixels)?.canvas.toDataURL('image/jpeg', 0.8);
    if (url && url.length <= MAX_PICTURE) return url;
  }
  return null;
}
