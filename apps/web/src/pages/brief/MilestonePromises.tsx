import { useState } from 'react';
import {
  MAX_PROMISES,
  PROMISED,
  STAGES,
  labelOf,
  listOf,
  promisesOf,
  type Entity,
  type Stage,
} from '@quarry/core/document';
import { useDisplay, useEdit } from '../../data/useDisplay.tsx';
import { SelectField } from '../../ui/fields.tsx';
import { RemoveButton } from '../../ui/rows.tsx';
import { capital } from '../../ui/words.ts';

type Promised = Entity<'milestone'>['promises'][number];

const OF_WORDS: Record<Promised['of'], string> = {
  section: 'Section at a stage',
  task: 'Task done',
  figure: 'Small scene placed',
  thread: 'Advice resolved',
};
const MARKS = { met: '✓', open: '△', gone: '△' };

/** What a milestone promises, with what is met of it. */
export function MilestonePromises({
  milestone,
  isPast,
  disabled,
}: {
  milestone: Entity<'milestone'>;
  isPast: boolean;
  disabled: boolean;
}) {
  const scene = useDisplay(({ scene: now }) => now);
  const edit = useEdit();
  const states = promisesOf(scene, milestone);
  const met = states.filter(({ state }) => state === 'met').length;
  const set = (promises: Promised[]) =>
    void edit.patch(`changed the promises of ${milestone.name}`, 'milestone', milestone, { promises });
  return (
    <details className="text-xs border-b hair py-0.5">
      <summary className="cursor-pointer min-h-6">
        {states.length === 0 ? (
          <span className="ink-2">Promises nothing yet</span>
        ) : (
          <span className={isPast && met < states.length ? 'text-warning' : 'ink-2'}>
            {isPast && met < states.length && '△ '}
            {met} of {states.length} promises met
          </span>
        )}
      </summary>
      <ul className="pl-3">
        {states.map(({ words, state, promised }, i) => (
          <li key={`${promised.of} ${promised.thing} ${promised.stage}`} className="flex items-center gap-2">
            <span className="flex-1">
              {MARKS[state]} {words}{' '}
              <span className="ink-2">{state === 'met' ? 'met' : isPast ? 'missed' : 'open'}</span>
            </span>
            <RemoveButton
              what={`the promise ${words}`}
              disabled={disabled}
              onClick={() => set(milestone.promises.filter((_, k) => k !== i))}
            />
          </li>
        ))}
      </ul>
      {!disabled && milestone.promises.length < MAX_PROMISES && (
        <AddPromise
          label={milestone.name}
          taken={milestone.promises}
          onAdd={(promised) => set([...milestone.promises, promised])}
        />
      )}
    </details>
  );
}

/** One more promise: what it is of, which one, and at which stage a section is to stand. */
function AddPromise({
  label,
  taken,
  onAdd,
}: {
  label: string;
  taken: readonly Promised[];
  onAdd: (promised: Promised) => void;
}) {
  const scene = useDisplay(({ scene: now }) => now);
  const [of, setOf] = useState<Promised['of']>('section');
  const [stage, setStage] = useState<Stage>('done');
  const options = listOf(scene, of)
    .filter(
      ({ id }) =>
        !taken.some((one) => one.of === of && one.thing === id && (of !== 'section' || one.stage === stage)),
    )
    .map(({ id }) => ({ value: id, word: labelOf(scene, of, id) }))
    .sort((a, b) => a.word.localeCompare(b.word));
  return (
    <div className="flex flex-wrap items-center gap-1 pl-3 pb-1">
      <span className="w-36">
        <SelectField
          bare
          label={`What ${label} promises`}
          value={of}
          options={PROMISED.map((value) => ({ value, word: OF_WORDS[value] }))}
          onCommit={setOf}
        />
      </span>
      {of === 'section' && (
        <span className="w-28">
          <SelectField
            bare
            label={`Stage that ${label} promises`}
            value={stage}
            options={STAGES.slice(1).map((value) => ({ value, word: capital(value) }))}
            onCommit={setStage}
          />
        </span>
      )}
      <span className="flex-1 min-w-32">
        <SelectField
          bare
          label={`Which one ${label} promises`}
          value=""
          options={[{ value: '', word: options.length > 0 ? 'Choose to add …' : 'None left' }, ...options]}
          onCommit={(thing) => thing !== '' && onAdd({ of, thing, stage })}
        />
      </span>
    </div>
  );
}
