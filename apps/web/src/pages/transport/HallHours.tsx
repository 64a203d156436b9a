import { displayOf, listOf } from '@quarry/core/document';
import { SHOW_HOURS, sceneAtShow } from '@quarry/core/transport';
import { currentPlace } from '@quarry/core/venue';
import { useDenialReason, useDisplay, useEdit } from '../../data/useDisplay.tsx';
import { useSetDisplay } from '../../data/useSetDisplay.ts';
import { NumberField, SelectField, TimeField } from '../../ui/fields.tsx';
import { Heading } from '../../ui/parts.tsx';

const HOURS = [
  { field: 'accessFrom', label: 'Builders may come in' },
  { field: 'opensAt', label: 'Visitors come' },
  { field: 'closesAt', label: 'Visitors leave' },
  { field: 'clearBy', label: 'Hall is to be empty' },
] as const;

/** The hours of the hall, and how far things are carried in it. */
export function HallHours() {
  const scene = useDisplay(({ scene: now }) => now);
  const set = useSetDisplay();
  const edit = useEdit();
  const may = useDenialReason();
  const display = displayOf(scene);
  const place = currentPlace(sceneAtShow(scene));
  const places = listOf(scene, 'place');
  const isFixed =
    may({ op: 'patch', kind: 'display', id: display.id, v: display.v, set: { accessFrom: null } }) !== null;
  return (
    <section aria-labelledby="hours">
      <Heading id="hours">Hours of the hall</Heading>
      {places.length > 1 && (
        <SelectField
          label="Place of the show"
          value={display.showPlace ?? ''}
          options={[
            { value: '', word: 'where it stands now' },
            ...places.map(({ id, name }) => ({ value: id, word: name })),
          ]}
          disabled={isFixed}
          onCommit={(id) => set('changed the place of the show', { showPlace: id || null })}
        />
      )}
      {HOURS.map(({ field, label }) => (
        <TimeField
          key={field}
          label={label}
          value={display[field]}
          optional={`${SHOW_HOURS[field]}, a guess`}
          disabled={isFixed}
          onCommit={(value) => set('changed the hours of the hall', { [field]: value })}
        />
      ))}
      {place && (
        <NumberField
          label="Vehicle to tables"
          unit="m"
          value={place.carryMetres}
          min={0}
          max={2000}
          disabled={isFixed}
          onCommit={(metres) =>
            metres !== null &&
            edit.patch('changed how far things are carried', 'place', place, { carryMetres: metres })
          }
        />
      )}
    </section>
  );
}
