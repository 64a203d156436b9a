import { listOf } from '@quarry/core/document';
import { freshId, useEdit, useScene } from '../../data/useDisplay.tsx';
import { TextField } from '../../ui/fields.tsx';
import { RemoveButton, Row, Rows } from '../../ui/rows.tsx';

const COLUMNS = '2rem minmax(0,1fr) minmax(0,1fr) auto';

export function People({ disabled }: { disabled: boolean }) {
  const scene = useScene('person', 'section');
  const edit = useEdit();
  const people = listOf(scene, 'person');
  return (
    <Rows
      id="people"
      title="People"
      columns={COLUMNS}
      add={{
        word: 'Add a person',
        disabled,
        onClick: () =>
          void edit.add('added a person', 'person', freshId('person'), {
            name: `Builder ${people.length + 1}`,
            initials: `B${(people.length + 1) % 10}`,
          }),
      }}
    >
      {people.map((person) => (
        <Row key={person.id} label={person.name} columns={COLUMNS}>
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
        </Row>
      ))}
    </Rows>
  );
}
