import type Konva from 'konva';
import { useEffect, useMemo, useRef, useState } from 'react';
import { Layer as KonvaLayer, Rect as KonvaRect, Shape, Stage } from 'react-konva';
import type { Rect } from '@quarry/core/lattice';
import type { Judged } from '@quarry/core/check';
import { footprintBounds } from '@quarry/core/relief';
import type { Scene } from '@quarry/core/scene';
import { useView, type Picked, type Tool } from '../data/view.ts';
import { useSize } from '../ui/useSize.ts';
import type { Survey } from '../workers/core.worker.ts';
import type { Picture } from './ink.ts';
import { groundArt } from './groundArt.ts';
import { Measured, Selection, SizeTag, box } from './overlays.tsx';
import { PALETTES } from './palette.ts';
import { usePointer } from './pointer.ts';
import { Sheet } from './sheet.ts';
import { STEPS, fieldsOf, isPlaced, pickAt, placeOf, snapRect, type Placed } from './pick.ts';
import { bringIn, fit, rectToScreen, toStuds, zoomAt, type Viewport } from './viewport.ts';

/** What a tool draws. */
export type Drawn = Exclude<Tool, 'pick' | 'measure'>;

interface BoardProps {
  scene: Scene;
  survey: Pick<Survey, 'relief' | 'contours'> | null;
  findings?: readonly Judged[];
  /** A board to look at only: no picking, no tools, no keys. */
  readOnly?: boolean;
  label: string;
  cutRow?: number | null;
  mayEdit?: (picked: Picked) => boolean;
  /** The least step of moving and drawing, studs. */
  snap?: number;
  onPlace?: (kind: Placed, id: string, place: Rect) => void;
  onDraw?: (tool: Drawn, place: Rect) => void;
  onClickStud?: (studs: { x: number; y: number }) => void;
}

/** Pixels the pointer may move before a press is a drag. */
const SLOP = 4;

/** The display shown before anything has a size, studs. */
const BLANK: Rect = { x: 0, y: 0, w: 96, d: 48 };

/**
 * The plan board: one canvas that draws the scene as a survey sheet, and over it what is being picked, moved,
 * resized or drawn. It changes nothing itself: it says what the person asks for.
 */
export function Board({
  scene,
  survey,
  findings = [],
  readOnly = false,
  label,
  cutRow = null,
  mayEdit,
  snap = 1,
  onPlace,
  onDraw,
  onClickStud,
}: BoardProps) {
  const [host, size] = useSize<HTMLDivElement>();
  const [view, setView] = useState<Viewport | null>(null);
  const [draft, setDraft] = useState<Rect | null>(null);
  const [moving, setMoving] = useState<Rect | null>(null);
  const [sizing, setSizing] = useState<Rect | null>(null);
  const press = useRef<{ x: number; y: number; view: Viewport; moved: boolean; on: 'pan' | 'draw' } | null>(
    null,
  );
  const { picked: pickedAnywhere, pick, tool: toolAnywhere, hidden, goTo, theme, metric } = useView();
  const picked = readOnly ? null : pickedAnywhere;
  const tool = readOnly ? 'pick' : toolAnywhere;
  const palette = PALETTES[theme];
  const art = useMemo(
    () => (survey ? groundArt(survey.relief, survey.contours, palette) : null),
    [survey, palette],
  );
  const [fontsReady, setFontsReady] = useState(false);
  useEffect(() => {
    void Promise.all(
      ["500 11px 'Archivo Variable'", "10px 'Spline Sans Mono'", "500 11px 'Spline Sans Mono'"].map((font) =>
        document.fonts.load(font),
      ),
    ).then(() => setFontsReady(true));
  }, []);

  const layer = useRef<Konva.Layer>(null);
  const sheet = useRef<Sheet | null>(null);
  useEffect(() => {
    const fresh = new Sheet(() => layer.current?.batchDraw());
    sheet.current = fresh;
    layer.current?.batchDraw();
    return () => fresh.dispose();
    // Once the fonts are there, everything is drawn with them.
  }, [fontsReady]);
  const picture = (at: Viewport): Picture => ({
    scene,
    art,
    findings,
    palette,
    view: at,
    hidden: readOnly ? NOTHING : hidden,
    cutRow,
    metric,
    ...size,
  });
  const whole = footprintBounds(scene) ?? BLANK;
  const fitAll = () => setView(fit(whole, size.width, size.height));
  useEffect(() => {
    if (size.width > 0 && !view) fitAll();
  });
  useEffect(() => {
    if (readOnly && size.width > 0) fitAll();
  }, [readOnly, size.width, size.height, whole.w, whole.d]);
  useEffect(() => {
    if (goTo && !readOnly) setView((now) => now && bringIn(now, goTo.x, goTo.y, size.width, size.height));
  }, [goTo]);
  useEffect(() => {
    if (view && !readOnly) usePointer.setState({ zoom: view.scale });
  }, [view]);

  const place = placeOf(scene, picked);
  const step =
    picked && isPlaced(picked.kind)
      ? Math.max(STEPS[picked.kind] ?? 0, picked.kind === 'table' ? 0 : snap)
      : 0;
  const editable = !readOnly && picked !== null && step > 0 && (mayEdit?.(picked) ?? false);
  const pointerAt = (stage: Konva.Stage | null) => stage?.getPointerPosition() ?? null;

  const down = ({ evt, target }: Konva.KonvaEventObject<MouseEvent | TouchEvent>) => {
    if (readOnly || !view) return;
    // A press on the picked thing or its handles belongs to them.
    if (tool === 'pick' && target !== target.getStage() && target.name() !== 'sheet') return;
    const at = pointerAt(target.getStage());
    if (!at) return;
    const drawing = tool !== 'pick' && !('button' in evt && evt.button === 1);
    press.current = { ...at, view, moved: false, on: drawing ? 'draw' : 'pan' };
  };
  const move = ({ evt, target }: Konva.KonvaEventObject<MouseEvent | TouchEvent>) => {
    // The button was let go outside the board.
    if ('buttons' in evt && evt.buttons === 0) press.current = null;
    const at = pointerAt(target.getStage());
    if (!at || !view) return;
    if (!readOnly) usePointer.setState({ studs: toStuds(view, at.x, at.y) });
    const { current } = press;
    if (!current) return;
    if (Math.hypot(at.x - current.x, at.y - current.y) > SLOP) current.moved = true;
    if (!current.moved) return;
    if (current.on === 'pan')
      setView({
        ...current.view,
        x: current.view.x + at.x - current.x,
        y: current.view.y + at.y - current.y,
      });
    else setDraft(between(toStuds(view, current.x, current.y), toStuds(view, at.x, at.y), tool, snap));
  };
  const up = ({ target }: Konva.KonvaEventObject<MouseEvent | TouchEvent>) => {
    const { current } = press;
    press.current = null;
    const at = pointerAt(target.getStage());
    if (!current || !at || !view) return;
    if (current.on === 'draw') {
      if (draft && tool !== 'measure' && tool !== 'pick') onDraw?.(tool, draft);
      if (tool !== 'measure') setDraft(null);
      return;
    }
    if (current.moved) return;
    pick(pickAt(scene, hidden, view, at.x, at.y, picked));
    onClickStud?.(toStuds(view, at.x, at.y));
  };
  useEffect(() => setDraft(null), [tool]);

  const keyDown = (event: React.KeyboardEvent) => {
    if (readOnly || !view || event.ctrlKey || event.metaKey) return;
    const arrow = { ArrowLeft: [-1, 0], ArrowRight: [1, 0], ArrowUp: [0, -1], ArrowDown: [0, 1] }[event.key];
    const middle = { x: size.width / 2, y: size.height / 2 };
    if (arrow) {
      event.preventDefault();
      const [dx, dy] = arrow;
      if (place && editable && picked && isPlaced(picked.kind)) {
        const by = event.shiftKey ? 8 : event.altKey && picked.kind !== 'footprint' ? 0.5 : 1;
        onPlace?.(
          picked.kind,
          picked.id,
          fieldsOf(scene, picked.kind, { ...place, x: place.x + dx * by, y: place.y + dy * by }),
        );
      } else setView({ ...view, x: view.x - dx * 60, y: view.y - dy * 60 });
    } else if (event.key === '+' || event.key === '=') setView(zoomAt(view, 1.25, middle.x, middle.y));
    else if (event.key === '-') setView(zoomAt(view, 0.8, middle.x, middle.y));
    else if (event.key === '0') fitAll();
    else if (event.key === 'Escape') {
      setDraft(null);
      if (tool === 'pick') pick(null);
      else useView.getState().takeTool('pick');
    } else if (event.key === 'Enter' && tool !== 'pick' && tool !== 'measure') {
      event.preventDefault();
      const at = toStuds(view, middle.x, middle.y);
      onDraw?.(tool, snapRect({ x: at.x - 8, y: at.y - 8, w: 16, d: 16 }, Math.max(1, snap)));
    }
  };

  return (
    <div className="relative h-full w-full overflow-hidden">
      <div
        ref={host}
        className="absolute inset-0 touch-none"
        style={{ cursor: tool === 'pick' ? 'default' : 'crosshair' }}
        tabIndex={readOnly ? -1 : 0}
        role={readOnly ? 'img' : 'application'}
        aria-label={label}
        onKeyDown={keyDown}
        onMouseLeave={() => usePointer.setState({ studs: null })}
      >
        {view && size.width > 0 && (
          <Stage
            width={size.width}
            height={size.height}
            onMouseDown={down}
            onMouseMove={move}
            onMouseUp={up}
            onTouchStart={down}
            onTouchMove={move}
            onTouchEnd={up}
            onWheel={({ evt }) => {
              if (readOnly) return;
              evt.preventDefault();
              setView((now) => now && zoomAt(now, Math.exp(-evt.deltaY * 0.0015), evt.offsetX, evt.offsetY));
            }}
          >
            <KonvaLayer ref={layer}>
              <Shape
                name="sheet"
                sceneFunc={(context) =>
                  sheet.current?.draw(
                    context._context,
                    picture(view),
                    layer.current?.getCanvas().getPixelRatio() ?? 1,
                  )
                }
                hitFunc={(context, shape) => {
                  context.beginPath();
                  context.rect(0, 0, size.width, size.height);
                  context.fillStrokeShape(shape);
                }}
              />
            </KonvaLayer>
            <KonvaLayer>
              {place && picked && (
                <Selection
                  key={`${picked.kind} ${picked.id}`}
                  place={moving ?? place}
                  step={step}
                  view={view}
                  editable={editable && tool === 'pick'}
                  iron={palette.iron}
                  onMove={setMoving}
                  onSize={setSizing}
                  onPlace={(rect) => {
                    setMoving(null);
                    setSizing(null);
                    if (isPlaced(picked.kind))
                      onPlace?.(picked.kind, picked.id, fieldsOf(scene, picked.kind, rect));
                  }}
                  onClick={(x, y) => pick(pickAt(scene, hidden, view, x, y, picked))}
                />
              )}
              {draft && tool !== 'measure' && (
                <KonvaRect
                  {...box(rectToScreen(view, draft))}
                  stroke={palette.iron}
                  strokeWidth={2}
                  dash={[6, 3]}
                  listening={false}
                />
              )}
              {draft && tool === 'measure' && <Measured draft={draft} view={view} iron={palette.iron} />}
              {(moving ?? sizing ?? (tool === 'measure' ? null : draft)) && (
                <SizeTag
                  rect={moving ?? sizing ?? draft ?? BLANK}
                  view={view}
                  palette={palette}
                  metric={metric}
                  room={size}
                />
              )}
              {draft && tool === 'measure' && (
                <SizeTag rect={draft} view={view} palette={palette} metric={metric} room={size} measure />
              )}
            </KonvaLayer>
          </Stage>
        )}
      </div>
      {!readOnly && view && (
        <div className="absolute right-7 bottom-20 flex flex-col border hair bg-base-100">
          <button
            type="button"
            className="btn btn-xs btn-ghost btn-square fig"
            aria-label="Zoom in"
            onClick={() => setView(zoomAt(view, 1.25, size.width / 2, size.height / 2))}
          >
            +
          </button>
          <button
            type="button"
            className="btn btn-xs btn-ghost btn-square fig"
            aria-label="Zoom out"
            onClick={() => setView(zoomAt(view, 0.8, size.width / 2, size.height / 2))}
          >
            −
          </button>
          <button
            type="button"
            className="btn btn-xs btn-ghost btn-square fig"
            aria-label="0: fit the whole display"
            title="Fit (0)"
            onClick={fitAll}
          >
            0
          </button>
        </div>
      )}
    </div>
  );
}

const NOTHING: ReadonlySet<never> = new Set<never>();

/** The rectangle between two points; for measuring, w and d keep their sign. */
function between(a: { x: number; y: number }, b: { x: number; y: number }, tool: Tool, snap: number): Rect {
  const step = tool === 'table' ? (STEPS.table ?? 1) : tool === 'footprint' ? 1 : snap;
  const on = (value: number) => Math.round(value / step) * step;
  if (tool === 'measure') return { x: on(a.x), y: on(a.y), w: on(b.x) - on(a.x), d: on(b.y) - on(a.y) };
  return snapRect(
    { x: Math.min(a.x, b.x), y: Math.min(a.y, b.y), w: Math.abs(b.x - a.x), d: Math.abs(b.y - a.y) },
    step,
  );
}
