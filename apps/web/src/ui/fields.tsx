import { useId, useRef, useState, type KeyboardEvent, type ReactNode } from 'react';
import { formatMoney, numberTyped, parseLength } from '@quarry/core/grid';
import { useView } from '../data/view.ts';
import { MEASURES, formatMeasure, formatOtherMeasure, type Measure } from './quantity.ts';

/**
 * Fields commit when one leaves them or presses Enter; Escape puts the value back. Until then nothing is written,
 * and what cannot be written stays in the field with the reason under it.
 */
interface Committed {
  label: string;
  disabled?: boolean;
  /** Hint under the field; for a length, null hides the conversion. */
  hint?: ReactNode;
  /** Hides the label from the eye, for fields in rows. */
  bare?: boolean;
}

interface FrameProps {
  id: string;
  label: string;
  hint?: ReactNode;
  refusal: (Refusal & { take: (at: number) => boolean }) | null;
  children: ReactNode;
  /** The field under its label instead of beside it. */
  wide?: boolean;
  /** The hint beside the field instead of under it. */
  beside?: boolean;
  /** Only the field, for a row with column headings. */
  bare?: boolean;
}

function Frame({ id, label, hint, refusal, children, wide, beside, bare }: FrameProps) {
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
      {refusal && (
        <div role="alert" id={`${id}-error`} className="text-error text-xs py-0.5">
          {refusal.error}
          {refusal.near && refusal.near.length > 0 && (
            <span className="flex flex-wrap gap-1 pt-1">
              {refusal.near.map(({ words }, i) => (
                <button key={words} type="button" className="btn btn-xs fig" onClick={() => refusal.take(i)}>
                  Take {words} <kbd className="ink-2">{i === 0 ? '↓' : '↑'}</kbd>
                </button>
              ))}
            </span>
          )}
        </div>
      )}
    </div>
  );
}

/** Why a text cannot be written, and values that can be taken in its place by one key: the first by ↓, the last by ↑. */
interface Refusal {
  error: string;
  near?: readonly { words: string; take: () => void }[];
}

/** Texts that were refused, by place and field: they wait there until they are mended or given up. */
const refused = new Map<string, { text: string; base: string; refusal: Refusal }>();

function useDraft(label: string, value: string, commit: (text: string) => Refusal | null) {
  const picked = useView((view) => view.picked);
  const place = `${window.location.pathname} ${picked ? `${picked.kind} ${picked.id}` : ''} ${label}`;
  const waiting = () => {
    const before = refused.get(place);
    return before && before.base === value ? before : null;
  };
  const [own, setOwn] = useState(() => ({
    place,
    draft: waiting()?.text ?? null,
    refusal: waiting()?.refusal ?? null,
  }));
  // A field that now shows another thing has nothing of the one before it.
  const now =
    own.place === place
      ? own
      : { place, draft: waiting()?.text ?? null, refusal: waiting()?.refusal ?? null };
  if (now !== own) setOwn(now);
  const id = useId();
  const { draft, refusal } = now;
  const rest = () => {
    refused.delete(place);
    setOwn({ place, draft: null, refusal: null });
  };
  // Leaving a field by Escape is no commit: what was typed is given up before the field knows.
  const givenUp = useRef(false);
  /** @returns whether what was typed is refused */
  const finish = (): boolean => {
    if (draft === null || givenUp.current) return false;
    const wrong = draft === value ? null : commit(draft);
    if (!wrong) {
      rest();
      return false;
    }
    refused.set(place, { text: draft, base: value, refusal: wrong });
    setOwn({ place, draft, refusal: wrong });
    return true;
  };
  const take = (at: number) => {
    const one = refusal?.near?.at(at);
    if (!one) return false;
    rest();
    one.take();
    return true;
  };
  return {
    id,
    refusal: refusal && { ...refusal, take },
    input: {
      id,
      value: draft ?? value,
      'aria-invalid': refusal !== null,
      /** Whether something is being typed: see the keys of undo. */
      'data-draft': draft === null ? 'none' : 'typed',
      'aria-describedby': refusal ? `${id}-error` : undefined,
      onChange: (event: { currentTarget: { value: string } }) =>
        setOwn({ place, draft: event.currentTarget.value, refusal }),
      onBlur: () => void finish(),
      onKeyDown: (event: KeyboardEvent<HTMLInputElement | HTMLTextAreaElement>) => {
        // A form is not sent with the value before a refused one.
        if (event.key === 'Enter' && event.currentTarget.tagName === 'INPUT' && finish())
          event.preventDefault();
        if (event.key === 'ArrowDown' && take(0)) event.preventDefault();
        if (event.key === 'ArrowUp' && take(-1)) event.preventDefault();
        if (event.key !== 'Escape') return;
        if (draft !== null) event.stopPropagation();
        rest();
        givenUp.current = true;
        // The next letter is a tool's, not the field's.
        event.currentTarget.blur();
        givenUp.current = false;
      },
    },
  };
}

const INPUT =
  'input input-xs h-6 px-1 fig bg-base-content/5 disabled:bg-transparent border-transparent hover:border-base-300 focus:border-base-content';

type QuantityProps = Committed & { measure: Measure; min?: number; max?: number; step?: number };

/** A length typed as people say it, shown both ways. */
export function QuantityField(props: QuantityProps & { value: number; onCommit: (value: number) => void }) {
  return <LengthInput {...props} onCommit={(value) => value !== null && props.onCommit(value)} />;
}

/** An optional length: an empty field is null. @param props.none placeholder */
export function OptionalQuantityField(
  props: QuantityProps & { value: number | null; none: string; onCommit: (value: number | null) => void },
) {
  return <LengthInput {...props} />;
}

function LengthInput(
  props: QuantityProps & { value: number | null; none?: string; onCommit: (value: number | null) => void },
) {
  const { label, value, measure, min, max, step, none, onCommit, disabled } = props;
  const metric = useView((view) => view.metric);
  const { size, bare } = MEASURES[measure];
  const shown = value === null ? '' : formatMeasure(value, measure, metric);
  const { id, refusal, input } = useDraft(label, shown, (text) => {
    if (none !== undefined && text.trim() === '') {
      onCommit(null);
      return null;
    }
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
    if (!parsed.ok)
      return {
        error: parsed.error,
        near: parsed.near?.map((length) => ({
          words: formatMeasure(length / size, measure, metric),
          take: () => onCommit(length / size),
        })),
      };
    onCommit(parsed.length / size);
    return null;
  });
  return (
    <Frame
      id={id}
      label={label}
      refusal={refusal}
      beside
      bare={props.bare}
      hint={
        props.hint !== undefined || value === null ? props.hint : formatOtherMeasure(value, measure, metric)
      }
    >
      <input
        {...input}
        className={`${INPUT} text-right ${props.bare ? 'min-w-0 flex-1' : 'shrink-0'} ${metric === 'mm' ? 'w-[5.1rem] max-lg:w-28' : measure === 'm' ? 'w-32 max-lg:w-40' : measure === 'mm' ? 'w-28 max-lg:w-36' : 'w-[5.1rem] max-lg:w-28'}`}
        disabled={disabled}
        inputMode="text"
        autoComplete="off"
        placeholder={none}
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
    /** An amount of money: shown to the hundredth. */
    money?: boolean;
    unit?: string;
    optional?: string;
    onCommit: (value: number | null) => void;
  },
) {
  const { label, value, min, max, whole, money, unit, optional, onCommit, disabled, hint, bare } = props;
  const shown = value === null ? '' : money ? formatMoney(value) : String(value);
  const { id, refusal, input } = useDraft(label, shown, (text) => {
    if (text.trim() === '' && optional !== undefined) {
      onCommit(null);
      return null;
    }
    const number = numberTyped(text, whole);
    if (number === null) return { error: `${label}: “${text}” is not a number.` };
    if (whole && !Number.isInteger(number)) return { error: `${label}: ${number} is not a whole number.` };
    if (number < min) return { error: `${label}: ${number} is below the least, ${min}.` };
    if (number > max) return { error: `${label}: ${number} is above the most, ${max}.` };
    onCommit(number);
    return null;
  });
  return (
    <Frame id={id} label={label} refusal={refusal} hint={hint} bare={bare}>
      <span className={`flex items-center gap-1 ${bare ? 'min-w-0 w-full' : 'shrink-0'}`}>
        <input
          {...input}
          className={`${INPUT} text-right ${bare ? 'w-full min-w-0' : 'w-16 max-lg:w-24'}`}
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

/** Words that may not fit into a field are its tooltip too, characters. */
const LONG_WORDS = 14;

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
  const { id, refusal, input } = useDraft(label, value, (text) => {
    if (required && text.trim() === '') return { error: `${label}: a name is needed.` };
    if (text.length > max) return { error: `${label}: ${text.length} characters; the most is ${max}.` };
    const wrong = check?.(text) ?? null;
    if (wrong !== null) return { error: wrong };
    onCommit(long ? text : text.trim());
    return null;
  });
  return (
    <Frame id={id} label={label} refusal={refusal} hint={hint} wide={long} bare={bare}>
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
          className={`${INPUT} font-sans lg:text-xs ${bare ? 'text-left w-full' : 'text-right w-44'} min-w-0`}
          title={value.length > LONG_WORDS ? value : undefined}
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
    <Frame id={id} label={label} refusal={null} hint={hint} bare={bare}>
      <select
        id={id}
        className={`select select-xs h-6 ${bare ? 'w-full' : 'w-42'} ps-1 bg-base-content/5 shrink-0 border-transparent hover:border-base-300`}
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
  const { id, refusal, input } = useDraft(label, value ?? '', (text) => {
    if (text !== '' && !/^\d{4}-\d{2}-\d{2}$/.test(text))
      return { error: `${label}: “${text}” is not a date.` };
    onCommit(text === '' ? null : text);
    return null;
  });
  return (
    <Frame id={id} label={label} refusal={refusal} hint={hint} bare={bare}>
      <input {...input} type="date" className={`${INPUT} text-right w-36 max-lg:w-40`} disabled={disabled} />
    </Frame>
  );
}

const CLOCK_TIME = /^([01]?\d|2[0-3])[:.]?[0-5]\d$/;

/** A time of day by a clock of 24 hours; 9:30, 09.30 and 0930 are the same. Empty is null where `optional`. */
export function TimeField(
  props: Committed & {
    value: string | null;
    optional?: string;
    placeholder?: string;
    onCommit: (value: string | null) => void;
  },
) {
  const { label, value, optional, onCommit } = props;
  return (
    <TextField
      {...props}
      value={value ?? ''}
      placeholder={optional ?? props.placeholder}
      check={(text) => {
        const typed = text.trim();
        if (typed === '' && optional !== undefined) return null;
        return CLOCK_TIME.test(typed) ? null : `${label}: “${text}” is no time of day, such as 18:00.`;
      }}
      onCommit={(text) => {
        const digits = text.replace(/\D/g, '').padStart(4, '0');
        onCommit(text.trim() === '' ? null : `${digits.slice(0, 2)}:${digits.slice(2)}`);
      }}
    />
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
    <Frame id={id} label={label} refusal={null} hint={hint} bare={bare}>
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

/** A picture from a file. @param fault why the last one could not be read */
export function PictureField({
  label,
  fault,
  onFile,
}: {
  label: string;
  fault: string | null;
  onFile: (file: File | undefined) => Promise<void>;
}) {
  return (
    <label className="block pb-2">
      <span className="block ink-2 text-xs">{label}</span>
      <input
        type="file"
        accept="image/*"
        className="file-input file-input-xs w-full"
        aria-invalid={fault !== null}
        onChange={(event) => void onFile(event.currentTarget.files?.[0])}
      />
      {fault && (
        <span role="alert" className="text-error text-xs">
          {fault}
        </span>
      )}
    </label>
  );
}
