import { hingedPairs, type HingedPair } from '@quarry/core/bench';
import { DataTable } from '../../ui/DataTable.tsx';
import { NumberField } from '../../ui/fields.tsx';
import { DefinitionRow, Empty, Heading } from '../../ui/parts.tsx';
import { useKept } from '../../ui/useKept.ts';
import { Calculator, PickButton, Sketch, SketchText } from './Calculator.tsx';
import { PutButtons } from './PutButtons.tsx';
import { isLike } from './values.ts';

const FIRST = { angle: 135, within: 12, most: 1, picked: '' };
const isFirst = isLike(FIRST);
/** Rows that a table shows: beyond them people ask for less. */
const MAX_ROWS = 200;

const keyOf = ({ a, b, base }: HingedPair): string => `${a}, ${b}, ${base}`;
const signed = (degrees: number): string =>
  Math.abs(degrees) < 0.005 ? 'as wanted' : `${degrees > 0 ? '+' : '−'}${Math.abs(degrees).toFixed(2)}°`;

/** Two walls on a hinge: whole lengths whose far ends meet studs of one row, at an angle to each other. */
export function HingePanel() {
  const [values, set] = useKept('bench hinge', FIRST, isFirst);
  const { angle, within, most } = values;
  const pairs = hingedPairs(angle, within, most);
  const pair = pairs.find((one) => keyOf(one) === values.picked) ?? pairs.at(0);
  const name = pair ? `Walls of ${pair.a} and ${pair.b} at ${pair.angle.toFixed(1)}°` : '';
  return (
    <Calculator
      label="Walls on a hinge"
      fields={
        <>
          <NumberField
            label="Between the walls"
            unit="°"
            min={1}
            max={179}
            value={angle}
            onCommit={(to) => to !== null && set({ ...values, angle: to })}
          />
          <NumberField
            label="May be off by"
            unit="°"
            min={0}
            max={20}
            value={most}
            onCommit={(to) => to !== null && set({ ...values, most: to })}
          />
          <NumberField
            label="Longest wall"
            unit="studs"
            whole
            min={1}
            max={64}
            value={within}
            onCommit={(to) => to !== null && set({ ...values, within: to })}
          />
        </>
      }
      drawing={pair && <HingeDrawing pair={pair} />}
      basis={
        <>
          Triangles of whole studs (law of cosines: Euclid, Elements II.12 and 13): both walls meet in a
          hinge, their far ends turn on studs of one row. All lengths are from pin to pin; where the pin of a
          hinge lies differs from piece to piece, so measure yours.
        </>
      }
      acts={
        pair && (
          <PutButtons
            answer={{
              name,
              text: `${name}: their far ends lie ${pair.base} studs apart in one row, the hinge ${pair.outMm.toFixed(1)} mm out of it; turned off the row by ${pair.turnA.toFixed(1)}° and ${pair.turnB.toFixed(1)}°.`,
            }}
          />
        )
      }
    >
      {pair ? (
        <>
          <Heading>Answer</Heading>
          <dl>
            <DefinitionRow label="Walls, from pin to pin">
              {pair.a} and {pair.b} studs
            </DefinitionRow>
            <DefinitionRow label="Far ends apart, in one row">{pair.base} studs</DefinitionRow>
            <DefinitionRow label="Between the walls" note={signed(pair.off)}>
              {pair.angle.toFixed(2)}°
            </DefinitionRow>
            <DefinitionRow label="Turned off the row">
              {pair.turnA.toFixed(2)}° and {pair.turnB.toFixed(2)}°
            </DefinitionRow>
            <DefinitionRow label="Hinge out of the row">{pair.outMm.toFixed(1)} mm</DefinitionRow>
          </dl>
          <Heading aside={pairs.length > MAX_ROWS ? `the first ${MAX_ROWS} of ${pairs.length}` : undefined}>
            Walls that meet
          </Heading>
          <DataTable
            label="Walls on a hinge whose ends meet studs"
            rows={pairs.slice(0, MAX_ROWS)}
            keyOf={keyOf}
            isPicked={(one) => one === pair}
            columns={[
              {
                head: 'Walls, studs',
                cell: (one) => (
                  <PickButton picked={one === pair} onPick={() => set({ ...values, picked: keyOf(one) })}>
                    {one.a} and {one.b}
                  </PickButton>
                ),
              },
              { head: 'Apart', number: true, cell: ({ base }) => base },
              { head: 'Between', number: true, cell: (one) => `${one.angle.toFixed(1)}°` },
              { head: 'Off', number: true, cell: ({ off }) => signed(off) },
            ]}
          />
        </>
      ) : (
        <Empty title={`No walls up to ${within} studs meet at ${angle}°`}>
          Let them be longer, or off by a degree more.
        </Empty>
      )}
    </Calculator>
  );
}

/** Both walls over the row of studs on which their far ends turn. */
function HingeDrawing({ pair: { a, b, base, turnA, angle } }: { pair: HingedPair }) {
  const turn = (turnA * Math.PI) / 180;
  const pin = { x: a * Math.cos(turn), y: -a * Math.sin(turn) };
  const [west, east] = [Math.min(0, pin.x), Math.max(base, pin.x)];
  const size = Math.max(east - west, -pin.y) / 30;
  const studs = Array.from(
    { length: Math.ceil(east) - Math.floor(west) + 1 },
    (_, i) => Math.floor(west) + i,
  );
  const ends = [{ x: 0, y: 0 }, pin, { x: base, y: 0 }];
  return (
    <Sketch
      label={`Walls of ${a} and ${b} studs on a hinge, their far ends ${base} studs apart`}
      box={{
        ...{ x: west - 3 * size, y: pin.y - 3 * size },
        ...{ w: east - west + 6 * size, d: -pin.y + 6 * size },
      }}
    >
      <g className="text-base-300">
        {studs.map((x) => (
          <line key={x} x1={x} x2={x} y1={-0.3 * size} y2={0.3 * size} />
        ))}
      </g>
      <line x1={west} x2={east} y1={0} y2={0} strokeDasharray="6 4" />
      <path d={`M0 0L${pin.x} ${pin.y}L${base} 0`} strokeWidth={4} className="text-primary" />
      {ends.map(({ x, y }) => (
        <circle key={x} cx={x} cy={y} r={size * 0.45} className="fill-base-100" />
      ))}
      <SketchText x={base / 2} y={size * 1.8} size={size}>
        {base} studs
      </SketchText>
      <SketchText x={pin.x / 2 - size * 0.6} y={pin.y / 2 - size * 0.6} size={size} anchor="end">
        {a}
      </SketchText>
      <SketchText x={(pin.x + base) / 2 + size * 0.6} y={pin.y / 2 - size * 0.6} size={size} anchor="start">
        {b}
      </SketchText>
      <SketchText x={pin.x} y={pin.y - size} size={size}>
        {angle.toFixed(1)}°
      </SketchText>
    </Sketch>
  );
}
