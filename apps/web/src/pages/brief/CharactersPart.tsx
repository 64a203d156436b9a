import { Plus } from 'lucide-react';
import type { ReactNode } from 'react';
import type { Casting } from '@quarry/core/cast';
import { FAMILIES, isListed, partId, type Family } from '@quarry/core/catalogue';
import { countOf } from '@quarry/core/grid';
import {
  CHARACTER_FORMS,
  CHARACTER_SOURCES,
  CHARACTER_STATES,
  PLANT_SEASONS,
  ROLE_LENGTH,
  appearances,
  isInHand,
  listOf,
  vehicleOf,
  type Character,
  type CastScene,
  type Scene,
} from '@quarry/core/document';
import { wantedParts } from '@quarry/core/materials';
import { freshId, useDenialReason, useEdit } from '../../data/useDisplay.tsx';
import { DataTable } from '../../ui/DataTable.tsx';
import { COLOUR_CHOICES } from '../../ui/fieldSpec.ts';
import { CheckField, NumberField, SelectField, TextField } from '../../ui/fields.tsx';
import { Basis, Empty, Heading } from '../../ui/parts.tsx';
import { personOptions } from '../../ui/picks.ts';
import { PhotoOf } from '../../ui/PhotoOf.tsx';
import { RemoveButton } from '../../ui/rows.tsx';
import { capital } from '../../ui/words.ts';
import { FORM_WORDS, SOURCE_WORDS, CHARACTER_STATE_WORDS } from './castWords.ts';

/** Characters, where they are needed and what is missing. */
export function CharactersPart({
  scene,
  casting,
  picked,
  onPick,
}: {
  scene: CastScene & Pick<Scene, 'person'>;
  casting: Casting;
  picked: string | null;
  onPick: (id: string | null) => void;
}) {
  const edit = useEdit();
  const may = useDenialReason();
  const characters = listOf(scene, 'character').toSorted((a, b) => a.name.localeCompare(b.name));
  const stands = appearances(scene);
  const spare = new Set(casting.spare.map(({ id }) => id));
  const inHand = characters.filter((one) => isInHand(scene, one)).length;
  const isFixed = may({ op: 'add', kind: 'character', id: 'x', data: { name: 'x' } }) !== null;
  const add = () => {
    const id = freshId('character');
    if (edit.add('added a character', 'character', id, { name: `Character ${characters.length + 1}` }))
      onPick(id);
  };
  const where = (one: Character) => {
    const names = [...new Set((stands.get(one.id) ?? []).map(({ figure }) => figure.name))];
    if (names.length > 0) return names.join(', ');
    return spare.has(one.id) ? 'spare' : 'nowhere';
  };
  const addButton = (
    <button type="button" className="btn btn-xs bg-base-100" disabled={isFixed} onClick={add}>
      <Plus size={12} aria-hidden /> Add a character
    </button>
  );
  if (characters.length === 0)
    return (
      <Empty title="No character yet" act={addButton}>
        A character is a figure with a name of its own, an animal, a vehicle, or a group such as a queue of
        twelve. Say whose each is and whether it is ready: which small scenes can be made is worked out.
      </Empty>
    );
  return (
    <section aria-labelledby="characters">
      <Heading id="characters" aside={`${inHand} of ${characters.length} in hand`}>
        Characters
      </Heading>
      <DataTable
        label="Characters"
        columns={[
          {
            head: 'Name',
            wraps: true,
            cell: (one) => (
              <button
                type="button"
                className="link link-hover text-left inline-flex min-h-6 items-center"
                aria-expanded={one.id === picked}
                onClick={() => onPick(one.id === picked ? null : one.id)}
              >
                {one.name}
                {one.count > 1 && <span className="ink-2">&nbsp;× {one.count}</span>}
                {one.owner !== null && (
                  <span className="ink-2">, {scene.person[one.owner]?.name.split(' ')[0] ?? ''}</span>
                )}
              </button>
            ),
          },
          {
            head: 'Role',
            cell: ({ role, form }) => role || (form === 'figure' ? '' : FORM_WORDS[form].toLowerCase()),
          },
          {
            head: 'State',
            cell: ({ state }) => CHARACTER_STATE_WORDS[state],
            tone: ({ state }) => (state === 'ready' ? null : state === 'wanted' ? 'warning' : 'error'),
          },
          {
            head: 'Where',
            wraps: true,
            cell: where,
            tone: (one) =>
              (stands.get(one.id)?.length ?? 0) > 1 ? 'error' : stands.has(one.id) ? null : 'quiet',
          },
        ]}
        rows={characters}
        keyOf={({ id }) => id}
        isPicked={({ id }) => id === picked}
      />
      <p className="pt-2">{addButton}</p>
      <Basis>
        In hand is what is ready, of a vehicle with all who ride in it. Characters are the same in all
        versions; who plays where may differ.
      </Basis>
    </section>
  );
}

/** Families of the parts that a figure is put together from. */
const FIGURE_FAMILIES = ['headwear', 'head', 'torso', 'legs', 'tool'] as const satisfies readonly Family[];
const sizeOf = (family: (typeof FIGURE_FAMILIES)[number]): string =>
  [partId(family, 1, 1), partId(family, 1, 2)].find(isListed) ?? partId(family, 1, 1);
const PART_CHOICES = FIGURE_FAMILIES.map((family) => ({
  value: sizeOf(family),
  word: capital(FAMILIES[family].word),
}));

/** What the parts of a character's form change. */
interface CharacterEdit {
  character: Character;
  disabled: boolean;
  set: (fields: Partial<Character>) => void;
}

/** All of one character. */
export function CharacterFields({
  scene,
  character,
  onClose,
}: {
  scene: CastScene & Pick<Scene, 'person'>;
  character: Character;
  onClose: () => void;
}) {
  const edit = useEdit();
  const may = useDenialReason();
  const { id, v, name } = character;
  const disabled = may({ op: 'patch', kind: 'character', id, v, set: { name } }) !== null;
  const set = (fields: Partial<Character>) => edit.patch(`changed ${name}`, 'character', character, fields);
  return (
    <section aria-label={name} className="pb-4 scroll-mt-4" ref={intoView}>
      <Heading
        aside={
          <button type="button" className="btn btn-xs bg-base-100" onClick={onClose}>
            Close
          </button>
        }
      >
        {name}
      </Heading>
      <CharacterPhoto character={character} disabled={disabled} set={set} />
      <WhoItIs scene={scene} character={character} disabled={disabled} set={set} />
      <WhatItWears
        character={character}
        disabled={disabled}
        set={set}
        remove={
          <RemoveButton
            what={name}
            disabled={disabled}
            onClick={() => {
              if (edit.remove(`removed ${name}`, 'character', id, v)) onClose();
            }}
          />
        }
      />
      <p className="ink-2 text-xs pt-1">{needWords(character)}</p>
    </section>
  );
}

function CharacterPhoto({ character: { id, v, name, photo }, disabled, set }: CharacterEdit) {
  const edit = useEdit();
  return (
    <p className="flex items-center gap-2 py-1 relative">
      <PhotoOf
        of={name}
        photo={photo}
        disabled={disabled}
        onKept={(kept, added) =>
          void edit.change(`a photo of ${name}`, [
            added,
            { op: 'patch', kind: 'character', id, v, set: { photo: kept } },
          ])
        }
      />
      {photo !== null && (
        <button
          type="button"
          className="btn btn-xs bg-base-100"
          disabled={disabled}
          title="It stays among the photos of Progress"
          onClick={() => set({ photo: null })}
        >
          Another photo
        </button>
      )}
    </p>
  );
}

const choices = <T extends string>(values: readonly T[], words: Record<T, string>) =>
  values.map((value) => ({ value, word: words[value] }));
const OWNER_LABELS = {
  own: 'Owner',
  lent: 'Lender',
  buy: 'Who buys it',
  assemble: 'Who assembles it',
} as const satisfies Record<Character['source'], string>;

/** Its form, role, source and state. */
function WhoItIs({
  scene,
  character,
  disabled,
  set,
}: CharacterEdit & { scene: CastScene & Pick<Scene, 'person'> }) {
  const { id, name, form, count, role, source, owner, state, season, seek, named } = character;
  const vehicles = listOf(scene, 'character').filter((one) => one.form === 'vehicle' && one.id !== id);
  return (
    <>
      <TextField
        label="Name"
        required
        value={name}
        disabled={disabled}
        onCommit={(value) => set({ name: value })}
      />
      <SelectField
        label="Form"
        value={form}
        disabled={disabled}
        options={choices(CHARACTER_FORMS, FORM_WORDS)}
        onCommit={(value) => set({ form: value })}
      />
      <NumberField
        label="How many alike"
        whole
        value={count}
        min={1}
        max={500}
        disabled={disabled}
        onCommit={(value) => value !== null && set({ count: value })}
      />
      <TextField
        label="Role"
        value={role}
        max={ROLE_LENGTH}
        placeholder="such as baker"
        disabled={disabled}
        onCommit={(value) => set({ role: value })}
      />
      <SelectField
        label="From"
        value={source}
        disabled={disabled}
        options={choices(CHARACTER_SOURCES, SOURCE_WORDS)}
        onCommit={(value) => set({ source: value })}
      />
      <SelectField
        label={OWNER_LABELS[source]}
        value={owner ?? ''}
        disabled={disabled}
        options={personOptions(scene, 'Nobody named')}
        onCommit={(value) => set({ owner: value || null })}
      />
      <SelectField
        label="State"
        value={state}
        disabled={disabled}
        options={choices(CHARACTER_STATES, CHARACTER_STATE_WORDS)}
        onCommit={(value) => set({ state: value })}
      />
      <SelectField
        label="Clothes for"
        value={season}
        disabled={disabled}
        options={PLANT_SEASONS.map((value) => ({
          value,
          word: value === 'any' ? 'Any season' : capital(value),
        }))}
        onCommit={(value) => set({ season: value })}
      />
      {form !== 'vehicle' && vehicles.length > 0 && (
        <SelectField
          label="Rides in"
          value={vehicleOf(scene, character)?.id ?? ''}
          disabled={disabled}
          options={[
            { value: '', word: 'Goes by itself' },
            ...vehicles.map((one) => ({ value: one.id, word: one.name })),
          ]}
          onCommit={(value) => set({ crewOf: value || null })}
        />
      )}
      <TextField
        label="Visitors look for"
        value={seek}
        max={ROLE_LENGTH}
        placeholder="such as cats"
        disabled={disabled}
        onCommit={(value) => set({ seek: value })}
      />
      <CheckField
        label="The public may read its name"
        value={named}
        disabled={disabled}
        onCommit={(value) => set({ named: value })}
      />
    </>
  );
}

/** The parts it is put together from. @param remove the button that takes the character out */
function WhatItWears({ character: { wears }, disabled, set, remove }: CharacterEdit & { remove: ReactNode }) {
  return (
    <>
      <Heading aside={wears.length > 0 ? countOf(wears.length, 'part') : undefined}>
        What it wears and holds
      </Heading>
      {wears.map(({ part, colour }, i) => {
        const word = PART_CHOICES.find((one) => one.value === part)?.word ?? part;
        const change = (fields: Partial<{ part: string; colour: string }>) =>
          set({ wears: wears.map((one, k) => (k === i ? { ...one, ...fields } : one)) });
        return (
          <div
            key={`${i} ${part}`}
            className="grid grid-cols-[1fr_1fr_auto] gap-1 items-center border-b hair"
          >
            <SelectField
              bare
              label={`Part ${i + 1}`}
              value={part}
              disabled={disabled}
              options={
                PART_CHOICES.some((one) => one.value === part)
                  ? PART_CHOICES
                  : [...PART_CHOICES, { value: part, word: part }]
              }
              onCommit={(value) => change({ part: value })}
            />
            <SelectField
              bare
              label={`Colour of ${word.toLowerCase()}, part ${i + 1}`}
              value={colour}
              disabled={disabled}
              options={COLOUR_CHOICES}
              onCommit={(value) => change({ colour: value })}
            />
            <RemoveButton
              what={`${word.toLowerCase()}, part ${i + 1}`}
              disabled={disabled}
              onClick={() => set({ wears: wears.filter((_, k) => k !== i) })}
            />
          </div>
        );
      })}
      <div className="flex flex-wrap gap-2 pt-2">
        <button
          type="button"
          className="btn btn-xs bg-base-100"
          disabled={disabled || wears.length >= 12}
          onClick={() => {
            const next = PART_CHOICES.find(({ value }) => !wears.some(({ part }) => part === value));
            const part = next?.value ?? sizeOf(FIGURE_FAMILIES[0]);
            set({ wears: [...wears, { part, colour: 'any' }] });
          }}
        >
          <Plus size={12} aria-hidden /> Add a part
        </button>
        <span className="flex-1" />
        {remove}
      </div>
    </>
  );
}

/** Brings what was opened from a list into view. */
function intoView(part: HTMLElement | null): void {
  part?.scrollIntoView({ block: 'nearest' });
}

/** What of a character stands in the parts list. */
function needWords(character: Character): string {
  const { state, source, form, count, wears } = character;
  const parts = wantedParts(character);
  if (parts.length > 0) return `In the needs: ${countOf(parts.length * count, 'part')}.`;
  if (state !== 'wanted' || source === 'own' || source === 'lent') return 'Nothing of it is in the needs.';
  return form !== 'figure' && wears.length === 0
    ? 'Nothing of it is in the needs while no part is named here.'
    : '';
}
