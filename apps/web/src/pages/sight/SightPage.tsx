import { useMemo } from 'react';
import { Link } from 'react-router';
import { countOf, type Rect } from '@quarry/core/grid';
import { SIDE_WORDS, displayOf } from '@quarry/core/document';
import { currentPlace } from '@quarry/core/venue';
import { NO_STUD, UNSEEN, WATCHERS, type Sight } from '@quarry/core/visibility';
import { Board } from '../../board/Board.tsx';
import { hatchImage, strokeFaces } from '../../board/hatchImage.ts';
import { usePointer } from '../../board/pointer.ts';
import { PALETTES } from '../../board/palette.ts';
import { PICK_ONLY } from '../../board/pickOnly.ts';
import { useDisplay, useLink } from '../../data/useDisplay.tsx';
import { useView } from '../../data/view.ts';
import { PAGE_SHEETS } from '../../frame/pages.ts';
import { useSheet } from '../../frame/useSheet.ts';
import { Empty, Failure } from '../../ui/parts.tsx';
import { Tabs } from '../../ui/Tabs.tsx';
import { useMeasureFormat } from '../../ui/useMeasureFormat.ts';
import { useDerived } from '../../workers/useDerived.ts';
import type { Asked } from '../../workers/askOnce.ts';
import { useSight } from '../../workers/useSight.ts';
import { SeenFrom } from './SeenFrom.tsx';
import { SeenSections } from './SeenSections.tsx';
import { SeenThings } from './SeenThings.tsx';
import { later } from '../../ui/later.tsx';

// Three dimensions come when they are looked at.
const WalkSheet = later(() => import('./WalkSheet.tsx').then((sheet) => sheet.WalkSheet), 'Opening the walk');

/** Studs that a smaller share of all eyes sees are hatched, percent. */
const SELDOM = 25;

/** Who sees what from where: on the board by hatches, by section, by building and small scene, and what hides it. */
export function SightPage() {
  const scene = useDisplay(({ scene }) => scene);
  const ground = useDerived(({ ground }) => ground);
  const { id } = useLink();
  const { sheet, word, open } = useSheet('sight');
  const { theme } = useView();
  const { sight, state } = useSight(id, scene);
  const size = ground?.relief;
  const shade = useMemo(() => {
    if (!sight || !size || sight.studs.length !== size.w * size.d) return null;
    const { ochre, iron } = PALETTES[theme];
    const levelOf = (i: number) => {
      const share = sight.studs[i] ?? NO_STUD;
      return share === NO_STUD || share >= SELDOM ? 0 : share === UNSEEN ? 2 : 1;
    };
    const image = hatchImage(size, levelOf, ochre, iron);
    if (image) strokeFaces(image, size, sight.hiddenFaces, iron);
    return image;
  }, [sight, size, theme]);
  const missing = whatIsMissing(displayOf(scene).viewedSides.length > 0, currentPlace(scene) !== null);
  return (
    <div className="h-full grid grid-cols-[minmax(0,1fr)] grid-rows-[var(--bar)_minmax(0,1fr)]">
      <div className="flex items-center px-2 bg-base-100 border-b hair">
        <Tabs label="Sight" look="bar" tabs={PAGE_SHEETS.sight} open={sheet} onOpen={open} />
        <span className="flex-1" />
        <span className="ink-2 text-xs px-1 max-lg:hidden">{sight && <From sight={sight} />}</span>
      </div>
      <div className="grid grid-rows-[minmax(16rem,2fr)_minmax(16rem,3fr)] md:grid-rows-1 md:grid-cols-[minmax(0,1fr)_472px] min-h-0">
        {sheet === 'walk' ? (
          <WalkSheet scene={scene} sight={sight} />
        ) : (
          <>
            <div className="min-h-0 min-w-0 relative">
              <Board
                scene={scene}
                ground={ground}
                acts={PICK_ONLY}
                shade={shade}
                label="The plan, hatched where few or none of the visitors see. Press a building or small scene to pick it."
              />
            </div>
            <section
              role="tabpanel"
              aria-label={word}
              className="border-t md:border-t-0 md:border-l hair bg-base-100 overflow-auto px-3 py-2.5 min-h-0"
            >
              {missing ? (
                <Empty
                  title={missing.title}
                  act={
                    <Link className="btn btn-sm" to={`/d/${id}/${missing.page}`}>
                      {missing.go}
                    </Link>
                  }
                >
                  {missing.words}
                </Empty>
              ) : (
                <>
                  {shade && <HatchKey />}
                  {sight && size && shade && <UnderPointer sight={sight} relief={size} />}
                  <Looking state={state} isFirst={sight === null} />
                  {sight && sheet === 'sections' && <SeenSections scene={scene} sight={sight} />}
                  {sight && sheet === 'things' && <SeenThings scene={scene} sight={sight} />}
                  {sight && sheet === 'eyes' && <SeenFrom scene={scene} sight={sight} />}
                </>
              )}
            </section>
          </>
        )}
      </div>
    </div>
  );
}

function whatIsMissing(hasSides: boolean, hasPlace: boolean) {
  if (!hasSides)
    return {
      title: 'From which sides is it looked at?',
      words:
        'Say so in the rules on Brief; then this page tells what visitors see from there, and what hides it.',
      page: 'brief?sheet=rules',
      go: 'Go to Brief',
    };
  if (!hasPlace)
    return {
      title: 'Where does it stand?',
      words: 'Put the display in a place on Survey, with its tables and barriers: they say where eyes are.',
      page: 'survey',
      go: 'Go to Survey',
    };
  return null;
}

/** From where it is looked at. */
function From({ sight }: { sight: Sight }) {
  const { say } = useMeasureFormat();
  const heights = WATCHERS.filter((who) => sight.shares[who] > 0).length;
  return (
    <>
      From the {sight.sides.map((side) => SIDE_WORDS[side]).join(' and ')},{' '}
      {say(Math.round(sight.distance), 'mm')} off · eyes at {countOf(sight.eyes, 'place')},{' '}
      {countOf(heights, 'height')}
    </>
  );
}

/** How far the looking is, as long as it goes on. */
function Looking({ state, isFirst }: { state: Asked<unknown>; isFirst: boolean }) {
  if (state.is === 'failed') return <Failure title="The looking failed" message={state.error} />;
  if (state.is === 'answered') return null;
  return (
    <div role="status" className="flex items-center gap-2 text-xs ink-2 pb-2">
      <progress
        className="progress progress-primary flex-1"
        aria-label="Looked at"
        value={state.is === 'asking' ? state.share : 0}
        max={1}
      />
      {isFirst ? 'Looking from all places …' : 'The plan has changed: looking again …'}
    </div>
  );
}

/** What the hatches on the board mean. */
function HatchKey() {
  const lines = [
    { word: 'hatched both ways: nobody sees it', isDense: true },
    { word: `one way: under ${SELDOM} % of eyes do`, isDense: false },
  ];
  return (
    <ul aria-label="Hatches" className="text-[11px] ink-2 flex flex-wrap gap-x-4 gap-y-0.5 pb-2">
      {lines.map(({ word, isDense }) => (
        <li key={word} className="flex items-center gap-1.5">
          <svg width="18" height="10" aria-hidden className={isDense ? 'text-primary' : 'text-warning'}>
            <rect width="18" height="10" fill="currentColor" fillOpacity={isDense ? 0.35 : 0.24} />
            {[-4, 2, 8, 14].map((x) => (
              <g key={x} stroke="currentColor" strokeWidth="1.2">
                <line x1={x} y1="10" x2={x + 10} y2="0" />
                {isDense && <line x1={x} y1="0" x2={x + 10} y2="10" />}
              </g>
            ))}
          </svg>
          {word}
        </li>
      ))}
      <li className="flex items-center gap-1.5">
        <svg width="18" height="10" aria-hidden className="text-primary">
          <line x1="0" y1="5" x2="18" y2="5" stroke="currentColor" strokeWidth="2" strokeDasharray="5 2" />
        </svg>
        dashes: the face of a cliff or an edge that nobody sees
      </li>
    </ul>
  );
}

/** By how many visitors the stud under the pointer is seen. */
function UnderPointer({ sight, relief }: { sight: Sight; relief: Pick<Rect, 'x' | 'y' | 'w' | 'd'> }) {
  const studs = usePointer((state) => state.studs);
  const [x, y] = studs ? [Math.floor(studs.x), Math.floor(studs.y)] : [-1, -1];
  const [column, row] = [x - relief.x, y - relief.y];
  const isOn = studs !== null && column >= 0 && row >= 0 && column < relief.w && row < relief.d;
  const share = isOn ? sight.studs[row * relief.w + column] : NO_STUD;
  return (
    <p className="ink-2 text-[11px] pb-1 max-md:hidden">
      {share === NO_STUD ? (
        'Point at a stud to read by how many it is seen.'
      ) : (
        <>
          Stud <span className="fig">{`${x}, ${y}`}</span>: its top is seen by{' '}
          <span className="fig">{share === UNSEEN ? 'nobody' : `${share} % of visitors`}</span>.
        </>
      )}
    </p>
  );
}
