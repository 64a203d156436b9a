import { listOf, type DataOf, type Scene } from '@quarry/core/document';
import {
  COMMON_TABLES,
  currentPlace,
  currentContents,
  sceneInRoom,
  type VenueKind,
} from '@quarry/core/venue';
import { freshId, useEdit } from '../../data/useDisplay.tsx';
import { useView } from '../../data/view.ts';
import { useMeasureFormat } from '../../ui/useMeasureFormat.ts';
import { middleOf } from './defaults.ts';

/** Puts new furniture and fittings into the room: each appears in its middle, picked, ready to be moved. */
export function AddBar({ scene, disabled }: { scene: Scene; disabled: boolean }) {
  const edit = useEdit();
  const pick = useView((view) => view.pick);
  const { say } = useMeasureFormat();
  const place = currentPlace(scene);
  const at = middleOf(scene);
  const owner = { place: place?.id ?? null };
  const add = <K extends VenueKind>(kind: K, data: Partial<DataOf<K>>) => {
    const id = freshId(kind);
    if (edit.add(`added ${String(data.name)}`, kind, id, data)) pick({ kind, id });
  };
  const number = (kind: VenueKind) => currentContents(scene, kind).length + 1;
  const walls = place?.walls.length ?? 0;
  const button = (word: string, onClick: () => void, needsWalls = false) => (
    <button
      type="button"
      className="btn btn-xs btn-ghost"
      disabled={disabled || (needsWalls && walls < 3)}
      title={needsWalls && walls < 3 ? 'Give the room its walls first' : `Add: ${word.toLowerCase()}`}
      onClick={onClick}
    >
      {word}
    </button>
  );
  const parts = sceneInRoom(scene);
  return (
    <div className="flex flex-wrap items-center gap-0.5" role="toolbar" aria-label="Add to the room">
      <select
        aria-label="Add a table"
        className="select select-xs h-6 w-32 bg-base-content/5 border-transparent"
        value=""
        disabled={disabled}
        onChange={(event) => {
          const common = COMMON_TABLES.find(({ word }) => word === event.currentTarget.value);
          if (!common) return;
          const { kind, w, d, height, leaves, ratedKg } = common;
          add('table', {
            ...owner,
            name: `${kind === 'table' ? 'Table' : kind === 'shelf' ? 'Shelf' : 'Floor'} ${listOf(scene, 'table').length + 1}`,
            x: at.x - w / 2,
            y: at.y - d / 2,
            kind,
            w,
            d,
            height,
            leaves,
            ratedKg,
          });
        }}
      >
        <option value="">Add a table …</option>
        {COMMON_TABLES.map(({ word, w, d }) => (
          <option key={word} value={word}>
            {word}, {say(w, 'mm')} × {say(d, 'mm')}
          </option>
        ))}
      </select>
      {button(
        'Door',
        () => add('opening', { ...owner, name: `Door ${number('opening')}`, wall: 0, at: 300, width: 900 }),
        true,
      )}
      {button(
        'Window',
        () =>
          add('opening', {
            ...owner,
            name: `Window ${number('opening')}`,
            use: 'window',
            wall: 0,
            at: 300,
            width: 1200,
            height: 1200,
          }),
        true,
      )}
      {button('Obstacle', () =>
        add('obstacle', {
          ...owner,
          name: `Obstacle ${number('obstacle')}`,
          x: at.x - 200,
          y: at.y - 200,
          w: 400,
          d: 400,
        }),
      )}
      {button('Socket', () =>
        add('socket', { ...owner, name: `Socket ${number('socket')}`, x: at.x, y: at.y }),
      )}
      {button('Extension lead', () =>
        add('extension', { ...owner, name: `Extension lead ${number('extension')}`, x: at.x, y: at.y }),
      )}
      {button('Barrier', () => {
        const south = Math.max(at.y, ...parts.map(({ y, d }) => y + d)) + 900;
        const [west, east] = [
          Math.min(at.x - 500, ...parts.map(({ x }) => x)),
          Math.max(at.x + 500, ...parts.map(({ x, w }) => x + w)),
        ];
        add('barrier', {
          ...owner,
          name: `Barrier ${number('barrier')}`,
          x1: west,
          y1: south,
          x2: east,
          y2: south,
        });
      })}
    </div>
  );
}
