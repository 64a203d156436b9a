import { Plus } from 'lucide-react';
import { useState } from 'react';
import { countOf, formatPlates } from '@quarry/core/grid';
import { FITTING_USES, SIDE_WORDS, STAIR_ENDS, displayOf, listOf, type Entity } from '@quarry/core/document';
import { STEEPEST, floorPlans, type FloorPlan } from '@quarry/core/structures';
import { clearanceOfFitting } from '@quarry/core/terrain';
import { useDisplay } from '../../../data/useDisplay.tsx';
import { useSetFields } from '../../../ui/EntityForm.tsx';
import { QuantityField, SelectField, TextField } from '../../../ui/fields.tsx';
import { Basis, DefinitionRow, Dialog } from '../../../ui/parts.tsx';
import { RemoveButton } from '../../../ui/rows.tsx';
import { Tabs } from '../../../ui/Tabs.tsx';
import { capital } from '../../../ui/words.ts';
import { FloorDrawing } from './FloorDrawing.tsx';

type Fitting = Entity<'plot'>['fittings'][number];
const MOST = 40;

/** The floors of a building from above: what stands on them, how doors open, and what is left to stand on. */
export function FloorsDialog({
  plot,
  disabled,
  onClose,
}: {
  plot: Entity<'plot'>;
  disabled: boolean;
  onClose: () => void;
}) {
  const furnishings = useDisplay(({ scene }) => scene.furnishing);
  const ratio = useDisplay(({ scene }) => displayOf(scene).ratio);
  const [number, setNumber] = useState(1);
  const [picked, setPicked] = useState<number | null>(null);
  const set = useSetFields({ kind: 'plot', id: plot.id });
  const floors = floorPlans(plot);
  const floor = floors[Math.min(number, floors.length) - 1];
  if (!floor)
    return (
      <Dialog title={`Floors of ${plot.name}`} open onClose={onClose}>
        <p>It has no storeys: set how many on its card.</p>
      </Dialog>
    );
  const { storey } = floor;
  const put = (fittings: readonly Partial<Fitting>[]) => set('furnished', { fittings });
  const change = (index: number, fields: Partial<Fitting>) =>
    put(plot.fittings.map((one, i) => (i === index ? { ...one, ...fields } : one)));
  const add = (thing: { name: string; height: number; use?: Fitting['use']; w: number; d: number }) => {
    const { name, height, use = 'furniture', w, d } = thing;
    const place = { x: Math.floor((floor.w - w) / 2), y: Math.floor((floor.d - d) / 2), w, d };
    put([...plot.fittings, { name, height, use, on: storey.level, place }]);
    setPicked(plot.fittings.length);
  };
  const isFull = disabled || plot.fittings.length >= MOST;
  const inHand = floor.fittings.find(({ index }) => index === picked);
  return (
    <Dialog title={`Floors of ${plot.name}`} open onClose={onClose} wide>
      <Tabs
        label="Storeys"
        look="line"
        open={String(floor.number)}
        onOpen={(at) => {
          setNumber(Number(at));
          setPicked(null);
        }}
        tabs={floors.map((one) => ({
          id: String(one.number),
          word: (
            <span className="px-2">{one.number === 1 ? 'Storey 1, ground' : `Storey ${one.number}`}</span>
          ),
        }))}
      />
      <div className="grid md:grid-cols-[1fr_17rem] gap-x-6">
        <FloorDrawing
          floor={floor}
          front={plot.front}
          picked={picked}
          disabled={disabled}
          onPick={setPicked}
          onMove={(index, to) => {
            const place = plot.fittings[index]?.place;
            if (place) change(index, { place: { ...place, ...to } });
          }}
        />
        <div>
          <Figures floor={floor} />
          <p className="flex flex-wrap gap-1 py-2">
            <AddButton
              word="Thing"
              disabled={isFull}
              onClick={() => add({ name: 'Table', height: 6, w: 3, d: 4 })}
            />
            <AddButton
              word="Stair"
              disabled={isFull}
              onClick={() => add({ name: 'Stair', height: 3, use: 'stair', w: 2, d: 8 })}
            />
            {listOf({ furnishing: furnishings }, 'furnishing')
              .filter(({ use }) => use !== 'doorway')
              .map(({ id, name, height }) => (
                <AddButton
                  key={id}
                  word={name}
                  disabled={isFull}
                  onClick={() => add({ name, height, w: 2, d: 2 })}
                />
              ))}
          </p>
          {inHand ? (
            <ThingFields
              plot={plot}
              floor={floor}
              index={inHand.index}
              fault={inHand.fault}
              disabled={disabled}
              onChange={(fields) => change(inHand.index, fields)}
              onRemove={() => {
                setPicked(null);
                put(plot.fittings.filter((_, i) => i !== inHand.index));
              }}
            />
          ) : (
            <p className="ink-2 text-xs py-2">
              {floor.fittings.length === 0
                ? 'Nothing stands here yet. Add a thing, then drag it to its place.'
                : 'Press a thing to change it; drag it, or move it with the arrow keys (Shift: 8 studs, Alt: half a stud).'}
            </p>
          )}
        </div>
      </div>
      <Basis>
        Drawn unturned, to scale at 1:{ratio}, from the inside of the walls. Free: studs that no thing, pillar
        or deep window takes, halves exact. Figures: places of 2 × 2 studs with 40 mm of air, so many at
        least. A door opens if its leaf, as wide as the door, passes everything on one hand at least. Above a
        stair the floor is open where a figure would hit its head, and counted so.
      </Basis>
    </Dialog>
  );
}

function AddButton({ word, disabled, onClick }: { word: string; disabled: boolean; onClick: () => void }) {
  return (
    <button type="button" className="btn btn-xs" disabled={disabled} onClick={onClick}>
      <Plus size={12} aria-hidden /> {word}
    </button>
  );
}

/** What a floor comes to. */
function Figures({ floor }: { floor: FloorPlan }) {
  const { studs, free, figures, doors, stairs, storey } = floor;
  return (
    <dl>
      <DefinitionRow label="Free" note={`of ${studs} inside`}>
        {countOf(free, 'stud')}
      </DefinitionRow>
      <DefinitionRow label="Places for figures" note="2 × 2 studs each, at least">
        {figures.length}
      </DefinitionRow>
      <DefinitionRow label="From floor to ceiling">{formatPlates(storey.to - storey.from)}</DefinitionRow>
      {doors.map(({ side, leaf, hinges, blocked }) => (
        <DefinitionRow
          key={`${side} ${hinges.left.x} ${hinges.left.y}`}
          label={`Door to the ${SIDE_WORDS[side]}`}
          note={`leaf of ${countOf(leaf, 'stud')}, inwards`}
        >
          {blocked.left !== null && blocked.right !== null ? (
            <span className="text-warning font-semibold">△ blocked</span>
          ) : blocked.left === null && blocked.right === null ? (
            'opens either way'
          ) : (
            `opens hung ${blocked.left === null ? 'left' : 'right'}`
          )}
        </DefinitionRow>
      ))}
      {stairs.map(({ index, name, rise, perStud, opening }) => (
        <DefinitionRow
          key={index}
          label={name}
          note={`climbs ${formatPlates(rise)}; the floor above open over ${countOf(opening, 'stud')} of it`}
        >
          <span className={perStud > STEEPEST ? 'text-warning font-semibold' : ''}>
            {perStud > STEEPEST && '△ '}
            {Number(perStud.toFixed(1))} plates a stud
          </span>
        </DefinitionRow>
      ))}
    </dl>
  );
}

/** The ends of a stair by where they are. */
const endWords = ({ w, d }: { w: number; d: number }) =>
  w >= d ? { start: SIDE_WORDS.w, end: SIDE_WORDS.e } : { start: SIDE_WORDS.n, end: SIDE_WORDS.s };

/** The thing in hand. */
function ThingFields({
  plot,
  floor,
  index,
  fault,
  disabled,
  onChange,
  onRemove,
}: {
  plot: Entity<'plot'>;
  floor: FloorPlan;
  index: number;
  fault: string | null;
  disabled: boolean;
  onChange: (fields: Partial<Fitting>) => void;
  onRemove: () => void;
}) {
  const fitting = plot.fittings[index];
  if (!fitting?.place) return null;
  const { name, use, height, on, place } = fitting;
  const { storey } = floor;
  const { clear, under } = clearanceOfFitting(plot, fitting);
  const shared = { measure: 'studs', disabled } as const;
  const over = under === 'roof' ? 'roof' : 'next floor';
  return (
    <section aria-label={name}>
      <div className="flex items-end gap-1">
        <div className="flex-1">
          <TextField
            label="Name"
            required
            value={name}
            disabled={disabled}
            onCommit={(to) => onChange({ name: to })}
          />
        </div>
        <RemoveButton what={name} disabled={disabled} onClick={onRemove} />
      </div>
      <SelectField
        label="It is"
        value={use}
        options={FITTING_USES.map((value) => ({ value, word: capital(value) }))}
        disabled={disabled}
        onCommit={(to) => onChange({ use: to })}
      />
      {use === 'stair' && (
        <SelectField
          label="Up at its end to the"
          value={fitting.climbsTo}
          options={STAIR_ENDS.map((value) => ({ value, word: capital(endWords(place)[value]) }))}
          disabled={disabled}
          onCommit={(climbsTo) => onChange({ climbsTo })}
        />
      )}
      <QuantityField
        label="Wide"
        {...shared}
        value={place.w}
        min={0.5}
        max={256}
        onCommit={(w) => onChange({ place: { ...place, w } })}
      />
      <QuantityField
        label="Deep"
        {...shared}
        value={place.d}
        min={0.5}
        max={256}
        onCommit={(d) => onChange({ place: { ...place, d } })}
      />
      <QuantityField
        label="From the west wall"
        {...shared}
        value={place.x}
        min={-8}
        max={4096}
        onCommit={(x) => onChange({ place: { ...place, x } })}
      />
      <QuantityField
        label="From the north wall"
        {...shared}
        value={place.y}
        min={-8}
        max={4096}
        onCommit={(y) => onChange({ place: { ...place, y } })}
      />
      <QuantityField
        label="High"
        measure="plates"
        min={1}
        value={height}
        disabled={disabled}
        onCommit={(to) => onChange({ height: to })}
      />
      <QuantityField
        label="Above its floor"
        measure="plates"
        min={0}
        value={on === storey.level ? 0 : on - storey.from}
        disabled={disabled}
        onCommit={(up) => onChange({ on: up === 0 ? storey.level : storey.from + up })}
      />
      {use === 'furniture' && (
        <p className={`text-xs py-1 ${clear < 0 ? 'text-error' : 'ink-2'}`}>
          {clear < 0
            ? `! ${formatPlates(Math.ceil(-clear))} too tall for the ${over}.`
            : `${formatPlates(Math.floor(clear))} of air up to the ${over}.`}
        </p>
      )}
      {fault !== null && (
        <p role="status" className="text-error text-xs py-1">
          ! No room: {fault}.
        </p>
      )}
    </section>
  );
}
