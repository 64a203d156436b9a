import ApexCharts, { type ApexOptions } from 'apexcharts';
import { useEffect, useEffectEvent, useRef, type RefObject } from 'react';

/**
 * Draws a chart into an element. That must not take its width from the chart (`contain-inline-size`), or it never grows narrower.
 * @param options made when the chart is drawn
 * @param figures what it shows, as text: it is drawn again when that differs, not when lists are new ones
 */
export function useChart(options: () => ApexOptions, figures: string): RefObject<HTMLDivElement | null> {
  const ref = useRef<HTMLDivElement>(null);
  const made = useEffectEvent(options);
  useEffect(() => {
    if (!ref.current) return;
    const chart = new ApexCharts(ref.current, made());
    void chart.render();
    return () => chart.destroy();
  }, [figures]);
  return ref;
}
