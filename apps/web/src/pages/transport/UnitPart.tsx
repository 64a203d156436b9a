import { formatKg } from '@quarry/core/grid';
import { PACKED_AS, listOf } from '@quarry/core/document';
import type { LoadUnit } from '@quarry/core/transport';
import { useScene } from '../../data/useDisplay.tsx';
import { CheckField, NumberField, SelectField } from '../../ui/fields.tsx';
import { FindingsHere } from '../../frame/Findings.tsx';
import { DefinitionRow, Heading } from '../../ui/parts.tsx';
import { useMeasureFormat } from '../../ui/useMeasureFormat.ts';
import { useHandle } from './handling.ts';

const PACKING_WORDS: Record<(typeof PACKED_AS)[number], string> = {
  auto: 'As it fits best',
  bare: 'Without a crate',
  crate: 'In a crate',
};

/** Whether a thing is this one or lies in it. */
const isIn = ({ key, holds }: LoadUnit, piece: string): boolean =>
  piece !== '' && (piece === key || holds.some((content) => content.key === piece));

const TICK_WORDS = { loaded: 'Put in', arrived: 'Arrived' } as const;

/** One thing that is loaded: its size, how it travels, what is in it. */
export function UnitPart({ unit, onClose }: { unit: LoadUnit; onClose: () => void }) {
  const scene = useScene('crate', 'incident');
  const { say } = useMeasureFormat();
  const { set, isForbidden } = useHandle();
  const { key, name, ref, w, d, h, grams, holds, handling } = unit;
  const mm = (value: number) => say(Math.round(value), 'mm');
  const crates = listOf(scene, 'crate');
  const isCarried = ref !== null && ref.kind !== 'cargo';
  return (
    <section aria-label={name} className="border-l-4 border-base-300 pl-2 my-2">
      <Heading
        aside={
          <button type="button" className="link link-hover text-xs" onClick={onClose}>
            Close
          </button>
        }
      >
        {name}
      </Heading>
      <dl>
        <DefinitionRow label="As it travels">
          {mm(w)} × {mm(d)} × {mm(h)}
        </DefinitionRow>
        <DefinitionRow label="Mass">{formatKg(grams)}</DefinitionRow>
      </dl>
      {listOf(scene, 'incident')
        .filter(({ use, piece, ended }) => use === 'broke' && ended === null && isIn(unit, piece))
        .map(({ id, what }) => (
          <p key={id} className="text-warning text-xs py-1">
            △ Broke, not mended yet: {what}
          </p>
        ))}
      {(['loaded', 'arrived'] as const).map((field) => (
        <CheckField
          key={field}
          label={TICK_WORDS[field]}
          value={Boolean(handling?.[field])}
          disabled={isForbidden}
          onCommit={(is) =>
            set(`${is ? '' : 'not '}${TICK_WORDS[field].toLowerCase()}: ${name}`, key, {
              [field]: is ? new Date().toISOString() : null,
            })
          }
        />
      ))}
      {isCarried && (
        <>
          <PackingField piece={key} unit={unit} crates={crates} />
          <CheckField
            label="Laid on its side"
            value={handling?.lying ?? false}
            disabled={isForbidden}
            onCommit={(lying) => set(`${lying ? 'laid' : 'stood'} ${name}`, key, { lying })}
          />
          <NumberField
            label="Bears on top"
            unit="kg"
            value={handling?.bearsKg ?? 0}
            min={0}
            max={2000}
            disabled={isForbidden}
            onCommit={(kg) => kg !== null && set(`what bears ${name}`, key, { bearsKg: kg })}
          />
          <FindingsHere picked={ref} />
        </>
      )}
      {holds.length > 0 && (
        <ul className="text-xs py-1" aria-label={`In ${name}`}>
          {holds.map((content) => (
            <li key={content.key} className="flex justify-between border-b hair py-0.5">
              <span>
                {content.name}
                {content.count > 1 ? ` (${content.count})` : ''}
              </span>
              <span className="fig ink-2">
                {mm(content.w)} × {mm(content.d)} × {mm(content.h)}
              </span>
            </li>
          ))}
        </ul>
      )}
    </section>
  );
}

function PackingField({
  piece,
  unit: { name, handling },
  crates,
}: {
  piece: string;
  unit: LoadUnit;
  crates: readonly { id: string; name: string }[];
}) {
  const { set, isForbidden } = useHandle();
  const packing = handling?.packing ?? 'auto';
  return (
    <>
      <SelectField
        label="Packed"
        value={packing}
        options={PACKED_AS.map((value) => ({ value, word: PACKING_WORDS[value] }))}
        disabled={isForbidden}
        onCommit={(next) => set(`how ${name} is packed`, piece, { packing: next })}
      />
      {packing === 'crate' && (
        <SelectField
          label="Crate"
          value={handling?.crate ?? ''}
          options={[
            { value: '', word: 'the smallest that holds it' },
            ...crates.map(({ id, name: word }) => ({ value: id, word })),
          ]}
          disabled={isForbidden}
          onCommit={(crate) => set(`the crate of ${name}`, piece, { crate: crate || null })}
        />
      )}
    </>
  );
}
