import { listOf } from '@quarry/core/document';
import { useDenialReason, useEdit, useScene } from '../../data/useDisplay.tsx';
import { TimeField } from '../../ui/fields.tsx';
import { Heading } from '../../ui/parts.tsx';

/** Who helps on the day of the show, and when each comes. */
export function WhoComes({ from }: { from: string }) {
  const scene = useScene('person');
  const edit = useEdit();
  const may = useDenialReason();
  const people = listOf(scene, 'person');
  const come = people.filter(({ comes }) => comes).length;
  return (
    <section aria-labelledby="who-comes">
      <Heading id="who-comes" aside={`${come} of ${people.length}`}>
        Who comes
      </Heading>
      {people.length === 0 && <p className="ink-2">Add people on Brief, Dates and people.</p>}
      <ul>
        {people.map((person) => {
          const { id, v, name, comes, arrives } = person;
          const isFixed = may({ op: 'patch', kind: 'person', id, v, set: { comes } }) !== null;
          return (
            <li key={id} className="flex items-center gap-2 border-b hair py-0.5">
              <label className="flex-1 flex items-center gap-2 min-w-0">
                <input
                  type="checkbox"
                  className="checkbox checkbox-xs"
                  checked={comes}
                  disabled={isFixed}
                  onChange={(event) =>
                    edit.patch(
                      `${name} ${event.currentTarget.checked ? 'comes' : 'does not come'}`,
                      'person',
                      person,
                      {
                        comes: event.currentTarget.checked,
                      },
                    )
                  }
                />
                <span className="truncate">{name}</span>
              </label>
              {comes && (
                <span className="w-24">
                  <TimeField
                    bare
                    label={`${name} comes at`}
                    value={arrives}
                    optional={from}
                    disabled={isFixed}
                    onCommit={(value) =>
                      edit.patch(`when ${name} comes`, 'person', person, { arrives: value })
                    }
                  />
                </span>
              )}
            </li>
          );
        })}
      </ul>
    </section>
  );
}
