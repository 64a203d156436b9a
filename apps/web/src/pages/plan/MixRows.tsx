import { MIXED, type Plot } from '@quarry/core/document';
import { useSetFields } from '../../ui/EntityForm.tsx';
import { PALETTE_CHOICES, FIRST_COLOUR } from '../../ui/fieldSpec.ts';
import { NumberField, SelectField } from '../../ui/fields.tsx';
import { RemoveButton, Row, Rows } from '../../ui/rows.tsx';

type Mix = Plot['mixes'][number];

const COLUMNS = '4.5rem minmax(0,1fr) 4.5rem 24px';
const MOST = 8;
const WORDS: Readonly<Record<Mix['of'], string>> = { wall: 'Walls', roof: 'Roof' };

/** Colours that are mixed into the walls and the roof of a building, by their share of the pieces. */
export function MixRows({ plot, disabled }: { plot: Plot & { id: string }; disabled: boolean }) {
  const set = useSetFields({ kind: 'plot', id: plot.id });
  const put = (mixes: readonly Mix[]) => set('mixed the colours of', { mixes });
  const left = (use: Mix['of'], but?: number) =>
    99 - plot.mixes.reduce((sum, one, i) => sum + (one.of === use && i !== but ? one.percent : 0), 0);
  return (
    <Rows
      id="mixes"
      title="Colours mixed in"
      columns={COLUMNS}
      words={['Into', 'Colour', { right: '% of pieces' }]}
      add={{
        word: 'Colour',
        disabled: disabled || plot.mixes.length >= MOST || left('wall') < 1,
        onClick: () =>
          put([...plot.mixes, { of: 'wall', colour: FIRST_COLOUR, percent: Math.min(10, left('wall')) }]),
      }}
    >
      {plot.mixes.map((mix, i) => {
        const change = (fields: Partial<Mix>) =>
          put(plot.mixes.map((one, j) => (i === j ? { ...one, ...fields } : one)));
        const nth = `Colour ${i + 1}`;
        return (
          <Row key={i} label={nth} columns={COLUMNS}>
            <SelectField
              bare
              label={`${nth}, mixed into`}
              value={mix.of}
              options={MIXED.map((value) => ({ value, word: WORDS[value] }))}
              disabled={disabled || left(mix.of === 'wall' ? 'roof' : 'wall') < mix.percent}
              onCommit={(of) => change({ of })}
            />
            <SelectField
              bare
              label={`${nth}, in`}
              value={mix.colour}
              options={PALETTE_CHOICES}
              disabled={disabled}
              onCommit={(colour) => change({ colour })}
            />
            <NumberField
              bare
              label={`${nth}, percent`}
              value={mix.percent}
              min={1}
              max={left(mix.of, i)}
              disabled={disabled}
              onCommit={(percent) => percent !== null && change({ percent })}
            />
            <RemoveButton
              what={nth}
              disabled={disabled}
              onClick={() => put(plot.mixes.filter((_, j) => j !== i))}
            />
          </Row>
        );
      })}
    </Rows>
  );
}
