import { Plus, Trash2 } from 'lucide-react';
import { MM, formatPlates, studsWithin } from '@quarry/core/lattice';
import { displayOf, listOf, type Entity } from '@quarry/core/scene';
import { freshId, useDisplay, useEdit } from '../../data/useDisplay.tsx';
import { NumberField, QuantityField, TextField } from '../../ui/fields.tsx';
import { Empty, Heading } from '../../ui/parts.tsx';
import { useSetDisplay } from './useSetDisplay.ts';

export function Levels({ disabled }: { disabled: boolean }) {
  const { scene } = useDisplay();
  const edit = useEdit();
  const set = useSetDisplay();
  const display = displayOf(scene);
  const levels = listOf(scene, 'level').sort((a, b) => b.height - a.height);
  const change = (level: Entity<'level'>, what: string, fields: Partial<Entity<'level'>>) =>
    edit.patch(`${what} level ${level.name}`, 'level', level, fields);
  return (
    <section aria-labelledby="levels">
      <Heading id="levels" aside="above the table top">
        Levels
      </Heading>
      <NumberField
        label="Agreed step between levels"
        unit="plates"
        optional="none"
        whole
        value={display.levelStep}
        min={1}
        max={3000}
        disabled={disabled}
        hint={display.levelStep === null ? undefined : formatPlates(display.levelStep)}
        onCommit={(levelStep) => set('agreed on a step', { levelStep })}
      />
      {levels.length === 0 && (
        <Empty title="No level yet">
          Name the heights the scene is made of, such as water, street and upper yard; pads then refer to
          them.
        </Empty>
      )}
      {levels.map((level, i) => {
        const below = levels[i + 1];
        const rise = below ? level.height - below.height : null;
        const fits = rise === null || display.levelStep === null || rise % display.levelStep === 0;
        return (
          <div key={level.id} className={ROW} role="group" aria-label={`Level ${level.name}`}>
            <TextField
              bare
              label="Level name"
              required
              value={level.name}
              disabled={disabled}
              onCommit={(name) => change(level, 'renamed', { name })}
            />
            <span className={`text-xs text-right ${fits ? 'ink-2' : 'text-warning'}`}>
              {rise !== null && `${formatPlates(rise)} above ${below.name}${fits ? '' : ', off step'}`}
            </span>
            <QuantityField
              bare
              label={`Height of ${level.name}`}
              value={level.height}
              measure="plates"
              min={-3000}
              max={3000}
              disabled={disabled}
              onCommit={(height) => change(level, 'moved', { height })}
            />
            <RemoveButton
              what={`level ${level.name}`}
              disabled={disabled}
              onClick={() => edit.remove(`removed level ${level.name}`, 'level', level.id, level.v)}
            />
          </div>
        );
      })}
      <AddButton
        disabled={disabled}
        onClick={() =>
          edit.add('added a level', 'level', freshId('level'), {
            name: `Level ${levels.length + 1}`,
            height: (levels[0]?.height ?? -12) + (display.levelStep ?? 15),
          })
        }
      >
        Add a level
      </AddButton>
    </section>
  );
}

export function Passages({ disabled }: { disabled: boolean }) {
  const { scene } = useDisplay();
  const edit = useEdit();
  const passages = listOf(scene, 'passage').sort((a, b) => a.width - b.width);
  return (
    <section aria-labelledby="passages">
      <Heading id="passages" aside="clear width and height">
        Doors and vehicles to pass
      </Heading>
      {passages.map((passage) => {
        const change = (fields: Partial<Entity<'passage'>>) =>
          edit.patch(`changed the ${passage.name}`, 'passage', passage, fields);
        return (
          <div
            key={passage.id}
            className="grid grid-cols-[minmax(0,1fr)_auto_auto_auto] items-center gap-1 border-b hair"
            role="group"
            aria-label={passage.name}
          >
            <TextField
              bare
              label="Passage"
              required
              value={passage.name}
              disabled={disabled}
              hint={
                <span className="block text-left pl-1">
                  a module of {studsWithin(passage.width * MM)} studs passes
                </span>
              }
              onCommit={(name) => change({ name })}
            />
            <QuantityField
              bare
              hint=""
              label={`Clear width of ${passage.name}`}
              value={passage.width}
              measure="mm"
              min={1}
              max={40_000}
              disabled={disabled}
              onCommit={(width) => change({ width })}
            />
            <QuantityField
              bare
              hint=""
              label={`Clear height of ${passage.name}`}
              value={passage.height}
              measure="mm"
              min={1}
              max={40_000}
              disabled={disabled}
              onCommit={(height) => change({ height })}
            />
            <RemoveButton
              what={passage.name}
              disabled={disabled}
              onClick={() => edit.remove(`removed the ${passage.name}`, 'passage', passage.id, passage.v)}
            />
          </div>
        );
      })}
      <AddButton
        disabled={disabled}
        onClick={() =>
          edit.add('added a passage', 'passage', freshId('passage'), {
            name: 'new door',
            width: 800,
            height: 2000,
          })
        }
      >
        Add a passage
      </AddButton>
    </section>
  );
}

export function People({ disabled }: { disabled: boolean }) {
  const { scene } = useDisplay();
  const edit = useEdit();
  const people = listOf(scene, 'person');
  return (
    <section aria-labelledby="people">
      <Heading id="people">People</Heading>
      {people.map((person) => (
        <div
          key={person.id}
          className="grid grid-cols-[2rem_minmax(0,1fr)_minmax(0,1fr)_auto] items-center gap-1 border-b hair"
          role="group"
          aria-label={person.name}
        >
          <span className="fig text-xs">{person.initials}</span>
          <TextField
            bare
            label="Name of the person"
            required
            value={person.name}
            disabled={disabled}
            onCommit={(name) => edit.patch(`renamed ${person.name}`, 'person', person, { name })}
          />
          <span className="ink-2 text-xs text-right truncate">
            {[
              person.town,
              ...listOf(scene, 'section')
                .filter(({ owner }) => owner === person.id)
                .map(({ letter }) => `section ${letter}`),
            ]
              .filter(Boolean)
              .join(' · ')}
          </span>
          <RemoveButton
            what={person.name}
            disabled={disabled}
            onClick={() => edit.remove(`removed ${person.name}`, 'person', person.id, person.v)}
          />
        </div>
      ))}
      <AddButton
        disabled={disabled}
        onClick={() =>
          edit.add('added a person', 'person', freshId('person'), {
            name: `Builder ${people.length + 1}`,
            initials: `B${(people.length + 1) % 10}`,
          })
        }
      >
        Add a person
      </AddButton>
    </section>
  );
}

const ROW = 'grid grid-cols-[minmax(5rem,1fr)_minmax(0,1.4fr)_auto_auto] items-center gap-1 border-b hair';

function AddButton({
  children,
  disabled,
  onClick,
}: {
  children: string;
  disabled: boolean;
  onClick: () => void;
}) {
  return (
    <button type="button" className="btn btn-xs mt-1" disabled={disabled} onClick={onClick}>
      <Plus size={12} aria-hidden /> {children}
    </button>
  );
}

function RemoveButton({ what, disabled, onClick }: { what: string; disabled: boolean; onClick: () => void }) {
  return (
    <button
      type="button"
      className="btn btn-xs btn-ghost btn-square"
      disabled={disabled}
      aria-label={`Remove ${what}`}
      title={`Remove ${what}`}
      onClick={onClick}
    >
      <Trash2 size={12} aria-hidden />
    </button>
  );
}
