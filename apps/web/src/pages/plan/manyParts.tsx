import { lengthOfLine, MM_PER_STUD } from '@quarry/core/grid';
import { membersOf, plantsOf } from '@quarry/core/terrain';
import { listOf, type Planting, type Repeat } from '@quarry/core/document';
import { useScene } from '../../data/useDisplay.tsx';
import { LEAF_CHOICES } from '../../ui/fieldSpec.ts';
import { NumberField, SelectField, TextField } from '../../ui/fields.tsx';
import { DefinitionRow } from '../../ui/parts.tsx';
import { RemoveButton, Row, Rows } from '../../ui/rows.tsx';
import { useSetFields } from '../../ui/EntityForm.tsx';

// What comes of repeats and plantings: how many, how far apart, of which kind.

export function RepeatPart({ repeat }: { repeat: Repeat }) {
  const scene = useScene('module');
  const { members, dropped } = membersOf(repeat, listOf(scene, 'module'));
  const [first, second] = members;
  const last = members.at(-1);
  const apart = first && second ? second.along - first.along : null;
  return (
    <>
      <DefinitionRow
        label="Members"
        note={dropped.length > 0 ? `${dropped.length} left out near seams` : undefined}
      >
        {members.length}
      </DefinitionRow>
      {apart !== null && (
        <DefinitionRow label="Apart" note={`${(apart * MM_PER_STUD).toFixed(1)} mm`}>
          {Number(apart.toFixed(2))} st
        </DefinitionRow>
      )}
      {first && last && (
        <DefinitionRow label="First and last from the ends">
          {first.along.toFixed(1)} · {(lengthOfLine(repeat.points) - last.along).toFixed(1)} st
        </DefinitionRow>
      )}
      {first && members.some(({ x, y }) => x % 0.5 !== 0 || y % 0.5 !== 0) && (
        <p className="text-warning text-xs py-1">
          Some stand off the grid, the first at {first.x.toFixed(2)}: change the count or the line so that the
          spacing is in half studs.
        </p>
      )}
    </>
  );
}

/** Two lines a plant: its name and leaves, then its numbers. */
const MIX_COLUMNS = 'repeat(4, minmax(0, 1fr)) 2.4rem';

export function PlantingPart({ planting, disabled }: { planting: Planting; disabled: boolean }) {
  const set = useSetFields({ kind: 'planting', id: planting.id });
  const plants = plantsOf(planting);
  const change = (i: number, fields: object) =>
    set('changed the mix of', { mix: planting.mix.map((one, j) => (i === j ? { ...one, ...fields } : one)) });
  const number = (i: number, key: 'share' | 'low' | 'high' | 'crown', word: string, max: number, min = 1) => {
    const plant = planting.mix[i];
    return (
      plant && (
        <NumberField
          bare
          label={`${plant.name}, ${word}`}
          value={plant[key]}
          min={min}
          max={max}
          whole={key === 'low' || key === 'high'}
          disabled={disabled}
          onCommit={(value) => value !== null && change(i, { [key]: value })}
        />
      )
    );
  };
  return (
    <>
      <DefinitionRow label="Plants">{plants.length}</DefinitionRow>
      <Rows
        id="mix"
        title="Mix, with its leaves"
        columns={MIX_COLUMNS}
        words={['parts', 'from, p', 'to, p', 'wide', 'plants'].map((right) => ({ right }))}
        add={{
          word: 'Plant',
          disabled: disabled || planting.mix.length >= 24,
          onClick: () =>
            set('changed the mix of', {
              mix: [...planting.mix, { name: `Plant ${planting.mix.length + 1}` }],
            }),
        }}
      >
        {planting.mix.map(({ name, season }, i) => (
          <Row key={i} label={name} columns={MIX_COLUMNS}>
            <span className="col-span-2">
              <TextField
                bare
                required
                label={`Plant ${i + 1}`}
                value={name}
                disabled={disabled}
                onCommit={(value) => change(i, { name: value })}
              />
            </span>
            <span className="col-span-2">
              <SelectField
                bare
                label={`Leaves of ${name}`}
                value={season}
                options={LEAF_CHOICES}
                disabled={disabled}
                onCommit={(value) => change(i, { season: value })}
              />
            </span>
            <RemoveButton
              what={name}
              disabled={disabled || planting.mix.length < 2}
              onClick={() => set('changed the mix of', { mix: planting.mix.filter((_, j) => j !== i) })}
            />
            {number(i, 'share', 'parts', 1000, 0)}
            {number(i, 'low', 'lowest', 3000)}
            {number(i, 'high', 'highest', 3000)}
            {number(i, 'crown', 'width', 64, 0.5)}
            <span className="fig text-right" title={`Plants of ${name}`}>
              {plants.filter(({ kind }) => kind === i).length}
            </span>
          </Row>
        ))}
      </Rows>
    </>
  );
}
