import { partOf } from '../catalogue/index.ts';
import {
  MAX_NAME,
  listOf,
  ringRadii,
  ringSide,
  standFieldsFor,
  type Change,
  type Entity,
  type Kind,
  type Scene,
} from '../document/index.ts';
import { discArea, insideArea } from '../grid/index.ts';
import { eachRunSpan, namedFoot, type SurfaceRaster } from '../terrain/index.ts';
import { MAX_FLOOR, floorArea, ringFloor } from './ringFloor.ts';
import { polygonRing } from './rings.ts';

// What goes on a ring of wall panels: a storey with its floor, and a roof that lifts off.

type Ring = Entity<'run'>;
type FreshId = (kind: Kind) => string;

/** “Keep, storey 2”: the storey that a name tells, and what stands before it. */
const STOREY = /^(.*), storey (\d+)$/;

/** The name of the storey over a ring. */
function nextName(name: string): string {
  const [, base = name, storey = '1'] = STOREY.exec(name) ?? [];
  const end = `, storey ${Number(storey) + 1}`;
  return `${base.slice(0, MAX_NAME - end.length)}${end}`;
}

/**
 * A storey on a ring of panels: an equal ring on its top, without its doors, and a floor of whole studs inside of that, its
 * top level with the wall it stands on.
 * @returns no floor where there is no level to name, the middle lies on no stud or corner of studs, or none fits
 */
export function storeyOnRing(scene: Scene, relief: SurfaceRaster, run: Ring, freshId: FreshId): Change[] {
  const { id, v: _v, ...fields } = run;
  const stands = standFieldsFor({ kind: 'run', id });
  const openings = run.openings.filter(({ part }) => partOf(part)?.family !== 'door');
  const name = nextName(run.name);
  const ring = { ...fields, ...stands, name, openings };
  const top = namedFoot(scene, relief, stands, run.points[0]);
  return [
    { op: 'add', kind: 'run', id: freshId('run'), data: ring },
    ...floorInRing(scene, run, top ?? 0, `Floor of ${name}`.slice(0, MAX_NAME), freshId),
  ];
}

/** Pillars nearer to each other than under a straight deck: some of a round border find no place. */
const PILLARS = 5;

/** The floor as a deck. @param top plates above the datum */
function floorInRing(scene: Scene, run: Ring, top: number, name: string, freshId: FreshId): Change[] {
  const level = listOf(scene, 'level').at(0);
  const [middle] = run.points;
  const parities = [middle.x, middle.y].map((at) => Number.isInteger(at));
  if (!level || run.ring === null || parities[0] !== parities[1]) return [];
  const floor = ringFloor(polygonRing(run.ring, ringSide(run)), 'inner', parities[0] ? 'even' : 'odd');
  if (!floor) return [];
  const data = {
    ...{
      name,
      level: level.id,
      offset: top - level.height,
      thick: 1,
      spacing: PILLARS,
      ground: 'paving',
      shape: 'outline',
    },
    ...floorArea(floor, middle),
  };
  return [{ op: 'add', kind: 'deck', id: freshId('deck'), data }];
}

/** The rise of a cone that is proposed, plates a stud across: 40 for one of 32 (ours, by eye). */
const CONE_RISE = 1.25;

/**
 * A round roof that lifts off a ring of panels: the widest whose outer ring of studs lies on the panels, all round.
 * @returns null for no ring, one wider than 160 studs, or one whose corners lie too far out for a circle
 */
export function roofOnRing(run: Ring, freshId: FreshId): Change[] | null {
  const { inner, outer } = ringRadii(run);
  const [middle] = run.points;
  if (run.ring === null || 2 * outer > MAX_FLOOR) return null;
  const reach = Math.ceil(outer) + 1;
  const window = {
    ...{ x: Math.floor(middle.x) - reach, y: Math.floor(middle.y) - reach },
    ...{ w: 2 * reach + 1, d: 2 * reach + 1 },
  };
  const taken = new Uint8Array(window.w * window.d);
  eachRunSpan(run, window, (row, from, to) => {
    const begin = (row - window.y) * window.w - window.x;
    taken.fill(1, begin + from, begin + to);
  });
  // Of a whole number of studs, and so that it lies on the grid.
  const across = (at: number, most: number) => {
    const wide = Math.floor(most);
    return wide % 2 === (Number.isInteger(at) ? 0 : 1) ? wide : wide - 1;
  };
  for (let most = 2 * outer + 1; most >= 2 * inner - 1; most--) {
    const [w, d] = [across(middle.x, most), across(middle.y, most)];
    const [x, y] = [middle.x - w / 2, middle.y - d / 2];
    if (Math.min(w, d) < 3 || !isBorderOn({ w, d }, { x: x - window.x, y: y - window.y }, taken, window.w))
      continue;
    const data = {
      ...{
        name: `Roof of ${STOREY.exec(run.name)?.[1] ?? run.name}`.slice(0, MAX_NAME),
        shape: 'round',
        x,
        y,
        w,
        d,
      },
      ...{ height: Math.round(CONE_RISE * Math.max(w, d)), storeys: 0, eaves: 0, mount: 'loose' },
      ...standFieldsFor({ kind: 'run', id: run.id }),
    };
    return [{ op: 'add', kind: 'plot', id: freshId('plot'), data }];
  }
  return null;
}

/** Whether the outermost studs of a disc all lie on studs that are taken. @param at of its north-west corner in those */
function isBorderOn(
  size: { w: number; d: number },
  at: { x: number; y: number },
  taken: Uint8Array,
  width: number,
): boolean {
  const disc = discArea(size.w, size.d);
  const inside = insideArea(disc, 1);
  return disc.mask.every((on, i) => {
    const [x, y] = [at.x + (i % size.w), at.y + Math.trunc(i / size.w)];
    return !on || inside.mask[i] === 1 || taken[y * width + x] === 1;
  });
}
