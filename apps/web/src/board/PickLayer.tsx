import type { Rect } from '@quarry/core/grid';
import { pointsOf, type Entity, type Hill, type Kind, type Scene } from '@quarry/core/document';
import type { CutLine, Picked } from '../data/view.ts';
import type { DraftShape } from './gestures.ts';
import { Selection, Vertices } from './handles.tsx';
import {
  DraftLine,
  Measured,
  OtherPicked,
  PointedOut,
  SizeTag,
  SnapGuides,
  boxOf,
  type OtherPick,
} from './overlays.tsx';
import type { Palette } from './palette.ts';
import { placeOf } from './place.ts';
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

/** What lies over the picture of the scene: what is picked by whom, and what is being drawn. */
export function PickLayer({
  shown,
  pointedOut,
  others,
  pick,
  acts,
  snapping: { snapped, guides },
  draft,
}: {
  shown: Shown;
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
  const only = many ? undefined : picks[0];
  const shownSize = moving ?? sizing ?? sizeOfDraft(draft);
  return (
    <div className="pointer-events-none absolute inset-0 overflow-hidden">
      {others.map((other) => (
        <OtherPicked key={other.key} other={other} view={view} />
      ))}
      <svg className="absolute inset-0 h-full w-full" aria-hidden>
        {pointedOut && <PointedOut line={pointedOut} view={view} palette={palette} />}
        {place && picks.length > 0 && acts && (
          <Selection
            key={picks.map(({ kind, id }) => `${kind} ${id}`).join()}
            place={moving ?? sizing ?? place}
            step={pick.step}
            view={view}
            editable={pick.editable && pick.isPicking}
            resizes={pick.resizes}
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
              <rect
                key={`${one.kind} ${one.id}`}
                {...boxOf(rectToScreen(view, each))}
                fill="none"
                stroke={palette.iron}
                strokeWidth={1.2}
              />
            )
          );
        })}
        {only && acts && <Corners shown={shown} picked={only} pick={pick} acts={acts} />}
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
      </svg>
      {shownSize && (
        <SizeTag rect={shownSize} measure={draft?.kind === 'measure'} {...{ view, metric, room }} />
      )}
    </div>
  );
}

/** What of a draft its size is told of, studs; a measured line by how far it goes east and south. */
function sizeOfDraft(draft: DraftShape | null): Rect | null {
  if (draft?.kind === 'area' || draft?.kind === 'box') return draft.rect;
  if (draft?.kind !== 'measure') return null;
  const { a, b } = draft.line;
  return { x: a.x, y: a.y, w: b.x - a.x, d: b.y - a.y };
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
  // A ring is turned and moved by its middle and the place that its first panel faces.
  const entity: Entity<Kind> | undefined = scene[kind][id];
  const points = entity ? pointsOf(entity) : null;
  const ridge = kind === 'hill' || kind === 'hollow' ? (scene[kind][id] ?? null) : null;
  return (
    <>
      {points && (
        <Vertices
          key={id}
          points={points}
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
function Draft({ draft, shown: { view, palette } }: { draft: DraftShape; shown: Shown }) {
  switch (draft.kind) {
    case 'area':
    case 'box':
      return (
        <rect
          {...boxOf(rectToScreen(view, draft.rect))}
          fill="none"
          stroke={draft.kind === 'box' ? palette.tarn : palette.iron}
          strokeWidth={2}
          strokeDasharray="6 3"
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
    case 'cut':
      return <Measured line={draft.line} view={view} iron={palette.iron} />;
    case 'spot':
      return null;
  }
}
