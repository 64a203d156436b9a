import { dequal } from 'dequal/lite';
import { useEffect, useMemo, useState } from 'react';
import { groundAt, indexAt, ownerAt, type Relief } from '@quarry/core/terrain';
import {
  carriedBy,
  displayOf,
  groundName,
  isStandingKind,
  labelOf,
  listOf,
  moveAll,
  standFieldsFor,
  type Entity,
  type Kind,
  labelOfAll,
} from '@quarry/core/document';
import { focusBoard } from '../../board/boardKeys.ts';
import type { BoardActs } from '../../board/acts.ts';
import { Board } from '../../board/Board.tsx';
import { Profile } from '../../board/Profile.tsx';
import { thingFrom, type DrawnShape, type Placed } from '../../board/kinds/index.ts';
import { fieldsForRect } from '../../board/pick.ts';
import { placeOf } from '../../board/place.ts';
import { usePointer } from '../../board/pointer.ts';
import { freshId, useDisplay, useEdit, useDenialReason } from '../../data/useDisplay.tsx';
import { levelIn, useView, type CutLine, type Picked } from '../../data/view.ts';
import { Quantity } from '../../ui/parts.tsx';
import { useMeasureFormat } from '../../ui/useMeasureFormat.ts';
import { useDerived } from '../../workers/useDerived.ts';
import { CompareBar } from './CompareBar.tsx';
import { CompareMenu } from './CompareMenu.tsx';
import { Exchange } from './Exchange.tsx';
import { Inspector } from './Inspector.tsx';
import { Toolbar } from './Toolbar.tsx';
import { useComparison } from './useComparison.ts';
import { usePlanKeys } from './usePlanKeys.ts';
import { useOthersPicked } from './useOthersPicked.ts';

export function PlanPage() {
  const scene = useDisplay(({ scene }) => scene);
  const ground = useDerived(({ ground }) => ground);
  const judgement = useDerived(({ judgement }) => judgement);
  const error = useDerived(({ error }) => error);
  const edit = useEdit();
  const may = useDenialReason();
  const { picked, also, pick, tool, takeTool, cutLine, layCut, split, setSplit } = useView();
  const [half, setHalf] = useState(false);
  const compared = useComparison(scene, ground);
  const shows = compared?.ground ? compared.comparison.shows : 'now';
  const lookOnly = shows === 'other';
  const shown = lookOnly && compared ? { scene: compared.scene, ground: compared.ground } : { scene, ground };
  const cut = useMemo(() => cutLine ?? (ground ? highestRow(ground.relief) : null), [cutLine, ground]);
  const picks = picked ? [picked, ...also] : [];
  const others = useOthersPicked(scene);

  const words = (list: readonly Picked[]) => labelOfAll(scene, list);
  const draw = (kind: Placed, shape: DrawnShape) => {
    const id = freshId(kind);
    const thing = thingFrom(scene, kind, shape);
    if (!thing) return;
    const { words: drawn, before = [] } = thing;
    // What is drawn while one level is shown stands on that.
    const level = levelIn(scene, useView.getState().level);
    const data = level && isStandingKind(kind) ? { ...thing.data, ...standFieldsFor(level) } : thing.data;
    if (edit.change(`drew ${drawn}`, [...before, { op: 'add', kind, id, data }])) {
      pick({ kind, id });
      takeTool('pick');
    }
  };
  const patch = (verb: string, one: Picked, set: Record<string, unknown>) => {
    const entity: Entity<Kind> | undefined = scene[one.kind][one.id];
    if (!entity) return;
    const before: Record<string, unknown> = { ...entity };
    if (Object.keys(set).every((key) => dequal(before[key], set[key]))) return;
    edit.change(`${verb} ${words([one])}`, [{ op: 'patch', kind: one.kind, id: one.id, v: entity.v, set }]);
  };
  const acts: BoardActs = {
    snap: half ? 0.5 : 1,
    mayEdit: ({ kind, id }) => may({ op: 'patch', kind, id, v: 1, set: {} }) === null,
    place: (one, rect) => {
      const now = placeOf(scene, one);
      if (!now) return;
      const isMoved = now.w === rect.w && now.d === rect.d;
      if (isMoved && one.kind !== 'table' && carriedBy(scene, one).length > 0)
        return acts.move([one], rect.x - now.x, rect.y - now.y);
      patch(isMoved ? 'moved' : 'resized', one, fieldsForRect(scene, one, rect));
    },
    shape: (one, points) => patch('redrew', one, { points }),
    ridge: (one, ridge) => patch('moved the ridge of', one, { ridge }),
    move: (list, dx, dy) => {
      const changes = moveAll(scene, list, dx, dy);
      if (changes.length > 0) edit.change(`moved ${words(list)}`, changes);
    },
    draw,
  };
  usePlanKeys(lookOnly ? [] : picks);
  useEffect(() => focusBoard(), []);

  return (
    <div className="h-full grid grid-cols-[minmax(0,1fr)] grid-rows-[auto_minmax(0,1fr)_auto]">
      <div>
        <div className={compared ? 'max-md:hidden' : ''}>
          <Toolbar forbids={may({ op: 'add', kind: 'table', id: 'x', data: {} })}>
            <CompareMenu />
            <Exchange />
          </Toolbar>
        </div>
        {compared && <CompareBar compared={compared} />}
      </div>
      <div className="grid grid-cols-[minmax(0,1fr)] grid-rows-[minmax(0,3fr)_minmax(0,2fr)] md:grid-rows-1 md:grid-cols-[minmax(0,1fr)_264px] min-h-0">
        <div
          className={`grid grid-cols-[minmax(0,1fr)] grid-rows-[minmax(0,1fr)_128px] min-h-0 min-w-0 ${compared ? 'max-md:grid-rows-1' : ''}`}
        >
          <div className="relative min-h-0 min-w-0">
            <Board
              label={`Plan of ${displayOf(scene).name}. Arrow keys move what is picked; the outline at the right lists everything.`}
              scene={shown.scene}
              ground={shown.ground}
              findings={lookOnly ? undefined : judgement?.findings}
              cut={cut}
              acts={lookOnly ? { ...acts, mayEdit: () => false } : acts}
              others={lookOnly ? [] : others}
              beside={
                shows === 'both' && compared?.ground
                  ? {
                      ...{ scene: compared.scene, ground: compared.ground, share: split, onShare: setSplit },
                      label: `Border between ${compared.other} at the left and ${compared.own} at the right`,
                    }
                  : null
              }
            />
          </div>
          <div className={`border-t hair bg-base-100 min-h-0 relative ${compared ? 'max-md:hidden' : ''}`}>
            {ground && cut ? (
              <Profile scene={shown.scene} relief={shown.ground?.relief ?? ground.relief} line={cut} />
            ) : (
              <p className="ink-2 p-2">
                {error ??
                  (ground
                    ? 'Here the ground is drawn from the side, once there is a footprint.'
                    : 'Compiling the ground …')}
              </p>
            )}
            {cutLine && (
              <button
                type="button"
                className="link link-hover text-secondary text-xs absolute right-3 top-1"
                onClick={() => layCut(null)}
              >
                Back to the highest row
              </button>
            )}
          </div>
        </div>
        <aside
          aria-label="Inspector"
          className="border-t md:border-t-0 md:border-l hair bg-base-100 overflow-auto px-3 py-2.5"
        >
          <Inspector />
        </aside>
      </div>
      <StatusStrip half={half} onHalf={() => setHalf(!half)} />
      <span className="sr-only" role="status">
        {tool === 'pick' ? '' : `${tool} tool`}
      </span>
    </div>
  );
}

/** Through the row of the highest ground, in the middle of it where it is flat: where a section cut shows most. */
function highestRow({ x, y, w, height }: Relief): CutLine | null {
  let best = -Infinity;
  let rows: number[] = [];
  height.forEach((high, i) => {
    if (high < best) return;
    const row = Math.trunc(i / w);
    if (high > best) rows = [];
    best = high;
    if (rows.at(-1) !== row) rows.push(row);
  });
  const middle = rows[rows.length >> 1];
  if (middle === undefined) return null;
  const row = y + middle + 0.5;
  return { a: { x, y: row }, b: { x: x + w, y: row } };
}

function StatusStrip({ half, onHalf }: { half: boolean; onHalf: () => void }) {
  const { studs: pointer, zoom } = usePointer();
  const scene = useDisplay(({ scene }) => scene);
  const ground = useDerived(({ ground }) => ground);
  const { say, sayAlso } = useMeasureFormat();
  const relief = ground?.relief;
  const index = relief && pointer ? indexAt(relief, pointer.x, pointer.y) : -1;
  const on = relief && index >= 0 ? groundAt(relief, index) : null;
  const [height = 0, top = 0] = [relief?.height[index], relief?.top[index]];
  const owner = relief && ownerAt(relief, index);
  const inside = <T extends { x: number; y: number; w: number; d: number }>(list: readonly T[]) =>
    pointer
      ? list.find(
          ({ x, y, w, d }) => pointer.x >= x && pointer.y >= y && pointer.x < x + w && pointer.y < y + d,
        )
      : undefined;
  const item = 'flex gap-1.5 items-baseline whitespace-nowrap';
  const [px, py] = pointer ? [Math.floor(pointer.x), Math.floor(pointer.y)] : [0, 0];
  return (
    <div className="flex flex-wrap items-center gap-x-5 px-3 min-h-[26px] bg-base-100 border-t border-base-content text-xs">
      <span className={item}>
        <span className="ink-2">Pointer</span>
        <span className="fig">
          {pointer ? `${px}, ${py} st · ${sayAlso(px, 'studs')}, ${sayAlso(py, 'studs')}` : '—'}
        </span>
      </span>
      <span className={item}>
        <span className="ink-2">Height</span>{' '}
        {relief && on ? (
          <>
            <Quantity value={height} measure="plates" />
            {top > height && <span className="fig ink-2">top {say(top, 'plates')}</span>}
          </>
        ) : (
          <span className="fig">—</span>
        )}
      </span>
      <span className={item}>
        <span className="ink-2">Ground</span> <span className="fig">{on ? groundName(scene, on) : '—'}</span>
        {owner && <span className="ink-2 truncate max-w-40">{labelOf(scene, owner.kind, owner.id)}</span>}
      </span>
      <span className={item}>
        <span className="ink-2">Section</span>{' '}
        <span className="fig">{inside(listOf(scene, 'section'))?.letter ?? '—'}</span>
      </span>
      <span className={item}>
        <span className="ink-2">Module</span>{' '}
        <span className="fig">{inside(listOf(scene, 'module'))?.name ?? '—'}</span>
      </span>
      <span className="flex-1" />
      <button
        type="button"
        className="link link-hover whitespace-nowrap lg:min-h-0 lg:h-6"
        aria-pressed={half}
        onClick={onHalf}
      >
        <span className="ink-2">Snap</span> <span className="fig">{half ? 'half a stud' : '1 stud'}</span>
      </button>
      <span className={item}>
        <span className="ink-2">Zoom</span> <span className="fig">{zoom.toFixed(1)} px/stud</span>
      </span>
    </div>
  );
}
