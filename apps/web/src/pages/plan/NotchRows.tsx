import {
  CORNERS,
  CORNER_WORDS,
  MAX_RECESSES,
  MAX_STUDS,
  SIDES,
  SIDE_WORDS,
  runsEast,
  type Plot,
  turnedSide,
} from '@quarry/core/document';
import { withoutRecess } from '@quarry/core/structures';
import { useSetFields } from '../../ui/EntityForm.tsx';
import { NumberField, SelectField } from '../../ui/fields.tsx';
import { RemoveButton, Row, Rows } from '../../ui/rows.tsx';
import { capital } from '../../ui/words.ts';

type Notch = Plot['notches'][number];
type Recess = Plot['recesses'][number];
interface Given {
  plot: Plot & { id: string };
  disabled: boolean;
}

const NOTCH_COLUMNS = 'minmax(0,1fr) 3.6rem 3.6rem 24px';
const RECESS_COLUMNS = 'minmax(0,1.4fr) repeat(3,minmax(2.75rem,1fr)) 24px';
const half = (size: number) => Math.max(1, Math.floor(size / 2));

/** The corners left out of a building, so that it is an L, a T or a Z. */
export function NotchRows({ plot, disabled }: Given) {
  const set = useSetFields({ kind: 'plot', id: plot.id });
  const put = (notches: readonly Notch[]) => set('left corners out of', { notches });
  const isFree = (corner: Notch['corner']) => plot.notches.every((one) => one.corner !== corner);
  const next = CORNERS.find(isFree);
  return (
    <Rows
      id="notches"
      title="Corners left out"
      columns={NOTCH_COLUMNS}
      words={['Corner, unturned', { right: 'studs wide' }, { right: 'deep' }]}
      add={{
        word: 'Corner',
        disabled: disabled || next === undefined,
        onClick: () => next && put([...plot.notches, { corner: next, w: half(plot.w), d: half(plot.d) }]),
      }}
    >
      {plot.notches.map((notch, i) => {
        const change = (fields: Partial<Notch>) =>
          put(plot.notches.map((one, j) => (i === j ? { ...one, ...fields } : one)));
        const nth = `Corner ${i + 1}`;
        const size = (key: 'w' | 'd', word: string) => (
          <StudsField
            label={`${nth}, studs ${word}`}
            value={notch[key]}
            disabled={disabled}
            onCommit={(studs) => change({ [key]: studs })}
          />
        );
        return (
          <Row key={notch.corner} label={nth} columns={NOTCH_COLUMNS}>
            <SelectField
              bare
              label={`${nth}, which`}
              value={notch.corner}
              options={CORNERS.filter((corner) => corner === notch.corner || isFree(corner)).map((value) => ({
                value,
                word: capital(CORNER_WORDS[value]),
              }))}
              disabled={disabled}
              onCommit={(corner) => change({ corner })}
            />
            {size('w', 'wide')}
            {size('d', 'deep')}
            <RemoveButton
              what={nth}
              disabled={disabled}
              onClick={() => put(plot.notches.filter((_, j) => j !== i))}
            />
          </Row>
        );
      })}
    </Rows>
  );
}

/** The stretches of a building’s sides that stand back, so that it is a U, an H or an E. */
export function RecessRows({ plot, disabled }: Given) {
  const set = useSetFields({ kind: 'plot', id: plot.id });
  const put = (recesses: readonly Recess[]) => set('let sides stand back of', { recesses });
  /** The middle half of the side opposite the front, half as deep as the building: a court behind it. */
  const court = (): Recess => {
    const side = turnedSide(plot.front, 180);
    const [length, depth] = runsEast(side) ? [plot.w, plot.d] : [plot.d, plot.w];
    return { side, at: Math.max(1, Math.floor(length / 4)), wide: half(length), deep: half(depth) };
  };
  return (
    <Rows
      id="recesses"
      title="Sides that stand back, studs"
      columns={RECESS_COLUMNS}
      words={['Side', { right: 'from' }, { right: 'wide' }, { right: 'deep' }]}
      add={{
        word: 'Recess',
        disabled: disabled || plot.recesses.length >= MAX_RECESSES,
        onClick: () => put([...plot.recesses, court()]),
      }}
    >
      {plot.recesses.map((recess, i) => {
        const change = (fields: Partial<Recess>) =>
          put(plot.recesses.map((one, j) => (i === j ? { ...one, ...fields } : one)));
        const nth = `Recess ${i + 1}`;
        const from = runsEast(recess.side) ? 'west' : 'north';
        return (
          <Row key={i} label={nth} columns={RECESS_COLUMNS}>
            <SelectField
              bare
              label={`${nth}, which side`}
              value={recess.side}
              options={SIDES.map((value) => ({ value, word: capital(SIDE_WORDS[value]) }))}
              disabled={disabled}
              onCommit={(side) => change({ side })}
            />
            <StudsField
              label={`${nth}, studs from the ${from} end`}
              value={recess.at}
              min={0}
              max={MAX_STUDS}
              disabled={disabled}
              onCommit={(at) => change({ at })}
            />
            <StudsField
              label={`${nth}, studs wide`}
              value={recess.wide}
              disabled={disabled}
              onCommit={(wide) => change({ wide })}
            />
            <StudsField
              label={`${nth}, studs deep`}
              value={recess.deep}
              disabled={disabled}
              onCommit={(deep) => change({ deep })}
            />
            <RemoveButton
              what={nth}
              disabled={disabled}
              onClick={() => set('let sides stand back of', withoutRecess(plot, i))}
            />
          </Row>
        );
      })}
    </Rows>
  );
}

/** Whole studs in a row. */
function StudsField({
  label,
  value,
  min = 1,
  max = 256,
  disabled,
  onCommit,
}: {
  label: string;
  value: number;
  min?: number;
  max?: number;
  disabled: boolean;
  onCommit: (studs: number) => void;
}) {
  return (
    <NumberField
      bare
      label={label}
      value={value}
      min={min}
      max={max}
      whole
      disabled={disabled}
      onCommit={(studs) => studs !== null && onCommit(studs)}
    />
  );
}
