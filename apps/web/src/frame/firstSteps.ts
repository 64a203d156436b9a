import { useMemo } from 'react';
import { KIND_NAMES, displayOf, isPlanKind, listOf, type Scene } from '@quarry/core/document';
import { usePaths } from '../data/stepPaths.ts';
import { useDisplay, useLink } from '../data/useDisplay.tsx';

// The short path of a new display: what to do first on each page, until it is walked or dismissed.

export const FIRST_STEPS = [
  { page: 'brief', word: 'Brief', hint: 'Set the scale, the day of the show and the house rules.' },
  { page: 'plan', word: 'Plan', hint: 'Draw the scene: pick a tool above, drag on the board.' },
  { page: 'cut', word: 'Cut', hint: 'Press “Cut”, compare, then “Use this cutting”.' },
  { page: 'stockpile', word: 'Needs', hint: 'See the pieces it takes; count what you have under “Count”.' },
] as const;
export type FirstStep = (typeof FIRST_STEPS)[number];

/** Whether a step has left something in the scene. */
const walked = (scene: Scene): Readonly<Record<FirstStep['page'], boolean>> => ({
  brief: displayOf(scene).v > 1,
  plan:
    listOf(scene, 'pad').length > 1 ||
    KIND_NAMES.some(
      (kind) =>
        isPlanKind(kind) &&
        !['pad', 'footprint', 'section', 'module'].includes(kind) &&
        listOf(scene, kind).length > 0,
    ),
  cut: listOf(scene, 'module').length > 0,
  stockpile: (['lot', 'partList', 'order'] as const).some((kind) => listOf(scene, kind).length > 0),
});

/** The steps of this display with what is done; null: it has no path, or the path is walked. */
export function useFirstSteps(): readonly (FirstStep & { done: boolean })[] | null {
  const { id } = useLink();
  const passed = usePaths(({ paths }) => paths[id]);
  // The selector answers with text, so that a change that walks no step renders nothing.
  const done = useDisplay(({ scene }) => {
    if (!passed) return null;
    const has = walked(scene);
    return FIRST_STEPS.filter(({ page }) => has[page] || passed.includes(page))
      .map(({ page }) => page)
      .join(' ');
  });
  return useMemo(() => {
    if (done === null) return null;
    const pages = done.split(' ');
    const steps = FIRST_STEPS.map((step) => ({ ...step, done: pages.includes(step.page) }));
    return steps.every((step) => step.done) ? null : steps;
  }, [done]);
}
