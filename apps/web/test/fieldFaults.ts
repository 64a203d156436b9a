import { KINDS, type Kind } from '@quarry/core/document';
import { unitOf } from '@quarry/core/history';
import type { FieldSpec } from '../src/ui/fieldSpec.ts';

/** What a schema tells of a value. */
interface Checks {
  safeParse: (value: unknown) => { success: boolean };
}

/** Where a table of fields and the schema of its kind disagree, as sentences; empty: nowhere. Asked by tests. */
export function fieldFaults(kind: Kind, fields: readonly FieldSpec[]): string[] {
  const shape = Object.entries<Checks>(KINDS[kind].schema.shape);
  const twice = (words: readonly string[]) => words.filter((word, i) => words.indexOf(word) < i);
  const faults = [...twice(fields.map(({ key }) => key)), ...twice(fields.map(({ label }) => label))].map(
    (word) => `${word} twice`,
  );
  for (const field of fields) {
    const schema = shape.find(([key]) => key === field.key)?.[1];
    const isTaken = (value: unknown) => schema?.safeParse(value).success === true;
    const valid = validValues(field).filter((value) => !isTaken(value));
    faults.push(...valid.map((value) => `${field.key} does not take ${String(value)}`));
    if (!schema) faults.push(`${kind} has no ${field.key}`);
    if (field.as === 'long' && isTaken('x'.repeat(field.max + 1)))
      faults.push(`${field.key} takes more than ${field.max} letters`);
    const mayLack = field.as === 'length' || field.as === 'number' || field.as === 'choice';
    if (mayLack && (field.optional !== undefined) !== isTaken(null))
      faults.push(`${field.key} may ${isTaken(null) ? '' : 'not '}be unknown`);
    const [typed, told] = [unitOfField(field), unitOf(kind, field.key)];
    if (typed !== undefined && typed !== told)
      faults.push(`${field.key} is typed in ${typed ?? 'no unit'} and told in ${told ?? 'no unit'}`);
  }
  return faults;
}

/** Units as fields write them, by what the history calls them. */
const UNITS: Readonly<Record<string, string>> = {
  ...{ '%': 'percent', '°': 'degrees', '° from north': 'degrees', kg: 'kg', g: 'grams', m: 'metres' },
  ...{ h: 'hours', min: 'minutes', V: 'volts', mA: 'milliamps', mAh: 'milliampHours' },
  ...{ studs: 'studs', mm: 'mm', plates: 'plates' },
};

/** What a field's number is counted in; null: in nothing; undefined: it is no number, or in words of its own. */
function unitOfField(field: FieldSpec): string | null | undefined {
  if (field.as === 'length') return field.measure;
  if (field.as !== 'number') return undefined;
  return field.unit === undefined ? null : UNITS[field.unit];
}

/** Values that a field lets through. */
function validValues(field: FieldSpec): unknown[] {
  if (field.as === 'choice')
    return typeof field.options === 'function' ? [] : field.options.map(({ value }) => value);
  if (field.as === 'long') return ['x'.repeat(field.max)];
  if (field.as !== 'length' && field.as !== 'number') return [];
  return [Math.min(field.max, Math.max(field.min, 8)), field.min, field.max];
}
