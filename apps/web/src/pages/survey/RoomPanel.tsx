import { useState } from 'react';
import { footprintBounds } from '@quarry/core/terrain';
import { displayOf, labelOf, listOf, type Change, type Place, type Scene } from '@quarry/core/document';
import {
  VENUE_KINDS,
  currentPlace,
  frameOf,
  currentContents,
  rectToRoom,
  signedArea,
} from '@quarry/core/venue';
import { turnedFrame } from '@quarry/core/reach';
import { useEdit } from '../../data/useDisplay.tsx';
import { useView } from '../../data/view.ts';
import { OptionalQuantityField, QuantityField, TextField } from '../../ui/fields.tsx';
import { Heading, DefinitionRow } from '../../ui/parts.tsx';
import { useMeasureFormat } from '../../ui/useMeasureFormat.ts';
import { capital } from '../../ui/words.ts';
import { rectangle } from './defaults.ts';

/** The room itself: its size and corners, where the scene lies in it, and a list of all that is in it. */
export function RoomPanel({
  scene,
  disabled,
  onGone,
}: {
  scene: Scene;
  disabled: boolean;
  onGone: () => void;
}) {
  const place = currentPlace(scene);
  return (
    <>
      {place && <RoomSheet place={place} scene={scene} disabled={disabled} onGone={onGone} />}
      <ThingList scene={scene} />
    </>
  );
}

function RoomSheet({
  place,
  scene,
  disabled,
  onGone,
}: {
  place: Place;
  scene: Scene;
  disabled: boolean;
  onGone: () => void;
}) {
  const edit = useEdit();
  const { say, area } = useMeasureFormat();
  const [corners, setCorners] = useState(false);
  const set = (what: string, fields: Partial<Place>) =>
    edit.patch(`${what} ${place.name}`, 'place', place, fields);
  const xs = place.walls.map(({ x }) => x);
  const ys = place.walls.map(({ y }) => y);
  const box =
    place.walls.length > 2
      ? { w: Math.max(...xs) - Math.min(...xs), d: Math.max(...ys) - Math.min(...ys) }
      : null;
  const plain =
    place.walls.length === 4 &&
    box !== null &&
    Math.abs(Math.abs(signedArea(place.walls)) - box.w * box.d) < 1;
  const bounds = footprintBounds(scene);
  const lying = bounds && rectToRoom(frameOf(scene), bounds);
  const size = { measure: 'mm', min: 100, max: 40_000, disabled } as const;
  return (
    <>
      <TextField
        label="Place"
        required
        value={place.name}
        disabled={disabled}
        onCommit={(name) => set('renamed', { name })}
      />
      {(plain || !box) && (
        <>
          <QuantityField
            label="Room, east to west"
            value={box?.w ?? 5000}
            {...size}
            onCommit={(w) => set('resized', { walls: rectangle(w, box?.d ?? 4000) })}
          />
          <QuantityField
            label="Room, north to south"
            value={box?.d ?? 4000}
            {...size}
            onCommit={(d) => set('resized', { walls: rectangle(box?.w ?? 5000, d) })}
          />
        </>
      )}
      <OptionalQuantityField
        label="Ceiling"
        none="not known"
        value={place.ceiling}
        {...size}
        onCommit={(ceiling) => set('changed the ceiling of', { ceiling })}
      />
      <dl>
        {box && <DefinitionRow label="Floor">{area(Math.abs(signedArea(place.walls)) / 1e6)}</DefinitionRow>}
        {bounds && lying && (
          <DefinitionRow
            label="The scene lies"
            note={`${say(lying.w, 'mm')} × ${say(lying.d, 'mm')}, turned ${place.turn}°`}
          >
            {say(Math.round(lying.x), 'mm')}, {say(Math.round(lying.y), 'mm')}
          </DefinitionRow>
        )}
      </dl>
      <div className="flex flex-wrap gap-1 pt-2">
        <button
          type="button"
          className="btn btn-xs"
          onClick={() => setCorners(!corners)}
          aria-expanded={corners}
        >
          Corners
        </button>
        {lying && (
          <button
            type="button"
            className="btn btn-xs"
            disabled={disabled}
            onClick={() => {
              const middle = { x: lying.x + lying.w / 2, y: lying.y + lying.d / 2 };
              const to = turnedFrame(place, middle, 90);
              set('turned the scene in', { sceneX: to.x, sceneY: to.y, turn: to.turn });
            }}
          >
            Turn the scene by 90°
          </button>
        )}
        <button
          type="button"
          className="btn btn-xs"
          disabled={disabled}
          onClick={() => edit.change(`removed ${place.name}`, removal(scene, place)) && onGone()}
        >
          Remove the place
        </button>
      </div>
      {corners && <Corners place={place} disabled={disabled} set={set} />}
    </>
  );
}

/** The corners as figures; one can be put in after each, or taken out. */
function Corners({
  place,
  disabled,
  set,
}: {
  place: Place;
  disabled: boolean;
  set: (what: string, fields: Partial<Place>) => void;
}) {
  const put = (walls: Place['walls']) => set('moved a corner of', { walls });
  const { walls } = place;
  return (
    <div className="pt-2">
      {walls.map((corner, i) => {
        const field = (axis: 'x' | 'y') => (
          <QuantityField
            bare
            label={`Corner ${i + 1}, from ${axis === 'x' ? 'west' : 'north'}`}
            value={corner[axis]}
            measure="mm"
            min={-40_000}
            max={40_000}
            disabled={disabled}
            hint={null}
            onCommit={(value) => put(walls.map((one, j) => (j === i ? { ...one, [axis]: value } : one)))}
          />
        );
        const next = walls[(i + 1) % walls.length] ?? corner;
        return (
          <div
            key={i}
            className="grid grid-cols-[1rem_1fr_1fr_auto_auto] items-center border-b hair"
            role="group"
            aria-label={`Corner ${i + 1}`}
          >
            <span className="fig text-xs ink-2">{i + 1}</span>
            {field('x')}
            {field('y')}
            <button
              type="button"
              className="btn btn-xs btn-ghost"
              disabled={disabled || walls.length >= 60}
              aria-label={`Put a corner in after ${i + 1}`}
              title="Put a corner in after it"
              onClick={() =>
                put(walls.toSpliced(i + 1, 0, { x: (corner.x + next.x) / 2, y: (corner.y + next.y) / 2 }))
              }
            >
              +
            </button>
            <button
              type="button"
              className="btn btn-xs btn-ghost"
              disabled={disabled || walls.length <= 3}
              aria-label={`Take corner ${i + 1} out`}
              title="Take it out"
              onClick={() => put(walls.toSpliced(i, 1))}
            >
              −
            </button>
          </div>
        );
      })}
      <NumberOfCorners count={walls.length} />
    </div>
  );
}

const NumberOfCorners = ({ count }: { count: number }) => (
  <p className="ink-2 text-xs pt-1">{count} of at most 60 corners, in order round the room.</p>
);

/** Removing a place takes its furniture and its own passages along; the display then stands in another, or nowhere, and so is shown. */
function removal(scene: Scene, place: Place): Change[] {
  const display = displayOf(scene);
  const elsewhere = listOf(scene, 'place').find(({ id }) => id !== place.id)?.id ?? null;
  const things = [...VENUE_KINDS, 'passage' as const].flatMap((kind) =>
    listOf(scene, kind)
      .filter((thing) => thing.place === place.id)
      .map((thing): Change => ({ op: 'remove', kind, id: thing.id, v: thing.v })),
  );
  const set = { place: elsewhere, ...(display.showPlace === place.id ? { showPlace: null } : {}) };
  return [
    { op: 'patch', kind: 'display', id: display.id, v: display.v, set },
    ...things,
    { op: 'remove', kind: 'place', id: place.id, v: place.v },
  ];
}

function ThingList({ scene }: { scene: Scene }) {
  const pick = useView((view) => view.pick);
  const { say } = useMeasureFormat();
  const all = VENUE_KINDS.flatMap((kind) => currentContents(scene, kind).map((thing) => ({ kind, thing })));
  return (
    <>
      <Heading aside={`${all.length} in all`}>In it</Heading>
      {all.length === 0 && <p className="ink-2">Nothing yet: add a table above.</p>}
      <ul>
        {all.map(({ kind, thing }) => (
          <li key={`${kind} ${thing.id}`} className="border-b hair">
            <button
              type="button"
              className="w-full flex justify-between gap-2 text-left hover:bg-base-200 cursor-pointer"
              onClick={() => pick({ kind, id: thing.id })}
            >
              <span className="truncate">{capital(labelOf(scene, kind, thing.id))}</span>
              <span className="fig ink-2 text-xs whitespace-nowrap">
                {'w' in thing && `${say(thing.w, 'mm')} × ${say(thing.d, 'mm')}`}
                {'width' in thing && `${say(thing.width, 'mm')} wide`}
              </span>
            </button>
          </li>
        ))}
      </ul>
    </>
  );
}
