import { listOf } from '@quarry/core/document';
import { clockOf, minutesOf, phaseTimes } from '@quarry/core/transport';
import { useDenialReason, useDisplay, useEdit } from '../../data/useDisplay.tsx';
import { NumberField, TimeField } from '../../ui/fields.tsx';
import { Heading } from '../../ui/parts.tsx';

/** Who helps on the day of the show, when each comes, and how much they carry. */
export function WhoComes() {
  const scene = useDisplay(({ scene: now }) => now);
  const { from, windows } = phaseTimes(scene, 'setup');
  const hasEve = windows.length > 1;
  const edit = useEdit();
  const may = useDenialReason();
  const people = listOf(scene, 'person');
  const come = people.filter(({ comes }) => comes).length;
  return (
    <section aria-labelledby="who-comes">
      <Heading id="who-comes" aside={`${come} of ${people.length}`}>
        Who comes
      </Heading>
      {come > 0 && (
        <p aria-hidden className="flex justify-end gap-2 text-[11px] ink-2">
          <span className="w-24">comes at</span>
          <span className="w-20">carries at most</span>
        </p>
      )}
      {people.length === 0 && <p className="ink-2">Add people on Brief, Dates and people.</p>}
      <ul>
        {people.map((person) => {
          const { id, v, name, comes, arrives, eve, carriesKg } = person;
          const set = (words: string, fields: Partial<typeof person>) =>
            edit.patch(words, 'person', person, fields);
          const isFixed = may({ op: 'patch', kind: 'person', id, v, set: { comes } }) !== null;
          return (
            <li key={id} className="flex flex-wrap items-center gap-2 border-b hair py-0.5">
              <label className="flex-1 flex items-center gap-2 min-w-0">
                <input
                  type="checkbox"
                  className="checkbox checkbox-xs"
                  checked={comes}
                  disabled={isFixed}
                  onChange={(event) =>
                    set(`${name} ${event.currentTarget.checked ? 'comes' : 'does not come'}`, {
                      comes: event.currentTarget.checked,
                    })
                  }
                />
                <span className="truncate">{name}</span>
              </label>
              {comes && (
                <>
                  <span className="w-24">
                    <TimeField
                      bare
                      label={`${name} comes at`}
                      value={arrives}
                      optional={hasEve && !eve ? clockOf(minutesOf(from) + (windows[1]?.start ?? 0)) : from}
                      disabled={isFixed}
                      onCommit={(value) => set(`when ${name} comes`, { arrives: value })}
                    />
                  </span>
                  <span className="w-20">
                    <NumberField
                      bare
                      label={`${name} carries at most`}
                      unit="kg"
                      value={carriesKg}
                      min={0}
                      max={100}
                      optional="any"
                      disabled={isFixed}
                      onCommit={(value) => set(`what ${name} carries`, { carriesKg: value })}
                    />
                  </span>
                </>
              )}
              {comes && hasEve && (
                <label className="basis-full pl-7 flex items-center gap-2 text-xs">
                  <input
                    type="checkbox"
                    className="checkbox checkbox-xs"
                    aria-label={`${name} is there the evening before`}
                    checked={eve}
                    disabled={isFixed}
                    onChange={(event) => set(`which day ${name} comes`, { eve: event.currentTarget.checked })}
                  />
                  there the evening before
                </label>
              )}
            </li>
          );
        })}
      </ul>
    </section>
  );
}
