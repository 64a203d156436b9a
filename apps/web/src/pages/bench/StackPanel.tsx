import { stackCard } from '@quarry/core/bench';
import { countOf } from '@quarry/core/grid';
import { NumberField } from '../../ui/fields.tsx';
import { DefinitionRow, Heading } from '../../ui/parts.tsx';
import { useKept } from '../../ui/useKept.ts';
import { Calculator, Sketch, SketchText } from './Calculator.tsx';
import { PutButtons } from './PutButtons.tsx';
import { isLike } from './values.ts';

const FIRST = { height: 30, tenBricks: 96, thirtyPlates: 96.3, limit: 0.5 };
const isFirst = isLike(FIRST);
const mm = (value: number): string => `${value.toFixed(1)} mm`;

/** A tall stack of plates beside one of bricks: how far they are off, by what a person measured. */
export function StackPanel() {
  const [values, set] = useKept('bench stack', FIRST, isFirst);
  const { height } = values;
  const card = stackCard(height, values);
  const isOff = Math.abs(card.off) > values.limit;
  const name = `Stack of ${countOf(height, 'brick')}`;
  const number = (key: keyof typeof FIRST, label: string, unit: string, min: number, max: number) => (
    <NumberField
      label={label}
      unit={unit}
      whole={key === 'height'}
      min={min}
      max={max}
      value={values[key]}
      onCommit={(to) => to !== null && set({ ...values, [key]: to })}
    />
  );
  return (
    <Calculator
      label="Tall stacks"
      fields={
        <>
          {number('height', 'Height', 'bricks', 1, 500)}
          {number('tenBricks', 'Ten bricks, measured', 'mm', 90, 102)}
          {number('thirtyPlates', 'Thirty plates, measured', 'mm', 90, 102)}
          {number('limit', 'May differ by', 'mm', 0.1, 10)}
        </>
      }
      drawing={<StackDrawing height={height} off={card.off} />}
      basis={
        <>
          Three plates are as high as a brick, but have three joints for one, and each joint stands a hair
          open: a tall stack of plates ends higher (common practice). 96 mm are ten bricks by their measure;
          96.3 mm for thirty plates is a guess of ours. Press your own together, measure them, and write it
          here.
        </>
      }
      acts={
        <PutButtons
          answer={{
            name,
            text: `${name}: of plates ${mm(card.plates)}, of bricks ${mm(card.bricks)}; ${mm(card.off)} apart.`,
          }}
        />
      }
    >
      <Heading>Answer</Heading>
      <dl>
        <DefinitionRow label="Of bricks">{mm(card.bricks)}</DefinitionRow>
        <DefinitionRow label="Of plates">{mm(card.plates)}</DefinitionRow>
        <DefinitionRow label="Apart by">
          <span className={isOff ? 'text-warning font-semibold' : ''}>
            {isOff && '△ '}
            {mm(card.off)}
          </span>
        </DefinitionRow>
        <DefinitionRow
          label="Meets up to"
          note={
            card.most === null ? undefined : 'higher, let both run in the same pieces, or tie them lower down'
          }
        >
          {card.most === null ? 'any height' : countOf(card.most, 'brick')}
        </DefinitionRow>
      </dl>
    </Calculator>
  );
}

/** Both stacks from the side, what they differ by ten times enlarged. */
function StackDrawing({ height, off }: { height: number; off: number }) {
  const [wide, brick] = [height / 3, 1.2];
  const high = height * brick;
  const up = (off / 8) * 10;
  const size = Math.max(high, 2 * wide) / 30;
  return (
    <Sketch
      label={`Stacks of ${countOf(height, 'brick')} and of plates, apart by ${mm(off)}`}
      box={{
        x: -4 * size,
        y: -Math.max(0, up) - 3 * size,
        w: 3 * wide + 8 * size,
        d: high + Math.max(0, up) + 6 * size,
      }}
    >
      {Array.from({ length: height }, (_, i) => (
        <rect key={`b${i}`} x={0} y={i * brick} width={wide} height={brick} className="fill-base-200" />
      ))}
      {Array.from({ length: 3 * height }, (_, i) => {
        const each = (high + up) / (3 * height);
        return (
          <rect
            key={`p${i}`}
            x={2 * wide}
            y={i * each - up}
            width={wide}
            height={each}
            className="fill-base-100"
          />
        );
      })}
      <SketchText x={wide / 2} y={high + 2 * size} size={size}>
        bricks
      </SketchText>
      <SketchText x={2.5 * wide} y={high + 2 * size} size={size}>
        plates, off × 10
      </SketchText>
    </Sketch>
  );
}
