import { useEffect, useEffectEvent, useRef } from 'react';
import type { Rect } from '@quarry/core/grid';
import { SceneBitmap } from './sceneBitmap.ts';
import type { Picture } from './ink.ts';
import { rectToScreen } from './viewport.ts';

/** A picture drawn over the left part of another one: `share` of the width, 0 to 1. */
export interface BesidePicture {
  picture: Picture;
  share: number;
}

interface SceneCanvasProps {
  picture: Picture;
  beside: BesidePicture | null;
  /** Hatches over a rectangle of studs, a pixel for each of its parts. */
  shade: { hatches: HTMLCanvasElement; over: Rect } | null;
  /** Once the fonts are there, everything is drawn with them. */
  fontsReady: boolean;
}

/** The scene on a canvas, drawn once a frame from bitmaps that are kept while the view moves. */
export function SceneCanvas({ picture, beside, shade, fontsReady }: SceneCanvasProps) {
  const canvas = useRef<HTMLCanvasElement>(null);
  const bitmaps = useRef<{ own: SceneBitmap; beside: SceneBitmap } | null>(null);
  const frame = useRef(0);
  const draw = useEffectEvent(() => {
    if (canvas.current && bitmaps.current)
      drawBoard(canvas.current, bitmaps.current, { picture, beside, shade });
  });
  const drawSoon = useEffectEvent(() => {
    cancelAnimationFrame(frame.current);
    frame.current = requestAnimationFrame(() => draw());
  });
  useEffect(() => {
    const fresh = () => new SceneBitmap(() => drawSoon());
    const both = { own: fresh(), beside: fresh() };
    bitmaps.current = both;
    return () => {
      cancelAnimationFrame(frame.current);
      both.own.dispose();
      both.beside.dispose();
    };
  }, [fontsReady]);
  // Every picture is another one: whatever differs is drawn with the next frame.
  useEffect(() => drawSoon());
  return <canvas ref={canvas} className="absolute inset-0 h-full w-full" />;
}

function drawBoard(
  canvas: HTMLCanvasElement,
  bitmaps: { own: SceneBitmap; beside: SceneBitmap },
  { picture, beside, shade }: Omit<SceneCanvasProps, 'fontsReady'>,
): void {
  const ratio = devicePixelRatio;
  const { width, height, view, palette } = picture;
  const context = sized(canvas, Math.round(width * ratio), Math.round(height * ratio));
  if (!context) return;
  context.setTransform(ratio, 0, 0, ratio, 0, 0);
  bitmaps.own.draw(context, picture, ratio);
  if (beside) {
    const border = Math.round(beside.share * width);
    context.save();
    context.beginPath();
    context.rect(0, 0, border, height);
    context.clip();
    bitmaps.beside.draw(context, beside.picture, ratio);
    context.restore();
    context.strokeStyle = palette.iron;
    context.lineWidth = 2;
    context.beginPath();
    context.moveTo(border, 0);
    context.lineTo(border, height);
    context.stroke();
  }
  if (shade) {
    const { x, y, w, d } = rectToScreen(view, shade.over);
    context.imageSmoothingEnabled = false;
    context.drawImage(shade.hatches, x, y, w, d);
    context.imageSmoothingEnabled = true;
  }
}

/** The context of a canvas of that many pixels; one that has them is kept, for a new size empties it. */
function sized(canvas: HTMLCanvasElement, width: number, height: number): CanvasRenderingContext2D | null {
  if (canvas.width !== width) canvas.width = width;
  if (canvas.height !== height) canvas.height = height;
  return canvas.getContext('2d');
}
