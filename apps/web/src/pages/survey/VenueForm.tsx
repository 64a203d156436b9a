import { SIDE_WORDS, OPENING_USES, listOf, type Entity, type Scene } from '@quarry/core/document';
import {
  clearances,
  currentPlace,
  currentContents,
  lengthOf,
  sceneInRoom,
  sidesOf,
} from '@quarry/core/venue';
import { freshId, useDisplay, useEdit, useScene } from '../../data/useDisplay.tsx';
import { useView, type Picked } from '../../data/view.ts';
import { FindingsHere } from '../../frame/Findings.tsx';
import { QuantityField, SelectField, TextField } from '../../ui/fields.tsx';
import { Heading, DefinitionRow } from '../../ui/parts.tsx';
import { useMeasureFormat } from '../../ui/useMeasureFormat.ts';
import { SheetHead } from '../../ui/SheetHead.tsx';
import { TableSheet } from '../../ui/TableSheet.tsx';
import { capital } from '../../ui/words.ts';

interface Sheet<K extends 'opening' | 'obstacle' | 'socket' | 'barrier'> {
  thing: Entity<K>;
  disabled: boolean;
}
const LONG = { measure: 'mm', min: -40_000, max: 40_000 } as const;
const SIZE = { measure: 'mm', min: 1, max: 40_000 } as const;

/** The data sheet of a thing picked in the room. */
export function VenueForm({ picked, scene, disabled }: { picked: Picked; scene: Scene; disabled: boolean }) {
  const pick = useView((view) => view.pick);
  const { kind, id } = picked;
  return (
    <>
      <button
        type="button"
        className="link link-hover text-secondary text-xs pt-1"
        onClick={() => pick(null)}
      >
        Whole place
      </button>
      <SheetHead picked={picked} scene={scene} fixed={disabled} />
      {kind === 'table' && scene.table[id] && (
        <>
          <TableSheet table={scene.table[id]} disabled={disabled} />
          <TableActs id={id} scene={scene} disabled={disabled} />
        </>
      )}
      {kind === 'opening' && scene.opening[id] && (
        <OpeningSheet thing={scene.opening[id]} disabled={disabled} />
      )}
      {kind === 'obstacle' && scene.obstacle[id] && (
        <ObstacleSheet thing={scene.obstacle[id]} disabled={disabled} />
      )}
      {kind === 'socket' && scene.socket[id] && <SocketSheet thing={scene.socket[id]} disabled={disabled} />}
      {kind === 'barrier' && scene.barrier[id] && (
        <BarrierSheet thing={scene.barrier[id]} disabled={disabled} />
      )}
      {(kind === 'table' || kind === 'obstacle') && <Distances kind={kind} id={id} scene={scene} />}
      <FindingsHere picked={picked} />
    </>
  );
}

function TableActs({ id, scene, disabled }: { id: string; scene: Scene; disabled: boolean }) {
  const edit = useEdit();
  const pick = useView((view) => view.pick);
  const table = scene.table[id];
  const { x, y, w, d } = table;
  const another = () => {
    const { id: _id, v: _v, ...like } = table;
    const fresh = freshId('table');
    const name = `Table ${listOf(scene, 'table').length + 1}`;
    if (edit.add(`added ${name}`, 'table', fresh, { ...like, name, x: x + w }))
      pick({ kind: 'table', id: fresh });
  };
  return (
    <div className="flex gap-1 pt-2">
      <button
        type="button"
        className="btn btn-xs"
        disabled={disabled}
        // A quarter turn about the middle: width and depth change places.
        onClick={() =>
          edit.patch(`turned ${table.name}`, 'table', table, {
            x: x + (w - d) / 2,
            y: y + (d - w) / 2,
            w: d,
            d: w,
          })
        }
      >
        Turn by 90°
      </button>
      <button type="button" className="btn btn-xs" disabled={disabled} onClick={another}>
        Another beside it
      </button>
    </div>
  );
}

/** Clear distances to whatever is next to it. */
function Distances({ kind, id, scene }: { kind: 'table' | 'obstacle'; id: string; scene: Scene }) {
  const { say } = useMeasureFormat();
  const thing = scene[kind][id];
  if (!thing) return null;
  const others = [...currentContents(scene, 'table'), ...currentContents(scene, 'obstacle')].filter(
    (other) => other.id !== id,
  );
  const scenes = kind === 'obstacle' ? sceneInRoom(scene) : [];
  const clear = clearances(thing, [...others, ...scenes], sidesOf(currentPlace(scene)?.walls ?? []));
  return (
    <>
      <Heading>Clear to the next thing</Heading>
      <dl>
        {(['n', 'e', 's', 'w'] as const).map((side) => {
          const by = clear[side];
          return (
            <DefinitionRow key={side} label={capital(SIDE_WORDS[side])}>
              {by === null ? 'nothing' : say(Math.round(by), 'mm')}
            </DefinitionRow>
          );
        })}
      </dl>
    </>
  );
}

function OpeningSheet({ thing, disabled }: Sheet<'opening'>) {
  const scene = useScene('place');
  const edit = useEdit();
  const { say } = useMeasureFormat();
  const set = (fields: Partial<typeof thing>) =>
    edit.patch(`changed ${thing.name}`, 'opening', thing, fields);
  const walls = (thing.place && scene.place[thing.place]?.walls) || [];
  const sides = sidesOf(walls);
  return (
    <>
      <TextField
        label="Name"
        required
        value={thing.name}
        disabled={disabled}
        onCommit={(name) => set({ name })}
      />
      <SelectField
        label="Kind"
        value={thing.use}
        disabled={disabled}
        options={OPENING_USES.map((value) => ({
          value,
          word: { door: 'Door', opening: 'Open way', window: 'Window' }[value],
        }))}
        onCommit={(use) => set({ use })}
      />
      <SelectField
        label="In wall"
        value={String(thing.wall)}
        disabled={disabled}
        options={sides.map((side, i) => ({
          value: String(i),
          word: `${i + 1}, ${say(Math.round(lengthOf(side)), 'mm')}`,
        }))}
        onCommit={(wall) => set({ wall: Number(wall) })}
      />
      <QuantityField
        label="From its first corner"
        value={thing.at}
        {...LONG}
        min={0}
        disabled={disabled}
        onCommit={(along) => set({ at: along })}
      />
      <QuantityField
        label="Clear width"
        value={thing.width}
        {...SIZE}
        disabled={disabled}
        onCommit={(width) => set({ width })}
      />
      <QuantityField
        label="Clear height"
        value={thing.height}
        {...SIZE}
        disabled={disabled}
        onCommit={(height) => set({ height })}
      />
      {thing.use !== 'window' && !disabled && <AddToWay thing={thing} />}
    </>
  );
}

/** A door of the room is often a step of the access route: one press lists it there with its own size. */
function AddToWay({ thing }: { thing: Entity<'opening'> }) {
  const scene = useScene('passage');
  const edit = useEdit();
  const id = `way-${thing.id}`.slice(0, 40);
  if (scene.passage[id]) return <p className="ink-2 text-xs pt-2">It is a step of the access route.</p>;
  return (
    <button
      type="button"
      className="btn btn-xs mt-2"
      onClick={() =>
        edit.add(`put ${thing.name} on the access route`, 'passage', id, {
          name: thing.name,
          width: thing.width,
          height: thing.height,
          place: thing.place,
          order: 1000,
        })
      }
    >
      Add to the access route
    </button>
  );
}

function ObstacleSheet({ thing, disabled }: Sheet<'obstacle'>) {
  const edit = useEdit();
  const set = (fields: Partial<typeof thing>) =>
    edit.patch(`changed ${thing.name}`, 'obstacle', thing, fields);
  return (
    <>
      <TextField
        label="Name"
        required
        value={thing.name}
        disabled={disabled}
        onCommit={(name) => set({ name })}
      />
      <QuantityField
        label="Width, east"
        value={thing.w}
        {...SIZE}
        disabled={disabled}
        onCommit={(w) => set({ w })}
      />
      <QuantityField
        label="Depth, south"
        value={thing.d}
        {...SIZE}
        disabled={disabled}
        onCommit={(d) => set({ d })}
      />
      <QuantityField
        label="From west"
        value={thing.x}
        {...LONG}
        disabled={disabled}
        onCommit={(x) => set({ x })}
      />
      <QuantityField
        label="From north"
        value={thing.y}
        {...LONG}
        disabled={disabled}
        onCommit={(y) => set({ y })}
      />
      <QuantityField
        label="Height"
        value={thing.height}
        {...SIZE}
        disabled={disabled}
        onCommit={(height) => set({ height })}
      />
    </>
  );
}

function SocketSheet({ thing, disabled }: Sheet<'socket'>) {
  const edit = useEdit();
  const { say } = useMeasureFormat();
  const scene = useDisplay(({ scene }) => scene);
  const set = (fields: Partial<typeof thing>) => edit.patch(`changed ${thing.name}`, 'socket', thing, fields);
  const to = (rects: { x: number; y: number; w: number; d: number }[]) =>
    Math.min(
      ...rects.map(({ x, y, w, d }) =>
        Math.hypot(Math.max(x - thing.x, 0, thing.x - x - w), Math.max(y - thing.y, 0, thing.y - y - d)),
      ),
    );
  const near = to(sceneInRoom(scene));
  return (
    <>
      <TextField
        label="Name"
        required
        value={thing.name}
        disabled={disabled}
        onCommit={(name) => set({ name })}
      />
      <QuantityField
        label="From west"
        value={thing.x}
        {...LONG}
        disabled={disabled}
        onCommit={(x) => set({ x })}
      />
      <QuantityField
        label="From north"
        value={thing.y}
        {...LONG}
        disabled={disabled}
        onCommit={(y) => set({ y })}
      />
      {Number.isFinite(near) && (
        <dl>
          <DefinitionRow label="Cable to the scene, straight">{say(Math.round(near), 'mm')}</DefinitionRow>
        </dl>
      )}
      <p className="ink-2 text-xs pt-1">
        Keep cables off aisles, or cover them: they trip people. The venue and a qualified person decide what
        may be plugged in.
      </p>
    </>
  );
}

function BarrierSheet({ thing, disabled }: Sheet<'barrier'>) {
  const edit = useEdit();
  const set = (fields: Partial<typeof thing>) =>
    edit.patch(`changed ${thing.name}`, 'barrier', thing, fields);
  return (
    <>
      <TextField
        label="Name"
        required
        value={thing.name}
        disabled={disabled}
        onCommit={(name) => set({ name })}
      />
      <QuantityField
        label="One end, from west"
        value={thing.x1}
        {...LONG}
        disabled={disabled}
        onCommit={(x1) => set({ x1 })}
      />
      <QuantityField
        label="One end, from north"
        value={thing.y1}
        {...LONG}
        disabled={disabled}
        onCommit={(y1) => set({ y1 })}
      />
      <QuantityField
        label="Other end, from west"
        value={thing.x2}
        {...LONG}
        disabled={disabled}
        onCommit={(x2) => set({ x2 })}
      />
      <QuantityField
        label="Other end, from north"
        value={thing.y2}
        {...LONG}
        disabled={disabled}
        onCommit={(y2) => set({ y2 })}
      />
    </>
  );
}
