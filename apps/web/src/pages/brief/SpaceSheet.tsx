import { countOf, formatPercent } from '@quarry/core/grid';
import { FIGURE_RATIO, spaceBudget } from '@quarry/core/scale';
import { displayOf, listOf, spacesOf, vehiclesOf, type Entity } from '@quarry/core/document';
import { freshId, useDisplay, useEdit } from '../../data/useDisplay.tsx';
import { NumberField, QuantityField, SelectField, TextField } from '../../ui/fields.tsx';
import { Basis, Empty, DefinitionRow } from '../../ui/parts.tsx';
import { RemoveButton, Row, Rows } from '../../ui/rows.tsx';
import { useSetDisplay } from '../../data/useSetDisplay.ts';

/** What the scene must hold: rooms and yards with their true size, and vehicles. */
export function SpaceSheet({ disabled }: { disabled: boolean }) {
  return (
    <div className="grid gap-x-8 gap-y-4 2xl:grid-cols-2 items-start">
      <Budget disabled={disabled} />
      <Vehicles disabled={disabled} />
    </div>
  );
}

const BUDGET = 'minmax(7rem,1fr) 8.5rem 8.5rem 5.5rem minmax(7rem,1fr) minmax(11rem,1.2fr) auto';

/** The plot each room needs at scale beside the plot it has, the worst first. */
function Budget({ disabled }: { disabled: boolean }) {
  const scene = useDisplay(({ scene }) => scene);
  const edit = useEdit();
  const { ratio } = displayOf(scene);
  const budget = spaceBudget(spacesOf(scene), ratio);
  const plots = listOf(scene, 'plot').toSorted((a, b) => a.name.localeCompare(b.name));
  const size = { measure: 'm', min: 0.01, max: 10_000, bare: true, disabled } as const;
  const change = (space: Entity<'space'>, fields: Partial<Entity<'space'>>) =>
    edit.patch(`changed the ${space.name}`, 'space', space, fields);
  return (
    <div className="min-w-0 overflow-x-auto">
      <Rows
        id="budget"
        title="Space budget"
        aside={`true sizes inside, at 1:${ratio}; the worst first`}
        columns={BUDGET}
        words={[
          'Room or yard',
          'True width',
          'True depth',
          'Walls, studs',
          'Its plot',
          { right: 'Needs and has, studs' },
          '',
        ]}
        empty={
          <Empty title="No room listed yet">
            List the rooms and yards the scene cannot do without, with their true size, before their plots are
            fixed: the commonest regret is a key room with a quarter of its floor.
          </Empty>
        }
        add={{
          word: 'Add a room or yard',
          disabled,
          onClick: () =>
            void edit.add('added a room', 'space', freshId('space'), { name: 'main room', w: 8, d: 6 }),
        }}
      >
        {budget.spaces.map(({ id, need, share, fits }) => {
          const space = scene.space[id];
          if (!space) return null;
          const plot = space.plot === null ? null : (scene.plot[space.plot] ?? null);
          return (
            <Row key={id} label={space.name} columns={BUDGET}>
              <TextField
                bare
                label="Room or yard"
                required
                value={space.name}
                disabled={disabled}
                onCommit={(name) => change(space, { name })}
              />
              <QuantityField
                label={`True width of ${space.name}`}
                value={space.w}
                {...size}
                onCommit={(w) => change(space, { w })}
              />
              <QuantityField
                label={`True depth of ${space.name}`}
                value={space.d}
                {...size}
                onCommit={(d) => change(space, { d })}
              />
              <NumberField
                bare
                label={`Walls of ${space.name}`}
                value={space.wall}
                min={0}
                max={16}
                disabled={disabled}
                onCommit={(wall) => change(space, { wall: Math.round((wall ?? 1) * 2) / 2 })}
              />
              <SelectField
                bare
                label={`Plot of ${space.name}`}
                value={space.plot ?? ''}
                disabled={disabled}
                options={[
                  { value: '', word: 'none yet' },
                  ...plots.map((one) => ({ value: one.id, word: one.name })),
                ]}
                onCommit={(one) => change(space, { plot: one === '' ? null : one })}
              />
              <span className={`text-right text-xs ${fits === false ? 'text-warning' : ''}`}>
                <span className="fig">
                  needs {need.w} × {need.d}
                  {plot && `, has ${plot.w} × ${plot.d}`}
                </span>
                <span className="block">
                  {share === null
                    ? 'no plot'
                    : fits
                      ? `fits: ${formatPercent(share)} of its floor`
                      : share < 1
                        ? `△ ${formatPercent(share)} of the floor it needs`
                        : '△ floor enough, the wrong shape'}
                </span>
              </span>
              <RemoveButton
                what={space.name}
                disabled={disabled}
                onClick={() => edit.remove(`removed ${space.name}`, 'space', space.id, space.v)}
              />
            </Row>
          );
        })}
      </Rows>
      {budget.ratio !== null && (
        <dl className="max-w-md">
          <DefinitionRow
            label="A scale at which all of them fit"
            note={
              budget.ratio > ratio
                ? `${(100 * (1 - ratio / budget.ratio)).toFixed(0)} % smaller than 1:${ratio}`
                : 'the display’s own does'
            }
          >
            1:{(Math.ceil(budget.ratio * 10) / 10).toFixed(1)}
          </DefinitionRow>
        </dl>
      )}
      <Basis>
        True size ÷ ratio ÷ 8 mm, rounded up to whole studs, and the walls on both sides; a plot may lie
        either way round. The share compares floor inside: an 8 × 8 house with walls of one stud has 6 × 6 =
        36 studs.
      </Basis>
    </div>
  );
}

const VEHICLES = 'minmax(7rem,1fr) 4.5rem 10rem 10rem 9.5rem minmax(9rem,1fr) auto';

/** Big things make a scene look small: how much ground vehicles cover, and their scale beside the figures'. */
function Vehicles({ disabled }: { disabled: boolean }) {
  const scene = useDisplay(({ scene }) => scene);
  const edit = useEdit();
  const set = useSetDisplay();
  const { vehicleShare, scaleSpread } = displayOf(scene);
  const judged = vehiclesOf(scene);
  const studs = { measure: 'studs', bare: true, min: 0.5, max: 4096, disabled } as const;
  const change = (vehicle: Entity<'vehicle'>, fields: Partial<Entity<'vehicle'>>) =>
    edit.patch(`changed ${vehicle.name}`, 'vehicle', vehicle, fields);
  const over = judged.share * 100 > vehicleShare;
  return (
    <div className="min-w-0 overflow-x-auto">
      <Rows
        id="vehicles"
        title="Vehicles on the ground"
        aside={`figures are about 1:${FIGURE_RATIO}`}
        columns={VEHICLES}
        words={['Vehicle', 'Count', 'Built length', 'Built width', 'True length', { right: 'Its scale' }, '']}
        empty={
          <Empty title="No vehicle listed yet">
            A few large vehicles make a whole scene look small. List them to see how much ground they cover.
          </Empty>
        }
        add={{
          word: 'Add a vehicle',
          disabled,
          onClick: () =>
            void edit.add('added a vehicle', 'vehicle', freshId('vehicle'), {
              name: 'lorry',
              length: 20,
              width: 7,
              trueLength: 7.5,
            }),
        }}
      >
        {judged.vehicles.map(({ id, ratio, beside, covers }) => {
          const vehicle = scene.vehicle[id];
          if (!vehicle) return null;
          const large = beside * 100 > scaleSpread;
          return (
            <Row key={id} label={vehicle.name} columns={VEHICLES}>
              <TextField
                bare
                label="Vehicle"
                required
                value={vehicle.name}
                disabled={disabled}
                onCommit={(name) => change(vehicle, { name })}
              />
              <NumberField
                bare
                whole
                label={`Count of ${vehicle.name}`}
                value={vehicle.count}
                min={1}
                max={1000}
                disabled={disabled}
                onCommit={(count) => change(vehicle, { count: count ?? 1 })}
              />
              <QuantityField
                label={`Length of ${vehicle.name}`}
                value={vehicle.length}
                {...studs}
                onCommit={(length) => change(vehicle, { length })}
              />
              <QuantityField
                label={`Width of ${vehicle.name}`}
                value={vehicle.width}
                {...studs}
                onCommit={(width) => change(vehicle, { width })}
              />
              <QuantityField
                bare
                label={`True length of ${vehicle.name}`}
                value={vehicle.trueLength}
                measure="m"
                min={0.01}
                max={10_000}
                disabled={disabled}
                onCommit={(trueLength) => change(vehicle, { trueLength })}
              />
              <span className={`text-right text-xs ${large ? 'text-warning' : ''}`}>
                <span className="fig">
                  {large && '△ '}1:{ratio.toFixed(1)}, {countOf(covers, 'stud')}
                </span>
                <span className="block ink-2">
                  {Math.abs(100 * beside).toFixed(0)} % {beside > 0 ? 'larger' : 'smaller'} than figures
                </span>
              </span>
              <RemoveButton
                what={vehicle.name}
                disabled={disabled}
                onClick={() => edit.remove(`removed ${vehicle.name}`, 'vehicle', vehicle.id, vehicle.v)}
              />
            </Row>
          );
        })}
      </Rows>
      <div className="max-w-md">
        <NumberField
          label="Vehicles may cover of the ground"
          unit="%"
          value={vehicleShare}
          min={0}
          max={100}
          disabled={disabled}
          onCommit={(value) => set('changed the share of vehicles', { vehicleShare: value ?? 10 })}
        />
        <dl>
          <DefinitionRow label="They cover">
            <span className={over ? 'text-warning' : ''}>
              {over && '△ '}
              {(100 * judged.share).toFixed(1)} %
            </span>
          </DefinitionRow>
        </dl>
      </div>
      <Basis>
        Length × width × count over the studs of the footprint. A vehicle’s scale is its true length over its
        built length; figures are 40 mm for 1.75 m (from memory).
      </Basis>
    </div>
  );
}
