import { Fragment } from 'react';
import { moduleLift } from '@quarry/core/cut';
import { MM_PER_STUD } from '@quarry/core/grid';
import { NumberField, QuantityField } from '../../ui/fields.tsx';
import { DefinitionRow, Heading } from '../../ui/parts.tsx';
import { useKept } from '../../ui/useKept.ts';
import { Calculator, Sketch, SketchText } from './Calculator.tsx';
import { PutButtons } from './PutButtons.tsx';
import { isLike } from './values.ts';

const FIRST = { kg: 9, w: 96, d: 48, from: 740 };
const isFirst = isLike(FIRST);

const indexOf = (index: number): string => (Number.isFinite(index) ? index.toFixed(1) : 'not at all');
const judged = (index: number): string =>
  index > 3 ? '! high risk' : index > 1 ? '△ the risk grows' : 'within the limit';

/** What somebody weighed, by the lifting equation: for one person, and for two at its ends. */
export function WeighPanel() {
  const [values, set] = useKept('bench lift', FIRST, isFirst);
  const { kg, w, d, from } = values;
  const lift = moduleLift(kg, { w, d }, from);
  const name = `Lift of ${kg} kg, ${w} × ${d} studs`;
  const studs = (key: 'w' | 'd', label: string) => (
    <QuantityField
      label={label}
      measure="studs"
      min={1}
      max={512}
      value={values[key]}
      onCommit={(to) => set({ ...values, [key]: to })}
    />
  );
  return (
    <Calculator
      label="Lift by hand"
      fields={
        <>
          <NumberField
            label="Weighed mass"
            unit="kg"
            min={0.01}
            max={500}
            value={kg}
            onCommit={(to) => to !== null && set({ ...values, kg: to })}
          />
          {studs('w', 'Long side')}
          {studs('d', 'Narrow side')}
          <QuantityField
            label="Lifted from, over the floor"
            measure="mm"
            min={0}
            max={2000}
            value={from}
            onCommit={(to) => set({ ...values, from: to })}
          />
        </>
      }
      drawing={<LiftDrawing w={w} d={d} />}
      basis={
        <>
          The revised NIOSH lifting equation (Waters et al. 1993; DHHS (NIOSH) 94-110): mass ÷ recommended
          limit, 23 kg × six multipliers, as Cut takes it for modules: one person with the narrow side to the
          body, two with half of it each at the ends. The equation is made for one person.
        </>
      }
      acts={
        <PutButtons
          answer={{
            name,
            text: `${name}: lift index ${indexOf(lift.one.index)} for one, ${indexOf(lift.two.index)} for two.`,
          }}
        />
      }
    >
      <p className="border-l-4 border-warning pl-2 my-2 text-xs">
        A caution, not advice: lift with bent knees, path clear first, two at a long module; local rules and
        qualified people decide.
      </p>
      {(['one', 'two'] as const).map((by) => (
        <Fragment key={by}>
          <Heading>{by === 'one' ? 'One person' : 'Two people'}</Heading>
          <dl>
            <DefinitionRow label="Lift index" note={judged(lift[by].index)}>
              {indexOf(lift[by].index)}
            </DefinitionRow>
            <DefinitionRow label="Recommended limit, each">{lift[by].limit.toFixed(1)} kg</DefinitionRow>
            <DefinitionRow label="Hands from the body">
              {(lift[by].task.horizontal * 10).toFixed(0)} mm
            </DefinitionRow>
          </dl>
        </Fragment>
      ))}
    </Calculator>
  );
}

/** The piece from above, with where one and where two take hold of it. */
function LiftDrawing({ w, d }: { w: number; d: number }) {
  const [long, short] = [Math.max(w, d), Math.min(w, d)];
  const size = long / 34;
  const person = (x: number, y: number, word: string) => (
    <g key={word + x}>
      <circle cx={x} cy={y} r={size * 0.9} className="fill-base-100" />
      <SketchText x={x} y={y + size * 0.35} size={size}>
        {word}
      </SketchText>
    </g>
  );
  return (
    <Sketch
      label={`A piece of ${long} × ${short} studs, lifted by one at its long side or by two at its ends`}
      box={{ x: -4 * size, y: -2 * size, w: long + 8 * size, d: short + 7 * size }}
    >
      <rect x={0} y={0} width={long} height={short} className="fill-base-200" strokeWidth={2} />
      <SketchText x={long / 2} y={short / 2} size={size}>
        {long} × {short} studs · {(long * MM_PER_STUD).toLocaleString('en')} mm long
      </SketchText>
      {person(long / 2, short + 1.6 * size, '1')}
      {person(-1.6 * size, short / 2, '2')}
      {person(long + 1.6 * size, short / 2, '2')}
    </Sketch>
  );
}
