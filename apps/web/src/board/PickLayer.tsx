import type { Rect } from '@quarry/core/grid';
import type { Hill, Scene } from '@quarry/core/document';
import type { CutLine, Picked } from '../data/view.ts';
import type { DraftShape } from './gestures.ts';
import {
  DraftLine,
  Measured,
  OthersPicked,
  PointedOut,
  Selection,
  SizeTag,
  SnapGuides,
  Vertices,
  box,
  type OtherPick,
} from './overlays.tsx';
import { Image as KonvaImage, Layer as KonvaLayer, Rect as KonvaRect } from './konva.ts';
import type { Palette } from './palette.ts';
import { lineOf, placeOf } from './place.ts';
import { ridgeEnds, ridgeFrom } from './ridge.ts';
import type { useSnap } from './snapping.ts';
import { rectToScreen, type Viewport } from './viewport.ts';

interface Shown {
  scene: Scene;
  view: Viewport;
  palette: Palette;
  metric: 'mm' | 'in';
  room: { width: number; height: number };
}

/** What is picked, and how it may be pulled. */
export interface PickState {
  picks: readonly Picked[];
  /** The rectangle of all that is picked, studs. */
  place: Rect | null;
  /** While it is moved or resized. */
  moving: Rect | null;
  sizing: Rect | null;
  /** The least step, studs. */
  step: number;
  /** It may be pulled, with the pick tool in hand. */
  editable: boolean;
  isPicking: boolean;
  resizes: boolean;
}

interface Acts {
  /** The least step of corners of lines, studs. */
  snap: number;
  move: (rect: Rect) => void;
  size: (rect: Rect) => void;
  settle: (rect: Rect) => void;
  click: (x: number, y: number, adds: boolean) => void;
  shape: (picked: Picked, points: { x: number; y: number }[]) => void;
  ridge: (picked: Picked, ridge: Hill['ridge']) => void;
}

/** What lies over the picture of the scene: shade, what is picked by whom, and what is being drawn. */
export function PickLayer({
  shown,
  whole,
  shade,
  pointedOut,
  others,
  pick,
  acts,
  snapping: { snapped, guides },
  draft,
}: {
  shown: Shown;
  /** The display, studs. */
  whole: Rect;
  shade: HTMLCanvasElement | null;
  pointedOut: CutLine | null;
  others: readonly OtherPick[];
  pick: PickState;
  /** Null: the board is looked at only. */
  acts: Acts | null;
  snapping: Pick<ReturnType<typeof useSnap>, 'snapped' | 'guides'>;
  draft: DraftShape | null;
}) {
  const { scene, view, palette, metric, room } = shown;
  const { picks, place, moving, sizing } = pick;
  const many = picks.length > 1;
  const shownSize = moving ?? sizing ?? (draft?.kind === 'area' || draft?.kind === 'box' ? draft.rect : null);
  const tag = { view, palette, metric, room };
  return (
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
      {place && picks.length > 0 && acts && (
        <Selection
          key={picks.map(({ kind, id }) => `${kind} ${id}`).join()}
          place={moving ?? place}
          step={pick.step}
          view={view}
          editable={pick.editable && pick.isPicking}
          resizes={pick.resizes}
          listening={pick.isPicking}
          iron={palette.iron}
          snap={snapped}
          onMove={acts.move}
          onSize={acts.size}
          onPlace={acts.settle}
          onClick={acts.click}
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
      {picks.length === 1 && acts && <Corners shown={shown} picked={picks[0]} pick={pick} acts={acts} />}
      {guides.map((guide) => (
        <SnapGuides
          key={`${guide.axis}${guide.at}`}
          guide={guide}
          view={view}
          room={room}
          ink={palette.tarn}
        />
      ))}
      {draft && <Draft draft={draft} shown={shown} />}
      {shownSize && <SizeTag rect={shownSize} {...tag} />}
    </KonvaLayer>
  );
}

/** The corners of a picked line, and the ends of a hill's ridge, to be pulled. */
function Corners({
  shown: { scene, view, palette },
  picked,
  pick: { editable, isPicking },
  acts,
}: {
  shown: Shown;
  picked: Picked;
  pick: PickState;
  acts: Acts;
}) {
  const { kind, id } = picked;
  const line = kind === 'track' ? null : lineOf(scene, kind, id);
  const ridge = kind === 'hill' || kind === 'hollow' ? (scene[kind][id] ?? null) : null;
  return (
    <>
      {line && (
        <Vertices
          key={id}
          points={line.points}
          view={view}
          step={acts.snap}
          iron={palette.iron}
          editable={editable && isPicking}
          onPoints={(points) => acts.shape(picked, points)}
        />
      )}
      {ridge && ridge.profile !== 'sheer' && (
        <Vertices
          key={`ridge ${id}`}
          points={ridgeEnds(ridge)}
          view={view}
          step={0.5}
          iron={palette.ochre}
          editable={editable && isPicking}
          fixed
          onPoints={(ends) => acts.ridge(picked, ridgeFrom(ridge, ends))}
        />
      )}
    </>
  );
}

/** What is being drawn and not done yet. */
function Draft({ draft, shown: { view, palette, metric, room } }: { draft: DraftShape; shown: Shown }) {
  switch (draft.kind) {
    case 'area':
    case 'box':
      return (
        <KonvaRect
          {...box(rectToScreen(view, draft.rect))}
          stroke={draft.kind === 'box' ? palette.tarn : palette.iron}
          strokeWidth={2}
          dash={[6, 3]}
          listening={false}
        />
      );
    case 'line':
      return (
        <DraftLine
          points={[...draft.points, ...(draft.at ? [draft.at] : [])]}
          view={view}
          iron={palette.iron}
        />
      );
    case 'measure':
    case 'cut': {
      const { a, b } = draft.line;
      return (
        <>
          <Measured line={draft.line} view={view} iron={palette.iron} />
          {draft.kind === 'measure' && (
            <SizeTag
              rect={{ x: a.x, y: a.y, w: b.x - a.x, d: b.y - a.y }}
              view={view}
              palette={palette}
              metric={metric}
              room={room}
              measure
            />
          )}
        </>
      );
    }
    case 'spot':
      return null;
  }
}
