import { MAX_TONES, type Recipe } from '@quarry/core/document';
import { PALETTE_CHOICES } from '../../ui/fieldSpec.ts';
import { NumberField, SelectField } from '../../ui/fields.tsx';
import { RemoveButton, Row, Rows } from '../../ui/rows.tsx';
import { Swatch } from '../../ui/Swatch.tsx';

const COLUMNS = '1fr 64px 24px';

type Tones = Recipe['tones'];

/**
 * Colours by parts of the whole, in rows.
 * @param props.onChange what was done, and all tones after it
 */
export function ToneRows({
  title,
  tones,
  disabled,
  onChange,
}: {
  title: string;
  tones: Tones;
  disabled: boolean;
  onChange: (what: string, tones: Tones) => void;
}) {
  const whole = tones.reduce((sum, { share }) => sum + share, 0);
  return (
    <Rows
      id="tones"
      title={title}
      columns={COLUMNS}
      words={['Colour', { right: 'Parts' }]}
      add={{
        word: 'Tone',
        disabled: disabled || tones.length >= MAX_TONES,
        onClick: () => onChange('added a tone', [...tones, { colour: 'olive', share: 1 }]),
      }}
    >
      {tones.map((tone, i) => {
        const put = (fields: Partial<typeof tone>) =>
          onChange(
            'changed a tone',
            tones.map((one, k) => (k === i ? { ...one, ...fields } : one)),
          );
        return (
          <Row key={i} label={`Tone ${i + 1}`} columns={COLUMNS}>
            <span className="flex items-center gap-2">
              <Swatch colour={tone.colour} />
              <SelectField
                bare
                label={`Colour of tone ${i + 1}`}
                value={tone.colour}
                options={PALETTE_CHOICES}
                disabled={disabled}
                onCommit={(colour) => put({ colour })}
              />
              <span className="ink-2 fig text-xs w-12 text-right">
                {whole > 0 ? Math.round((100 * tone.share) / whole) : 0} %
              </span>
            </span>
            <NumberField
              bare
              label={`Parts of tone ${i + 1}`}
              value={tone.share}
              min={0}
              max={1000}
              disabled={disabled}
              onCommit={(share) => put({ share: share ?? 0 })}
            />
            <RemoveButton
              what={`tone ${i + 1}`}
              disabled={disabled || tones.length === 1}
              onClick={() =>
                onChange(
                  'removed a tone',
                  tones.filter((_, k) => k !== i),
                )
              }
            />
          </Row>
        );
      })}
    </Rows>
  );
}
