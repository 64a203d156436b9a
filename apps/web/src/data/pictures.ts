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
