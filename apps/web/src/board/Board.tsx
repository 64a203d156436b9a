import { useEffect, useMemo, useRef, useState } from 'react';
import type { Rect } from '@quarry/core/grid';
import type { EvaluatedFinding } from '@quarry/core/findings';
import { footprintBounds } from '@quarry/core/terrain';
import { boundsOfAll, canResize, entityOf, type Scene } from '@quarry/core/document';
import { levelIn, useView, type BoardLayer, type CutLine } from '../data/view.ts';
import { useSize } from '../ui/useSize.ts';
import type { CompiledGround } from '../workers/useDerived.ts';
import type { BoardActs } from './acts.ts';
import { boardKeyDown } from './boardKeyDown.ts';
import type { Picture } from './ink.ts';
import { findingMarkAt } from './findingMarks.ts';
import { groundArt, type GroundArt } from './groundArt.ts';
import { useGestures, type DraftShape } from './gestures.ts';
import type { OtherPick } from './overlays.tsx';
import { Legend } from './Legend.tsx';
import { LevelPicker } from './LevelPicker.tsx';
import { PALETTES, type Palette } from './palette.ts';
import { PickLayer } from './PickLayer.tsx';
import { usePictures } from './pictures.ts';
import { usePointer } from './pointer.ts';
import { SceneCanvas, type BesidePicture } from './SceneCanvas.tsx';
import { SplitHandle } from './SplitHandle.tsx';
import { isPlaced, type DrawnShape } from './kinds/index.ts';
import { pickAt, pickIn, stepOf } from './pick.ts';
import { placeOf } from './place.ts';
import { useBoardView } from './useBoardView.ts';
import { useSnap } from './snapping.ts';
import { useHoverName } from './useHoverName.ts';
import { zoomAt, type Viewport } from './viewport.ts';
import { ZoomButtons } from './ZoomButtons.tsx';

/** Another scene that is drawn left of a border, to be compared with. */
export interface Beside {
  scene: Scene;
  ground: CompiledGround;
  /** Where the border lies, share of the width. */
  share: number;
  onShare: (share: number) => void;
  /** What lies on both sides of it. */
  label: string;
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
  /** Another scene over the left part of the board. */
  beside?: Beside | null;
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
  beside = null,
}: BoardProps) {
  const [host, size] = useSize<HTMLDivElement>();
  const [moving, setMoving] = useState<Rect | null>(null);
  const [sizing, setSizing] = useState<Rect | null>(null);
  const readOnly = !acts;
  const anywhere = useView();
  const { pick, pickAll, pickToo, hidden, level, theme, metric, layCut, measure } = anywhere;
  const picked = readOnly ? null : anywhere.picked;
  const tool = readOnly ? 'pick' : anywhere.tool;
  const picks = useMemo(() => (picked ? [picked, ...anywhere.also] : []), [picked, anywhere.also]);
  const palette = PALETTES[theme];
  const survey = useGroundArt(scene, ground, palette);
  const art = useMemo(() => (survey && paint ? { ...survey, tint: paint } : survey), [survey, paint]);
  const otherArt = useGroundArt(beside?.scene ?? scene, beside?.ground ?? null, palette);
  const images = usePictures(scene);
  const otherImages = usePictures(beside?.scene ?? scene);
  const fontsReady = useFontsReady();
  const whole = footprintBounds(scene) ?? BLANK;
  const { view, setView, fitAll } = useBoardView(size, whole, readOnly);

  const picture = (at: Viewport): Picture => ({
    ...{ scene, art, findings, palette, cut, images, metric, ...size },
    view: at,
    hidden: paint ? PAINTED : readOnly ? NOTHING : hidden,
    level: readOnly || paint ? null : levelIn(scene, level),
  });
  const besidePicture = (at: Viewport): BesidePicture | null =>
    beside && {
      share: beside.share,
      picture: {
        ...picture(at),
        ...{ scene: beside.scene, art: otherArt, images: otherImages, findings: NO_FINDINGS },
        level: levelIn(beside.scene, level),
      },
    };

  const many = picks.length > 1;
  const place = many ? boundsOfAll(scene, picks) : placeOf(scene, picked);
  const step = acts && picked ? Math.max(...picks.map(({ kind }) => stepOf(kind, acts.snap))) : 0;
  const editable = acts !== undefined && picked !== null && step > 0 && picks.every(acts.mayEdit);
  const resizes = picked !== null && !many && (picked.kind === 'table' || canResize(scene, picked));
  const { snapped, guides, clear } = useSnap(scene, picks, view, moving !== null || sizing !== null);

  useHoverName(host, scene, readOnly ? NOTHING : hidden, view);

  const finish = (draft: DraftShape) => {
    if (!acts) return;
    if (draft.kind === 'box') pickAll(pickIn(scene, hidden, draft.rect));
    else if ('line' in draft) (draft.kind === 'cut' ? layCut : measure)(draft.line);
    else if (isPlaced(tool)) acts.draw(tool, shapeOf(draft));
  };
  const click = (x: number, y: number, adds: boolean) => {
    if (!view) return;
    // Left of the border lies another scene: what is not in this one cannot be picked there.
    const isBeside = beside !== null && x < beside.share * size.width;
    // A mark of findings lies over everything: pressed, it opens them as a list.
    const mark = hidden.has('findings') || isBeside ? null : findingMarkAt(picture(view), x, y);
    if (mark && !adds) return anywhere.openFindings(mark.findings.map(({ key }) => key));
    const there = pickAt(isBeside ? beside.scene : scene, hidden, view, x, y, adds ? null : picked);
    const found = there && entityOf(scene, there.kind, there.id) ? there : null;
    if (adds && found) pickToo(found);
    else pick(found);
  };
  const { draft, handlers, keyTaken, clickAt } = useGestures({
    ...{ host, tool, view, setView, readOnly, finish, click },
    snap: acts?.snap ?? 1,
  });
  const keyDown = boardKeyDown({
    ...{ acts, view, setView, fitAll, size, whole, picks, place, editable, keyTaken },
  });
  const settle = (rect: Rect) => {
    setMoving(null);
    setSizing(null);
    clear();
    if (!picked || !acts || !place) return;
    if (many) acts.move(picks, rect.x - place.x, rect.y - place.y);
    else acts.place(picked, rect);
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
        onPointerLeave={() => usePointer.setState({ studs: null })}
        {...handlers}
      >
        {view && size.width > 0 && (
          <>
            <SceneCanvas
              picture={picture(view)}
              beside={besidePicture(view)}
              shade={shade && { hatches: shade, over: whole }}
              fontsReady={fontsReady}
            />
            <PickLayer
              shown={{ scene, view, palette, metric, room: size }}
              {...{ pointedOut, others, draft }}
              pick={{ picks, place, moving, sizing, step, editable, resizes, isPicking: tool === 'pick' }}
              acts={
                acts
                  ? {
                      ...{ snap: acts.snap, shape: acts.shape, ridge: acts.ridge, settle },
                      ...{ move: setMoving, size: setSizing, click: clickAt },
                    }
                  : null
              }
              snapping={{ snapped, guides }}
            />
          </>
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
      {beside && view && <SplitHandle share={beside.share} onShare={beside.onShare} label={beside.label} />}
    </div>
  );
}

/** The ground as it is drawn; what did not change since it was drawn last is taken over. */
function useGroundArt(
  { customGround }: Pick<Scene, 'customGround'>,
  ground: CompiledGround | null,
  palette: Palette,
): GroundArt | null {
  const drawn = useRef<GroundArt | null>(null);
  return useMemo(
    () => (drawn.current = ground ? groundArt(ground, { customGround }, palette, drawn.current) : null),
    [ground, customGround, palette],
  );
}

function useFontsReady(): boolean {
  const [isReady, setReady] = useState(false);
  useEffect(() => {
    void Promise.all(
      ["500 11px 'Archivo Variable'", "10px 'Spline Sans Mono'", "500 11px 'Spline Sans Mono'"].map((font) =>
        document.fonts.load(font),
      ),
    ).then(() => setReady(true));
  }, []);
  return isReady;
}

function shapeOf(draft: Exclude<DraftShape, { line: CutLine }>): DrawnShape {
  if (draft.kind === 'line') return { draws: 'line', points: draft.points };
  return draft.kind === 'spot' ? { draws: 'spot', at: draft.at } : { draws: 'area', rect: draft.rect };
}
