import { dequal } from 'dequal/lite';
import { useEffect, useEffectEvent, useRef, useState } from 'react';
import type { Rect } from '@quarry/core/grid';
import { useView } from '../data/view.ts';
import { usePointer } from './pointer.ts';
import { bringIn, fit, type Viewport } from './viewport.ts';

interface Size {
  width: number;
  height: number;
}

/**
 * Where a board looks: the whole display at first and whenever it showed the whole before it got another size; what is
 * asked for elsewhere is brought in.
 * @param size of the board, px
 * @param whole the display, studs
 * @param isLookedAt it is looked at only: it always shows the whole
 */
export function useBoardView(size: Size, whole: Rect, isLookedAt: boolean) {
  const [view, setView] = useState<Viewport | null>(null);
  const goTo = useView((state) => state.goTo);
  const fitAll = () => setView(fit(whole, size.width, size.height));
  const fitAgain = useEffectEvent(fitAll);
  const isUnseen = view === null;
  useEffect(() => {
    if (size.width > 0 && isUnseen) fitAgain();
  }, [size.width, isUnseen]);
  // A board that shows the whole display still does when it gets another size, such as beside the open findings.
  const shownIn = useRef(size);
  const keepWhole = useEffectEvent(() => {
    const { width, height } = shownIn.current;
    shownIn.current = size;
    if (view && width > 0 && size.width > 0 && dequal(view, fit(whole, width, height))) fitAll();
  });
  useEffect(() => keepWhole(), [size.width, size.height]);
  useEffect(() => {
    if (isLookedAt && size.width > 0) fitAgain();
  }, [isLookedAt, size.width, size.height, whole.w, whole.d]);
  const show = useEffectEvent((spot: { x: number; y: number }) => {
    if (!isLookedAt) setView((now) => now && bringIn(now, spot.x, spot.y, size.width, size.height));
  });
  useEffect(() => {
    if (goTo) show(goTo);
  }, [goTo]);
  useEffect(() => {
    if (view && !isLookedAt) usePointer.setState({ zoom: view.scale });
  }, [view, isLookedAt]);
  return { view, setView, fitAll };
}
