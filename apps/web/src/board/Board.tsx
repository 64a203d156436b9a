import { dequal } from 'dequal/lite';
import type Konva from 'konva';
import { useEffect, useEffectEvent, useMemo, useRef, useState } from 'react';
import { Image as KonvaImage, Layer as KonvaLayer, Rect as KonvaRect, Shape, Stage } from 'react-konva';
import type { Rect } from '@quarry/core/grid';
import type { EvaluatedFinding } from '@quarry/core/findings';
import { footprintBounds } from '@quarry/core/terrain';
import { boundsOfAll, canResize, type Hill, type Scene } from '@quarry/core/document';
import { levelIn, useView, type BoardLayer, type CutLine, type Picked } from '../data/view.ts';
import { useSize } from '../ui/useSize.ts';
import type { CompiledGround } from '../workers/derived.tsx';
import type { Picture } from './ink.ts';
import { findingMarkAt } from './findingMarks.ts';
import { groundArt, type GroundArt } from './groundArt.ts';
import { useGestures, type DraftShape } from './gestures.ts';
import {
  DraftLine,
  SnapGuides,
  Measured,
  OthersPicked,
  PointedOut,
  Selection,
  SizeTag,
  Vertices,
  box,
  type OtherPick,
} from './overlays.tsx';
import { Legend } from './Legend.tsx';
import { LevelPicker } from './LevelPicker.tsx';
import { PALETTES } from './palette.ts';
import { usePictures } from './pictures.ts';
import { ridgeEnds, ridgeFrom } from './ridge.ts';
import { usePointer } from './pointer.ts';
import { SceneBitmap } from './sceneBitmap.ts';
import { isPlaced, shapeAt, toolOf, type DrawnShape, type Placed } from './kinds/index.ts';
import { pickAt, pickIn, snapRect, stepOf } from './pick.ts';
import { lineOf, placeOf } from './place.ts';
import { useSnap } from './snapping.ts';
import { useHoverName } from './useHoverName.ts';
import { bringIn, fit, rectToScreen, toStuds, zoomAt, type Viewport } from './viewport.ts';
import { ZoomButtons } from './ZoomButtons.tsx';

/** What one may do on a board; a board without it is to be looked at only. */
export interface BoardActs {
  mayEdit: (picked: Picked) => boolean;
  /** The least step of moving and drawing, studs. */
  snap: number;
  place: (picked: Picked, rect: Rect) => void;
  shape: (picked: Picked, points: { x: number; y: number }[]) => void;
  ridge: (picked: Picked, ridge: Hill['ridge']) => void;
  move: (picks: readonly Picked[], dx: number, dy: number) => void;
  draw: (kind: Placed, shape: DrawnShape) => void;
}

interface BoardProps {
  scene: Scene;
  ground: CompiledGround | null;
  findings?: readonly EvaluatedFinding[];
  acts?: BoardActs;
  label: string;
  cut?: CutLine | null;
  /** A line that is pointed out, such as the chosen seam; studs. */
  pointedOut?: CutLine | null;
  /** The ground in its true colours, a pixel a stud, instead of hatches; what stands on it is left out. */
  paint?: HTMLCanvasElement | null;
  /** Hatches over the whole footprint, such as what is not seen. */
  shade?: HTMLCanvasElement | null;
  /** What others on the display have picked. */
  others?: readonly OtherPick[];
}

/** The display shown before anything has a size, studs. */
const BLANK: Rect = { x: 0, y: 0, w: 96, d: 48 };
const NOTHING: ReadonlySet<never> = new Set<never>();
/** What would hide painted ground. */
const PAINTED: ReadonlySet<BoardLayer> = new Set<BoardLayer>([
  'ground',
  'ways',
  'plots',
  'dressing',
  'signs',
  'findings',
]);
const NO_FINDINGS: readonly EvaluatedFinding[] = [];

/**
 * The plan board: one canvas that draws the scene as a survey sheet, and over it what is being picked, moved,
 * resized or drawn. It changes nothing itself: it calls `acts`.
 */
export function Board({
  scene,
  ground,
  findings = NO_FINDINGS,
  acts,
  label,
  cut = null,
  pointedOut = null,
  paint = null,
  shade = null,
  others = [],
}: BoardProps) {
  const [host, size] = useSize<HTMLDivElement>();
  const [view, setView] = useState<Viewport | null>(null);
  const [moving, setMoving] = useState<Rect | null>(null);
  const [sizing, setSizing] = useState<Rect | null>(null);
  const readOnly = !acts;
  const anywhere = useView();
  const { pick, pickAll, pickToo, hidden, level, goTo, theme, metric, layCut, measure } = anywhere;
  const picked = readOnly ? null : anywhere.picked;
  const tool = readOnly ? 'pick' : anywhere.tool;
  const picks = useMemo(() => (picked ? [picked, ...anywhere.also] : []), [picked, anywhere.also]);
  const palette = PALETTES[theme];
  const { customGround } = scene;
  const drawnArt = useRef<GroundArt | null>(null);
  const survey = useMemo(
    () => (drawnArt.current = ground ? groundArt(ground, { customGround }, palette, drawnArt.current) : null),
    [ground, customGround, palette],
  );
  const art = useMemo(() => (survey && paint ? { ...survey, tint: paint } : survey), [survey, paint]);
  const images = usePictures(scene);
  const [fontsReady, setFontsReady] = useState(false);
  useEffect(() => {
    void Promise.all(
      ["500 11px 'Archivo Variable'", "10px 'Spline Sans Mono'", "500 11px 'Spline Sans Mono'"].map((font) =>
        document.fonts.load(font),
      ),
    ).then(() => setFontsReady(true));
  }, []);

  const layer = useRef<Konva.Layer>(null);
  const sheet = useRef<SceneBitmap | null>(null);
  useEffect(() => {
    const fresh = new SceneBitmap(() => layer.current?.batchDraw());
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
    hidden: paint ? PAINTED : readOnly ? NOTHING : hidden,
    level: readOnly || paint ? null : levelIn(scene, level),
    cut,
    images,
    metric,
    ...size,
  });
  const whole = footprintBounds(scene) ?? BLANK;
  const fitAll = () => setView(fit(whole, size.width, size.height));
  const fitAgain = useEffectEvent(fitAll);
  const isUnseen = view === null;
  useEffect(() => {
    if (size.width > 0 && isUnseen) fitAgain();
  }, [size.width, isUnseen]);
  // A board that shows the whole display still does when it gets another size, such as beside the open findings.
  const shownIn = useRef(size);
  const keepWhole = useEffectEvent(() => {
    const { width, height } = shownIn.current;
    shownIn.current = size;
    if (view && width > 0 && size.width > 0 && dequal(view, fit(whole, width, height))) fitAll();
  });
  useEffect(() => keepWhole(), [size.width, size.height]);
  useEffect(() => {
    if (readOnly && size.width > 0) fitAgain();
  }, [readOnly, size.width, size.height, whole.w, whole.d]);
  const show = useEffectEvent((spot: { x: number; y: number }) => {
    if (!readOnly) setView((now) => now && bringIn(now, spot.x, spot.y, size.width, size.height));
  });
  useEffect(() => {
    if (goTo) show(goTo);
  }, [goTo]);
  useEffect(() => {
    if (view && !readOnly) usePointer.setState({ zoom: view.scale });
  }, [view, readOnly]);

  const many = picks.length > 1;
  const place = many ? boundsOfAll(scene, picks) : placeOf(scene, picked);
  const step = acts && picked ? Math.max(...picks.map(({ kind }) => stepOf(kind, acts.snap))) : 0;
  const editable = acts !== undefined && picked !== null && step > 0 && picks.every(acts.mayEdit);
  const line = picked && !many && picked.kind !== 'track' ? lineOf(scene, picked.kind, picked.id) : null;
  const ridge =
    picked && !many && (picked.kind === 'hill' || picked.kind === 'hollow')
      ? (scene[picked.kind][picked.id] ?? null)
      : null;
  const resizes = picked !== null && !many && (picked.kind === 'table' || canResize(scene, picked));
  const { snapped, guides, clear } = useSnap(scene, picks, view, moving !== null || sizing !== null);

  useHoverName(host, scene, readOnly ? NOTHING : hidden, view);

  const finish = (draft: DraftShape) => {
    if (!acts) return;
    if (draft.kind === 'box') {
      const found = pickIn(scene, hidden, draft.rect);
      pickAll(found);
    } else if ('line' in draft) (draft.kind === 'cut' ? layCut : measure)(draft.line);
    else if (isPlaced(tool)) acts.draw(tool, shapeOf(draft));
  };
  const { draft, handlers, keyTaken, clickAt } = useGestures({
    tool,
    snap: acts?.snap ?? 1,
    view,
    setView,
    readOnly,
    finish,
    click: (x, y, adds) => {
      if (!view) return;
      // A mark of findings lies over everything: pressed, it opens them as a list.
      const mark = hidden.has('findings') ? null : findingMarkAt(picture(view), x, y);
      if (mark && !adds) return anywhere.openFindings(mark.findings.map(({ key }) => key));
      const found = pickAt(scene, hidden, view, x, y, adds ? null : picked);
      if (adds && found) pickToo(found);
      else pick(found);
    },
  });

  const keyDown = (event: React.KeyboardEvent) => {
    if (!acts || !view || event.ctrlKey || event.metaKey) return;
    if (keyTaken(event)) return;
    // The tool as it is this moment: a quick hand presses Enter before the board is drawn with a new one.
    const { tool: held } = useView.getState();
    const arrow = { ArrowLeft: [-1, 0], ArrowRight: [1, 0], ArrowUp: [0, -1], ArrowDown: [0, 1] }[event.key];
    const middle = { x: size.width / 2, y: size.height / 2 };
    if (arrow) {
      event.preventDefault();
      const [dx, dy] = arrow;
      if (place && editable && picked) {
        const by = event.shiftKey ? 8 : event.altKey && picked.kind !== 'footprint' ? 0.5 : 1;
        if (many) acts.move(picks, dx * by, dy * by);
        else acts.place(picked, { ...place, x: place.x + dx * by, y: place.y + dy * by });
      } else setView({ ...view, x: view.x - dx * 60, y: view.y - dy * 60 });
    } else if (event.key === '+' || event.key === '=') setView(zoomAt(view, 1.25, middle.x, middle.y));
    else if (event.key === '-') setView(zoomAt(view, 0.8, middle.x, middle.y));
    else if (event.key === '0') fitAll();
    else if (event.key === 'Escape') {
      if (held === 'pick') pick(null);
      else useView.getState().takeTool('pick');
    } else if (event.key === 'Enter' && held !== 'pick') {
      event.preventDefault();
      const { x, y } = toStuds(view, middle.x, middle.y);
      const rect = snapRect({ x: x - 8, y: y - 8, w: 16, d: 16 }, Math.max(1, acts.snap));
      const draws = toolOf(held)?.draws;
      if (draws && isPlaced(held)) acts.draw(held, shapeAt(draws, rect));
      else if (held === 'profile')
        layCut({ a: { x: whole.x, y: rect.y }, b: { x: whole.x + whole.w, y: rect.y } });
    }
  };
  const settle = (rect: Rect) => {
    setMoving(null);
    setSizing(null);
    clear();
    if (!picked || !acts || !place) return;
    if (many) acts.move(picks, rect.x - place.x, rect.y - place.y);
    else acts.place(picked, rect);
  };
  const shownSize = moving ?? sizing ?? (draft?.kind === 'area' || draft?.kind === 'box' ? draft.rect : null);

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
          <Stage width={size.width} height={size.height} {...handlers}>
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
              {shade && (
                <KonvaImage
                  image={shade}
                  {...box(rectToScreen(view, whole))}
                  imageSmoothingEnabled={false}
                  listening={false}
                />
              )}
              {pointedOut && <PointedOut line={pointedOut} view={view} palette={palette} />}
              <OthersPicked others={others} view={view} />
              {place && picked && (
                <Selection
                  key={picks.map(({ kind, id }) => `${kind} ${id}`).join()}
                  place={moving ?? place}
                  step={step}
                  view={view}
                  editable={editable && tool === 'pick'}
                  resizes={resizes}
                  listening={tool === 'pick'}
                  iron={palette.iron}
                  snap={snapped}
                  onMove={setMoving}
                  onSize={setSizing}
                  onPlace={settle}
                  onClick={(x, y, adds) => clickAt(x, y, adds)}
                />
              )}
              {picks.slice(many ? 0 : 1).map((one) => {
                const each = placeOf(scene, one);
                return (
                  each && (
                    <KonvaRect
                      key={`${one.kind} ${one.id}`}
                      {...box(rectToScreen(view, each))}
                      stroke={palette.iron}
                      strokeWidth={1.2}
                      listening={false}
                    />
                  )
                );
              })}
              {line && picked && acts && (
                <Vertices
                  key={picked.id}
                  points={line.points}
                  view={view}
                  step={acts.snap}
                  iron={palette.iron}
                  editable={editable && tool === 'pick'}
                  onPoints={(points) => acts.shape(picked, points)}
                />
              )}
              {ridge && ridge.profile !== 'sheer' && picked && acts && (
                <Vertices
                  key={`ridge ${picked.id}`}
                  points={ridgeEnds(ridge)}
                  view={view}
                  step={0.5}
                  iron={palette.ochre}
                  editable={editable && tool === 'pick'}
                  fixed
                  onPoints={(ends) => acts.ridge(picked, ridgeFrom(ridge, ends))}
                />
              )}
              {guides.map((guide) => (
                <SnapGuides
                  key={`${guide.axis}${guide.at}`}
                  guide={guide}
                  view={view}
                  room={size}
                  ink={palette.tarn}
                />
              ))}
              {draft && (draft.kind === 'area' || draft.kind === 'box') && (
                <KonvaRect
                  {...box(rectToScreen(view, draft.rect))}
                  stroke={draft.kind === 'box' ? palette.tarn : palette.iron}
                  strokeWidth={2}
                  dash={[6, 3]}
                  listening={false}
                />
              )}
              {draft?.kind === 'line' && (
                <DraftLine
                  points={[...draft.points, ...(draft.at ? [draft.at] : [])]}
                  view={view}
                  iron={palette.iron}
                />
              )}
              {draft && (draft.kind === 'measure' || draft.kind === 'cut') && (
                <Measured line={draft.line} view={view} iron={palette.iron} />
              )}
              {shownSize && (
                <SizeTag rect={shownSize} view={view} palette={palette} metric={metric} room={size} />
              )}
              {draft?.kind === 'measure' && (
                <SizeTag
                  rect={{
                    x: draft.line.a.x,
                    y: draft.line.a.y,
                    w: draft.line.b.x - draft.line.a.x,
                    d: draft.line.b.y - draft.line.a.y,
                  }}
                  view={view}
                  palette={palette}
                  metric={metric}
                  room={size}
                  measure
                />
              )}
            </KonvaLayer>
          </Stage>
        )}
      </div>
      {draft?.kind === 'line' && (
        <p
          role="status"
          className="absolute left-7 bottom-7 bg-neutral text-neutral-content px-2 py-0.5 text-xs"
        >
          Click to go on. Enter or a double click ends the line, Backspace takes a point back, Escape gives it
          up.
        </p>
      )}
      {!readOnly && view && !draft && !paint && (
        <>
          <Legend scene={scene} relief={ground?.relief ?? null} palette={palette} />
          <LevelPicker scene={scene} />
        </>
      )}
      {!readOnly && view && (
        <ZoomButtons
          onZoom={(factor) => setView(zoomAt(view, factor, size.width / 2, size.height / 2))}
          onFit={fitAll}
        />
      )}
    </div>
  );
}

function shapeOf(draft: Exclude<DraftShape, { line: CutLine }>): DrawnShape {
  if (draft.kind === 'line') return { draws: 'line', points: draft.points };
  return draft.kind === 'spot' ? { draws: 'spot', at: draft.at } : { draws: 'area', rect: draft.rect };
}
