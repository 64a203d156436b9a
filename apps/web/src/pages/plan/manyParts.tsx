import { lengthOfLine, MM_PER_STUD } from '@quarry/core/grid';
import { membersOf, plantsOf } from '@quarry/core/terrain';
import { listOf, type Planting, type Repeat } from '@quarry/core/document';
import { useScene } from '../../data/useDisplay.tsx';
import { NumberField, TextField } from '../../ui/fields.tsx';
import { DefinitionRow } from '../../ui/parts.tsx';
import { RemoveButton, Row, Rows } from '../../ui/rows.tsx';
import { useSetFields } from '../../ui/EntityForm.tsx';

// What comes of repeats and plantings: how many, how far apart, of which kind.

export function RepeatPart({ repeat }: { repeat: Repeat }) {
  const scene = useScene('module');
  const { members, dropped } = membersOf(repeat, listOf(scene, 'module'));
  const apart = members.length > 1 ? members[1].along - members[0].along : null;
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
      {members.length > 0 && (
        <DefinitionRow label="First and last from the ends">
          {members[0].along.toFixed(1)} ·{' '}
          {(lengthOfLine(repeat.points) - members[members.length - 1].along).toFixed(1)} st
        </DefinitionRow>
      )}
      {members.length > 0 && members.some(({ x, y }) => x % 0.5 !== 0 || y % 0.5 !== 0) && (
        <p className="text-warning text-xs py-1">
          Some stand off the grid, the first at {members[0].x.toFixed(2)}: change the count or the line so
          that the spacing is in half studs.
        </p>
      )}
    </>
  );
}

export function PlantingPart({ planting, disabled }: { planting: Planting; disabled: boolean }) {
  const set = useSetFields({ kind: 'planting', id: planting.id });
  const plants = plantsOf(planting);
  const columns = '1fr 2.6rem 3rem 3rem 2.6rem 24px';
  const change = (i: number, fields: object) =>
    set('changed the mix of', { mix: planting.mix.map((one, j) => (i === j ? { ...one, ...fields } : one)) });
  const number = (i: number, key: 'share' | 'low' | 'high' | 'crown', word: string, max: number, min = 1) => (
    <NumberField
      bare
      label={`${planting.mix[i].name}, ${word}`}
      value={planting.mix[i][key]}
      min={min}
      max={max}
      whole={key === 'low' || key === 'high'}
      disabled={disabled}
      onCommit={(value) => value !== null && change(i, { [key]: value })}
    />
  );
  return (
    <>
      <DefinitionRow label="Plants">{plants.length}</DefinitionRow>
      <Rows
        id="mix"
        title="Mix"
        columns={columns}
        words={['Plant', { right: 'parts' }, { right: 'from, p' }, { right: 'to, p' }, { right: 'wide' }]}
        add={{
          word: 'Plant',
          disabled: disabled || planting.mix.length >= 24,
          onClick: () =>
            set('changed the mix of', {
              mix: [...planting.mix, { name: `Plant ${planting.mix.length + 1}` }],
            }),
        }}
      >
        {planting.mix.map(({ name }, i) => (
          <Row key={i} label={name} columns={columns}>
            <TextField
              bare
              required
              label={`Plant ${i + 1}`}
              value={name}
              disabled={disabled}
              onCommit={(value) => change(i, { name: value })}
            />
            {number(i, 'share', 'parts', 1000, 0)}
            {number(i, 'low', 'lowest', 3000)}
            {number(i, 'high', 'highest', 3000)}
            {number(i, 'crown', 'width', 64, 0.5)}
            <RemoveButton
              what={name}
              disabled={disabled || planting.mix.length < 2}
              onClick={() => set('changed the mix of', { mix: planting.mix.filter((_, j) => j !== i) })}
            />
          </Row>
        ))}
      </Rows>
      <ul className="text-xs ink-2">
        {planting.mix.map(({ name }, kind) => (
          <li key={kind} className="flex justify-between">
            <span>{name}</span>
            <span className="fig">{plants.filter((plant) => plant.kind === kind).length}</span>
          </li>
        ))}
      </ul>
    </>
  );
}
