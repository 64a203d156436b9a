import { SIDE_WORDS, entityOf, listOf, type Entity, type Scene } from '@quarry/core/document';
import { clearances, currentPlace, currentContents, sceneInRoom, sidesOf } from '@quarry/core/venue';
import { freshId, useEdit, useScene } from '../../data/useDisplay.tsx';
import { useView, type Picked } from '../../data/view.ts';
import { FindingsHere } from '../../frame/Findings.tsx';
import { EntityFields } from '../../ui/EntityForm.tsx';
import { Heading, DefinitionRow } from '../../ui/parts.tsx';
import { useMeasureFormat } from '../../ui/useMeasureFormat.ts';
import { SheetHead } from '../../ui/SheetHead.tsx';
import { capital } from '../../ui/words.ts';
import { VENUE_FIELDS } from './venueFields.ts';

/** The data sheet of a thing picked in the room. */
export function VenueForm({ picked, scene, disabled }: { picked: Picked; scene: Scene; disabled: boolean }) {
  const pick = useView((view) => view.pick);
  const { kind, id } = picked;
  const opening = kind === 'opening' ? entityOf(scene, kind, id) : undefined;
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
      <EntityFields picked={picked} fields={VENUE_FIELDS[kind] ?? []} disabled={disabled} />
      {kind === 'table' && scene.table[id] && <TableActs id={id} scene={scene} disabled={disabled} />}
      {opening && opening.use !== 'window' && !disabled && <AddToWay thing={opening} />}
      {kind === 'socket' && scene.socket[id] && <SocketPart thing={scene.socket[id]} scene={scene} />}
      {(kind === 'table' || kind === 'obstacle') && <Distances kind={kind} id={id} scene={scene} />}
      <FindingsHere picked={picked} />
    </>
  );
}

function TableActs({ id, scene, disabled }: { id: string; scene: Scene; disabled: boolean }) {
  const edit = useEdit();
  const pick = useView((view) => view.pick);
  const table = scene.table[id];
  if (!table) return null;
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

/** How far the cable runs, and the usual caution. */
function SocketPart({ thing, scene }: { thing: Entity<'socket'>; scene: Scene }) {
  const { say } = useMeasureFormat();
  const to = (rects: { x: number; y: number; w: number; d: number }[]) =>
    Math.min(
      ...rects.map(({ x, y, w, d }) =>
        Math.hypot(Math.max(x - thing.x, 0, thing.x - x - w), Math.max(y - thing.y, 0, thing.y - y - d)),
      ),
    );
  const near = to(sceneInRoom(scene));
  return (
    <>
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
