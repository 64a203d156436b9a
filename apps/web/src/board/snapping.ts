import { useMemo, useRef, useState } from 'react';
import { intersection, type Rect } from '@quarry/core/grid';
import { keyOf, listOf, type Scene } from '@quarry/core/document';
import { currentContents, snapTo, tableInStuds, type Guide } from '@quarry/core/venue';
import type { Picked } from '../data/view.ts';
import { BOARD_KINDS, PLACED } from './kinds/index.ts';
import { snapRect } from './pick.ts';
import { placeOf } from './place.ts';
import type { Viewport } from './viewport.ts';

/** How near an edge must come to another to be brought there, px. */
const NEAR = 7;
/** What the edges of a moving thing are brought to. */
const TO = PLACED.filter((kind) => BOARD_KINDS[kind].snaps);
/** Only what is near is looked at, studs. */
const WITHIN = 64;

/** Snaps a moved shape to edges and middles nearby, and returns the lines it snapped to. */
export function useSnap(scene: Scene, picks: readonly Picked[], view: Viewport | null, active: boolean) {
  const [guides, setGuides] = useState<readonly Guide[]>([]);
  const last = useRef('');
  const others = useMemo((): Rect[] => {
    if (!active) return [];
    const own = new Set(picks.map(({ kind, id }) => keyOf(kind, id)));
    return [
      ...TO.flatMap((kind) =>
        listOf(scene, kind).flatMap(({ id }) => {
          const place = own.has(keyOf(kind, id)) ? null : placeOf(scene, { kind, id });
          return place ? [place] : [];
        }),
      ),
      ...currentContents(scene, 'table').map((table) => tableInStuds(scene, table)),
    ];
  }, [scene, picks, active]);
  const show = (next: readonly Guide[]) => {
    const key = JSON.stringify(next);
    if (key === last.current) return;
    last.current = key;
    setGuides(next);
  };
  return {
    guides,
    clear: () => show([]),
    /** The place a moved rectangle is brought to, on the step of its kind. */
    snapped: (rect: Rect, step: number): Rect => {
      const onStep = snapRect(rect, step);
      if (!view) return onStep;
      const about = {
        x: rect.x - WITHIN,
        y: rect.y - WITHIN,
        w: rect.w + 2 * WITHIN,
        d: rect.d + 2 * WITHIN,
      };
      const near = others.filter((other) => intersection(other, about));
      const { rect: brought } = snapTo(rect, near, [], NEAR / view.scale);
      const placed = { ...onStep, ...onlyOn(brought, step) };
      // Only lines the thing really stands on, after its step, are shown.
      show(snapTo(placed, near, [], 1e-6).guides);
      return placed;
    },
  };
}

const onlyOn = ({ x, y }: Rect, step: number) => ({
  x: Math.round(x / step) * step,
  y: Math.round(y / step) * step,
});
