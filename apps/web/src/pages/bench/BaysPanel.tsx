import { baysOfBase, evenBays, type BaseBays } from '@quarry/core/bench';
import { DataTable } from '../../ui/DataTable.tsx';
import { NumberField } from '../../ui/fields.tsx';
import { DefinitionRow, Empty, Heading } from '../../ui/parts.tsx';
import { useKept } from '../../ui/useKept.ts';
import { Calculator, PickButton, Sketch, SketchText } from './Calculator.tsx';
import { PutButton, PutButtons, useMiddle } from './PutButtons.tsx';
import { isLike } from './values.ts';

const FIRST = { base: 48, each: 16, least: 4, most: 24 };
const isFirst = isLike(FIRST);

/** Repeats along a base: bays that divide it, so that no bay lies over a seam and each module is the same. */
export function BaysPanel() {
  const [values, set] = useKept('bench bays', FIRST, isFirst);
  const middle = useMiddle();
  const { base, each, least, most } = values;
  const own = baysOfBase(base, each);
  const even = evenBays(base, least, most);
  const name = `Bays of ${each} on a base of ${base}`;
  const count = (key: keyof typeof FIRST, label: string) => (
    <NumberField
      label={label}
      unit="studs"
      whole
      min={1}
      max={512}
      value={values[key]}
      onCommit={(to) => to !== null && set({ ...values, [key]: to })}
    />
  );
  return (
    <Calculator
      label="Bays on a base"
      fields={
        <>
          {count('base', 'Base')}
          {count('each', 'Bay with its post')}
          {count('least', 'Narrowest even bay')}
          {count('most', 'Widest even bay')}
        </>
      }
      drawing={<BaysDrawing base={base} bays={own} />}
      basis={
        <>
          Base ÷ bay, and what is left over. Three bays to a base is usual; a bay that straddles a seam makes
          two modules that fit no other neighbour (common practice, no source).
        </>
      }
      acts={
        <>
          <PutButtons
            answer={{ name, text: `${name}: ${own.bays} bays, ${own.left} studs left over on each base.` }}
          />
          {own.left === 0 && (
            <PutButton
              word="Put on the plan as a repeat"
              label={`put “${name}” on the plan from the Bench`}
              kind="repeat"
              data={{
                ...{
                  name,
                  use: 'panel',
                  spacing: 'base',
                  count: own.bays,
                  base,
                  length: Math.min(each, 256),
                },
                points: [middle, { x: middle.x + base, y: middle.y }],
              }}
              page="plan"
            />
          )}
        </>
      }
    >
      <Heading>Answer</Heading>
      <dl>
        <DefinitionRow label="Bays to a base">{own.bays}</DefinitionRow>
        <DefinitionRow label="Left over">
          {own.left === 0 ? (
            'nothing'
          ) : (
            <span className="text-warning font-semibold">△ {own.left} studs</span>
          )}
        </DefinitionRow>
      </dl>
      <Heading>Bays that leave nothing</Heading>
      {even.length === 0 ? (
        <Empty title={`No bay from ${least} to ${most} studs divides ${base}`}>
          Widen the range, or let a pier take what is left over.
        </Empty>
      ) : (
        <DataTable
          label="Bays that divide the base"
          rows={even}
          keyOf={(one) => String(one.each)}
          isPicked={(one) => one.each === each}
          columns={[
            {
              head: 'Bay, studs',
              cell: (one) => (
                <PickButton picked={one.each === each} onPick={() => set({ ...values, each: one.each })}>
                  {one.each}
                </PickButton>
              ),
            },
            { head: 'Bays to a base', number: true, cell: ({ bays }) => bays },
          ]}
        />
      )}
    </Calculator>
  );
}

/** The base from above: its bays, and what is left over at its end. */
function BaysDrawing({ base, bays: { bays, each, left } }: { base: number; bays: BaseBays }) {
  const size = base / 36;
  const deep = base / 5;
  return (
    <Sketch
      label={`${bays} bays of ${each} studs on a base of ${base}, ${left} left over`}
      box={{ x: -size, y: -3 * size, w: base + 2 * size, d: deep + 6 * size }}
    >
      {Array.from({ length: bays }, (_, i) => (
        <rect key={i} x={i * each} y={0} width={each} height={deep} className="fill-base-200" />
      ))}
      {left > 0 && (
        <rect x={bays * each} y={0} width={left} height={deep} className="fill-primary/35" stroke="none" />
      )}
      <rect x={0} y={0} width={base} height={deep} strokeWidth={2.4} />
      <SketchText x={base / 2} y={-size} size={size}>
        {bays} × {each}
        {left > 0 && ` + ${left}`}
      </SketchText>
      <SketchText x={base / 2} y={deep + 2 * size} size={size}>
        {base} studs
      </SketchText>
    </Sketch>
  );
}
