import { nearestStack, sidewaysFits, type SidewaysFit } from '@quarry/core/bench';
import { MM_PER_PLATE, MM_PER_STUD } from '@quarry/core/grid';
import { DataTable } from '../../ui/DataTable.tsx';
import { CheckField, NumberField, QuantityField } from '../../ui/fields.tsx';
import { DefinitionRow, Heading } from '../../ui/parts.tsx';
import { useKept } from '../../ui/useKept.ts';
import { Calculator, Sketch, SketchText } from './Calculator.tsx';
import { PutButtons } from './PutButtons.tsx';
import { isLike } from './values.ts';

const FIRST = { studs: 6, within: 0.1, halves: true };
const isFirst = isLike(FIRST);

const half = (count: number): string =>
  `${Math.floor(count / 2) || (count % 2 ? '' : '0')}${count % 2 ? '½' : ''}`;
const platesOf = ({ halfPlates }: SidewaysFit): string =>
  `${half(halfPlates)} ${halfPlates <= 2 ? 'plate' : 'plates'}`;
const errorOf = (errorMm: number): string =>
  errorMm === 0 ? 'closes' : `${errorMm > 0 ? '+' : '−'}${Math.abs(errorMm).toFixed(1)} mm`;

/** Plates on their side against a row of studs: which stack fills it, and where both close. */
export function FitsPanel() {
  const [values, set] = useKept('bench fits', FIRST, isFirst);
  const { studs, within, halves } = values;
  const row = Math.round(2 * studs);
  const stack = nearestStack(row, !halves);
  const rows = Array.from({ length: row }, (_, i) => nearestStack(i + 1, !halves));
  const closing = sidewaysFits({ studs: [1, 64], plates: [1, 160] }, within).filter(
    ({ halfPlates }) => halves || halfPlates % 2 === 0,
  );
  const next = closing.find(({ halfStuds }) => halfStuds > row);
  const isClosed = Math.abs(stack.errorMm) <= within + 1e-9;
  const text = `${studs} studs (${studs * MM_PER_STUD} mm) sideways: ${platesOf(stack)}, ${errorOf(stack.errorMm)}.`;
  return (
    <Calculator
      label="Sideways fit"
      fields={
        <>
          <QuantityField
            label="Row to fill"
            measure="studs"
            step={0.5}
            min={0.5}
            max={64}
            value={studs}
            onCommit={(to) => set({ ...values, studs: Math.round(2 * to) / 2 })}
          />
          <NumberField
            label="May be amiss"
            unit="mm"
            min={0}
            max={3}
            value={within}
            onCommit={(to) => to !== null && set({ ...values, within: to })}
          />
          <CheckField
            label="Half plates too (leaves of brackets)"
            value={halves}
            onCommit={(to) => set({ ...values, halves: to })}
          />
        </>
      }
      drawing={<FitDrawing fit={stack} isClosed={isClosed} />}
      basis={
        <>
          Half a stud is 4 mm, half a plate 1.6 mm: 5 plates on their side are 2 studs exactly. A block 6
          studs wide and 5 bricks tall is a cube of 48 mm, smooth on six sides when its faces are built so.
          The stack shown is the nearest; of two equally near the shorter, which fits into the gap.
        </>
      }
      acts={<PutButtons answer={{ name: `Sideways fit of ${studs} studs`, text }} />}
    >
      <Heading>Answer</Heading>
      <dl>
        <DefinitionRow label="Stack" note={`${((stack.halfPlates * MM_PER_PLATE) / 2).toFixed(1)} mm`}>
          {platesOf(stack)}
        </DefinitionRow>
        <DefinitionRow label="Against the row" note={`${(studs * MM_PER_STUD).toFixed(1)} mm`}>
          <span className={isClosed ? '' : 'text-warning font-semibold'}>
            {isClosed ? '' : '△ '}
            {errorOf(stack.errorMm)}
          </span>
        </DefinitionRow>
        <DefinitionRow label="Next row that closes">
          {next ? `${next.halfStuds / 2} studs, ${platesOf(next)}` : 'none up to 64 studs'}
        </DefinitionRow>
      </dl>
      <Heading>Shorter rows</Heading>
      <DataTable
        label="Rows and their stacks"
        rows={rows.toReversed()}
        keyOf={({ halfStuds }) => String(halfStuds)}
        isPicked={({ halfStuds }) => halfStuds === row}
        columns={[
          { head: 'Row, studs', cell: ({ halfStuds }) => <span className="fig">{halfStuds / 2}</span> },
          { head: 'Nearest stack', number: true, cell: platesOf },
          {
            head: 'Too long (+), short (−)',
            number: true,
            cell: ({ errorMm }) => errorOf(errorMm),
            tone: ({ errorMm }) => (Math.abs(errorMm) <= within + 1e-9 ? null : 'quiet'),
          },
        ]}
      />
    </Calculator>
  );
}

/** The row of studs from the side, and the stack that lies on its side over it. */
function FitDrawing({ fit, isClosed }: { fit: SidewaysFit; isClosed: boolean }) {
  const row = fit.halfStuds * 4;
  const stack = fit.halfPlates * 1.6;
  const long = Math.max(row, stack);
  const size = Math.max(1.7, long / 36);
  const plates = Array.from({ length: Math.ceil(fit.halfPlates / 2) }, (_, i) => {
    const isHalf = 2 * i + 1 === fit.halfPlates;
    return { x: 3.2 * i, w: isHalf ? 1.6 : 3.2, isHalf };
  });
  return (
    <Sketch
      label={`A row of ${fit.halfStuds / 2} studs under ${platesOf(fit)} on their side`}
      box={{ x: -size, y: -size * 2, w: long + 2 * size, d: 26 + 4 * size }}
    >
      {plates.map(({ x, w, isHalf }) => (
        <rect
          key={x}
          x={x}
          y={0}
          width={w}
          height={12}
          className={isHalf ? 'fill-warning/25' : 'fill-base-200'}
        />
      ))}
      {stack !== row && (
        <rect
          x={Math.min(stack, row)}
          y={0}
          width={Math.abs(stack - row)}
          height={24}
          stroke="none"
          className={isClosed ? 'fill-secondary/30' : 'fill-primary/35'}
        />
      )}
      <rect x={0} y={14} width={row} height={9.6} className="fill-base-200" />
      {Array.from({ length: Math.floor(fit.halfStuds / 2) }, (_, i) => (
        <rect key={i} x={8 * i + 1.6} y={12.3} width={4.8} height={1.7} className="fill-base-200" />
      ))}
      <SketchText x={long / 2} y={-size * 0.7} size={size}>
        {platesOf(fit)} · {stack.toFixed(1)} mm
      </SketchText>
      <SketchText x={long / 2} y={24 + 1.6 * size} size={size}>
        {fit.halfStuds / 2} studs · {row} mm
      </SketchText>
    </Sketch>
  );
}
