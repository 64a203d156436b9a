import { useEffect, useEffectEvent, type RefObject } from 'react';
import { KINDS, labelOf, type Scene } from '@quarry/core/document';
import type { BoardLayer } from '../data/view.ts';
import { capital } from '../ui/words.ts';
import { pickAt } from './pick.ts';
import type { Viewport } from './viewport.ts';

/** How long the pointer rests before the name is looked up, ms. */
const REST_MS = 200;

/**
 * Shows the full name of what the pointer rests on as the tooltip of a board: names on the plan are abbreviated, or
 * left out where there is no room.
 */
export function useHoverName(
  host: RefObject<HTMLElement | null>,
  scene: Scene,
  hidden: ReadonlySet<BoardLayer>,
  view: Viewport | null,
): void {
  const nameAt = useEffectEvent((x: number, y: number): string => {
    const found = view && pickAt(scene, hidden, view, x, y, null);
    return found ? `${capital(KINDS[found.kind].word)}: ${labelOf(scene, found.kind, found.id)}` : '';
  });
  useEffect(() => {
    const element = host.current;
    if (!element) return;
    let timer: ReturnType<typeof setTimeout> | undefined;
    const forget = () => {
      clearTimeout(timer);
      element.removeAttribute('title');
    };
    const look = ({ clientX, clientY, buttons }: PointerEvent) => {
      forget();
      if (buttons !== 0) return;
      timer = setTimeout(() => {
        const { left, top } = element.getBoundingClientRect();
        const name = nameAt(clientX - left, clientY - top);
        if (name) element.title = name;
      }, REST_MS);
    };
    element.addEventListener('pointermove', look);
    element.addEventListener('pointerleave', forget);
    return () => {
      forget();
      element.removeEventListener('pointermove', look);
      element.removeEventListener('pointerleave', forget);
    };
  }, [host]);
}
