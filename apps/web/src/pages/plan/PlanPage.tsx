import { Layers } from 'lucide-react';
import { useState } from 'react';
import { useHotkeys } from 'react-hotkeys-hook';
import { MM_PER_STUD } from '@quarry/core/lattice';
import { groundAt, indexAt, type Relief } from '@quarry/core/relief';
import { displayOf, labelOf, listOf } from '@quarry/core/scene';
import { Board, type Drawn } from '../../board/Board.tsx';
import { Profile } from '../../board/Profile.tsx';
import { fieldsOf, isPlaced } from '../../board/pick.ts';
import { usePointer } from '../../board/pointer.ts';
import { freshId, useDisplay, useEdit, useMay } from '../../data/useDisplay.tsx';
import { LAYERS, useView } from '../../data/view.ts';
import { TOOL_LIST } from '../../frame/pages.ts';
import { capital } from '../../ui/words.ts';
import { Quantity } from '../../ui/parts.tsx';
import { useSurvey } from '../../workers/survey.tsx';
import { Inspector } from './Inspector.tsx';
import { drawnData } from './drawn.ts';

export function PlanPage() {
  const { scene } = useDisplay();
  const { survey, error } = useSurvey();
  const edit = useEdit();
  const may = useMay();
  const { picked, pick, tool, takeTool } = useView();
  const [half, setHalf] = useState(false);
  const [row, setRow] = useState<number | null>(null);
  const cutRow = row ?? (survey ? highestRow(survey.relief) : null);

  const draw = (kind: Drawn, place: { x: number; y: number; w: number; d: number }) => {
    const id = freshId(kind);
    const data = drawnData(scene, kind, fieldsOf(scene, kind, place));
    if (edit.change(`drew ${data.words}`, [...data.before, { op: 'add', kind, id, data: data.data }])) {
      pick({ kind, id });
      takeTool('pick');
    }
  };
  useHotkeys('delete, backspace', () => {
    const entity = picked && scene[picked.kind][picked.id];
    if (
      picked &&
      entity &&
      isPlaced(picked.kind) &&
      edit.remove(`removed ${labelOf(scene, picked.kind, picked.id)}`, picked.kind, picked.id, entity.v)
    )
      pick(null);
  });

  return (
    <div className="h-full grid grid-rows-[36px_minmax(0,1fr)_26px]">
      <Toolbar forbids={may({ op: 'add', kind: 'table', id: 'x', data: {} })} />
      <div className="grid grid-rows-[minmax(0,3fr)_minmax(0,2fr)] md:grid-rows-1 md:grid-cols-[minmax(0,1fr)_264px] min-h-0">
        <div className="grid grid-rows-[minmax(0,1fr)_116px] min-h-0 min-w-0">
          <Board
            label={`Plan of ${displayOf(scene).name}. Arrow keys move what is picked; the outline at the right lists everything.`}
            scene={scene}
            survey={survey}
            findings={survey?.findings}
            cutRow={cutRow}
            snap={half ? 0.5 : 1}
            mayEdit={({ kind, id }) => may({ op: 'patch', kind, id, v: 1, set: {} }) === null}
            onPlace={(kind, id, place) => {
              const entity = scene[kind][id];
              if (!entity) return;
              const verb = entity.w === place.w && entity.d === place.d ? 'moved' : 'resized';
              edit.patch(`${verb} ${labelOf(scene, kind, id)}`, kind, entity, place);
            }}
            onDraw={draw}
            onClickStud={({ y }) => setRow(Math.floor(y))}
          />
          <div className="border-t hair bg-base-100 min-h-0">
            {survey && cutRow !== null ? (
              <Profile scene={scene} relief={survey.relief} row={cutRow} />
            ) : (
              <p className="ink-2 p-2">{error ?? 'Compiling the ground …'}</p>
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

/** The row of the highest stud, buildings included: where a section cut shows most. */
function highestRow({ y, w, top }: Relief): number | null {
  let best = 0;
  for (let i = 1; i < top.length; i++) if (top[i] > top[best]) best = i;
  return w > 0 ? y + Math.trunc(best / w) : null;
}

function Toolbar({ forbids }: { forbids: string | null }) {
  const { tool, takeTool, hidden, toggleLayer } = useView();
  return (
    <div
      className="flex items-center gap-0.5 px-2 bg-base-100 border-b hair overflow-x-auto"
      role="toolbar"
      aria-label="Plan tools"
    >
      {TOOL_LIST.map(({ id, word, key }) => (
        <button
          key={id}
          type="button"
          aria-pressed={tool === id}
          disabled={forbids !== null && id !== 'pick' && id !== 'measure' && id !== 'pad' && id !== 'plot'}
          onClick={() => takeTool(id)}
          className={`btn btn-xs h-7 font-semibold ${tool === id ? 'btn-neutral' : 'btn-ghost'}`}
          aria-keyshortcuts={key}
        >
          {word} <kbd className="fig font-normal text-[10px] uppercase opacity-80">{key}</kbd>
        </button>
      ))}
      <span className="w-px h-5 bg-base-300 mx-2" />
      <Layers size={13} aria-hidden className="ink-2" />
      <div role="group" aria-label="Layers" className="flex">
        {LAYERS.map((layer) => (
          <button
            key={layer}
            type="button"
            aria-pressed={!hidden.has(layer)}
            onClick={() => toggleLayer(layer)}
            className={`btn btn-xs btn-ghost px-1.5 font-normal ${hidden.has(layer) ? 'line-through ink-2' : ''}`}
          >
            {capital(layer)}
          </button>
        ))}
      </div>
      {forbids && <span className="ink-2 text-xs ml-auto pl-2 whitespace-nowrap">{forbids}</span>}
    </div>
  );
}

function StatusStrip({ half, onHalf }: { half: boolean; onHalf: () => void }) {
  const { studs: pointer, zoom } = usePointer();
  const { scene } = useDisplay();
  const { survey } = useSurvey();
  const relief = survey?.relief;
  const index = relief && pointer ? indexAt(relief, pointer.x, pointer.y) : -1;
  const on = relief && index >= 0 ? groundAt(relief, index) : null;
  const inside = <T extends { x: number; y: number; w: number; d: number }>(list: T[]) =>
    pointer
      ? list.find(
          ({ x, y, w, d }) => pointer.x >= x && pointer.y >= y && pointer.x < x + w && pointer.y < y + d,
        )
      : undefined;
  const item = 'flex gap-1.5 items-baseline whitespace-nowrap';
  return (
    <div className="flex items-center gap-5 px-3 bg-base-100 border-t border-base-content text-xs overflow-hidden">
      <span className={item}>
        <span className="ink-2">Pointer</span>
        <span className="fig">
          {pointer
            ? `${Math.floor(pointer.x)}, ${Math.floor(pointer.y)} st · ${Math.floor(pointer.x) * MM_PER_STUD} × ${Math.floor(pointer.y) * MM_PER_STUD} mm`
            : '—'}
        </span>
      </span>
      <span className={item}>
        <span className="ink-2">Height</span>{' '}
        {relief && on ? (
          <Quantity value={relief.height[index]} measure="plates" />
        ) : (
          <span className="fig">—</span>
        )}
      </span>
      <span className={item}>
        <span className="ink-2">Ground</span> <span className="fig">{on ?? '—'}</span>
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
        className="link link-hover whitespace-nowrap"
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
