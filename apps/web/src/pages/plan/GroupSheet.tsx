import { useState } from 'react';
import {
  ALIGNMENTS,
  KINDS,
  alignAll,
  boundsOfAll,
  copyAlong,
  distributeAll,
  isCopied,
  labelOf,
  listOf,
  pieceOf,
  removeAll,
  type Change,
  type Entity,
  type Kind,
  type Scene,
  labelOfAll,
} from '@quarry/core/document';
import { freshId, useDisplay, useEdit, useDenialReason } from '../../data/useDisplay.tsx';
import { useView, type Picked } from '../../data/view.ts';
import { NumberField, QuantityField, SelectField } from '../../ui/fields.tsx';
import { Heading, DefinitionRow } from '../../ui/parts.tsx';
import { groundChoices } from '../../ui/fieldSpec.ts';
import { capital } from '../../ui/words.ts';

const SIDE_WORDS = {
  west: 'West',
  middle: 'Middle',
  east: 'East',
  north: 'North',
  centre: 'Centre',
  south: 'South',
} as const;

/** What can be done with several things at once, or with one: copy, keep as a piece. */
export function GroupSheet({ picks }: { picks: readonly Picked[] }) {
  const scene = useDisplay(({ scene }) => scene);
  const { pick } = useView.getState();
  const edit = useEdit();
  const may = useDenialReason();
  const place = boundsOfAll(scene, picks);
  const words = `${picks.length} things`;
  const forbids =
    picks.map(({ kind, id }) => may({ op: 'patch', kind, id, v: 1, set: {} })).find((why) => why !== null) ??
    null;
  const run = (label: string, changes: Change[]) =>
    changes.length > 0 && edit.change(`${label} ${words}`, changes);
  const entities = picks.flatMap(({ kind, id }) => {
    const entity: Entity<Kind> | undefined = scene[kind][id];
    return entity ? [{ kind, entity }] : [];
  });
  const levelled = entities.filter(({ entity }) => 'level' in entity);
  const grounded = entities.filter(
    ({ kind }) => kind === 'pad' || kind === 'hill' || kind === 'hollow' || kind === 'way',
  );
  const patchAll = (
    list: typeof entities,
    set: (entity: Entity<Kind>) => Record<string, unknown>,
  ): Change[] =>
    list.map(({ kind, entity }) => ({ op: 'patch', kind, id: entity.id, v: entity.v, set: set(entity) }));
  const disabled = forbids !== null;
  return (
    <>
      <h2 className="font-bold text-base leading-5">{capital(words)}</h2>
      {forbids && <p className="ink-2 text-xs py-1">{forbids}</p>}
      {place && (
        <DefinitionRow label="Together" note={`from ${place.x}, ${place.y}`}>
          {place.w} × {place.d} st
        </DefinitionRow>
      )}
      <Heading>Line up</Heading>
      <div className="join flex-wrap">
        {ALIGNMENTS.map((to) => (
          <button
            key={to}
            type="button"
            className="btn btn-xs join-item px-1.5"
            disabled={disabled}
            onClick={() => run(`lined up ${SIDE_WORDS[to].toLowerCase()}:`, alignAll(scene, picks, to))}
          >
            {SIDE_WORDS[to]}
          </button>
        ))}
      </div>
      <Heading>Even gaps</Heading>
      <div className="join">
        <button
          type="button"
          className="btn btn-xs join-item"
          disabled={disabled || picks.length < 3}
          onClick={() => run('spread west to east:', distributeAll(scene, picks, 'x'))}
        >
          West to east
        </button>
        <button
          type="button"
          className="btn btn-xs join-item"
          disabled={disabled || picks.length < 3}
          onClick={() => run('spread north to south:', distributeAll(scene, picks, 'y'))}
        >
          North to south
        </button>
      </div>
      {levelled.length > 0 && (
        <>
          <Heading aside={`${levelled.length} with a level`}>All at once</Heading>
          <SelectField
            label="Level"
            value=""
            disabled={disabled}
            options={[
              { value: '', word: 'as they are' },
              ...listOf(scene, 'level').map(({ id, name }) => ({ value: id, word: name })),
            ]}
            onCommit={(level) =>
              level !== '' &&
              run(
                'set the level of',
                patchAll(levelled, () => ({ level })),
              )
            }
          />
          <div className="join">
            {[-3, -1, 1, 3].map((by) => (
              <button
                key={by}
                type="button"
                className="btn btn-xs join-item fig"
                disabled={disabled}
                onClick={() =>
                  run(
                    by > 0 ? 'raised' : 'lowered',
                    patchAll(levelled, (entity) => ({
                      offset:
                        ('offset' in entity && typeof entity.offset === 'number' ? entity.offset : 0) + by,
                    })),
                  )
                }
              >
                {by > 0 ? '+' : '−'}
                {Math.abs(by) === 3 ? '1b' : '1p'}
              </button>
            ))}
          </div>
        </>
      )}
      {grounded.length > 1 && (
        <SelectField
          label="Ground"
          value=""
          disabled={disabled}
          options={[{ value: '', word: 'as it is' }, ...groundChoices(scene)]}
          onCommit={(ground) =>
            ground !== '' &&
            run(
              'set the ground of',
              patchAll(grounded, () => ({ ground })),
            )
          }
        />
      )}
      <CopyPart picks={picks} />
      <button
        type="button"
        className="btn btn-xs mt-2"
        disabled={disabled}
        onClick={() => run('removed', removeAll(scene, picks)) && pick(null)}
      >
        Remove all
      </button>
      <PickedList scene={scene} picks={picks} />
    </>
  );
}

/** Each thing that is picked: to be picked alone, or let go. */
function PickedList({ scene, picks }: { scene: Scene; picks: readonly Picked[] }) {
  const { pickAll, pickToo } = useView.getState();
  return (
    <>
      <Heading>Picked</Heading>
      <ul>
        {picks.map((one) => (
          <li key={`${one.kind} ${one.id}`} className="flex justify-between gap-2 border-b hair">
            <button
              type="button"
              className="link link-hover truncate text-left"
              onClick={() => pickAll([one])}
            >
              {capital(labelOf(scene, one.kind, one.id))}{' '}
              <span className="ink-2 text-xs">{KINDS[one.kind].word}</span>
            </button>
            <button
              type="button"
              className="btn btn-xs btn-ghost"
              aria-label={`Let go of ${labelOf(scene, one.kind, one.id)}`}
              onClick={() => pickToo(one)}
            >
              ×
            </button>
          </li>
        ))}
      </ul>
    </>
  );
}

/** Copies in a row, and keeping what is picked as a piece to be set out again. */
export function CopyPart({ picks }: { picks: readonly Picked[] }) {
  const scene = useDisplay(({ scene }) => scene);
  const edit = useEdit();
  const may = useDenialReason();
  const pickAll = useView((view) => view.pickAll);
  const place = boundsOfAll(scene, picks);
  const copied = picks.filter(({ kind }) => isCopied(kind));
  const [count, setCount] = useState(3);
  const [step, setStep] = useState<{ dx: number; dy: number } | null>(null);
  const [first] = copied;
  if (!first || !place) return null;
  const by = step ?? { dx: place.w, dy: 0 };
  const forbids = may({ op: 'add', kind: first.kind, id: 'x', data: { ...place } }) !== null;
  const label = labelOfAll(scene, copied);
  return (
    <details className="border-b hair py-1">
      <summary className="cursor-pointer font-semibold">Copy and keep</summary>
      <NumberField
        label="Copies"
        value={count}
        min={1}
        max={100}
        whole
        disabled={forbids}
        onCommit={(value) => setCount(value ?? 1)}
      />
      <QuantityField
        label="Each east by"
        value={by.dx}
        measure="studs"
        min={-512}
        max={512}
        disabled={forbids}
        onCommit={(dx) => setStep({ ...by, dx })}
      />
      <QuantityField
        label="Each south by"
        value={by.dy}
        measure="studs"
        min={-512}
        max={512}
        disabled={forbids}
        onCommit={(dy) => setStep({ ...by, dy })}
      />
      <div className="flex gap-1 pt-1">
        <button
          type="button"
          className="btn btn-xs"
          disabled={forbids}
          onClick={() => {
            const copies = copyAlong(scene, copied, { count, ...by }, freshId);
            if (edit.change(`copied ${label} ${count} times`, copies.changes)) pickAll(copies.picks);
          }}
        >
          Copy along
        </button>
        <button
          type="button"
          className="btn btn-xs"
          disabled={may({ op: 'add', kind: 'piece', id: 'x', data: {} }) !== null}
          onClick={() => {
            const data = pieceOf(scene, copied, `Piece of ${label}`.slice(0, 80));
            if (data)
              edit.change(`kept ${label} as a piece`, [
                { op: 'add', kind: 'piece', id: freshId('piece'), data },
              ]);
          }}
        >
          Keep as a piece
        </button>
      </div>
    </details>
  );
}
