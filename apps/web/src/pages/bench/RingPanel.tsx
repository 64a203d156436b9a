import {
  RING_EDGES,
  baysOfRing,
  floorArea,
  polygonRing,
  ringPieceOutlines,
  ringFloor,
  ringNear,
  type Ring,
  type RingEdge,
  type RingFloor,
} from '@quarry/core/bench';
import { BRICK_SIZES, partId } from '@quarry/core/catalogue';
import { listOf, ringSide, type Change, type Scene } from '@quarry/core/document';
import { MM_PER_STUD, PLATES_PER_BRICK, countOf, stripsOfArea } from '@quarry/core/grid';
import { useMemo } from 'react';
import { heightOfStud, type Raster } from '@quarry/core/terrain';
import { freshId, useScene } from '../../data/useDisplay.tsx';
import { DataTable } from '../../ui/DataTable.tsx';
import { NumberField, QuantityField, SelectField } from '../../ui/fields.tsx';
import { DefinitionRow, Heading } from '../../ui/parts.tsx';
import { useDerived } from '../../workers/useDerived.ts';
import { useKept } from '../../ui/useKept.ts';
import { useMeasureFormat } from '../../ui/useMeasureFormat.ts';
import { Calculator, PickButton, Sketch, SketchText } from './Calculator.tsx';
import { PutButton, PutButtons, useMiddle } from './PutButtons.tsx';
import { isLike } from './values.ts';

const FIRST: { pieces: number; width: number; bays: number; courses: number; edge: RingEdge } = {
  ...{ pieces: 24, width: 4, bays: 6, courses: 6 },
  edge: 'inner',
};
const isFirst = isLike(FIRST);
const EDGE_WORDS: Readonly<Record<RingEdge, string>> = {
  inner: 'Inner: straight bricks',
  outer: 'Outer: wedges',
};
const MAX_PIECES = 360;
/** Panels of a ring on the plan at most. */
const MAX_WALLS = 120;

const signed = (mm: number): string => `${mm < 0 ? '−' : '+'}${Math.abs(mm).toFixed(1)} mm`;
const studsOf = (mm: number): string => `${(mm / MM_PER_STUD).toFixed(2)} studs`;

/** Round rooms and towers of equal straight pieces: radius, bays, how they meet the grid. */
export function RingPanel() {
  const [values, set] = useKept('bench ring', FIRST, isFirst);
  const { say } = useMeasureFormat();
  const middle = useMiddle();
  const { pieces, width, courses } = values;
  const edge = RING_EDGES.find((one) => one === values.edge) ?? 'inner';
  const bays = Math.min(values.bays, pieces);
  const ring = polygonRing(pieces, width);
  const parted = baysOfRing(pieces, bays);
  const floor = useMemo(() => ringFloor(polygonRing(pieces, width), edge), [pieces, width, edge]);
  const plates = floor?.plates ?? [];
  // The studs of its floor are those of the plan.
  const off = floor && floor.size % 2 === 1 ? 0.5 : 0;
  const centre = { x: middle.x + off, y: middle.y + off };
  const scene = useScene('run', 'level');
  const relief = useDerived(({ ground }) => ground?.relief);
  const isOnPlan = listOf(scene, 'run').some((run) => run.ring === pieces && ringSide(run) === width);
  const near = [-2, -1, 0, 1, 2].map((by) => pieces + by).filter((n) => n >= 3 && n <= MAX_PIECES);
  const isBrick = BRICK_SIZES.some(([w, d]) => w === 1 && d === width);
  const count = (key: 'pieces' | 'bays' | 'courses', label: string, min: number, max: number) => (
    <NumberField
      label={label}
      whole
      min={min}
      max={max}
      value={values[key]}
      onCommit={(to) => to !== null && set({ ...values, [key]: to })}
    />
  );
  const name = `Ring of ${pieces} × ${width} studs`;
  const text =
    `${name}: ${ring.angle.toFixed(2)}° a piece, ${studsOf(ring.innerMm)} to the middle of a side, ` +
    `${studsOf(ring.outerMm)} to a corner; ${bays} bays of ${parted.each} pieces, ${parted.left} left over.`;
  return (
    <Calculator
      label="Ring"
      fields={
        <>
          {count('pieces', 'Pieces', 3, MAX_PIECES)}
          <QuantityField
            label="Each wide"
            measure="studs"
            step={0.5}
            min={0.5}
            max={64}
            value={width}
            onCommit={(to) => set({ ...values, width: to })}
          />
          <QuantityField
            label="Inner radius, nearest ring"
            measure="mm"
            min={1}
            max={10_000}
            value={Math.round(ring.innerMm * 10) / 10}
            onCommit={(to) => set({ ...values, pieces: ringNear(to, width, MAX_PIECES).pieces })}
          />
          <SelectField
            label="Faces that meet"
            value={edge}
            options={RING_EDGES.map((value) => ({ value, word: EDGE_WORDS[value] }))}
            onCommit={(to) => set({ ...values, edge: to })}
          />
          {count('bays', 'Bays', 2, MAX_PIECES)}
          {count('courses', 'Courses of bricks', 1, 500)}
        </>
      }
      drawing={<RingDrawing ring={ring} edge={edge} floor={floor} bays={parted.left === 0 ? bays : 0} />}
      basis={
        <>
          A radius that is typed picks the ring that comes nearest. A regular polygon: inner radius side ÷ (2
          tan (180° ÷ n)), outer side ÷ (2 sin (180° ÷ n)), to the faces that meet. Straight bricks meet at
          their inner faces and gape outside; wedges narrow inwards and meet outside. 24 wedges of 15° close a
          ring and part into 6 bays of 4 (common practice). The floor is of the whole studs that lie inside
          the walls, a stud thick.
        </>
      }
      acts={
        <>
          <PutButtons
            answer={{
              ...{ name, text },
              // On the plan its wall counts its bricks and its floor its plates.
              lines: isOnPlan
                ? []
                : [
                    ...(isBrick ? [{ part: partId('brick', 1, width), qty: pieces * courses }] : []),
                    ...plates,
                  ],
            }}
          />
          {edge === 'inner' && pieces <= MAX_WALLS && relief && (
            <PutButton
              word={floor ? 'Put wall and floor on the plan' : 'Put on the plan as a wall'}
              label={`put “${name}” on the plan from the Bench`}
              kind="run"
              data={{
                ...{ name, use: 'wall', ring: pieces, panel: width, height: courses * PLATES_PER_BRICK },
                points: [
                  centre,
                  { x: centre.x, y: centre.y - Math.max(1, Math.round(ring.innerMm / MM_PER_STUD)) },
                ],
              }}
              also={floorPad(`Floor, ring of ${pieces} × ${width} studs`, floor, centre, scene, relief)}
              page="plan"
            />
          )}
        </>
      }
    >
      <Heading>Answer</Heading>
      <dl>
        <DefinitionRow label="Angle of each">{ring.angle.toFixed(2)}°</DefinitionRow>
        <DefinitionRow label="Middle to a side" note={say(ring.innerMm, 'mm')}>
          {studsOf(ring.innerMm)}
        </DefinitionRow>
        <DefinitionRow label="Middle to a corner" note={say(ring.outerMm, 'mm')}>
          {studsOf(ring.outerMm)}
        </DefinitionRow>
        <DefinitionRow label="Nearest floor, radius" note={`the ring is ${signed(ring.errorMm)}`}>
          {ring.gridStuds} studs
        </DefinitionRow>
        <DefinitionRow label={`Parted in ${bays} bays`}>
          {parted.left === 0 ? (
            `${parted.each} ${parted.each === 1 ? 'piece' : 'pieces'} each`
          ) : (
            <span className="text-warning font-semibold">
              △ {parted.left} left over; {[parted.fewer, parted.more].filter((n) => n !== null).join(' or ')}{' '}
              pieces part evenly
            </span>
          )}
        </DefinitionRow>
        <DefinitionRow label="Opposite a bay">
          {parted.left > 0 ? '–' : bays % 2 === 0 ? 'another bay' : 'the joint of two bays'}
        </DefinitionRow>
        <DefinitionRow
          label="Floor inside it"
          note={
            floor
              ? `${countOf(sumOf(plates), 'plate')}, ${floor.gap.toFixed(1)} mm short of its north side`
              : 'too wide to lay out, or no stud lies inside'
          }
        >
          {floor ? countOf(floor.count, 'stud') : '–'}
        </DefinitionRow>
        <DefinitionRow label="Parts evenly into">
          {ring.bays.join(', ') || 'nothing but its pieces'}
        </DefinitionRow>
        <DefinitionRow label="Pieces of the ring">{(pieces * courses).toLocaleString('en')}</DefinitionRow>
      </dl>
      <Heading>Rings about this size</Heading>
      <DataTable
        label="Rings about this size"
        rows={near.map((n) => polygonRing(n, width))}
        keyOf={(one) => String(one.pieces)}
        isPicked={(one) => one.pieces === pieces}
        columns={[
          {
            head: 'Pieces',
            cell: (one) => (
              <PickButton
                picked={one.pieces === pieces}
                onPick={() => set({ ...values, pieces: one.pieces })}
              >
                {one.pieces}
              </PickButton>
            ),
          },
          { head: 'Inner radius', number: true, cell: (one) => studsOf(one.innerMm) },
          { head: 'Against the grid', number: true, cell: (one) => signed(one.errorMm) },
          { head: 'Bays', number: true, cell: (one) => one.bays.length },
        ]}
      />
    </Calculator>
  );
}

/** The floor as ground a plate above what is in the middle of the ring; none without a floor or a level. */
function floorPad(
  name: string,
  floor: RingFloor | null,
  centre: { x: number; y: number },
  scene: Pick<Scene, 'level'>,
  relief: Raster,
): Change[] {
  const level = listOf(scene, 'level').at(0);
  if (!floor || !level) return [];
  const offset = (heightOfStud(relief, Math.floor(centre.x), Math.floor(centre.y)) ?? 0) + 1 - level.height;
  const data = {
    name,
    level: level.id,
    offset,
    ground: 'paving',
    shape: 'outline',
    ...floorArea(floor, centre),
  };
  return [{ op: 'add', kind: 'pad', id: freshId('pad'), data }];
}

const sumOf = (lines: readonly { qty: number }[]): number => lines.reduce((sum, { qty }) => sum + qty, 0);

/** The ring from above, with its floor, the circle that comes nearest and the borders of its bays. */
function RingDrawing({
  ring,
  edge,
  floor,
  bays,
}: {
  ring: Ring;
  edge: RingEdge;
  floor: RingFloor | null;
  bays: number;
}) {
  const { pieces } = ring;
  const r = ring.outerMm + MM_PER_STUD;
  const size = r / 20;
  const each = bays > 0 ? pieces / bays : pieces + 1;
  return (
    <Sketch
      label={`A ring of ${pieces} pieces from above`}
      box={{ x: -1.15 * r, y: -1.15 * r, w: 2.3 * r, d: 2.3 * r }}
    >
      {floor && <FloorStuds floor={floor} />}
      <circle r={ring.gridStuds * MM_PER_STUD} className="fill-none text-secondary" strokeDasharray="5 4" />
      {ringPieceOutlines(ring, edge).map((outline, i) => (
        <g key={i}>
          <polygon points={outline.map(({ x, y }) => `${x},${y}`).join(' ')} className="fill-base-200" />
          {bays > 0 && i % each === 0 && (
            <line
              x1={0}
              y1={0}
              x2={(outline[0]?.x ?? 0) * 1.12}
              y2={(outline[0]?.y ?? 0) * 1.12}
              className="text-primary"
              strokeDasharray="10 4 2 4"
            />
          )}
        </g>
      ))}
      <SketchText x={0} y={-size * 0.3} size={size}>
        {pieces} × {ring.angle.toFixed(2)}°
      </SketchText>
      <SketchText x={0} y={size} size={size}>
        {bays > 0 ? `${bays} bays of ${each}` : 'bays left over'}
      </SketchText>
    </Sketch>
  );
}

/** The studs of a floor, rows that are alike together. */
function FloorStuds({ floor: { size, studs } }: { floor: RingFloor }) {
  const at = (n: number) => (n - size / 2) * MM_PER_STUD;
  return stripsOfArea({ w: size, d: size, mask: studs }).map(({ x, y, w, d }) => (
    <rect
      key={`${x} ${y}`}
      x={at(x)}
      y={at(y)}
      width={w * MM_PER_STUD}
      height={d * MM_PER_STUD}
      strokeWidth={0.5}
      className="fill-base-300"
    />
  ));
}
