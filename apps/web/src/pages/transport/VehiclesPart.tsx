import { Link } from 'react-router';
import { listOf } from '@quarry/core/document';
import { wayOf } from '@quarry/core/venue';
import { sceneAtShow, type Shipment } from '@quarry/core/transport';
import { useDenialReason, useDisplay, useEdit, useLink } from '../../data/useDisplay.tsx';
import { QuantityField, SelectField } from '../../ui/fields.tsx';
import { Basis, Heading } from '../../ui/parts.tsx';
import { personOptions } from '../../ui/picks.ts';
import { useSetDisplay } from '../../data/useSetDisplay.ts';
import { ThingForm } from './ThingForm.tsx';

/** The vehicles of the access route: their inside, load limit, trips, who drives. */
export function VehiclesPart({ shipment }: { shipment: Shipment }) {
  const scene = useDisplay(({ scene: now }) => now);
  const { id } = useLink();
  const edit = useEdit();
  const may = useDenialReason();
  const set = useSetDisplay();
  const vehicles = wayOf(sceneAtShow(scene)).filter(({ kind }) => kind === 'vehicle');
  const isFixed =
    may({ op: 'add', kind: 'passage', id: 'x', data: { name: 'x', width: 1, height: 1 } }) !== null;
  return (
    <>
      <Heading
        aside={
          <Link className="act link" to={`/d/${id}/survey?sheet=way`}>
            Access route
          </Link>
        }
      >
        Vehicles
      </Heading>
      {vehicles.length === 0 && <p className="ink-2">No vehicle is on the access route yet.</p>}
      {vehicles.map((vehicle) => (
        <ThingForm
          key={vehicle.id}
          kind="passage"
          id={vehicle.id}
          canGo={false}
          aside={[
            vehicle.maxKg === null ? 'load limit not known' : `${vehicle.maxKg} kg`,
            vehicle.trips === 1 ? 'one trip' : `${vehicle.trips} trips`,
            vehicle.driver === null ? 'nobody drives' : (scene.person[vehicle.driver]?.name ?? ''),
          ].join(' · ')}
        >
          <SelectField
            label="Drives"
            value={vehicle.driver ?? ''}
            options={[{ value: '', word: 'nobody yet' }, ...personOptions(scene)]}
            disabled={isFixed}
            onCommit={(driver) =>
              edit.patch(`who drives the ${vehicle.name}`, 'passage', vehicle, { driver: driver || null })
            }
          />
        </ThingForm>
      ))}
      {shipment.unknown.length > 0 && (
        <p className="text-warning text-xs py-1">
          △ The inside of {shipment.unknown.join(', ')} is not known: nothing is loaded in it.
        </p>
      )}
      <QuantityField
        label="Air about each thing"
        measure="mm"
        value={shipment.gap}
        min={0}
        max={200}
        disabled={isFixed}
        onCommit={(loadGap) => set('changed the air about what is loaded', { loadGap })}
      />
      <p className="ink-2 text-xs pt-1">
        {listOf(scene, 'person').length === 0 ? 'Add people on Brief, so that one can drive. ' : ''}
        Vehicles one after another on the access route go side by side: a module travels in one of them.
      </p>
      <Basis>
        Inside sizes are those you measured; nothing stands higher than the door. A load limit is in the
        vehicle’s papers, with the driver counted as the law of the place says.
      </Basis>
    </>
  );
}
