import { Printer } from 'lucide-react';
import {
  BACKS,
  COLOUR_POLICIES,
  GLUES,
  MONTH_WORDS,
  PLACEHOLDERS,
  SEASONS,
  WINDS,
  WIND_WORDS,
  displayOf,
} from '@quarry/core/document';
import { useSheets } from '../../data/sheets.ts';
import { useScene } from '../../data/useDisplay.tsx';
import { COLOUR_CHOICES } from '../../ui/fieldSpec.ts';
import { OptionalQuantityField, SelectField, TextField } from '../../ui/fields.tsx';
import { Heading } from '../../ui/parts.tsx';
import { capital } from '../../ui/words.ts';
import { useSetDisplay } from '../../data/useSetDisplay.ts';

const COLOUR_WORDS: Record<(typeof COLOUR_POLICIES)[number], string> = {
  strict: 'Strict: as the recipe',
  aged: 'Old and new mixed',
  free: 'Any colour',
};
const BACK_WORDS: Record<(typeof BACKS)[number], string> = {
  bare: 'Bare',
  plain: 'Plain walls',
  finished: 'Finished like the front',
};
const GLUE_WORDS: Record<(typeof GLUES)[number], string> = {
  none: 'No glue',
  hidden: 'Only where unseen',
  allowed: 'Allowed',
};
const PLACEHOLDER_WORDS: Record<(typeof PLACEHOLDERS)[number], string> = {
  none: 'None may be built in',
  listed: 'Each is listed, to be swapped',
  allowed: 'Allowed to stay',
};

const options = <T extends string>(values: readonly T[], words: Record<T, string>) =>
  values.map((value) => ({ value, word: words[value] }));

/** What the whole crew agrees on, on one sheet that can be printed. */
export function HouseRules({ disabled }: { disabled: boolean }) {
  const scene = useScene('display');
  const sheets = useSheets();
  const set = useSetDisplay();
  const display = displayOf(scene);
  const rule = (fields: Partial<typeof display>) => set('changed the house rules', fields);
  return (
    <section aria-labelledby="house">
      <Heading
        id="house"
        aside={
          <a
            className="act link link-hover text-secondary inline-flex items-center gap-1"
            href={sheets('rules.pdf')}
            target="_blank"
            rel="noreferrer"
          >
            <Printer size={12} aria-hidden /> One sheet for the crew (PDF)
          </a>
        }
      >
        House rules
      </Heading>
      <SelectField
        label="Wind blows from"
        value={display.wind ?? ''}
        disabled={disabled}
        options={[
          { value: '', word: 'not agreed' },
          ...options(WINDS, WIND_WORDS).map((one) => ({ ...one, word: capital(one.word) })),
        ]}
        onCommit={(wind) => rule({ wind: wind === '' ? null : wind })}
      />
      <SelectField
        label="Season"
        value={display.season ?? ''}
        disabled={disabled}
        options={[
          { value: '', word: 'not agreed' },
          ...SEASONS.map((value) => ({ value, word: capital(value) })),
        ]}
        onCommit={(season) => rule({ season: season === '' ? null : season })}
      />
      <SelectField
        label="Month, for leaves"
        value={String(display.month ?? '')}
        disabled={disabled}
        options={[
          { value: '', word: 'not agreed' },
          ...MONTH_WORDS.map((word, i) => ({ value: String(i + 1), word })),
        ]}
        onCommit={(month) => rule({ month: month === '' ? null : Number(month) })}
      />
      <TextField
        label="Heights are measured from"
        required
        value={display.datum}
        disabled={disabled}
        onCommit={(datum) => rule({ datum })}
      />
      <OptionalQuantityField
        measure="studs"
        step={1}
        label="Street front, depth"
        none="none"
        value={display.streetDepth}
        min={1}
        max={4096}
        disabled={disabled}
        onCommit={(streetDepth) => rule({ streetDepth })}
      />
      {display.streetDepth !== null && (
        <Widths
          value={display.streetWidths}
          disabled={disabled}
          onCommit={(streetWidths) => rule({ streetWidths })}
        />
      )}
      {(['pavementLight', 'pavementDark'] as const).map((key) => (
        <SelectField
          key={key}
          label={key === 'pavementLight' ? 'Pavement, light rows' : 'Pavement, dark rows'}
          value={display[key]}
          disabled={disabled}
          options={COLOUR_CHOICES}
          onCommit={(colour) => rule({ [key]: colour })}
        />
      ))}
      <SelectField
        label="Colours where seen"
        value={display.colourSeen}
        disabled={disabled}
        options={options(COLOUR_POLICIES, COLOUR_WORDS)}
        onCommit={(colourSeen) => rule({ colourSeen })}
      />
      <SelectField
        label="Colours where hidden"
        value={display.colourHidden}
        disabled={disabled}
        options={options(COLOUR_POLICIES, COLOUR_WORDS)}
        onCommit={(colourHidden) => rule({ colourHidden })}
      />
      <SelectField
        label="Backs"
        value={display.backs}
        disabled={disabled}
        options={options(BACKS, BACK_WORDS)}
        onCommit={(backs) => rule({ backs })}
      />
      <SelectField
        label="Glue"
        value={display.glue}
        disabled={disabled}
        options={options(GLUES, GLUE_WORDS)}
        onCommit={(glue) => rule({ glue })}
      />
      <SelectField
        label="Placeholders"
        value={display.placeholders}
        disabled={disabled}
        options={options(PLACEHOLDERS, PLACEHOLDER_WORDS)}
        onCommit={(placeholders) => rule({ placeholders })}
      />
      <TextField
        label="And besides"
        long
        max={2000}
        value={display.notes}
        disabled={disabled}
        placeholder="What else everybody keeps to …"
        onCommit={(notes) => rule({ notes })}
      />
      <p className="ink-2 text-xs pt-1">
        Checked by the findings: the step between levels, street fronts, the sides looked at. A section may
        have a colour rule of its own, on the Plan.
      </p>
    </section>
  );
}

/** The widths a street front may have, typed as a list. */
function Widths({
  value,
  disabled,
  onCommit,
}: {
  value: number[];
  disabled: boolean;
  onCommit: (value: number[]) => void;
}) {
  return (
    <TextField
      label="and widths, studs"
      required
      value={value.join(', ')}
      disabled={disabled}
      check={(text) => {
        const widths = text
          .split(/[\s,;]+/)
          .filter(Boolean)
          .map(Number);
        const wrong = widths.find((width) => !Number.isInteger(width) || width < 1 || width > 4096);
        if (wrong !== undefined) return 'Widths are whole studs from 1 to 4,096, parted by commas.';
        return widths.length > 12 ? `${widths.length} widths; the most is 12.` : null;
      }}
      onCommit={(text) =>
        onCommit(
          text
            .split(/[\s,;]+/)
            .filter(Boolean)
            .map(Number),
        )
      }
    />
  );
}
