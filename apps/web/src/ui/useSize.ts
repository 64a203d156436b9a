import { useLayoutEffect, useRef, useState, type RefObject } from 'react';

/** The inner size of an element in whole pixels, kept as it changes; 0 × 0 until it is laid out. */
export function useSize<E extends HTMLElement>(): [RefObject<E | null>, { width: number; height: number }] {
  const ref = useRef<E>(null);
  const [size, setSize] = useState({ width: 0, height: 0 });
  useLayoutEffect(() => {
    if (!ref.current) return;
    const watch = new ResizeObserver(([entry]) => {
      if (!entry) return;
      const { contentRect } = entry;
      setSize({ width: Math.floor(contentRect.width), height: Math.floor(contentRect.height) });
    });
    watch.observe(ref.current);
    return () => watch.disconnect();
  }, []);
  return [ref, size];
}
