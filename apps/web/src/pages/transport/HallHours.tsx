import { displayOf, listOf, type Display, type Entity } from '@quarry/core/document';
import { DRIVE_MINUTES, SHOW_HOURS, nightsOf, phasesOf, sceneAtShow } from '@quarry/core/transport';
import { currentPlace } from '@quarry/core/venue';
import { useDenialReason, useDisplay, useEdit } from '../../data/useDisplay.tsx';
import { useSetDisplay } from '../../data/useSetDisplay.ts';
import { CheckField, NumberField, SelectField, TimeField } from '../../ui/fields.tsx';
import { Heading } from '../../ui/parts.tsx';

const DAY_HOURS = [
  { field: 'accessFrom', label: 'Builders may come in' },
  { field: 'opensAt', label: 'Visitors come' },
  { field: 'closesAt', label: 'Visitors leave' },
  { field: 'clearBy', label: 'Hall is to be empty' },
] as const;
const HOME_HOURS = [
  { field: 'leaveFrom', label: 'Packing begins' },
  { field: 'rebuildFrom', label: 'Set up again from' },
  { field: 'rebuildBy', label: 'Standing again by' },
] as const;

/** The hours of the hall, and how far things are carried in it. */
export function HallHours() {
  const scene = useDisplay(({ scene: now }) => now);
  const set = useSetDisplay();
  const may = useDenialReason();
  const display = displayOf(scene);
  const place = currentPlace(sceneAtShow(scene));
  const home = currentPlace(scene);
  const places = listOf(scene, 'place');
  const isFixed =
    may({ op: 'patch', kind: 'display', id: display.id, v: display.v, set: { accessFrom: null } }) !== null;
  const nights = nightsOf(scene);
  const hour = ({ field, label }: (typeof DAY_HOURS)[number] | (typeof HOME_HOURS)[number]) => (
    <TimeField
      key={field}
      label={label}
      value={display[field]}
      optional={`${SHOW_HOURS[field]}, a guess`}
      disabled={isFixed}
      onCommit={(value) => set('changed the hours of the hall', { [field]: value })}
    />
  );
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
      <NumberField
        label="Days with visitors"
        whole
        value={display.showDays}
        min={1}
        max={30}
        disabled={isFixed}
        onCommit={(showDays) => showDays !== null && set('changed the days of the show', { showDays })}
      />
      {DAY_HOURS.map(hour)}
      <Span
        label="The evening before"
        from="eveFrom"
        to="eveTo"
        usual="18:00"
        {...{ display, isFixed, set }}
      />
      <Span
        label="The day after"
        from="morrowFrom"
        to="morrowTo"
        usual="08:00"
        {...{ display, isFixed, set }}
      />
      {place && <CarryField place={place} label="Vehicle to tables" isFixed={isFixed} />}
      {nights > 0 && (
        <p className="ink-2 text-xs py-1">
          Stands {nights === 1 ? 'one night' : `${nights} nights`} in the hall: see Kit.
        </p>
      )}
      {phasesOf(scene).includes('leave') && (
        <>
          <NumberField
            label="From home to the hall"
            unit="min"
            whole
            value={display.driveMinutes}
            min={0}
            max={2880}
            optional={`${DRIVE_MINUTES}, a guess`}
            disabled={isFixed}
            onCommit={(driveMinutes) => set('changed how long the drive takes', { driveMinutes })}
          />
          {HOME_HOURS.map(hour)}
          {home && <CarryField place={home} label="Vehicle to tables at home" isFixed={isFixed} />}
        </>
      )}
    </section>
  );
}

/** How far things are carried in a place. */
function CarryField({ place, label, isFixed }: { place: Entity<'place'>; label: string; isFixed: boolean }) {
  const edit = useEdit();
  return (
    <NumberField
      label={label}
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
  );
}

/** Two hours of another day, where builders may be in the hall on it. */
function Span({
  label,
  from,
  to,
  usual,
  display,
  isFixed,
  set,
}: {
  label: string;
  from: 'eveFrom' | 'morrowFrom';
  to: 'eveTo' | 'morrowTo';
  /** Its beginning until another one is typed. */
  usual: string;
  display: Display;
  isFixed: boolean;
  set: (words: string, fields: Partial<Display>) => void;
}) {
  const isOpen = display[from] !== null;
  return (
    <>
      <CheckField
        label={`${label} too`}
        value={isOpen}
        disabled={isFixed}
        onCommit={(value) =>
          set(`the hall is ${value ? 'open' : 'closed'} ${label.toLowerCase()}`, {
            [from]: value ? usual : null,
            ...(value ? {} : { [to]: null }),
          })
        }
      />
      {isOpen && (
        <>
          <TimeField
            label={`${label}, from`}
            value={display[from]}
            optional={usual}
            disabled={isFixed}
            onCommit={(value) => value !== null && set('changed the hours of the hall', { [from]: value })}
          />
          <TimeField
            label={`${label}, until`}
            value={display[to]}
            optional={`${SHOW_HOURS[to]}, a guess`}
            disabled={isFixed}
            onCommit={(value) => set('changed the hours of the hall', { [to]: value })}
          />
        </>
      )}
    </>
  );
}
