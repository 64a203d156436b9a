import { CORNERS, CORNER_WORDS, type Plot } from '@quarry/core/document';
import { useSetFields } from '../../ui/EntityForm.tsx';
import { NumberField, SelectField } from '../../ui/fields.tsx';
import { RemoveButton, Row, Rows } from '../../ui/rows.tsx';
import { capital } from '../../ui/words.ts';

type Notch = Plot['notches'][number];

const COLUMNS = 'minmax(0,1fr) 3.6rem 3.6rem 24px';

/** The corners left out of a building, so that it is an L, a T or a Z. */
export function NotchRows({ plot, disabled }: { plot: Plot & { id: string }; disabled: boolean }) {
  const set = useSetFields({ kind: 'plot', id: plot.id });
  const put = (notches: readonly Notch[]) => set('left corners out of', { notches });
  const isFree = (corner: Notch['corner']) => plot.notches.every((one) => one.corner !== corner);
  const next = CORNERS.find(isFree);
  const half = (size: number) => Math.max(1, Math.floor(size / 2));
  return (
    <Rows
      id="notches"
      title="Corners left out"
      columns={COLUMNS}
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
          <NumberField
            bare
            label={`${nth}, studs ${word}`}
            value={notch[key]}
            min={1}
            max={256}
            whole
            disabled={disabled}
            onCommit={(studs) => studs !== null && change({ [key]: studs })}
          />
        );
        return (
          <Row key={notch.corner} label={nth} columns={COLUMNS}>
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
