import { dequal } from 'dequal/lite';
import { formatPlates } from '@quarry/core/grid';
import { SIDES, SIDE_WORDS, labelOf, listOf, type Entity, type Kind, type Side } from '@quarry/core/document';
import { useDisplay, useEdit, useScene } from '../../data/useDisplay.tsx';
import type { Picked } from '../../data/view.ts';
import { CheckField, NumberField, QuantityField, SelectField, TextField } from '../../ui/fields.tsx';
import { FIELDS, type FieldSpec } from './fieldTables.ts';

/** Sets fields of one thing of the plan, with the words for the history. */
export function useSetFields({ kind, id }: Picked) {
  const scene = useDisplay(({ scene }) => scene);
  const edit = useEdit();
  const entity: Entity<Kind> | undefined = scene[kind][id];
  return (verb: string, set: Record<string, unknown>) => {
    if (!entity) return;
    const before: Record<string, unknown> = { ...entity };
    if (Object.keys(set).every((key) => dequal(before[key], set[key]))) return;
    edit.change(`${verb} ${labelOf(scene, kind, id)}`, [{ op: 'patch', kind, id, v: entity.v, set }]);
  };
}

/** Label of a field change in the history. */
const VERBS: Readonly<Record<string, string>> = {
  name: 'renamed',
  w: 'resized',
  d: 'resized',
  x: 'moved',
  y: 'moved',
  turn: 'turned',
  height: 'changed the height of',
  offset: 'raised',
  level: 'changed the level of',
  ground: 'changed the ground of',
  shape: 'reshaped',
};

/** The fields of a thing, from the table of its kind. */
export function EntityFields({ picked, disabled }: { picked: Picked; disabled: boolean }) {
  const scene = useDisplay(({ scene }) => scene);
  const set = useSetFields(picked);
  const entity: Entity<Kind> | undefined = scene[picked.kind][picked.id];
  if (!entity) return null;
  const data: Record<string, unknown> = { ...entity };
  return (FIELDS[picked.kind] ?? [])
    .filter(({ when }) => !when || when(data))
    .map((field) => (
      <FieldOf
        key={field.key}
        field={field}
        value={data[field.key]}
        disabled={disabled}
        onCommit={(value) => set(VERBS[field.key] ?? 'changed', { [field.key]: value })}
      />
    ));
}

function FieldOf({
  field,
  value,
  disabled,
  onCommit,
}: {
  field: FieldSpec;
  value: unknown;
  disabled: boolean;
  onCommit: (value: unknown) => void;
}) {
  const scene = useScene('level');
  const { label } = field;
  switch (field.as) {
    case 'text':
      return (
        <TextField label={label} required value={String(value)} disabled={disabled} onCommit={onCommit} />
      );
    case 'long':
      return (
        <TextField
          label={label}
          long
          max={field.key === 'story' ? 200 : 2000}
          value={String(value)}
          disabled={disabled}
          onCommit={onCommit}
        />
      );
    case 'check':
      return <CheckField label={label} value={value === true} disabled={disabled} onCommit={onCommit} />;
    case 'sides':
      return <SidesField label={label} value={sidesIn(value)} disabled={disabled} onCommit={onCommit} />;
    case 'level':
      return (
        <SelectField
          label={label}
          value={String(value)}
          disabled={disabled}
          options={listOf(scene, 'level').map(({ id, name, height }) => ({
            value: id,
            word: `${name}, ${formatPlates(height)}`,
          }))}
          onCommit={onCommit}
        />
      );
    case 'choice':
      return (
        <SelectField
          label={label}
          value={String(value)}
          disabled={disabled}
          options={field.options}
          onCommit={onCommit}
        />
      );
    case 'number':
      return (
        <NumberField
          label={label}
          value={typeof value === 'number' ? value : 0}
          min={field.min}
          max={field.max}
          whole={field.whole}
          unit={field.unit}
          disabled={disabled}
          onCommit={onCommit}
        />
      );
    case 'length':
      return field.optional && typeof value !== 'number' ? (
        <div className="flex justify-between items-center border-b hair py-[3px]">
          <span>{label}</span>
          <button
            type="button"
            className="btn btn-xs h-6"
            disabled={disabled}
            aria-label={`Say ${label}`}
            onClick={() => onCommit(field.measure === 'studs' ? 8 : 18)}
          >
            Not said
          </button>
        </div>
      ) : (
        <QuantityField
          label={label}
          value={typeof value === 'number' ? value : 0}
          measure={field.measure}
          min={field.min}
          max={field.max}
          step={field.step}
          disabled={disabled}
          onCommit={onCommit}
        />
      );
  }
}

const sidesIn = (value: unknown): Side[] =>
  Array.isArray(value) ? SIDES.filter((side) => value.includes(side)) : [];

/** Any of the four sides, by the compass. */
function SidesField({
  label,
  value,
  disabled,
  onCommit,
}: {
  label: string;
  value: readonly Side[];
  disabled: boolean;
  onCommit: (value: Side[]) => void;
}) {
  return (
    <fieldset className="flex items-center justify-between border-b hair py-[3px]" disabled={disabled}>
      <legend className="sr-only">{label}</legend>
      <span aria-hidden>{label}</span>
      <span className="join">
        {SIDES.map((side) => (
          <button
            key={side}
            type="button"
            disabled={disabled}
            aria-pressed={value.includes(side)}
            aria-label={`${label}: ${SIDE_WORDS[side]}`}
            className={`btn btn-xs h-6 w-8 join-item fig uppercase ${value.includes(side) ? 'btn-neutral' : ''}`}
            onClick={() =>
              onCommit(SIDES.filter((one) => (one === side ? !value.includes(one) : value.includes(one))))
            }
          >
            {side}
          </button>
        ))}
      </span>
    </fieldset>
  );
}
