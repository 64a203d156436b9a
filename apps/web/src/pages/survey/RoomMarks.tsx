import type { Rect } from '@quarry/core/grid';
import type { Place, Scene } from '@quarry/core/document';
import { currentContents } from '@quarry/core/venue';
import { useEdit } from '../../data/useDisplay.tsx';
import { useView } from '../../data/view.ts';
import { Barrier, Corner, ExtensionMark, Obstacle, OpeningMark, Socket } from './marks.tsx';
import { fine, slideOpening } from './moving.ts';
import type { RoomView } from './roomView.ts';
import type { HandlesOf, RoomDrag } from './useRoomDrag.ts';

interface MarksProps {
  scene: Scene;
  place: Place | null;
  view: RoomView;
  handles: HandlesOf;
}

/** What stands in the room beside tables and scene: obstacles, sockets, leads, barriers. */
export function RoomMarks({ scene, view, handles }: Omit<MarksProps, 'place'>) {
  const edit = useEdit();
  const { picked, pick } = useView();
  const is = (kind: string, id: string) => picked?.kind === kind && picked.id === id;
  return (
    <>
      {currentContents(scene, 'obstacle').map((obstacle) => (
        <Obstacle
          key={obstacle.id}
          obstacle={obstacle}
          view={view}
          picked={is('obstacle', obstacle.id)}
          {...handles({
            key: `obstacle ${obstacle.id}`,
            rect: obstacle,
            commit: ({ x, y }) =>
              edit.patch(`moved ${obstacle.name}`, 'obstacle', obstacle, { x: fine(x), y: fine(y) }),
            onPick: () => pick({ kind: 'obstacle', id: obstacle.id }),
          })}
        />
      ))}
      {currentContents(scene, 'socket').map((socket) => (
        <Socket
          key={socket.id}
          socket={socket}
          view={view}
          picked={is('socket', socket.id)}
          {...handles({
            key: `socket ${socket.id}`,
            rect: { x: socket.x, y: socket.y, w: 0, d: 0 },
            commit: ({ x, y }) =>
              edit.patch(`moved ${socket.name}`, 'socket', socket, { x: fine(x), y: fine(y) }),
            onPick: () => pick({ kind: 'socket', id: socket.id }),
          })}
        />
      ))}
      {currentContents(scene, 'extension').map((extension) => (
        <ExtensionMark
          key={extension.id}
          extension={extension}
          view={view}
          picked={is('extension', extension.id)}
          {...handles({
            key: `extension ${extension.id}`,
            rect: { x: extension.x, y: extension.y, w: 0, d: 0 },
            commit: ({ x, y }) =>
              edit.patch(`moved ${extension.name}`, 'extension', extension, { x: fine(x), y: fine(y) }),
            onPick: () => pick({ kind: 'extension', id: extension.id }),
          })}
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
            {...handles({
              key: `barrier ${barrier.id}`,
              rect: box,
              commit: ({ x, y }) =>
                edit.patch(`moved ${barrier.name}`, 'barrier', barrier, {
                  x1: fine(barrier.x1 + x - box.x),
                  y1: fine(barrier.y1 + y - box.y),
                  x2: fine(barrier.x2 + x - box.x),
                  y2: fine(barrier.y2 + y - box.y),
                }),
              onPick: () => pick({ kind: 'barrier', id: barrier.id }),
            })}
          />
        );
      })}
    </>
  );
}

const NOWHERE: Rect<'mm'> = { x: 0, y: 0, w: 0, d: 0 };

/** Doors and windows, which slide along the walls they are in. */
export function Openings({
  scene,
  place,
  view,
  handles,
  drag,
  metric,
}: MarksProps & { drag: RoomDrag | null; metric: 'mm' | 'in' }) {
  const edit = useEdit();
  const { picked, pick } = useView();
  return currentContents(scene, 'opening').map((opening) => {
    const key = `opening ${opening.id}`;
    const moved =
      drag?.key === key && place
        ? slideOpening(place.walls, opening, { ...NOWHERE, x: drag.dx, y: drag.dy })
        : null;
    return (
      <OpeningMark
        key={opening.id}
        opening={moved ? { ...opening, ...moved } : opening}
        walls={place?.walls ?? []}
        view={view}
        metric={metric}
        picked={picked?.kind === 'opening' && picked.id === opening.id}
        {...handles({
          key,
          rect: NOWHERE,
          commit: (to) => {
            const next = place && slideOpening(place.walls, opening, to);
            if (next) edit.patch(`moved ${opening.name}`, 'opening', opening, next);
          },
          onPick: () => pick({ kind: 'opening', id: opening.id }),
        })}
        shift={null}
      />
    );
  });
}

/** The corners of the walls, to be pulled while nothing is picked. */
export function WallCorners({
  place,
  view,
  handles,
}: Omit<MarksProps, 'scene' | 'place'> & { place: Place }) {
  const edit = useEdit();
  return place.walls.map((corner, i) => (
    <Corner
      key={i}
      corner={corner}
      index={i}
      view={view}
      {...handles({
        key: `corner ${i}`,
        rect: { ...corner, w: 0, d: 0 },
        commit: ({ x, y }) =>
          edit.patch(`moved a corner of ${place.name}`, 'place', place, {
            walls: place.walls.map((one, j) => (j === i ? { x: fine(x), y: fine(y) } : one)),
          }),
        onPick: () => undefined,
      })}
    />
  ));
}
