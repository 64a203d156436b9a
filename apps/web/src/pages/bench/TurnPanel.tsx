import { tiesOf, turnsWithin, type Turn } from '@quarry/core/bench';
import { DataTable } from '../../ui/DataTable.tsx';
import { NumberField, QuantityField } from '../../ui/fields.tsx';
import { DefinitionRow, Empty, Heading } from '../../ui/parts.tsx';
import { useKept } from '../../ui/useKept.ts';
import { Calculator, PickButton, Sketch, SketchText } from './Calculator.tsx';
import { PutButton, PutButtons, useMiddle } from './PutButtons.tsx';
import { isLike } from './values.ts';

const FIRST = { within: 20, error: 0, tie: 8, picked: '' };
const isFirst = isLike(FIRST);
/** Rows that a table shows: beyond them people ask for a smaller error. */
const MAX_ROWS = 200;

const keyOf = ({ a, b, c }: Turn): string => `${a}, ${b}, ${c}`;
const signed = (mm: number): string =>
  Math.abs(mm) < 0.005 ? 'meets' : `${mm > 0 ? '+' : '−'}${Math.abs(mm).toFixed(2)} mm`;

/** Walls turned off the grid: whole lengths whose ends meet studs again, and where they are tied. */
export function TurnPanel() {
  const [values, set] = useKept('bench turn', FIRST, isFirst);
  const middle = useMiddle();
  const { within, error, tie } = values;
  const turns = turnsWithin(within, error);
  const turn = turns.find((one) => keyOf(one) === values.picked) ?? turns.at(0);
  const name = turn ? `Wall of ${turn.c} turned by ${turn.angle.toFixed(1)}°` : '';
  const ties = turn ? tiesOf(turn.c, tie) : [];
  const tieWord = ties.length > 0 ? `at ${ties.join(', ')} studs` : 'none between its ends';
  return (
    <Calculator
      label="Turned wall"
      fields={
        <>
          <NumberField
            label="Longest wall"
            unit="studs"
            whole
            min={1}
            max={200}
            value={within}
            onCommit={(to) => to !== null && set({ ...values, within: to })}
          />
          <NumberField
            label="May be amiss"
            unit="mm"
            min={0}
            max={4}
            value={error}
            onCommit={(to) => to !== null && set({ ...values, error: to })}
          />
          <QuantityField
            label="A tie each"
            measure="studs"
            step={0.5}
            min={1}
            max={64}
            value={tie}
            onCommit={(to) => set({ ...values, tie: to })}
          />
        </>
      }
      drawing={turn && <TurnDrawing turn={turn} ties={ties} />}
      basis={
        <>
          Right triangles of whole studs (Pythagoras): the wall is the long side, its ends lie so many studs
          apart along both sides of the grid. “Amiss” is how much longer the way between the ends is than the
          wall; hinges and play take up some tenths of a millimetre (try it). Rigid ties each 8 to 10 studs
          (common practice, no source).
        </>
      }
      acts={
        turn && (
          <>
            <PutButtons
              answer={{
                name,
                text: `${name}: its ends lie ${turn.a} and ${turn.b} studs apart, ${signed(turn.errorMm)}; ties ${tieWord}.`,
              }}
            />
            <PutButton
              word="Put on the plan as a wall"
              label={`put “${name}” on the plan from the Bench`}
              kind="run"
              data={{ name, use: 'wall', points: [middle, { x: middle.x + turn.b, y: middle.y + turn.a }] }}
              page="plan"
            />
          </>
        )
      }
    >
      {turn ? (
        <>
          <Heading>Answer</Heading>
          <dl>
            <DefinitionRow label="Wall" note={signed(turn.errorMm)}>
              {turn.c} studs
            </DefinitionRow>
            <DefinitionRow label="Ends apart, along and across">
              {turn.b} and {turn.a} studs
            </DefinitionRow>
            <DefinitionRow label="Turned by">{turn.angle.toFixed(2)}°</DefinitionRow>
            <DefinitionRow label="Ties between its ends">{tieWord}</DefinitionRow>
          </dl>
          <Heading aside={turns.length > MAX_ROWS ? `the first ${MAX_ROWS} of ${turns.length}` : undefined}>
            Walls that meet
          </Heading>
          <DataTable
            label="Walls that meet studs"
            rows={turns.slice(0, MAX_ROWS)}
            keyOf={keyOf}
            isPicked={(one) => one === turn}
            columns={[
              {
                head: 'Wall, studs',
                cell: (one) => (
                  <PickButton picked={one === turn} onPick={() => set({ ...values, picked: keyOf(one) })}>
                    {one.c}
                  </PickButton>
                ),
              },
              { head: 'Along × across', number: true, cell: ({ a, b }) => `${b} × ${a}` },
              { head: 'Turned by', number: true, cell: ({ angle }) => `${angle.toFixed(1)}°` },
              { head: 'Amiss', number: true, cell: ({ errorMm }) => signed(errorMm) },
            ]}
          />
        </>
      ) : (
        <Empty title={`No wall up to ${within} studs meets`}>
          Let it be longer, or amiss by some tenths of a millimetre.
        </Empty>
      )}
    </Calculator>
  );
}

/** The wall over the studs that it leaves and meets, with its ties. */
function TurnDrawing({ turn: { a, b, c }, ties }: { turn: Turn; ties: readonly number[] }) {
  const size = Math.max(a, b) / 30;
  const at = (along: number) => ({ x: (b * along) / c, y: (a * along) / c });
  const step = Math.max(1, Math.ceil(Math.max(a, b) / 40));
  const lines = (to: number) => Array.from({ length: Math.floor(to / step) + 1 }, (_, i) => i * step);
  return (
    <Sketch
      label={`A wall of ${c} studs from one corner to the other of ${b} × ${a} studs`}
      box={{ x: -2.5 * size, y: -2.5 * size, w: b + 5 * size, d: a + 5 * size }}
    >
      <g className="text-base-300">
        {lines(b).map((x) => (
          <line key={`x${x}`} x1={x} x2={x} y1={0} y2={a} />
        ))}
        {lines(a).map((y) => (
          <line key={`y${y}`} x1={0} x2={b} y1={y} y2={y} />
        ))}
      </g>
      <path d={`M0 0H${b}V${a}`} strokeDasharray="6 4" />
      <line x1={0} y1={0} x2={b} y2={a} strokeWidth={4} className="text-primary" />
      {[0, ...ties, c].map((along) => (
        <circle key={along} cx={at(along).x} cy={at(along).y} r={size * 0.45} className="fill-base-100" />
      ))}
      <SketchText x={b / 2} y={-size * 0.8} size={size}>
        {b} studs
      </SketchText>
      <SketchText x={b + size * 0.5} y={a / 2} size={size} anchor="start">
        {a}
      </SketchText>
      <SketchText x={b / 2 - size} y={a / 2 + 2 * size} size={size} anchor="end">
        {c}
      </SketchText>
    </Sketch>
  );
}
