import {
  useEffect,
  useEffectEvent,
  useMemo,
  useRef,
  useState,
  type KeyboardEvent,
  type PointerEvent,
} from 'react';
import { intersection, type Rect } from '@quarry/core/grid';
import { footprintBounds } from '@quarry/core/terrain';
import type { Place, Scene } from '@quarry/core/document';
import type { Reach } from '@quarry/core/reach';
import {
  clearances,
  currentPlace,
  frameOf,
  currentContents,
  rectToRoom,
  sceneInRoom,
  sidesOf,
  snapTo,
  type Guide,
} from '@quarry/core/venue';
import { PALETTES } from '../../board/palette.ts';
import { useEdit } from '../../data/useDisplay.tsx';
import { useView } from '../../data/view.ts';
import { useSize } from '../../ui/useSize.ts';
import {
  Barrier,
  Corner,
  ExtensionMark,
  Obstacle,
  OpeningMark,
  Socket,
  TableGrip,
  TableMark,
  Walls,
} from './marks.tsx';
import { Clearances, RoomGuides, ScaleBar } from './roomOverlays.tsx';
import { SceneMark } from './SceneMark.tsx';
import { reachImage } from './reachImage.ts';
import { fitted, zoomed, type RoomView } from './roomView.ts';
import { fine, sceneMoved, slideOpening } from './moving.ts';

/** What is being dragged: how far, in mm, and what it was brought to. */
interface Drag {
  key: string;
  dx: number;
  dy: number;
  guides: Guide[];
  rect: Rect | null;
}

/** Pixels within which an edge snaps; Alt leaves it free. */
const SNAP_PX = 8;
/** A free drag stands on whole centimetres, or half inches. */
const step = (metric: 'mm' | 'in') => (metric === 'in' ? 12.7 : 10);

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
  const frame = frameOf(scene);
  const bounds = footprintBounds(scene);
  const tables = currentContents(scene, 'table');
  const obstacles = currentContents(scene, 'obstacle');
  const sides = useMemo(() => sidesOf(place?.walls ?? []), [place]);
  const whole = useMemo(
    () =>
      extentOf(currentPlace(scene), [
        ...currentContents(scene, 'table'),
        ...currentContents(scene, 'obstacle'),
        ...sceneInRoom(scene),
      ]),
    [scene],
  );
  const [view, setView] = useState<RoomView | null>(null);
  const [drag, setDrag] = useState<Drag | null>(null);
  const [together, setTogether] = useState(true);
  const press = useRef<{ x: number; y: number; view: RoomView } | null>(null);
  const fit = () => setView(fitted(whole, size));
  const fitAgain = useEffectEvent(fit);
  useEffect(() => {
    if (size.width > 0) fitAgain();
    // Fitted again for another room or window size, not for each change in it.
  }, [place?.id, place?.walls, size.width, size.height]);
  const image = useMemo(
    () => (reach ? reachImage(reach, palette.ochre, palette.iron) : null),
    [reach, palette],
  );

  const under = (table: Rect) => sceneInRoom(scene).some((part) => intersection(part, table));
  const others = (key: string) => [
    ...tables.filter(
      (table) => `table ${table.id}` !== key && !(key === 'scene' && together && under(table)),
    ),
    ...obstacles.filter(({ id }) => `obstacle ${id}` !== key),
    ...(key === 'scene' ? [] : sceneInRoom(scene)),
  ];

  /** Begins to move a rectangle; `commit` gets where it lands. */
  const grab = (
    event: PointerEvent<SVGElement>,
    key: string,
    rect: Rect,
    commit: (to: Rect) => void,
    onClick?: (at: { x: number; y: number }) => void,
  ) => {
    if (disabled || event.button !== 0 || !view) return;
    const from = { x: event.clientX, y: event.clientY };
    const corner = host.current?.getBoundingClientRect() ?? { x: 0, y: 0 };
    const target = event.currentTarget;
    target.setPointerCapture(event.pointerId);
    let last: Rect | null = null;
    // The neighbours do not move meanwhile: gathered once, so that a move costs little with sixty tables.
    const around = others(key);
    const unit = step(metric);
    const on = (value: number) => Math.round(value / unit) * unit;
    const move = (now: globalThis.PointerEvent) => {
      if (last === null && Math.hypot(now.clientX - from.x, now.clientY - from.y) < 3) return;
      const [dx, dy] = [(now.clientX - from.x) / view.scale, (now.clientY - from.y) / view.scale];
      const free = { ...rect, x: on(rect.x + dx), y: on(rect.y + dy) };
      const snapped = now.altKey
        ? { rect: free, guides: [] }
        : snapTo(free, around, sides, SNAP_PX / view.scale);
      last = snapped.rect;
      setDrag({ key, dx: last.x - rect.x, dy: last.y - rect.y, guides: snapped.guides, rect: last });
    };
    const end = () => {
      target.removeEventListener('pointermove', move);
      target.removeEventListener('pointerup', end);
      target.removeEventListener('pointercancel', end);
      setDrag(null);
      if (last) commit(last);
      else
        onClick?.({
          x: (from.x - corner.x - view.x) / view.scale,
          y: (from.y - corner.y - view.y) / view.scale,
        });
    };
    target.addEventListener('pointermove', move);
    target.addEventListener('pointerup', end);
    target.addEventListener('pointercancel', end);
  };
  const arrows = (event: KeyboardEvent, rect: Rect, commit: (to: Rect) => void) => {
    const way = { ArrowLeft: [-1, 0], ArrowRight: [1, 0], ArrowUp: [0, -1], ArrowDown: [0, 1] }[event.key];
    if (!way || disabled) return;
    event.preventDefault();
    event.stopPropagation();
    const by = step(metric) * (event.shiftKey ? 10 : event.altKey ? 0.1 : 1);
    commit({ ...rect, x: rect.x + way[0] * by, y: rect.y + way[1] * by });
  };
  /** What a mark needs to be picked and moved. @param onClick where it was pressed, mm, when it did not move */
  const handles = (
    key: string,
    rect: Rect,
    commit: (to: Rect) => void,
    onPick: () => void,
    onClick?: (at: { x: number; y: number }) => void,
  ) => ({
    shift: drag?.key === key ? drag : null,
    onPointerDown: (event: PointerEvent<SVGElement>) => {
      event.stopPropagation();
      onPick();
      grab(event, key, rect, commit, onClick);
    },
    onFocus: onPick,
    onKeyDown: (event: KeyboardEvent) => arrows(event, rect, commit),
  });

  const sceneRect = bounds ? rectToRoom(frame, bounds) : null;
  const is = (kind: string, id: string) => picked?.kind === kind && picked.id === id;
  const tableHandles = (table: (typeof tables)[number]) =>
    handles(
      `table ${table.id}`,
      table,
      ({ x, y }) => edit.patch(`moved ${table.name}`, 'table', table, { x: fine(x), y: fine(y) }),
      () => pick({ kind: 'table', id: table.id }),
    );
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
          onPointerDown={(event) => {
            if (event.button !== 0) return;
            press.current = { x: event.clientX, y: event.clientY, view };
            event.currentTarget.setPointerCapture(event.pointerId);
            pick(null);
          }}
          onPointerMove={(event) => {
            const { current } = press;
            if (current)
              setView({
                ...current.view,
                x: current.view.x + event.clientX - current.x,
                y: current.view.y + event.clientY - current.y,
              });
          }}
          onPointerUp={() => (press.current = null)}
          onWheel={(event) => {
            const box = event.currentTarget.getBoundingClientRect();
            const factor = Math.exp(-event.deltaY * 0.0015);
            setView((now) => now && zoomed(now, factor, event.clientX - box.x, event.clientY - box.y));
          }}
        >
          <Walls place={place} view={view} metric={metric} />
          {tables.map((table) => (
            <TableMark
              key={table.id}
              table={table}
              scene={scene}
              view={view}
              metric={metric}
              picked={is('table', table.id)}
              {...tableHandles(table)}
              {...(drag?.key === 'scene' && together && under(table) ? { shift: drag } : {})}
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
              {...handles(
                'scene',
                sceneRect,
                (to) =>
                  place &&
                  edit.change(
                    'moved the scene in its place',
                    sceneMoved(scene, place, to.x - sceneRect.x, to.y - sceneRect.y, together),
                  ),
                () => pick(null),
                // The tables lie under the scene: a click goes through to them, a drag moves the scene.
                ({ x, y }) => {
                  const under = tables.find(
                    (table) => x >= table.x && y >= table.y && x < table.x + table.w && y < table.y + table.d,
                  );
                  if (under) pick({ kind: 'table', id: under.id });
                },
              )}
            />
          )}
          {tables
            .filter(({ id }) => is('table', id))
            .map((table) => (
              // A picked table can be taken hold of through the scene that lies on it.
              <TableGrip key={table.id} table={table} view={view} {...tableHandles(table)} />
            ))}
          {obstacles.map((obstacle) => (
            <Obstacle
              key={obstacle.id}
              obstacle={obstacle}
              view={view}
              picked={is('obstacle', obstacle.id)}
              {...handles(
                `obstacle ${obstacle.id}`,
                obstacle,
                ({ x, y }) =>
                  edit.patch(`moved ${obstacle.name}`, 'obstacle', obstacle, { x: fine(x), y: fine(y) }),
                () => pick({ kind: 'obstacle', id: obstacle.id }),
              )}
            />
          ))}
          {currentContents(scene, 'opening').map((opening) => {
            const box = { x: 0, y: 0, w: 0, d: 0 };
            const slide = (to: Rect) => {
              const next = place && slideOpening(place.walls, opening, to);
              if (next) edit.patch(`moved ${opening.name}`, 'opening', opening, next);
            };
            const moved =
              drag?.key === `opening ${opening.id}` && place
                ? slideOpening(place.walls, opening, { ...box, x: drag.dx, y: drag.dy })
                : null;
            return (
              <OpeningMark
                key={opening.id}
                opening={moved ? { ...opening, ...moved } : opening}
                walls={place?.walls ?? []}
                view={view}
                metric={metric}
                picked={is('opening', opening.id)}
                {...handles(`opening ${opening.id}`, box, slide, () =>
                  pick({ kind: 'opening', id: opening.id }),
                )}
                shift={null}
              />
            );
          })}
          {currentContents(scene, 'socket').map((socket) => (
            <Socket
              key={socket.id}
              socket={socket}
              view={view}
              picked={is('socket', socket.id)}
              {...handles(
                `socket ${socket.id}`,
                { x: socket.x, y: socket.y, w: 0, d: 0 },
                ({ x, y }) =>
                  edit.patch(`moved ${socket.name}`, 'socket', socket, { x: fine(x), y: fine(y) }),
                () => pick({ kind: 'socket', id: socket.id }),
              )}
            />
          ))}
          {currentContents(scene, 'extension').map((extension) => (
            <ExtensionMark
              key={extension.id}
              extension={extension}
              view={view}
              picked={is('extension', extension.id)}
              {...handles(
                `extension ${extension.id}`,
                { x: extension.x, y: extension.y, w: 0, d: 0 },
                ({ x, y }) =>
                  edit.patch(`moved ${extension.name}`, 'extension', extension, { x: fine(x), y: fine(y) }),
                () => pick({ kind: 'extension', id: extension.id }),
              )}
            />
          ))}
          {currentContents(scene, 'barrier').map((barrier) => {
            const box = {
              x: Math.min(barrier.x1, barrier.x2),
              y: Math.min(barrier.y1, barrier.y2),
              w: Math.abs(barrier.x2 - barrier.x1),
              d: Math.abs(barrier.y2 - barrier.y1),
            };
            return (
              <Barrier
                key={barrier.id}
                barrier={barrier}
                view={view}
                picked={is('barrier', barrier.id)}
                {...handles(
                  `barrier ${barrier.id}`,
                  box,
                  ({ x, y }) =>
                    edit.patch(`moved ${barrier.name}`, 'barrier', barrier, {
                      x1: fine(barrier.x1 + x - box.x),
                      y1: fine(barrier.y1 + y - box.y),
                      x2: fine(barrier.x2 + x - box.x),
                      y2: fine(barrier.y2 + y - box.y),
                    }),
                  () => pick({ kind: 'barrier', id: barrier.id }),
                )}
              />
            );
          })}
          {place &&
            !disabled &&
            picked === null &&
            place.walls.map((corner, i) => (
              <Corner
                key={i}
                corner={corner}
                index={i}
                view={view}
                {...handles(
                  `corner ${i}`,
                  { ...corner, w: 0, d: 0 },
                  ({ x, y }) =>
                    edit.patch(`moved a corner of ${place.name}`, 'place', place, {
                      walls: place.walls.map((one, j) => (j === i ? { x: fine(x), y: fine(y) } : one)),
                    }),
                  () => undefined,
                )}
              />
            ))}
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
      {reach && view && (
        <div className="hidden sm:block absolute left-2 bottom-2 bg-base-100 border hair px-2 py-1 text-[11px] ink-2 pointer-events-none">
          <span className="text-secondary font-semibold">━</span> one can stand here
          <span className="pl-2 text-warning">▨</span> past an arm
          <span className="pl-2 text-error">▩</span> past a ladder’s reach
        </div>
      )}
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
            onClick={() => setView((now) => now && zoomed(now, factor, size.width / 2, size.height / 2))}
          >
            {sign}
          </button>
        ))}
        <button type="button" className="btn btn-xs btn-ghost fig" onClick={fit}>
          Fit
        </button>
      </div>
    </div>
  );
}

/** What the whole drawing takes in, mm. */
function extentOf(place: Place | null, rects: readonly Rect[]): Rect {
  const xs = [...(place?.walls.map(({ x }) => x) ?? []), ...rects.flatMap(({ x, w }) => [x, x + w])];
  const ys = [...(place?.walls.map(({ y }) => y) ?? []), ...rects.flatMap(({ y, d }) => [y, y + d])];
  if (xs.length === 0) return { x: 0, y: 0, w: 4000, d: 3000 };
  const [x, y] = [Math.min(...xs), Math.min(...ys)];
  return { x, y, w: Math.max(1, Math.max(...xs) - x), d: Math.max(1, Math.max(...ys) - y) };
}
