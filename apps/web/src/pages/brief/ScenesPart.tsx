import { Plus } from 'lucide-react';
import { useState } from 'react';
import {
  castingChanges,
  spotFloors,
  type Casting,
  type OneMore,
  type SceneCast,
  type SceneSeen,
} from '@quarry/core/cast';
import { countOf, formatPercent } from '@quarry/core/grid';
import {
  CHARACTER_FORMS,
  MAX_SPOT,
  POSES,
  ROLE_LENGTH,
  castCount,
  castWords,
  characterAt,
  listOf,
  type Entity,
  type CastScene,
  type SceneSpot,
} from '@quarry/core/document';
import { WATCHERS, WATCHER_WORDS } from '@quarry/core/visibility';
import { useDenialReason, useDisplay, useEdit } from '../../data/useDisplay.tsx';
import { CheckField, NumberField, QuantityField, SelectField, TextField } from '../../ui/fields.tsx';
import { Basis, Empty, Heading } from '../../ui/parts.tsx';
import { RemoveButton } from '../../ui/rows.tsx';
import { capital } from '../../ui/words.ts';
import { useDerived } from '../../workers/useDerived.ts';
import { useWorkerQuery } from '../../workers/useWorkerQuery.ts';
import { FACINGS, FORM_WORDS, POSE_WORDS, CHARACTER_STATE_WORDS, roleWord } from './castWords.ts';

type SmallScene = Entity<'figure'>;

/** Small scenes with who plays in them, and what one more would make possible. */
export function ScenesPart({
  scene,
  casting,
  more,
  onPick,
}: {
  scene: CastScene;
  casting: Casting;
  more: readonly OneMore[];
  onPick: (id: string) => void;
}) {
  const [open, setOpen] = useState<string | null>(null);
  const seen = useWorkerQuery((core) => core.scenesSeen());
  const all = listOf(scene, 'figure');
  const bySpots = new Map(casting.scenes.map((one) => [one.id, one]));
  const figures = [
    ...casting.scenes.flatMap(({ id }) => scene.figure[id] ?? []),
    ...all.filter(({ id }) => !bySpots.has(id)),
  ];
  if (figures.length === 0)
    return (
      <Empty title="No small scene yet">
        Set small scenes down on the Plan; here each gets its spots, and who takes them.
      </Empty>
    );
  const isProven = casting.bound === casting.made;
  return (
    <section aria-labelledby="small-scenes">
      <Heading id="small-scenes" aside={countOf(figures.length, 'scene')}>
        Small scenes
      </Heading>
      {casting.scenes.length > 0 && (
        <p className="pb-1" role="status">
          <b className="fig text-lg">{casting.made}</b> of {countOf(casting.scenes.length, 'scene')} with
          spots can be made at once from the characters in hand
          <span className="ink-2">
            {isProven ? '; no other casting makes more' : `; no casting makes more than ${casting.bound}`}.
          </span>
        </p>
      )}
      <ul>
        {figures.map((figure) => (
          <SceneItem
            key={figure.id}
            scene={scene}
            figure={figure}
            casting={casting}
            cast={bySpots.get(figure.id) ?? null}
            seen={seen?.find(({ id }) => id === figure.id) ?? null}
            isOpen={figure.id === open}
            onOpen={() => setOpen(figure.id === open ? null : figure.id)}
          />
        ))}
      </ul>
      {more.length > 0 && (
        <>
          <Heading>What one more would make possible</Heading>
          <ul>
            {more.map(({ character, form, role, makes }) => (
              <li key={character?.id ?? `${form} ${role}`} className="border-b hair py-1">
                {character ? (
                  <>
                    <button
                      type="button"
                      className="link link-hover inline-flex min-h-6 items-center"
                      onClick={() => onPick(character.id)}
                    >
                      {character.name}
                    </button>{' '}
                    <span className="ink-2 text-xs">
                      {character.state === 'ready'
                        ? 'lacks its crew'
                        : CHARACTER_STATE_WORDS[character.state].toLowerCase()}
                    </span>
                  </>
                ) : (
                  <>One more {role === '' ? form : `${role}`}</>
                )}
                <span className="ink-2">
                  {' '}
                  makes {makes.length === 1 ? makes[0] : `one of ${makes.join(', ')}`}
                </span>
              </li>
            ))}
          </ul>
        </>
      )}
      <Basis>
        Each character plays in one scene at a time. A spot takes the one who is named for it, or, unless only
        that one will do, a stand-in of the same form and role. Of all ways to cast them the one that makes
        the most scenes is taken.
      </Basis>
    </section>
  );
}

function SceneItem({
  scene,
  figure,
  casting,
  cast,
  seen,
  isOpen,
  onOpen,
}: {
  scene: CastScene;
  figure: SmallScene;
  casting: Casting;
  cast: SceneCast | null;
  seen: SceneSeen | null;
  isOpen: boolean;
  onOpen: () => void;
}) {
  const edit = useEdit();
  const may = useDenialReason();
  const { id, v, name, spots } = figure;
  const disabled = may({ op: 'patch', kind: 'figure', id, v, set: { spots } }) !== null;
  const open = cast?.spots.filter(({ played }) => played === null) ?? [];
  const changes = isOpen && cast ? castingChanges(scene, casting, id) : [];
  return (
    <li className="border-b hair py-1" aria-label={name}>
      <button
        type="button"
        aria-expanded={isOpen}
        className={`w-full text-left min-h-6 flex flex-wrap items-baseline gap-x-2 ${isOpen ? 'font-semibold' : ''}`}
        onClick={onOpen}
      >
        {figure.order !== null && <span className="fig ink-2 text-xs">{figure.order}</span>}
        <span className="flex-1 min-w-40">
          {name} <span className="ink-2 text-xs font-normal">{castWords(castCount(scene, figure))}</span>
        </span>
        <span className={`text-xs font-normal ${cast && !cast.isMade ? 'text-warning' : 'ink-2'}`}>
          {!cast
            ? spots.length === 0
              ? 'no spots yet'
              : 'not cast: there are too many spots'
            : cast.isMade
              ? '✓ can be made'
              : `△ lacks ${[...new Set(open.map((spot) => spot.named?.name ?? roleWord(spot)))].join(', ') || 'those who play elsewhere'}`}
        </span>
      </button>
      {isOpen && (
        <div className="pl-3 pb-2">
          {seen && <p className="text-xs py-1">{seenWords(seen)}</p>}
          {spots.map((spot, i) => (
            <SpotFields
              key={i}
              scene={scene}
              figure={figure}
              spot={spot}
              at={i}
              played={cast?.spots.at(i)?.played?.name ?? null}
              disabled={disabled}
            />
          ))}
          <div className="flex flex-wrap gap-2 pt-2">
            <button
              type="button"
              className="btn btn-xs bg-base-100"
              disabled={disabled || spots.length >= 200}
              onClick={() =>
                void edit.patch(`added a spot to ${name}`, 'figure', figure, {
                  spots: [...spots, nextSpot(spots)],
                })
              }
            >
              <Plus size={12} aria-hidden /> Add a spot
            </button>
            {changes.length > 0 && (
              <button
                type="button"
                className="btn btn-xs bg-base-100"
                disabled={disabled}
                onClick={() => void edit.change(`cast ${name}`, changes)}
              >
                Name those who play now
              </button>
            )}
          </div>
          <NumberField
            label="Number in the story"
            whole
            optional="not in it"
            value={figure.order}
            min={1}
            max={999}
            disabled={disabled}
            onCommit={(order) => void edit.patch(`changed the story of ${name}`, 'figure', figure, { order })}
          />
          <TextField
            label="What happens"
            long
            max={200}
            value={figure.story}
            disabled={disabled}
            onCommit={(story) => void edit.patch(`changed the story of ${name}`, 'figure', figure, { story })}
          />
          {figure.order !== null && (
            <p className="ink-2 text-xs">
              With a number, its name and what happens may be read by the public.
            </p>
          )}
        </div>
      )}
    </li>
  );
}

/** How a small scene is seen and lit, in a sentence. */
function seenWords({ free, hider, lamp }: SceneSeen): string {
  const shares = WATCHERS.flatMap((who) => {
    const share = free?.[who] ?? null;
    return share === null ? [] : [{ who: WATCHER_WORDS[who], share: formatPercent(share) }];
  });
  return [
    free === null
      ? 'Who sees it is told when Brief says from which sides visitors look, and it stands in a place.'
      : `Its faces are seen ${shares
          .map(
            ({ who, share }, i) => `by ${who} from ${share}${i === 0 ? ' of the places they stand at' : ''}`,
          )
          .join(', ')}${hider === null ? '' : `; ${hider} hides most of it`}.`,
    lamp === null ? 'No lamp is lit.' : `The nearest lit lamp is ${Math.round(lamp)} studs off.`,
  ].join(' ');
}

/** The next spot stands beside the last one and looks the same way. */
function nextSpot(spots: readonly SceneSpot[]): SceneSpot {
  const last = spots.at(-1);
  const first: SceneSpot = {
    ...{ character: null, form: 'figure', role: '', isFixed: false },
    ...{ dx: 0, dy: 0, up: 0, facing: 180, pose: 'standing' },
  };
  return last
    ? {
        ...first,
        dx: Math.min(MAX_SPOT, last.dx + 2),
        dy: last.dy,
        up: last.up,
        facing: last.facing,
        role: last.role,
        form: last.form,
      }
    : first;
}

/** One spot: who takes it, where it is and how one stands there. */
function SpotFields({
  scene,
  figure,
  spot,
  at,
  played,
  disabled,
}: {
  scene: CastScene;
  figure: SmallScene;
  spot: SceneSpot;
  at: number;
  played: string | null;
  disabled: boolean;
}) {
  const edit = useEdit();
  const [isOpen, setOpen] = useState(false);
  const named = characterAt(scene, spot);
  const label = `Spot ${at + 1}`;
  const set = (fields: Partial<SceneSpot>) =>
    void edit.patch(`changed a spot of ${figure.name}`, 'figure', figure, {
      spots: figure.spots.map((one, i) => (i === at ? { ...one, ...fields } : one)),
    });
  const characters = listOf(scene, 'character').toSorted((a, b) => a.name.localeCompare(b.name));
  const facings = FACINGS.some(({ value }) => value === String(spot.facing))
    ? FACINGS
    : [...FACINGS, { value: String(spot.facing), word: `to ${spot.facing}°` }];
  return (
    <details className="border-b hair py-0.5" onToggle={(event) => setOpen(event.currentTarget.open)}>
      <summary className="cursor-pointer min-h-6">
        <span className="ink-2 fig text-xs">{at + 1}</span> {named?.name ?? capital(roleWord(spot))}{' '}
        <span className="ink-2 text-xs">
          {played === null ? '△ nobody in hand' : played !== named?.name ? `${played} may play it` : ''}
        </span>
      </summary>
      <div className="pl-4 max-w-md" role="group" aria-label={label}>
        <SelectField
          label="Who"
          value={named?.id ?? ''}
          disabled={disabled}
          options={[
            { value: '', word: 'Anybody of the role' },
            ...characters.map((one) => ({ value: one.id, word: one.name })),
          ]}
          onCommit={(value) => {
            const one = value === '' ? undefined : scene.character[value];
            set(one ? { character: one.id, form: one.form } : { character: null, isFixed: false });
          }}
        />
        {named ? (
          <CheckField
            label="Only this one will do"
            value={spot.isFixed}
            disabled={disabled}
            onCommit={(isFixed) => set({ isFixed })}
          />
        ) : (
          <SelectField
            label="Form"
            value={spot.form}
            disabled={disabled}
            options={CHARACTER_FORMS.map((value) => ({ value, word: FORM_WORDS[value] }))}
            onCommit={(form) => set({ form })}
          />
        )}
        <TextField
          label="Role"
          value={spot.role}
          max={ROLE_LENGTH}
          placeholder={named?.role || 'any'}
          disabled={disabled}
          onCommit={(role) => set({ role })}
        />
        <QuantityField
          label="East of the scene’s place"
          measure="studs"
          value={spot.dx}
          min={-MAX_SPOT}
          max={MAX_SPOT}
          step={0.5}
          disabled={disabled}
          onCommit={(dx) => set({ dx })}
        />
        <QuantityField
          label="South of it"
          measure="studs"
          value={spot.dy}
          min={-MAX_SPOT}
          max={MAX_SPOT}
          step={0.5}
          disabled={disabled}
          onCommit={(dy) => set({ dy })}
        />
        <QuantityField
          label="Above what it stands on"
          measure="plates"
          value={spot.up}
          min={0}
          max={3000}
          disabled={disabled}
          onCommit={(up) => set({ up })}
        />
        {isOpen && (
          <FloorField figure={figure} spot={spot} disabled={disabled} onFloor={(up) => set({ up })} />
        )}
        <SelectField
          label="Looks"
          value={String(spot.facing)}
          disabled={disabled}
          options={facings}
          onCommit={(value) => set({ facing: Number(value) })}
        />
        <SelectField
          label="Pose"
          value={spot.pose}
          disabled={disabled}
          options={POSES.map((value) => ({ value, word: POSE_WORDS[value] }))}
          onCommit={(pose) => set({ pose })}
        />
        <p className="text-right pt-1">
          <RemoveButton
            what={`spot ${at + 1} of ${figure.name}`}
            disabled={disabled}
            onClick={() =>
              void edit.patch(`removed a spot of ${figure.name}`, 'figure', figure, {
                spots: figure.spots.filter((_, i) => i !== at),
              })
            }
          />
        </p>
      </div>
    </details>
  );
}

/** On which floor of a building one stands at a spot; nothing where the spot lies in none. */
function FloorField({
  figure,
  spot,
  disabled,
  onFloor,
}: {
  figure: SmallScene;
  spot: SceneSpot;
  disabled: boolean;
  onFloor: (up: number) => void;
}) {
  const scene = useDisplay(({ scene: now }) => now);
  const ground = useDerived(({ ground: compiled }) => compiled);
  const floors = ground ? spotFloors(scene, ground.relief, figure, spot) : [];
  if (floors.length === 0) return null;
  const on = floors.findIndex(({ up }) => up === spot.up);
  return (
    <SelectField
      label="On the floor of"
      value={on < 0 ? '' : String(on)}
      disabled={disabled}
      options={[
        ...(on < 0 ? [{ value: '', word: 'none: the height above' }] : []),
        ...floors.map(({ name }, i) => ({ value: String(i), word: name })),
      ]}
      onCommit={(value) => {
        const floor = value === '' ? undefined : floors[Number(value)];
        if (floor) onFloor(floor.up);
      }}
    />
  );
}
