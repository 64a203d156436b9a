import { Box, Camera } from 'lucide-react';
import { useMemo, useRef, useState, type KeyboardEvent, type ReactNode, type Ref } from 'react';
import { toast } from 'sonner';
import { countOf } from '@quarry/core/grid';
import { SIDE_WORDS, displayOf, listOf, type Scene } from '@quarry/core/document';
import { fileName } from '@quarry/core/formats';
import { lampsOf } from '@quarry/core/power';
import {
  PLANNED,
  SEEN_CLASSES,
  seenCover,
  trianglesOf,
  type MeshPart,
  type SeenClass,
  type SeenCover,
  type Sight,
  type WalkLook,
  type WalkMesh,
} from '@quarry/core/visibility';
import { useVersionBeside } from '../../data/versions.ts';
import { useView } from '../../data/view.ts';
import { CheckField } from '../../ui/fields.tsx';
import { Basis, Empty, Failure, Heading, Loading } from '../../ui/parts.tsx';
import { save } from '../../ui/save.ts';
import { useMeasureFormat } from '../../ui/useMeasureFormat.ts';
import { VersionBesideField } from '../../ui/VersionBesideField.tsx';
import { useDerived } from '../../workers/useDerived.ts';
import { useGroundOf } from '../../workers/useGroundOf.ts';
import { useWalkMesh } from '../../workers/useSight.ts';
import { HeadTurn, STEP } from './standpoint.ts';
import { useWalk, type WalkState } from './useWalk.ts';
import { WalkControls } from './WalkControls.tsx';
import { SEEN_PAINTS, WalkView, type WalkHandle } from './WalkView.tsx';

/** The display in three dimensions: from where a visitor stands, or turned by hand; as a picture and as a model. */
export function WalkSheet({ scene, sight }: { scene: Scene; sight: Sight | null }) {
  const [built, setBuilt] = useState({ isOpen: false, isParted: false });
  const { mesh, state } = useWalkMesh(scene, built);
  if (mesh) return <Walk scene={scene} sight={sight} mesh={mesh} built={built} onBuild={setBuilt} />;
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

function Walk({
  scene,
  sight,
  mesh,
  built,
  onBuild,
}: {
  scene: Scene;
  /** Null: not worked out yet, or not known who looks. */
  sight: Sight | null;
  mesh: WalkMesh;
  built: Built;
  onBuild: (built: Built) => void;
}) {
  const { isOpen, isParted } = built;
  const relief = useDerived(({ ground }) => ground?.relief ?? null);
  const handle = useRef<WalkHandle>(null);
  const [isRound, setRound] = useState(false);
  const [isDark, setDark] = useState(false);
  const [isToday, setToday] = useState(false);
  const [isShaded, setShaded] = useState(false);
  const cover = useMemo(
    () =>
      isShaded && !isParted && sight && relief && sight.studs.length === relief.w * relief.d
        ? seenCover(scene, relief, sight)
        : null,
    [isShaded, isParted, scene, sight, relief],
  );
  const lamps = useMemo(() => (relief ? lampsOf(scene, relief) : []), [scene, relief]);
  const walk = useWalk(scene, mesh);
  const words = useStanceWords(walk, isRound);
  const [head] = useState(() => new HeadTurn());
  const { beside, own, ...choice } = useVersionBeside();
  const look = { head, isToday, built, standing: isRound ? null : walk.standing };
  const faces = trianglesOf(mesh.parts);
  return (
    <>
      <div
        className={`min-h-0 min-w-0 relative ${beside ? 'grid grid-cols-2 max-md:grid-cols-1 max-md:grid-rows-2' : ''}`}
        role="application"
        aria-label="Walk: left and right go along the side, up and down nearer and farther"
        tabIndex={0}
        onKeyDown={(event) => {
          if (!isRound) stepBy(walk, event);
        }}
      >
        {beside && (
          <Named name={beside.name}>
            <BesideView key={choice.value} scene={beside.scene} look={look} isDark={isDark} words={words} />
          </Named>
        )}
        <Named name={beside && own}>
          <OwnView
            look={look}
            mesh={mesh}
            cover={cover?.parts ?? null}
            lamps={isDark ? lamps : null}
            words={words}
            ref={handle}
          />
        </Named>
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
        <CheckField
          label="Only what stands today in full"
          value={isToday}
          disabled={!mesh.parts.some(({ material }) => material.startsWith(PLANNED))}
          onCommit={setToday}
        />
        <CheckField
          label="Roofs off: into the uppermost floors"
          value={isOpen}
          disabled={listOf(scene, 'plot').length === 0}
          onCommit={(open) => onBuild({ ...built, isOpen: open })}
        />
        <CheckField
          label="Modules apart, with their sides"
          value={isParted}
          disabled={listOf(scene, 'module').length < 2}
          onCommit={(apart) => onBuild({ ...built, isParted: apart })}
        />
        <CheckField
          label="Shade ground and walls by who sees them"
          value={isShaded}
          disabled={sight === null || isParted}
          onCommit={setShaded}
        />
        {cover && <SeenKey studs={cover.studs} />}
        <VersionBesideField label="Beside it" choice={choice} />
        <WalkControls walk={walk} scene={scene} mesh={mesh} isRound={isRound} />
        <TakeButtons name={displayOf(scene).name} handle={handle} />
        <Basis>
          Ground at its height stud by stud; buildings by the outer faces of their pieces in their colours,
          slopes slanted; decks, walls, plants and figures as plain bodies; tables with their cloth, barriers
          and the floor of the place. {faces.toLocaleString('en')} triangles. In a dark hall the 12 lamps
          nearest to what you look at shine on what is about them, through walls too; all that are lit are
          seen. What stands today is ground, buildings, plants and figures of sections past the stage at which
          they are built. Figures, animals and vehicles of a cast are plain bodies. With the roofs off one
          sees the furniture that has a place on a floor. While you move, a large display is drawn with ground
          in squares of 4 studs and buildings as blocks. The shade lies on ground, decks and bridges on which
          nothing stands, on sides of buildings by how much of them those see who are before them, and on
          faces of cliffs and edges that nobody sees. Modules apart stand with what is built on them: a
          building or bridge over a seam goes with the module under its middle. Photographs are not drawn.
        </Basis>
      </section>
    </>
  );
}

const SEEN_WORDS: Readonly<Record<SeenClass, string>> = {
  nobody: 'nobody sees',
  few: 'less than 25 % of visitors see',
  some: '25 to 75 % see',
  most: 'more than 75 % see',
};

/** What the shades mean, and how many studs have them. */
function SeenKey({ studs }: { studs: SeenCover['studs'] }) {
  return (
    <ul className="text-xs py-1" aria-label="Shades">
      {SEEN_CLASSES.map((seen) => (
        <li key={seen} className="flex items-center gap-2">
          <span
            className="inline-block w-6 h-3 border border-base-content/40"
            style={{ background: SEEN_PAINTS[seen] }}
            aria-hidden
          />
          <span className="flex-1">{SEEN_WORDS[seen]}</span>
          <span className="fig">{countOf(studs[seen], 'stud')}</span>
        </li>
      ))}
    </ul>
  );
}

/** How the display is built to be looked at: its roofs off, its modules apart. */
type Built = Required<WalkLook>;

/** How the display is looked at: the same for versions side by side. */
interface Look {
  head: HeadTurn;
  isToday: boolean;
  built: Built;
  standing: WalkState['standing'] | null;
}

function OwnView({
  look,
  mesh,
  cover = null,
  lamps,
  words,
  ref,
}: {
  look: Look;
  mesh: WalkMesh;
  /** A shade over the ground. */
  cover?: readonly MeshPart[] | null;
  lamps: ReturnType<typeof lampsOf> | null;
  words: string;
  ref?: Ref<WalkHandle>;
}) {
  const theme = useView((view) => view.theme);
  const { built: _, ...view } = look;
  return <WalkView {...view} mesh={mesh} cover={cover} label={words} theme={theme} lamps={lamps} ref={ref} />;
}

/** Another version from where one stands. Its lamps stand at the heights of its own ground. */
function BesideView({
  scene,
  look,
  isDark,
  words,
}: {
  scene: Scene;
  look: Look;
  isDark: boolean;
  words: string;
}) {
  const { mesh, state } = useWalkMesh(scene, look.built);
  const ground = useGroundOf(isDark ? scene : null);
  const lamps = useMemo(() => (ground ? lampsOf(scene, ground.relief) : null), [scene, ground]);
  if (state.is === 'failed') return <Failure title="The version could not be built" message={state.error} />;
  if (!mesh) return <Loading what="Building the version" />;
  return <OwnView look={look} mesh={mesh} lamps={lamps} words={words} />;
}

/** A view with the name of the version that it shows. */
function Named({ name, children }: { name: string | null; children: ReactNode }) {
  return (
    <div className="relative size-full min-h-0 min-w-0">
      {children}
      {name !== null && (
        <p className="absolute left-2 top-2 bg-neutral text-neutral-content px-2 py-0.5 text-xs">{name}</p>
      )}
    </div>
  );
}

/** Steps along the side, nearer and farther. Left and right are those of one who looks at the display. */
function stepBy({ here, go, viewpoint }: WalkState, event: KeyboardEvent): void {
  const right = here.side === 's' || here.side === 'w' ? 1 : -1;
  const way = {
    ArrowLeft: { along: here.along - right * STEP.along },
    ArrowRight: { along: here.along + right * STEP.along },
    ArrowUp: { off: here.off - STEP.off },
    ArrowDown: { off: here.off + STEP.off },
  }[event.key];
  if (!way || viewpoint) return;
  event.preventDefault();
  go(way);
}

/** Where one stands and what one looks at, for those who do not see the picture. */
function useStanceWords({ here, heights, viewpoint, looked }: WalkState, isRound: boolean): string {
  const { say } = useMeasureFormat();
  if (isRound) return 'The whole display in three dimensions, turned by hand';
  const at = looked ? `, looking at ${looked.name}` : '';
  if (viewpoint) return `The display from ${viewpoint.name}, by an adult’s eyes${at}`;
  return `The display from the ${SIDE_WORDS[here.side]}, ${say(Math.round(here.along), 'mm')} along it and ${say(Math.round(here.off), 'mm')} off, by eyes ${say(heights[here.who], 'mm')} over the floor${at}`;
}

function TakeButtons({ name, handle }: { name: string; handle: React.RefObject<WalkHandle | null> }) {
  const take = async (what: 'picture' | 'model') => {
    try {
      const blob = await handle.current?.[what]();
      if (!blob) throw new Error('there is nothing to take');
      save(blob, fileName([name, 'walk'], what === 'picture' ? 'png' : 'glb'));
    } catch (error) {
      toast.error(
        `The ${what} could not be made: ${error instanceof Error ? error.message : String(error)}.`,
      );
    }
  };
  return (
    <div className="flex flex-wrap gap-2 py-2">
      <button type="button" className="btn btn-sm" onClick={() => void take('picture')}>
        <Camera size={13} aria-hidden /> Save picture (PNG)
      </button>
      <button type="button" className="btn btn-sm" onClick={() => void take('model')}>
        <Box size={13} aria-hidden /> Save model (glTF)
      </button>
    </div>
  );
}
