import { dequal } from 'dequal/lite';
import { Link } from 'react-router';
import { SIDES, SIDE_WORDS, labelOf, type Side } from '@quarry/core/document';
import { useEdit, useEntity, useLink, useScene } from '../data/useDisplay.tsx';
import type { Picked } from '../data/view.ts';
import {
  CheckField,
  NumberField,
  OptionalQuantityField,
  QuantityField,
  SelectField,
  TextField,
} from './fields.tsx';
import type { FieldSpec } from './fieldSpec.ts';
import { useMeasureFormat } from './useMeasureFormat.ts';

/** Sets fields of one thing of the plan, with the words for the history. */
export function useSetFields(picked: Picked) {
  const { kind, id } = picked;
  const link = useLink();
  const edit = useEdit();
  const entity = useEntity(picked);
  return (verb: string, set: Record<string, unknown>) => {
    if (!entity) return;
    const before: Record<string, unknown> = { ...entity };
    if (Object.keys(set).every((key) => dequal(before[key], set[key]))) return;
    edit.change(`${verb} ${labelOf(link.getState().scene, kind, id)}`, [
      { op: 'patch', kind, id, v: entity.v, set },
    ]);
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
  ratedKg: 'changed the rating of',
  leaves: 'changed the leaves of',
  leafGap: 'changed the leaves of',
};

/** The form of an entity, from the table of its kind's fields. */
export function EntityFields({
  picked,
  fields,
  disabled,
}: {
  picked: Picked;
  fields: readonly FieldSpec[];
  disabled: boolean;
}) {
  const set = useSetFields(picked);
  const entity = useEntity(picked);
  if (!entity) return null;
  const data: Record<string, unknown> = { ...entity };
  return fields
    .filter(({ when }) => !when || when(data))
    .map((spec) => (
      <FieldOf
        key={spec.key}
        field={spec}
        data={data}
        disabled={disabled}
        onCommit={(value) => set(VERBS[spec.key] ?? 'changed', { [spec.key]: value })}
      />
    ));
}

interface FieldProps<F> {
  field: F;
  data: Readonly<Record<string, unknown>>;
  disabled: boolean;
  onCommit: (value: unknown) => void;
}
type SpecAs<A extends FieldSpec['as']> = Extract<FieldSpec, { as: A }>;

function FieldOf({ field, data, disabled, onCommit }: FieldProps<FieldSpec>) {
  const { label, key } = field;
  const value = data[key];
  const common = { label, disabled, onCommit };
  switch (field.as) {
    case 'text':
      return <TextField {...common} required value={String(value)} />;
    case 'long':
      return <TextField {...common} long max={field.max} value={String(value)} />;
    case 'check':
      return <CheckField {...common} value={value === true} />;
    case 'sides':
      return <SidesField {...common} value={sidesIn(value)} />;
    case 'choice':
      return <ChoiceOf field={field} data={data} disabled={disabled} onCommit={onCommit} />;
    case 'number':
      return (
        <NumberField
          {...common}
          value={typeof value === 'number' ? value : field.optional === undefined ? 0 : null}
          min={field.min}
          max={field.max}
          whole={field.whole}
          unit={field.unit}
          optional={field.optional}
        />
      );
    case 'length':
      return <LengthOf field={field} data={data} disabled={disabled} onCommit={onCommit} />;
  }
}

/** The value of no choice. */
const NONE = '';

function ChoiceOf({ field, data, disabled, onCommit }: FieldProps<SpecAs<'choice'>>) {
  const scene = useScene('level', 'place', 'circuit', 'supply', 'customGround');
  const { say } = useMeasureFormat();
  const { id: display } = useLink();
  const { label, key, options, whole, optional, more } = field;
  const none = optional === undefined ? [] : [{ value: NONE, word: optional }];
  return (
    <SelectField
      label={label}
      value={data[key] === null ? NONE : String(data[key])}
      disabled={disabled}
      options={[...none, ...(typeof options === 'function' ? options({ scene, data, say }) : options)]}
      hint={
        more && (
          <Link className="link link-hover inline-flex min-h-6 items-center" to={`/d/${display}/${more.at}`}>
            {more.word}
          </Link>
        )
      }
      onCommit={(value) => onCommit(value === NONE ? null : whole ? Number(value) : value)}
    />
  );
}

/** A length; emptied, one that may be unknown is so again. */
function LengthOf({ field, data, disabled, onCommit }: FieldProps<SpecAs<'length'>>) {
  const { label, key, measure, min, max, step, optional } = field;
  const value = data[key];
  const props = { label, measure, min, max, step, disabled, onCommit };
  return optional === undefined ? (
    <QuantityField {...props} value={typeof value === 'number' ? value : 0} />
  ) : (
    <OptionalQuantityField {...props} value={typeof value === 'number' ? value : null} none={optional} />
  );
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
