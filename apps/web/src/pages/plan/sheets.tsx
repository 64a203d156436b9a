import { countOf, MM, formatMm, formatPlates, outerSize, type Rect } from '@quarry/core/grid';
import { heightRange } from '@quarry/core/terrain';
import {
  COLOUR_POLICIES,
  MAX_STUDS,
  STAGES,
  listOf,
  stageWord,
  type Module,
  type Section,
} from '@quarry/core/document';
import { wayOf, widestOf } from '@quarry/core/venue';
import { useEdit, useDenialReason, useScene } from '../../data/useDisplay.tsx';
import { DateField, NumberField, QuantityField, SelectField, TextField } from '../../ui/fields.tsx';
import { DefinitionRow } from '../../ui/parts.tsx';
import { personOptions } from '../../ui/picks.ts';
import { basesInWords, capital } from '../../ui/words.ts';
import { useDerived } from '../../workers/useDerived.ts';

type Place = Rect & { name: string };

/** Name, place and size: the same for everything measured in studs. */
function PlaceFields({
  place: { name, x, y, w, d },
  step,
  disabled,
  set,
}: {
  place: Place;
  step: number;
  disabled: boolean;
  set: (what: string, fields: Partial<Place>) => void;
}) {
  const common = { measure: 'studs', step, disabled } as const;
  return (
    <>
      <TextField
        label="Name"
        required
        value={name}
        disabled={disabled}
        onCommit={(value) => set('renamed', { name: value })}
      />
      <QuantityField
        label="Width, east"
        value={w}
        min={step}
        max={MAX_STUDS}
        {...common}
        onCommit={(value) => set('resized', { w: value })}
      />
      <QuantityField
        label="Depth, south"
        value={d}
        min={step}
        max={MAX_STUDS}
        {...common}
        onCommit={(value) => set('resized', { d: value })}
      />
      <QuantityField
        label="From west"
        value={x}
        min={-MAX_STUDS}
        max={MAX_STUDS}
        {...common}
        onCommit={(value) => set('moved', { x: value })}
      />
      <QuantityField
        label="From north"
        value={y}
        min={-MAX_STUDS}
        max={MAX_STUDS}
        {...common}
        onCommit={(value) => set('moved', { y: value })}
      />
    </>
  );
}

const wordsOf = <T extends string>(list: readonly T[]) =>
  list.map((value) => ({ value, word: capital(value) }));

export function SectionSheet({ section }: { section: Section }) {
  const scene = useScene('person', 'display');
  const edit = useEdit();
  const may = useDenialReason();
  const set = (what: string, fields: Partial<Section>) =>
    edit.patch(`${what} section ${section.letter}`, 'section', section, fields);
  const forbids = (fields: Record<string, unknown>) =>
    may({ op: 'patch', kind: 'section', id: section.id, v: section.v, set: fields }) !== null;
  const plan = forbids({ name: section.name });
  return (
    <>
      <PlaceFields place={section} step={0.5} disabled={plan} set={set} />
      <TextField
        label="Letter"
        required
        max={2}
        value={section.letter}
        disabled={plan}
        onCommit={(letter) => set('lettered', { letter })}
      />
      <SelectField
        label="Owner"
        value={section.owner ?? ''}
        disabled={plan}
        options={personOptions(scene, 'Nobody yet')}
        onCommit={(owner) => set('gave away', { owner: owner === '' ? null : owner })}
      />
      <SelectField
        label="Colours"
        value={section.colour ?? ''}
        disabled={plan}
        options={[{ value: '', word: 'As the house rules' }, ...wordsOf(COLOUR_POLICIES)]}
        onCommit={(colour) => set('set the colours of', { colour: colour === '' ? null : colour })}
      />
      <SelectField
        label="Stage"
        value={section.stage}
        disabled={forbids({ stage: section.stage })}
        options={STAGES.map((value) => ({ value, word: capital(stageWord(scene, value)) }))}
        onCommit={(stage) => set('moved the stage of', { stage, stageDone: 0 })}
      />
      <NumberField
        label="Of this stage"
        unit="%"
        value={section.stageDone}
        min={0}
        max={100}
        whole
        disabled={forbids({ stageDone: 0 })}
        onCommit={(stageDone) => set('moved', { stageDone: stageDone ?? 0 })}
      />
      <DateField
        label="Its parts are needed by"
        value={section.partsBy}
        disabled={plan}
        hint={section.partsBy === null ? 'empty: by the show' : undefined}
        onCommit={(partsBy) => set('set when parts are needed of', { partsBy })}
      />
      <DefinitionRow label="Area">{countOf(section.w * section.d, 'stud')}</DefinitionRow>
    </>
  );
}

export function ModuleSheet({ module }: { module: Module }) {
  const scene = useScene('display', 'passage', 'section');
  const ground = useDerived(({ ground }) => ground);
  const range = ground ? heightRange(ground.relief, module) : null;
  const narrow = outerSize(Math.min(module.w, module.d)) / MM;
  const passage = wayOf(scene).sort((a, b) => widestOf(a) - widestOf(b))[0];
  const owners = listOf(scene, 'section').filter(
    (section) =>
      section.x < module.x + module.w &&
      module.x < section.x + section.w &&
      section.y < module.y + module.d &&
      module.y < section.y + section.d,
  );
  return (
    <dl>
      <DefinitionRow
        label="Size"
        note={`${outerSize(module.w) / MM} × ${outerSize(module.d) / MM} mm outside`}
      >
        {module.w} × {module.d} st
      </DefinitionRow>
      <DefinitionRow label="Stands at">
        {module.x}, {module.y}
      </DefinitionRow>
      {range && (
        <DefinitionRow label="Ground">
          {formatPlates(range.low)} to {formatPlates(range.high)}
        </DefinitionRow>
      )}
      <DefinitionRow label="Bases">{basesInWords(module.bases) || 'none'}</DefinitionRow>
      <DefinitionRow label="Sections">
        {owners.map(({ letter }) => letter).join(', ') || 'none'}
      </DefinitionRow>
      {passage && (
        <DefinitionRow
          label="Tightest passage"
          note={`${formatMm(Math.abs(widestOf(passage) - narrow) * MM)} ${narrow > widestOf(passage) ? 'too narrow' : 'to spare'}`}
        >
          {passage.name} {formatMm(widestOf(passage) * MM)}
        </DefinitionRow>
      )}
    </dl>
  );
}
