import type Konva from 'konva';
import { useEffect, useRef } from 'react';
import { Layer as KonvaLayer, Shape } from './konva.ts';
import { SceneBitmap } from './sceneBitmap.ts';
import type { Picture } from './ink.ts';

/** A picture drawn over the left part of another one: `share` of the width, 0 to 1. */
export interface BesidePicture {
  picture: Picture;
  share: number;
}

/**
 * The scene as one shape on a layer of its own, drawn from bitmaps that are kept while the view moves.
 * @param fontsReady once the fonts are there, everything is drawn with them
 */
export function SceneShape({
  picture,
  beside,
  fontsReady,
}: {
  picture: Picture;
  beside: BesidePicture | null;
  fontsReady: boolean;
}) {
  const { width, height } = picture;
  const layer = useRef<Konva.Layer>(null);
  const sheets = useRef<{ own: SceneBitmap; beside: SceneBitmap } | null>(null);
  useEffect(() => {
    const fresh = () => new SceneBitmap(() => layer.current?.batchDraw());
    const both = { own: fresh(), beside: fresh() };
    sheets.current = both;
    layer.current?.batchDraw();
    return () => {
      both.own.dispose();
      both.beside.dispose();
    };
  }, [fontsReady]);
  const draw = (context: CanvasRenderingContext2D) => {
    const ratio = layer.current?.getCanvas().getPixelRatio() ?? 1;
    sheets.current?.own.draw(context, picture, ratio);
    if (!beside) return;
    const border = Math.round(beside.share * width);
    context.save();
    context.beginPath();
    context.rect(0, 0, border, height);
    context.clip();
    sheets.current?.beside.draw(context, beside.picture, ratio);
    context.restore();
    context.strokeStyle = picture.palette.iron;
    context.lineWidth = 2;
    context.beginPath();
    context.moveTo(border, 0);
    context.lineTo(border, height);
    context.stroke();
  };
  return (
    <KonvaLayer ref={layer}>
      <Shape
        name="sheet"
        sceneFunc={(context) => draw(context._context)}
        hitFunc={(context, shape) => {
          context.beginPath();
          context.rect(0, 0, width, height);
          context.fillStrokeShape(shape);
        }}
      />
    </KonvaLayer>
  );
}
