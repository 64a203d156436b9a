import type { Plot } from '@quarry/core/document';
import { useSetFields } from '../../ui/EntityForm.tsx';
import { QuantityField, SelectField } from '../../ui/fields.tsx';
import { RemoveButton, Row, Rows } from '../../ui/rows.tsx';

type Cut = Plot['cutAt'][number];

const COLUMNS = 'minmax(0,1fr) 6.4rem 24px';
const MAX_CUTS = 12;
const FROM: readonly { value: Cut['across']; word: string }[] = [
  { value: 'x', word: 'From its west wall' },
  { value: 'y', word: 'From its north wall' },
];

/** Where alone a seam may cut a building that may be cut; none: anywhere. */
export function CutRows({ plot, disabled }: { plot: Plot & { id: string }; disabled: boolean }) {
  const set = useSetFields({ kind: 'plot', id: plot.id });
  const put = (cutAt: readonly Cut[]) => set('said where to cut', { cutAt });
  const side = (across: Cut['across']) => (across === 'x' ? plot.w : plot.d);
  return (
    <Rows
      id="cuts"
      title="A seam may cut it"
      aside={plot.cutAt.length === 0 ? 'anywhere' : 'here alone'}
      columns={COLUMNS}
      words={['Unturned', { right: 'at' }]}
      add={{
        word: 'Place',
        disabled: disabled || plot.cutAt.length >= MAX_CUTS,
        onClick: () => put([...plot.cutAt, { across: 'x', at: Math.round(plot.w / 2) }]),
      }}
    >
      {plot.cutAt.map((cut, i) => {
        const nth = `Place ${i + 1}`;
        const change = (fields: Partial<Cut>) =>
          put(plot.cutAt.map((one, j) => (i === j ? { ...one, ...fields } : one)));
        return (
          <Row key={`${i} ${cut.across}`} label={nth} columns={COLUMNS}>
            <SelectField
              bare
              label={`${nth}, from which wall`}
              value={cut.across}
              options={FROM}
              disabled={disabled}
              onCommit={(across) => change({ across, at: Math.min(cut.at, side(across)) })}
            />
            <QuantityField
              bare
              label={`${nth}, studs from the wall`}
              value={cut.at}
              measure="studs"
              min={0}
              max={side(cut.across)}
              disabled={disabled}
              onCommit={(at) => change({ at })}
            />
            <RemoveButton
              what={nth}
              disabled={disabled}
              onClick={() => put(plot.cutAt.filter((_, j) => j !== i))}
            />
          </Row>
        );
      })}
    </Rows>
  );
}
