import { ChevronLeft, ChevronRight } from 'lucide-react';
import { useMemo, useState } from 'react';
import { useSearchParams } from 'react-router';
import { gramsOfLines } from '@quarry/core/catalogue';
import { countOf, formatPlates, formatPercent } from '@quarry/core/grid';
import { markOf, stepCounts, type BuildStep, type StepLine, type StepPiece } from '@quarry/core/masonry';
import { buildingSteps } from '@quarry/core/structures';
import { displayOf, listOf } from '@quarry/core/document';
import { useDisplay } from '../../data/useDisplay.tsx';
import { useSheets } from '../../data/sheets.ts';
import { Basis, Empty, Heading, DefinitionRow, Loading } from '../../ui/parts.tsx';
import { PartColour } from '../../ui/Swatch.tsx';
import { useDerived } from '../../workers/useDerived.ts';
import type { BlockLayers } from '../../workers/useDerived.ts';
import type { BlockSum } from '../../workers/materialsCounting.ts';
import { PiecesView } from './PiecesView.tsx';
import { paintOf } from '../../ui/paint.ts';
import { useMaterialsWorker } from './useMaterialsWorker.ts';

const WAYS = ['east', 'south-east', 'south', 'south-west', 'west', 'north-west', 'north', 'north-east'];
/** The way a piece falls, in quarter turns from east; a corner between two. */
const wayOf = (falls: number): string => WAYS[Math.round(2 * falls) % WAYS.length] ?? '';
const PURPOSES = {
  core: 'core',
  deck: 'deck',
  under: 'layers under the cover',
  cover: 'ground cover',
  slope: 'slopes',
  accent: 'scattered on the finished ground',
  wall: 'walls',
  opening: 'windows, doors and arches',
  pillar: 'pillars under the floor above',
  floor: 'floor',
  roof: 'roof',
  pavement: 'pavement',
} as const satisfies Record<StepPiece['purpose'], string>;

/** What is looked at: a block of counted ground, or a building. */
const BUILDING = 'building ';

/** A module or a building layer by layer: in three dimensions, as a plan of pieces, and as the list of what the layer takes. */
export function LayersPanel() {
  const blocks = useDerived(({ materials }) => materials?.blocks);
  const sheets = useSheets();
  const spot = useSpot();
  const [chosen, setChosen] = useState(spot?.block ?? '');
  // Until one goes from step to step it is the one with the piece that was asked for.
  const [at, setAt] = useState<number | null>(null);
  const scene = useDisplay((display) => display.scene);
  const plots = listOf(scene, 'plot');
  const street = displayOf(scene);
  const plot = chosen.startsWith(BUILDING)
    ? plots.find(({ id }) => id === chosen.slice(BUILDING.length))
    : undefined;
  const block = plot ? undefined : (blocks?.find(({ block: one }) => one.id === chosen) ?? blocks?.[0]);
  const id = block?.block.id ?? '';
  const ground = useMaterialsWorker((worker) => worker.layers(id), id);
  const building = useMemo(() => plot && { ...buildingSteps(plot, street), floor: 0 }, [plot, street]);
  const built = building ?? ground;
  const steps = built?.steps ?? NO_STEPS;
  if (!blocks) return <Loading what="Counting the layers" />;
  if (!block && !plot)
    return (
      <div className="p-4">
        <Empty title="No ground yet">Lay ground on the Plan first.</Empty>
      </div>
    );
  const marked = markOfSpot(spot, block?.block, built);
  const asked = marked ? steps.findIndex(({ z }) => z === marked.z) : 0;
  const step = Math.max(0, Math.min(at ?? asked, steps.length - 1));
  const open = steps[step];
  const groups = groupsOf(open);
  const move = (by: number) => setAt(Math.max(0, Math.min(steps.length - 1, step + by)));
  return (
    <div className="h-full grid grid-rows-[auto_minmax(0,1fr)] md:grid-cols-[minmax(0,1fr)_340px]">
      <div className="flex flex-wrap items-center gap-2 px-3 py-1.5 border-b hair md:col-span-2">
        <select
          className="select select-xs w-36"
          aria-label="Module or building"
          value={plot ? BUILDING + plot.id : id}
          onChange={(event) => {
            setChosen(event.currentTarget.value);
            setAt(null);
          }}
        >
          <optgroup label="Ground">
            {blocks.map(({ block: one }) => (
              <option key={one.id} value={one.id}>
                {one.rest ? one.name : `Module ${one.name}`}
              </option>
            ))}
          </optgroup>
          {plots.length > 0 && (
            <optgroup label="Buildings">
              {plots.map(({ id: one, name }) => (
                <option key={one} value={BUILDING + one}>
                  {name}
                </option>
              ))}
            </optgroup>
          )}
        </select>
        <button
          type="button"
          className="btn btn-xs btn-square"
          aria-label="Step below"
          disabled={step === 0}
          onClick={() => move(-1)}
        >
          <ChevronLeft size={14} aria-hidden />
        </button>
        <input
          type="range"
          className="range range-xs w-40"
          aria-label="Layer"
          min={0}
          max={Math.max(0, steps.length - 1)}
          value={step}
          onChange={(event) => setAt(Number(event.currentTarget.value))}
        />
        <button
          type="button"
          className="btn btn-xs btn-square"
          aria-label="Step above"
          disabled={step >= steps.length - 1}
          onClick={() => move(1)}
        >
          <ChevronRight size={14} aria-hidden />
        </button>
        <span className="fig text-xs" aria-live="polite">
          step {steps.length === 0 ? 0 : step + 1} of {steps.length}
          {open &&
            groups.length > 0 &&
            `, ${placeOf(open, built?.floor ?? 0, plot ? 'the building’s ground' : 'datum')}`}
        </span>
        <span className="flex-1" />
        {(plot || !block?.block.rest) && (
          <a
            className="btn btn-xs"
            href={sheets('layers.pdf', plot ? { plot: plot.id } : { module: id })}
            target="_blank"
            rel="noreferrer"
          >
            Build sheets (PDF)
          </a>
        )}
      </div>
      <div className="relative min-h-0 min-w-0 bg-base-200">
        {built ? (
          <PiecesView {...built} upTo={step} marked={marked} />
        ) : (
          <Loading what="Building the layers" />
        )}
      </div>
      <aside
        aria-label="Pieces of the layer"
        className="border-t md:border-t-0 md:border-l hair overflow-auto px-3 py-2.5 min-h-0"
      >
        {marked && (
          <p className="text-xs pb-1">
            Marked red: the piece at stud {spot?.x}, {spot?.y}, whose joint is among the weakest.
          </p>
        )}
        {built && open && groups.length > 0 && <LayerPlan built={built} pieces={open.pieces} />}
        {built &&
          groups.map(({ key, purpose, word, pieces }) => (
            <section key={key} aria-label={`${PURPOSES[purpose]}, ${word}`}>
              <Heading aside={`${countOf(pieces.length, 'piece')}, ${word}`}>{PURPOSES[purpose]}</Heading>
              <ul className="text-xs">
                {stepCounts(built.lines, pieces).map((one) => (
                  <li key={one.line} className="flex gap-2 border-b hair py-0.5">
                    <span className="fig w-6 font-semibold">{markOf(one.line)}</span>
                    <span className="fig w-10 text-right">{one.qty}</span>
                    <PartColour part={one.part} colour={one.colour} />
                  </li>
                ))}
              </ul>
            </section>
          ))}
        {block && <WholeBlock {...block} />}
        {building && <WholeBuilding lines={building.lines} />}
        <Basis>
          A joint runs through when four layers or more leave it unbridged. Steps are in the order in which
          they are built; the letters are the marks on the build sheets. Pieces of any colour are drawn pale.
          A building is drawn unturned, its windows and doors as blocks; it is in the needs once its pieces
          are its list (Plan, Pieces).
        </Basis>
      </aside>
    </div>
  );
}

/** What a block of ground comes to. */
function WholeBlock({ block, counted, bond, span }: BlockSum) {
  return (
    <>
      <Heading>The whole {block.part ? 'part' : block.rest ? 'square' : 'module'}</Heading>
      <dl>
        <DefinitionRow label="Pieces">{counted.pieces.toLocaleString('en')}</DefinitionRow>
        <DefinitionRow label="Mass of its ground">{(counted.grams / 1000).toFixed(2)} kg</DefinitionRow>
        <DefinitionRow label="Joints bridged">
          {bond.joints > 0 ? formatPercent(bond.bridged / bond.joints) : '–'}
        </DefinitionRow>
        <DefinitionRow label="Widest free span">
          {span === 0 ? 'filled' : countOf(span, 'stud')}
        </DefinitionRow>
        <DefinitionRow
          label="Joints that run through"
          note={
            bond.through[0]
              ? `longest ${bond.through[0].length} studs, ${formatPlates(bond.through[0].to - bond.through[0].from)} high`
              : undefined
          }
        >
          {bond.through.length === 0
            ? 'none'
            : bond.through.length >= 12
              ? '12 or more'
              : bond.through.length}
        </DefinitionRow>
      </dl>
    </>
  );
}

/** What a building comes to. */
function WholeBuilding({ lines }: { lines: readonly StepLine[] }) {
  const known = useDisplay(({ scene }) => scene.partType);
  const grams = gramsOfLines(lines, known);
  return (
    <>
      <Heading>The whole building</Heading>
      <dl>
        <DefinitionRow label="Pieces">
          {lines.reduce((sum, { qty }) => sum + qty, 0).toLocaleString('en')}
        </DefinitionRow>
        <DefinitionRow label="Mass of its pieces">{(grams / 1000).toFixed(2)} kg</DefinitionRow>
      </dl>
    </>
  );
}

/** A piece that the address asks for: its block, and a stud and height of it on the display. */
interface Spot {
  block: string;
  x: number;
  y: number;
  z: number;
}

function useSpot(): Spot | null {
  const [query] = useSearchParams();
  const block = query.get('block');
  const [x = NaN, y = NaN, z = NaN] = (query.get('spot') ?? '').split(',').map(Number);
  return block !== null && [x, y, z].every((value) => Number.isInteger(value)) ? { block, x, y, z } : null;
}

/** The spot in studs of the block that is shown, plates above its floor; null where it is another's. */
function markOfSpot(
  spot: Spot | null,
  block: BlockSum['block'] | undefined,
  built: { floor: number } | null | undefined,
): { x: number; y: number; z: number } | null {
  if (!spot || !block || !built || spot.block !== block.id) return null;
  return { x: spot.x - block.x, y: spot.y - block.y, z: spot.z - built.floor };
}

const NO_STEPS: readonly BuildStep[] = [];

const placeOf = ({ z }: BuildStep, floor: number, from: string) =>
  z === null ? 'scattered by hand' : `${formatPlates(z + floor)} above ${from}`;

interface Group {
  key: string;
  purpose: StepPiece['purpose'];
  /** How high its pieces are, and where they fall to. */
  word: string;
  pieces: StepPiece[];
}

/** The pieces of a step by what they are for, their height and the side they fall to. */
function groupsOf(step: BuildStep | undefined): Group[] {
  const groups = new Map<string, Group>();
  for (const piece of step?.pieces ?? []) {
    const { purpose, h, falls } = piece;
    const key = `${purpose} ${h} ${falls ?? ''}`;
    const word = `${formatPlates(h)} high${falls === undefined ? '' : `, falling ${wayOf(falls)}`}`;
    const group = groups.get(key) ?? { key, purpose, word, pieces: [] };
    group.pieces.push(piece);
    groups.set(key, group);
  }
  return [...groups.values()];
}

/** The step from above, piece by piece. */
function LayerPlan({ built, pieces }: { built: BlockLayers; pieces: readonly StepPiece[] }) {
  const { w, d, lines } = built;
  return (
    <svg
      viewBox={`-0.5 -0.5 ${w + 1} ${d + 1}`}
      className="w-full border hair mb-1 max-h-64"
      role="img"
      aria-label="The step from above"
    >
      <rect x={0} y={0} width={w} height={d} fill="none" stroke="currentColor" strokeWidth={0.12} />
      {pieces.map((piece, i) => (
        <rect
          key={i}
          x={piece.x}
          y={piece.y}
          width={piece.w}
          height={piece.d}
          fill={paintOf(lines[piece.line]?.colour ?? 'any')}
          stroke="#22292e"
          strokeWidth={0.08}
        />
      ))}
    </svg>
  );
}
