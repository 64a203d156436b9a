import { useId, useState, type KeyboardEvent, type ReactNode } from 'react';
import { parseLength } from '@quarry/core/lattice';
import { useView } from '../data/view.ts';
import { MEASURES, say, sayAlso, type Measure } from './quantity.ts';

/**
 * Fields commit when one leaves them or presses Enter; Escape puts the value back. Until then nothing is written,
 * and what cannot be written stays in the field with the reason under it.
 */
interface Committed {
  label: string;
  disabled?: boolean;
  /** A word on what the number means. */
  hint?: ReactNode;
  /** Hides the label from the eye, for fields in rows. */
  bare?: boolean;
}

interface FrameProps {
  id: string;
  label: string;
  hint?: ReactNode;
  error: string | null;
  children: ReactNode;
  /** The field under its label instead of beside it. */
  wide?: boolean;
  /** The hint beside the field instead of under it. */
  beside?: boolean;
  /** Only the field: in a row whose heading says what it is. */
  bare?: boolean;
}

function Frame({ id, label, hint, error, children, wide, beside, bare }: FrameProps) {
  const hintText = hint && (
    <div
      className={`fig ink-2 text-[11px] leading-4 whitespace-nowrap ${beside ? 'w-[4rem] text-right shrink-0' : wide ? '' : 'text-right'}`}
    >
      {hint}
    </div>
  );
  return (
    <div className={bare ? 'py-0.5' : 'border-b hair py-[3px]'}>
      <div className={wide ? '' : 'flex items-center gap-2'}>
        <label htmlFor={id} className={bare ? 'sr-only' : wide ? '' : 'flex-1 min-w-0'}>
          {label}
        </label>
        {children}
        {beside && hintText}
      </div>
      {!beside && hintText}
      {error && (
        <p role="alert" id={`${id}-error`} className="text-error text-xs py-0.5">
          {error}
        </p>
      )}
    </div>
  );
}

function useDraft(value: string, commit: (text: string) => string | null) {
  const [draft, setDraft] = useState<string | null>(null);
  const [error, setError] = useState<string | null>(null);
  const id = useId();
  const finish = () => {
    if (draft === null) return;
    if (draft === value) {
      setDraft(null);
      setError(null);
      return;
    }
    const wrong = commit(draft);
    setError(wrong);
    if (wrong === null) setDraft(null);
  };
  return {
    id,
    error,
    input: {
      id,
      value: draft ?? value,
      'aria-invalid': error !== null,
      'aria-describedby': error ? `${id}-error` : undefined,
      onChange: (event: { currentTarget: { value: string } }) => setDraft(event.currentTarget.value),
      onBlur: finish,
      onKeyDown: (event: KeyboardEvent<HTMLInputElement | HTMLTextAreaElement>) => {
        if (event.key === 'Enter' && event.currentTarget.tagName === 'INPUT') finish();
        if (event.key !== 'Escape' || draft === null) return;
        event.stopPropagation();
        setDraft(null);
        setError(null);
      },
    },
  };
}

const INPUT =
  'input input-xs h-6 px-1 fig bg-base-content/5 disabled:bg-transparent border-transparent hover:border-base-300 focus:border-base-content';

/** A length typed as people say it, shown both ways. */
export function QuantityField(
  props: Committed & {
    value: number;
    measure: Measure;
    min?: number;
    max?: number;
    step?: number;
    onCommit: (value: number) => void;
  },
) {
  const { label, value, measure, min, max, step, onCommit, disabled } = props;
  const metric = useView((view) => view.metric);
  const { size, bare } = MEASURES[measure];
  const { id, error, input } = useDraft(say(value, measure, metric), (text) => {
    const limits = {
      name: label,
      ...(min === undefined ? {} : { min: min * size }),
      ...(max === undefined ? {} : { max: max * size }),
      // What a tape measures stands on no grid.
      ...(measure === 'mm' || measure === 'm'
        ? {}
        : { step: (step ?? (measure === 'plates' ? 1 : 0.5)) * size }),
    };
    const parsed = parseLength(text.replace('≈', ''), bare[metric], limits);
    if (!parsed.ok) return parsed.error;
    onCommit(parsed.length / size);
    return null;
  });
  return (
    <Frame
      id={id}
      label={label}
      error={error}
      beside
      bare={props.bare}
      hint={props.hint ?? sayAlso(value, measure, metric)}
    >
      <input
        {...input}
        className={`${INPUT} text-right shrink-0 ${metric === 'mm' ? 'w-[5.1rem]' : measure === 'm' ? 'w-32' : measure === 'mm' ? 'w-28' : 'w-[5.1rem]'}`}
        disabled={disabled}
        inputMode="text"
        autoComplete="off"
      />
    </Frame>
  );
}

/** A plain number: a count, a price, a ratio, a percentage. Empty is null where `optional`. */
export function NumberField(
  props: Committed & {
    value: number | null;
    min: number;
    max: number;
    whole?: boolean;
    unit?: string;
    optional?: string;
    onCommit: (value: number | null) => void;
  },
) {
  const { label, value, min, max, whole, unit, optional, onCommit, disabled, hint, bare } = props;
  const { id, error, input } = useDraft(value === null ? '' : String(value), (text) => {
    const trimmed = text.trim().replace(',', '.');
    if (trimmed === '' && optional !== undefined) {
      onCommit(null);
      return null;
    }
    const number = Number(trimmed);
    if (trimmed === '' || !Number.isFinite(number)) return `${label}: «${text}» is not a number.`;
    if (whole && !Number.isInteger(number)) return `${label}: ${number} is not a whole number.`;
    if (number < min) return `${label}: ${number} is below the least, ${min}.`;
    if (number > max) return `${label}: ${number} is above the most, ${max}.`;
    onCommit(number);
    return null;
  });
  return (
    <Frame id={id} label={label} error={error} hint={hint} bare={bare}>
      <span className={`flex items-center gap-1 ${bare ? 'min-w-0 w-full' : 'shrink-0'}`}>
        <input
          {...input}
          className={`${INPUT} text-right ${bare ? 'w-full min-w-0' : 'w-16'}`}
          disabled={disabled}
          inputMode="decimal"
          autoComplete="off"
          placeholder={optional}
        />
        {unit && <span className="ink-2 text-xs whitespace-nowrap">{unit}</span>}
      </span>
    </Frame>
  );
}

export function TextField(
  props: Committed & {
    value: string;
    max?: number;
    required?: boolean;
    long?: boolean;
    placeholder?: string;
    /** What else may be wrong with the text, as a sentence. */
    check?: (text: string) => string | null;
    onCommit: (value: string) => void;
  },
) {
  const {
    label,
    value,
    max = 80,
    required,
    long,
    check,
    onCommit,
    disabled,
    hint,
    placeholder,
    bare,
  } = props;
  const { id, error, input } = useDraft(value, (text) => {
    if (required && text.trim() === '') return `${label}: a name is needed.`;
    if (text.length > max) return `${label}: ${text.length} characters; the most is ${max}.`;
    const wrong = check?.(text) ?? null;
    if (wrong === null) onCommit(long ? text : text.trim());
    return wrong;
  });
  return (
    <Frame id={id} label={label} error={error} hint={hint} wide={long} bare={bare}>
      {long ? (
        <textarea
          {...input}
          rows={3}
          className="textarea textarea-xs w-full mt-1 bg-base-content/5"
          disabled={disabled}
          placeholder={placeholder}
        />
      ) : (
        <input
          {...input}
          className={`${INPUT} font-sans text-xs ${bare ? 'text-left w-full' : 'text-right w-44'} min-w-0`}
          disabled={disabled}
          autoComplete="off"
          placeholder={placeholder}
        />
      )}
    </Frame>
  );
}

export function SelectField<T extends string>(
  props: Committed & {
    value: T;
    options: readonly { value: T; word: string }[];
    onCommit: (value: T) => void;
  },
) {
  const { label, value, options, onCommit, disabled, hint, bare } = props;
  const id = useId();
  return (
    <Frame id={id} label={label} error={null} hint={hint} bare={bare}>
      <select
        id={id}
        className={`select select-xs h-6 ${bare ? 'w-full' : 'w-44'} ps-1 bg-base-content/5 shrink-0 border-transparent hover:border-base-300`}
        value={value}
        disabled={disabled}
        onChange={(event) => {
          const picked = options.find((option) => option.value === event.currentTarget.value);
          if (picked) onCommit(picked.value);
        }}
      >
        {options.map((option) => (
          <option key={option.value} value={option.value}>
            {option.word}
          </option>
        ))}
      </select>
    </Frame>
  );
}

export function DateField({
  label,
  value,
  onCommit,
  disabled,
  hint,
  bare,
}: Committed & { value: string | null; onCommit: (value: string | null) => void }) {
  const { id, error, input } = useDraft(value ?? '', (text) => {
    if (text !== '' && !/^\d{4}-\d{2}-\d{2}$/.test(text)) return `${label}: «${text}» is not a date.`;
    onCommit(text === '' ? null : text);
    return null;
  });
  return (
    <Frame id={id} label={label} error={error} hint={hint} bare={bare}>
      <input {...input} type="date" className={`${INPUT} text-right w-36`} disabled={disabled} />
    </Frame>
  );
}

export function CheckField({
  label,
  value,
  onCommit,
  disabled,
  hint,
  bare,
}: Committed & { value: boolean; onCommit: (value: boolean) => void }) {
  const id = useId();
  return (
    <Frame id={id} label={label} error={null} hint={hint} bare={bare}>
      <input
        id={id}
        type="checkbox"
        className="checkbox checkbox-xs"
        checked={value}
        disabled={disabled}
        onChange={(event) => onCommit(event.currentTarget.checked)}
      />
    </Frame>
  );
}
