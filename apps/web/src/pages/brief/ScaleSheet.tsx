import { Fragment } from 'react';
import {
  NEM_010,
  SCHOOL_LIST,
  STATURE,
  FIGURE_MM,
  buildable,
  nearestRailScale,
  scaleOf,
  type Parity,
} from '@quarry/core/scale';
import { SCHOOLS, displayOf } from '@quarry/core/document';
import { useScene } from '../../data/useDisplay.tsx';
import { DataTable } from '../../ui/DataTable.tsx';
import { NumberField, QuantityField, SelectField } from '../../ui/fields.tsx';
import { Basis, Heading, DefinitionRow } from '../../ui/parts.tsx';
import { useKept } from '../../ui/useKept.ts';
import { useMeasureFormat } from '../../ui/useMeasureFormat.ts';
import { capital } from '../../ui/words.ts';
import { Furniture } from './Furniture.tsx';
import { LineUp } from './LineUp.tsx';
import { useSetDisplay } from '../../data/useSetDisplay.ts';

/** The workbench of scale: how it is chosen, what things come to at it, and what scale a model has. */
export function ScaleSheet({ disabled }: { disabled: boolean }) {
  const scene = useScene('display');
  const { ratio } = displayOf(scene);
  return (
    <div className="grid gap-x-8 gap-y-4">
      <div className="grid gap-x-8 gap-y-4 grid-cols-1 lg:grid-cols-[300px_minmax(0,1fr)] items-start">
        <div className="flex flex-col gap-4">
          <School disabled={disabled} />
          <RealThing />
        </div>
        <div className="flex flex-col gap-4 min-w-0">
          <LineUp ratio={ratio} />
          <div className="grid gap-x-8 gap-y-4 xl:grid-cols-[300px_minmax(0,1fr)] items-start">
            <WhatScale />
            <Furniture disabled={disabled} />
          </div>
        </div>
      </div>
    </div>
  );
}

function School({ disabled }: { disabled: boolean }) {
  const { say, rough } = useMeasureFormat();
  const scene = useScene('display');
  const set = useSetDisplay();
  const display = displayOf(scene);
  const school = SCHOOL_LIST[display.school];
  const nearest = nearestRailScale(display.ratio);
  const [low, high] = school.range;
  const usual = display.ratio >= low && display.ratio <= high;
  return (
    <section aria-labelledby="school">
      <Heading id="school">Scale of the display</Heading>
      <SelectField
        label="Chosen"
        value={display.school}
        disabled={disabled}
        options={SCHOOLS.map((value) => ({ value, word: SCHOOL_LIST[value].word }))}
        onCommit={(value) => {
          const { ratio, range } = SCHOOL_LIST[value];
          // A ratio that the new school uses anyway is kept.
          const keeps = display.ratio >= range[0] && display.ratio <= range[1];
          set(
            'changed the school of scale',
            keeps ? { school: value } : { school: value, ratio: Math.round(ratio * 4) / 4 },
          );
        }}
      />
      {display.school === 'rail' ? (
        <SelectField
          label="Ratio"
          value={String(nearest)}
          disabled={disabled}
          options={NEM_010.map((one) => ({ value: String(one), word: `1:${one}` }))}
          onCommit={(value) => set('changed the scale', { ratio: Number(value) })}
        />
      ) : (
        <NumberField
          label="Ratio 1 :"
          value={display.ratio}
          min={1}
          max={2000}
          disabled={disabled}
          onCommit={(ratio) => set('changed the scale', { ratio: ratio ?? 45 })}
        />
      )}
      <NumberField
        label="Things may differ by"
        unit="%"
        value={display.scaleSpread}
        min={0}
        max={100}
        disabled={disabled}
        onCommit={(scaleSpread) => set('changed the spread of scale', { scaleSpread: scaleSpread ?? 15 })}
      />
      <p className="ink-2 text-xs py-1">{school.rests}</p>
      {!usual && (
        <p className="text-warning text-xs">
          △ 1:{display.ratio} is outside the 1:{low} to 1:{high} of this school.
        </p>
      )}
      <dl>
        <DefinitionRow label="A figure stands for" note={`${say(FIGURE_MM, 'mm')} without hair`}>
          {rough((FIGURE_MM * display.ratio) / 1000)}
        </DefinitionRow>
        <DefinitionRow label={`A person of ${rough(STATURE)} is`}>
          {say(Math.round((STATURE * 10_000) / display.ratio) / 10, 'mm')}
        </DefinitionRow>
        <DefinitionRow
          label="Nearest rail scale"
          note={`${(100 * (display.ratio / nearest - 1)).toFixed(0)} % off`}
        >
          1:{nearest}
        </DefinitionRow>
      </dl>
    </section>
  );
}

const PARITIES: readonly { value: Parity; word: string }[] = [
  { value: 'any', word: 'Any count of studs' },
  { value: 'even', word: 'Even: middle on a joint' },
  { value: 'odd', word: 'Odd: middle on a stud' },
];

interface Size {
  length: number;
  width: number;
  height: number;
}
const SIDES = ['length', 'width', 'height'] as const;
const isSize = (value: unknown): value is Size =>
  typeof value === 'object' &&
  value !== null &&
  SIDES.every((side) => Number.isFinite(Reflect.get(value, side)));
const isParity = (value: unknown): value is Parity => PARITIES.some((one) => one.value === value);

/** A real size in; what one can build out, with the error. */
function RealThing() {
  const scene = useScene('display');
  const { say } = useMeasureFormat();
  const { ratio, scaleSpread } = displayOf(scene);
  const [real, setReal] = useKept('true size', { length: 12, width: 2.55, height: 3.2 }, isSize);
  const [parity, setParity] = useKept<Parity>('symmetry', 'any', isParity);
  const candidates = buildable(real, ratio, { parity, spread: scaleSpread / 100, most: 4 });
  const size = { measure: 'm', min: 0.01, max: 10_000 } as const;
  return (
    <section aria-labelledby="real">
      <Heading id="real">Real thing → buildable</Heading>
      <QuantityField
        label="True length"
        value={real.length}
        {...size}
        onCommit={(length) => setReal({ ...real, length })}
      />
      <QuantityField
        label="True width"
        value={real.width}
        {...size}
        onCommit={(width) => setReal({ ...real, width })}
      />
      <QuantityField
        label="True height"
        value={real.height}
        {...size}
        onCommit={(height) => setReal({ ...real, height })}
      />
      <SelectField label="Symmetry" value={parity} options={PARITIES} onCommit={setParity} />
      <DataTable
        label="Buildable sizes"
        rows={candidates}
        keyOf={({ length, width, height }) => `${length.count} ${width?.count} ${height?.count}`}
        columns={[
          {
            head: 'Studs × studs × height',
            cell: ({ length, width, height }) => (
              <span className="fig whitespace-nowrap">
                {length.count} × {width?.count} × {say(height?.count ?? 0, 'plates')}
              </span>
            ),
          },
          {
            head: 'Worst error',
            number: true,
            cell: ({ length, width, height, worst }) =>
              `${signed(
                [length, width, height].reduce(
                  (a, b) => (b && Math.abs(b.error) >= worst - 1e-12 ? b.error : a),
                  0,
                ),
              )} %`,
          },
          {
            head: 'Own scale',
            number: true,
            cell: ({ length, width, height }) =>
              `1:${length.ratio.toFixed(0)}/${width?.ratio.toFixed(0)}/${height?.ratio.toFixed(0)}`,
            tone: ({ within }) => (within ? 'quiet' : 'warning'),
          },
        ]}
      />
      <Basis>
        True size ÷ {ratio} ÷ 8 mm (height ÷ 3.2 mm), and the whole counts on either side of it, the least
        worst error first. “Own scale” is the ratio of each dimension by itself; △ marks one past the spread
        of {scaleSpread} %.
      </Basis>
    </section>
  );
}

const signed = (share: number) =>
  `${share > 0 ? '+' : share < 0 ? '−' : ''}${Math.abs(100 * share).toFixed(1)}`;

/** A model in, its scale out. */
function WhatScale() {
  const scene = useScene('display');
  const { ratio, scaleSpread } = displayOf(scene);
  const [model, setModel] = useKept('model', { length: 16, width: 6, height: 13 }, isSize);
  const [real, setReal] = useKept('model, truly', { length: 4.3, width: 1.8, height: 1.5 }, isSize);
  const reading = scaleOf(model, real, ratio);
  const off = Math.abs(reading.beside) * 100 > scaleSpread;
  const size = { measure: 'm', min: 0.01, max: 10_000 } as const;
  const studs = { measure: 'studs', min: 0.5, max: 4096 } as const;
  return (
    <section aria-labelledby="which">
      <Heading id="which">What scale is this?</Heading>
      <div className="grid grid-cols-[4rem_1fr_1fr] gap-x-2 items-center">
        <span className="ink-2 text-[11px]" />
        <span className="ink-2 text-[11px]">As built</span>
        <span className="ink-2 text-[11px]">Really</span>
        {(['length', 'width', 'height'] as const).map((side) => (
          <Fragment key={side}>
            <span>{capital(side)}</span>
            <QuantityField
              bare
              hint=""
              label={`${capital(side)} as built`}
              value={model[side]}
              {...(side === 'height' ? { measure: 'plates', min: 1, max: 3000 } : studs)}
              onCommit={(value) => setModel({ ...model, [side]: value })}
            />
            <QuantityField
              bare
              hint=""
              label={`${capital(side)} really`}
              value={real[side]}
              {...size}
              onCommit={(value) => setReal({ ...real, [side]: value })}
            />
          </Fragment>
        ))}
      </div>
      <dl>
        <DefinitionRow
          label="Its scale"
          note={`1:${reading.length.toFixed(1)} long, 1:${reading.width?.toFixed(1)} wide, 1:${reading.height?.toFixed(1)} high`}
        >
          1:{reading.mean.toFixed(1)}
        </DefinitionRow>
        <DefinitionRow label="The dimensions disagree by">
          {(100 * reading.disagreement).toFixed(0)} %
        </DefinitionRow>
        <DefinitionRow label={`Beside the display’s 1:${ratio}`} note={`the spread is ${scaleSpread} %`}>
          <span className={off ? 'text-warning' : ''}>
            {off && '△ '}
            {Math.abs(100 * reading.beside).toFixed(0)} % too {reading.beside > 0 ? 'large' : 'small'}
          </span>
        </DefinitionRow>
      </dl>
      <Basis>
        Each dimension’s ratio is true size over built size; the scale of the whole is their geometric mean,
        and they disagree by the largest over the smallest.
      </Basis>
    </section>
  );
}
