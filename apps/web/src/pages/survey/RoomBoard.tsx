import { useMemo, useState } from 'react';
import { intersection, type Rect } from '@quarry/core/grid';
import { footprintBounds } from '@quarry/core/terrain';
import type { Scene } from '@quarry/core/document';
import type { Reach } from '@quarry/core/reach';
import {
  clearances,
  currentContents,
  currentPlace,
  frameOf,
  rectToRoom,
  sceneInRoom,
  sidesOf,
} from '@quarry/core/venue';
import { PALETTES } from '../../board/palette.ts';
import { useEdit } from '../../data/useDisplay.tsx';
import { useView } from '../../data/view.ts';
import { useSize } from '../../ui/useSize.ts';
import { TableGrip, TableMark, Walls } from './marks.tsx';
import { fine, sceneMoved } from './moving.ts';
import { reachImage } from './reachImage.ts';
import { Openings, RoomMarks, WallCorners } from './RoomMarks.tsx';
import { Clearances, RoomGuides, ScaleBar } from './roomOverlays.tsx';
import { SceneMark } from './SceneMark.tsx';
import { useRoomDrag } from './useRoomDrag.ts';
import { roomExtent, useRoomView } from './useRoomView.ts';

/** The key of the display itself among the things of its room. */
const SCENE = 'scene';

/**
 * The room to scale. Everything in it can be reached with the keyboard, picked, and moved by hand or with the arrows;
 * while it moves, edges snap to others and to walls, and the clear distances on its four sides are shown.
 */
export function RoomBoard({
  scene,
  reach,
  disabled,
}: {
  scene: Scene;
  reach: Reach | null;
  disabled: boolean;
}) {
  const [host, size] = useSize<HTMLDivElement>();
  const edit = useEdit();
  const { picked, pick, metric, theme } = useView();
  const palette = PALETTES[theme];
  const place = currentPlace(scene);
  const bounds = footprintBounds(scene);
  const tables = currentContents(scene, 'table');
  const obstacles = currentContents(scene, 'obstacle');
  const sides = useMemo(() => sidesOf(place?.walls ?? []), [place]);
  const whole = useMemo(
    () =>
      roomExtent(currentPlace(scene), [
        ...currentContents(scene, 'table'),
        ...currentContents(scene, 'obstacle'),
        ...sceneInRoom(scene),
      ]),
    [scene],
  );
  const [together, setTogether] = useState(true);
  const { view, fit, zoom, panning } = useRoomView(place, whole, size, () => pick(null));
  const image = useMemo(
    () => (reach ? reachImage(reach, palette.ochre, palette.iron) : null),
    [reach, palette],
  );
  const under = (table: Rect<'mm'>) => sceneInRoom(scene).some((part) => intersection(part, table));
  const others = (key: string) => [
    ...tables.filter((table) => `table ${table.id}` !== key && !(key === SCENE && together && under(table))),
    ...obstacles.filter(({ id }) => `obstacle ${id}` !== key),
    ...(key === SCENE ? [] : sceneInRoom(scene)),
  ];
  const { drag, handles } = useRoomDrag({ host, view, metric, disabled, sides, others });

  const sceneRect = bounds ? rectToRoom(frameOf(scene), bounds) : null;
  const isPicked = (id: string) => picked?.kind === 'table' && picked.id === id;
  const tableHandles = (table: (typeof tables)[number]) =>
    handles({
      key: `table ${table.id}`,
      rect: table,
      commit: ({ x, y }) => edit.patch(`moved ${table.name}`, 'table', table, { x: fine(x), y: fine(y) }),
      onPick: () => pick({ kind: 'table', id: table.id }),
    });
  const moveScene = (from: Rect<'mm'>, to: Rect<'mm'>) =>
    place &&
    edit.change(
      'moved the scene in its place',
      sceneMoved(scene, place, to.x - from.x, to.y - from.y, together),
    );
  // The tables lie under the scene: a click goes through to them, a drag moves the scene.
  const pickTableAt = ({ x, y }: { x: number; y: number }) => {
    const found = tables.find(
      (table) => x >= table.x && y >= table.y && x < table.x + table.w && y < table.y + table.d,
    );
    if (found) pick({ kind: 'table', id: found.id });
  };
  return (
    <div
      ref={host}
      className="relative min-h-0 min-w-0 overflow-hidden touch-none bg-base-200"
      role="application"
      aria-label={`Room “${place?.name ?? 'not described'}” to scale. Tab goes from thing to thing, arrow keys move it.`}
    >
      {view && size.width > 0 && (
        <svg
          width={size.width}
          height={size.height}
          className="block text-base-content select-none"
          {...panning}
        >
          <Walls place={place} view={view} metric={metric} />
          {tables.map((table) => (
            <TableMark
              key={table.id}
              table={table}
              scene={scene}
              view={view}
              metric={metric}
              picked={isPicked(table.id)}
              {...tableHandles(table)}
              {...(drag?.key === SCENE && together && under(table) ? { shift: drag } : {})}
            />
          ))}
          {sceneRect && bounds && (
            <SceneMark
              scene={scene}
              view={view}
              rect={sceneRect}
              image={image}
              reach={reach}
              still={drag === null}
              {...handles({
                key: SCENE,
                rect: sceneRect,
                commit: (to) => void moveScene(sceneRect, to),
                onPick: () => pick(null),
                onClick: pickTableAt,
              })}
            />
          )}
          {tables
            .filter(({ id }) => isPicked(id))
            .map((table) => (
              // A picked table can be taken hold of through the scene that lies on it.
              <TableGrip key={table.id} table={table} view={view} {...tableHandles(table)} />
            ))}
          <Openings {...{ scene, place, view, handles, drag, metric }} />
          <RoomMarks {...{ scene, view, handles }} />
          {place && !disabled && picked === null && <WallCorners {...{ place, view, handles }} />}
          {drag?.rect && drag.rect.w > 0 && (
            <>
              <RoomGuides guides={drag.guides} view={view} size={size} />
              <Clearances
                rect={drag.rect}
                clear={clearances(drag.rect, others(drag.key), sides)}
                view={view}
                metric={metric}
              />
            </>
          )}
          <ScaleBar view={view} size={size} metric={metric} />
        </svg>
      )}
      {place && !disabled && (
        <label className="absolute left-2 top-2 flex items-center gap-1 text-xs bg-base-100 border hair px-2 h-6">
          <input
            type="checkbox"
            className="checkbox checkbox-xs"
            checked={together}
            onChange={(event) => setTogether(event.currentTarget.checked)}
          />
          Tables move with the scene
        </label>
      )}
      {reach && view && <ReachKey />}
      <RoomZoom onZoom={zoom} onFit={fit} />
    </div>
  );
}

/** What the hatches of the reach mean. */
function ReachKey() {
  return (
    <div className="hidden sm:block absolute left-2 bottom-2 bg-base-100 border hair px-2 py-1 text-[11px] ink-2 pointer-events-none">
      <span className="text-secondary font-semibold">━</span> one can stand here
      <span className="pl-2 text-warning">▨</span> past an arm
      <span className="pl-2 text-error">▩</span> past a ladder’s reach
    </div>
  );
}

function RoomZoom({ onZoom, onFit }: { onZoom: (factor: number) => void; onFit: () => void }) {
  return (
    <div className="absolute right-2 bottom-2 flex border hair bg-base-100">
      {(
        [
          ['Zoom in', '+', 1.25],
          ['Zoom out', '−', 0.8],
        ] as const
      ).map(([label, sign, factor]) => (
        <button
          key={label}
          type="button"
          className="btn btn-xs btn-ghost btn-square fig"
          aria-label={label}
          onClick={() => onZoom(factor)}
        >
          {sign}
        </button>
      ))}
      <button type="button" className="btn btn-xs btn-ghost fig" onClick={onFit}>
        Fit
      </button>
    </div>
  );
}
