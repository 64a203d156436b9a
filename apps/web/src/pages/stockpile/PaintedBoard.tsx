import { useMemo } from 'react';
import { colourOf } from '@quarry/core/catalogue';
import { useDisplay } from '../../data/useDisplay.tsx';
import { Board } from '../../board/Board.tsx';
import { Loading } from '../../ui/parts.tsx';
import { useDerived } from '../../workers/useDerived.ts';
import { useMaterialsWorker } from './useMaterialsWorker.ts';

/** The whole display from above in the colours its recipes give it. */
export function PaintedBoard() {
  const scene = useDisplay(({ scene }) => scene);
  const ground = useDerived(({ ground }) => ground);
  const painted = useMaterialsWorker((worker) => worker.painted(), 'painted');
  const relief = ground?.relief;
  const paint = useMemo(() => {
    if (!painted || !relief || painted.studs.length !== relief.w * relief.d) return null;
    const canvas = document.createElement('canvas');
    canvas.width = relief.w;
    canvas.height = relief.d;
    const ctx = canvas.getContext('2d');
    if (!ctx) return null;
    const image = ctx.createImageData(relief.w, relief.d);
    const rgb = painted.colours.map((id) => Number.parseInt((colourOf(id)?.hex ?? '#888888').slice(1), 16));
    painted.studs.forEach((number, i) => {
      if (number < 0) return;
      const colour = rgb[number] ?? 0x888888;
      image.data.set([colour >> 16, (colour >> 8) & 255, colour & 255, 255], 4 * i);
    });
    ctx.putImageData(image, 0, 0);
    return canvas;
  }, [painted, relief]);
  if (!paint) return <Loading what="Painting the ground" />;
  return <Board scene={scene} ground={ground} paint={paint} label="The ground in its colours, from above" />;
}
