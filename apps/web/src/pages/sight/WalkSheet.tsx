import { Box, Camera } from 'lucide-react';
import { useMemo, useRef, useState, type KeyboardEvent } from 'react';
import { useSearchParams } from 'react-router';
import { toast } from 'sonner';
import { STUDS_PER_PLATE, countOf } from '@quarry/core/grid';
import { SIDES, SIDE_WORDS, displayOf, labelOf, placeIn, type Scene } from '@quarry/core/document';
import type { Relief } from '@quarry/core/terrain';
import { fileName } from '@quarry/core/formats';
import { lampsOf } from '@quarry/core/power';
import { currentPlace, highestTable } from '@quarry/core/venue';
import {
  PLANNED,
  WATCHERS,
  eyeHeights,
  lookedAt,
  publicDistance,
  viewpointsOf,
  type WalkMesh,
} from '@quarry/core/visibility';
import { photoUrl } from '../../data/crewApi.ts';
import { useLink } from '../../data/useDisplay.tsx';
import { useView } from '../../data/view.ts';
import { CheckField, QuantityField, SelectField } from '../../ui/fields.tsx';
import { Basis, Empty, Failure, Heading, Loading } from '../../ui/parts.tsx';
import { save } from '../../ui/save.ts';
import { useMeasureFormat } from '../../ui/useMeasureFormat.ts';
import { momentWord } from '../../ui/words.ts';
import { useDerived } from '../../workers/derived.tsx';
import { useWalkMesh } from '../../workers/useSight.ts';
import { OFF, STEP, eyeAndTarget, sideLengthOf, standingAt, type Standpoint } from './standpoint.ts';
import { WATCHER_HEADS } from './watchers.ts';
import { WalkView, type WalkHandle } from './WalkView.tsx';

/** Eye heights where no place says them, mm (from memory, as in a new place). */
const EYES = { adult: 1600, seated: 1200, child: 1050, shoulders: 1950 } as const;

/** The display in three dimensions: from where a visitor stands, or turned by hand; as a picture and as a model. */
export function WalkSheet({ scene }: { scene: Scene }) {
  const { mesh, state } = useWalkMesh(scene);
  if (mesh) return <Walk scene={scene} mesh={mesh} />;
  return (
    <div className="md:col-span-2">
      {state.is === 'failed' && <Failure title="The display could not be built" message={state.error} />}
      {state.is === 'answered' && (
        <Empty title="No footprint yet">
          Draw the footprint on Plan; then the display can be walked round.
        </Empty>
      )}
      {(state.is === 'idle' || state.is === 'asking') && <Loading what="Building the display" />}
    </div>
  );
}

function Walk({ scene, mesh }: { scene: Scene; mesh: WalkMesh }) {
  const { say } = useMeasureFormat();
  const { theme, picked, pick } = useView();
  const relief = useDerived(({ ground }) => ground?.relief ?? null);
  const handle = useRef<WalkHandle>(null);
  const [isRound, setRound] = useState(false);
  const [isDark, setDark] = useState(false);
  const [isToday, setToday] = useState(false);
  const lamps = useMemo(() => (relief ? lampsOf(scene, relief) : []), [scene, relief]);
  const display = displayOf(scene);
  const [at, setAt] = useState<Standpoint>(() => {
    const side = display.viewedSides[0] ?? 's';
    return { side, along: sideLengthOf(mesh, side) / 2, off: publicDistance(scene), who: 'adult' };
  });
  const place = currentPlace(scene);
  const heights = place ? eyeHeights(place) : EYES;
  const table = highestTable(scene);
  const within = (next: Standpoint): Standpoint => ({
    ...next,
    along: Math.min(sideLengthOf(mesh, next.side), Math.max(0, next.along)),
    off: Math.min(OFF.max, Math.max(OFF.min, next.off)),
  });
  const viewpoints = useMemo(() => (relief ? viewpointsOf(scene, relief) : []), [scene, relief]);
  const [params] = useSearchParams();
  const [stoodAt, setStoodAt] = useState(params.get('at') ?? '');
  const viewpoint = viewpoints.find(({ kind, id }) => stoodAt === `${kind} ${id}`) ?? null;
  // The footprint may have become smaller meanwhile.
  const here = within(at);
  const go = (more: Partial<Standpoint>) => setAt(within({ ...here, ...more }));
  // Left and right are those of one who looks at the display.
  const right = here.side === 's' || here.side === 'w' ? 1 : -1;
  const walk = (event: KeyboardEvent) => {
    const way = {
      ArrowLeft: { along: here.along - right * STEP.along },
      ArrowRight: { along: here.along + right * STEP.along },
      ArrowUp: { off: here.off - STEP.off },
      ArrowDown: { off: here.off + STEP.off },
    }[event.key];
    if (!way || isRound || viewpoint) return;
    event.preventDefault();
    go(way);
  };
  const things = lookedAt(scene)
    .map((ref) => ({ ...ref, name: labelOf(scene, ref.kind, ref.id) }))
    .toSorted((a, b) => a.name.localeCompare(b.name));
  const looked = things.find(({ kind, id }) => picked?.kind === kind && picked.id === id) ?? null;
  const stance = viewpoint
    ? standingAt(viewpoint, mesh)
    : eyeAndTarget(here, mesh, heights[here.who] - table);
  const target = (looked && relief && middleOf(scene, relief, looked)) ?? stance.target;
  const words = isRound
    ? 'The whole display in three dimensions, turned by hand'
    : viewpoint
      ? `The display from ${viewpoint.name}, by an adult’s eyes${looked ? `, looking at ${looked.name}` : ''}`
      : `The display from the ${SIDE_WORDS[here.side]}, ${say(Math.round(here.along), 'mm')} along it and ${say(Math.round(here.off), 'mm')} off, by eyes ${say(heights[here.who], 'mm')} over the floor${looked ? `, looking at ${looked.name}` : ''}`;
  const take = async (what: 'picture' | 'model') => {
    try {
      const blob = await handle.current?.[what]();
      if (!blob) throw new Error('there is nothing to take');
      save(blob, fileName([display.name, 'walk'], what === 'picture' ? 'png' : 'glb'));
    } catch (error) {
      toast.error(
        `The ${what} could not be made: ${error instanceof Error ? error.message : String(error)}.`,
      );
    }
  };
  const faces = mesh.parts.reduce((sum, { indices }) => sum + indices.length / 3, 0);
  return (
    <>
      <div
        className="min-h-0 min-w-0 relative"
        role="application"
        aria-label="Walk: left and right go along the side, up and down nearer and farther"
        tabIndex={0}
        onKeyDown={walk}
      >
        <WalkView
          mesh={mesh}
          standing={isRound ? null : { eye: stance.eye, target }}
          label={words}
          theme={theme}
          lamps={isDark ? lamps : null}
          isToday={isToday}
          ref={handle}
        />
      </div>
      <section
        role="tabpanel"
        aria-label="Walk"
        className="border-t md:border-t-0 md:border-l hair bg-base-100 overflow-auto px-3 py-2.5 min-h-0"
      >
        <Heading>Where you stand</Heading>
        <CheckField label="Turn it by hand instead" value={isRound} onCommit={setRound} />
        <CheckField
          label={`Dark hall, ${countOf(lamps.filter(({ isLit }) => isLit).length, 'lamp')} lit`}
          value={isDark}
          disabled={lamps.length === 0}
          onCommit={setDark}
        />
        {viewpoints.length > 0 && (
          <SelectField
            label="Stand"
            value={viewpoint ? stoodAt : ''}
            disabled={isRound}
            options={[
              { value: '', word: 'before a side' },
              ...viewpoints.map(({ kind, id, name }) => ({ value: `${kind} ${id}`, word: `at ${name}` })),
            ]}
            onCommit={setStoodAt}
          />
        )}
        {viewpoint?.photo && <PhotoBeside scene={scene} id={viewpoint.photo} />}
        <CheckField
          label="Only what stands today in full"
          value={isToday}
          disabled={!mesh.parts.some(({ material }) => material.startsWith(PLANNED))}
          onCommit={setToday}
        />
        <SelectField
          label="Before the side"
          value={here.side}
          disabled={isRound || viewpoint !== null}
          options={SIDES.map((side) => ({ value: side, word: SIDE_WORDS[side] }))}
          onCommit={(side) => go({ side, along: sideLengthOf(mesh, side) / 2 })}
        />
        <SelectField
          label="Eyes of"
          value={here.who}
          disabled={isRound || viewpoint !== null}
          options={WATCHERS.map((who) => ({
            value: who,
            word: `${WATCHER_HEADS[who]}, ${say(heights[who], 'mm')}`,
          }))}
          onCommit={(who) => go({ who })}
        />
        <SelectField
          label="Look at"
          value={looked ? `${looked.kind} ${looked.id}` : ''}
          disabled={isRound}
          options={[
            { value: '', word: 'straight ahead' },
            ...things.map(({ kind, id, name }) => ({ value: `${kind} ${id}`, word: name })),
          ]}
          onCommit={(value) => {
            const thing = things.find(({ kind, id }) => value === `${kind} ${id}`);
            pick(thing ? { kind: thing.kind, id: thing.id } : null);
          }}
        />
        <QuantityField
          label={`Along it, from the ${here.side === 'n' || here.side === 's' ? 'west' : 'north'} end`}
          value={Math.round(here.along)}
          measure="mm"
          min={0}
          max={sideLengthOf(mesh, here.side)}
          disabled={isRound || viewpoint !== null}
          onCommit={(along) => go({ along })}
        />
        <QuantityField
          label="Off the scene"
          value={Math.round(here.off)}
          measure="mm"
          min={OFF.min}
          max={OFF.max}
          disabled={isRound || viewpoint !== null}
          onCommit={(off) => go({ off })}
        />
        <p className="ink-2 text-xs py-1">
          {isRound
            ? 'Drag to turn it, with the right button to move it; the wheel goes nearer.'
            : viewpoint
              ? 'Drag to look round.'
              : `In the picture: ← → walk ${say(STEP.along, 'mm')} along the side, ↑ ↓ go ${say(STEP.off, 'mm')} nearer and farther; drag to look round.`}
        </p>
        <div className="flex flex-wrap gap-2 py-2">
          <button type="button" className="btn btn-sm" onClick={() => void take('picture')}>
            <Camera size={13} aria-hidden /> Save picture (PNG)
          </button>
          <button type="button" className="btn btn-sm" onClick={() => void take('model')}>
            <Box size={13} aria-hidden /> Save model (glTF)
          </button>
        </div>
        <Basis>
          Ground at its height stud by stud; buildings by the outer faces of their pieces in their colours,
          slopes slanted; decks, walls, plants and figures as plain bodies; tables with their cloth, barriers
          and the floor of the place. {faces.toLocaleString('en')} triangles. In a dark hall the 12 lamps
          nearest to what you look at shine on what is about them, through walls too; all that are lit are
          seen. What stands today is ground, buildings, plants and figures of sections past the stage at which
          they are built. Furniture in rooms, vehicles and photographs are not drawn yet.
        </Basis>
      </section>
    </>
  );
}

/** The newest photo from where one stands, to hold the plan against. */
function PhotoBeside({ scene, id }: { scene: Scene; id: string }) {
  const link = useLink();
  const photo = scene.photo[id];
  if (!photo) return null;
  const words = `The newest photo from here, ${momentWord(photo.taken)}`;
  return (
    <figure className="py-1">
      <img
        src={photoUrl(link.id, photo.file)}
        alt={words}
        width={photo.width}
        height={photo.height}
        className="w-full h-auto border hair"
      />
      <figcaption className="ink-2 text-[11px]">{words}</figcaption>
    </figure>
  );
}

/** The middle of a thing, studs east, up and south of the footprint's corner and the datum; null: it is gone. */
function middleOf(
  scene: Scene,
  { x, y, w, d, height, top }: Relief,
  { kind, id }: { kind: 'plot' | 'figure'; id: string },
): [number, number, number] | null {
  const place = placeIn(scene, kind, id);
  if (!place) return null;
  const [east, south] = [place.x + place.w / 2 - x, place.y + place.d / 2 - y];
  const column = Math.min(w - 1, Math.max(0, Math.floor(east)));
  const i = Math.min(d - 1, Math.max(0, Math.floor(south))) * w + column;
  return [east, ((height[i] + top[i]) / 2) * STUDS_PER_PLATE, south];
}
