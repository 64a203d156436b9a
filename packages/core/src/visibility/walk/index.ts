import {
  MM_PER_STUD,
  STUDS_PER_PLATE,
  boundsOf,
  boundsOfPoints,
  centreOf,
  containsPoint,
  intersection,
  type Rect,
} from '../../grid/index.ts';
import { ANY_COLOUR } from '../../catalogue/index.ts';
import { displayOf, listOf, wallCorners, type Entity, type Scene } from '../../document/index.ts';
import {
  OUTSIDE,
  SUMMER_LEAF,
  bodiesOf,
  leavesOf,
  plantsOf,
  standsOn,
  stripCorners,
  type Body,
  type Relief,
  type WallLayer,
} from '../../terrain/index.ts';
import { currentContents, frameOf, highestTable, pointToScene, rectToScene } from '../../venue/index.ts';
import { addBlocks, addBuilding } from './buildings.ts';
import { addGround, coarseGround, cropped, fineGround, lowestOf, type GroundRaster } from './ground.ts';
import { MeshBuilder, trianglesOf, type MeshPart } from './mesh.ts';
import { addSignboard } from './signboards.ts';
import { plannedGround, standsToday } from './stands.ts';

// The whole display as faces, to be walked round: x east, y up and z south in studs, from the footprint's corner and the datum.

export { PLANNED, trianglesOf, type MeshPart } from './mesh.ts';

/** The faces of a display and its room. */
export interface WalkMesh {
  /** Size of the footprint, studs, and the highest point over the datum. */
  w: number;
  d: number;
  high: number;
  /** How far the floor lies below the table, studs. */
  floor: number;
  /**
   * By material: `ground …`, `deck`, `colour …` (one of the palette), `leaf`, `wood`, `figure`, `wall`, `table`, `cloth`,
   * `furniture`, `floor`, `barrier`; of what does not stand yet with PLANNED before it.
   */
  parts: MeshPart[];
  /** The same in few faces, to be drawn while one moves; null where all of it is few. */
  coarse: MeshPart[] | null;
}

/** A display of more triangles than this has a coarse form too, with its ground in squares of so many studs. */
const COARSE = { over: 60_000, cell: 4 } as const;

/** Height of what keeps visitors off, and how thick it is drawn, mm. */
const BARRIER = { high: 900, thick: 30 };
/** How far the floor is drawn round everything, studs. */
const AROUND = 150;

/** How the faces are made. */
export interface WalkLook {
  /** The roofs are off: one looks into the uppermost storey of each building. */
  isOpen?: boolean;
  /** Modules stand apart, each with its sides, without tables and barriers. */
  isParted?: boolean;
}

/** @returns null for a display without a footprint */
export function walkMesh(
  scene: Scene,
  relief: Relief,
  { isOpen = false, isParted = false }: WalkLook = {},
): WalkMesh | null {
  const { w, d } = relief;
  if (w === 0 || d === 0) return null;
  const bodies = bodiesOf(scene, relief);
  const { parts, floor } = facesOf(scene, relief, bodies, { isOpen, isParted, isCoarse: false });
  const coarse =
    trianglesOf(parts) > COARSE.over
      ? facesOf(scene, relief, bodies, { isOpen: false, isParted, isCoarse: true }).parts
      : null;
  const high = bodies.reduce(
    (most, { top }) => Math.max(most, top),
    relief.top.reduce((a, b) => Math.max(a, b), 0),
  );
  return { ...{ w, d, floor, parts, coarse }, high: high * STUDS_PER_PLATE };
}

function facesOf(
  scene: Scene,
  relief: Relief,
  bodies: readonly Body[],
  { isOpen, isParted, isCoarse }: { isOpen: boolean; isParted: boolean; isCoarse: boolean },
): { parts: MeshPart[]; floor: number } {
  const mesh = new MeshBuilder();
  const origin = { x: relief.x, y: relief.y };
  const planned = plannedGround(scene, relief);
  const ground = (raster: GroundRaster, mask: Uint8Array) =>
    addGround(
      mesh,
      scene,
      isCoarse ? coarseGround(raster, mask, COARSE.cell) : fineGround(raster, mask),
      lowestOf(relief) - 1,
    );
  const parting = isParted ? partingOf(scene, relief) : null;
  for (const { on, shift } of parting?.pieces ?? []) {
    const piece = cropped(relief, planned, on);
    mesh.shift = { x: on.x + shift.x, y: on.y + shift.y };
    ground(piece, piece.planned);
  }
  mesh.shift = { x: 0, y: 0 };
  ground(parting ? { ...relief, ground: parting.rest } : relief, planned);
  const shiftOf = (at: { x: number; y: number }) => parting?.shiftAt(at) ?? { x: 0, y: 0 };
  for (const plot of listOf(scene, 'plot')) {
    const foot = standsOn(scene, relief, plot);
    mesh.isPlanned = !standsToday(scene, 'plot', plot.id);
    mesh.shift = shiftOf(centreOf(plot));
    if (foot === null) continue;
    (isCoarse ? addBlocks : addBuilding)(mesh, plot, { foot, street: displayOf(scene), origin, isOpen });
  }
  const leafOf = leafMaterials(scene);
  for (const body of bodies) {
    mesh.isPlanned = !standsToday(scene, body.kind, body.id);
    mesh.shift = shiftOf(centreOf(body.bounds));
    const sign = body.kind === 'signboard' ? scene.signboard[body.id] : undefined;
    if (sign) addSignboard(mesh, body, sign, origin);
    else addBody(mesh, body, origin, { isCoarse, leaf: leafOf(body), run: scene.run[body.id] });
  }
  mesh.isPlanned = false;
  mesh.shift = { x: 0, y: 0 };
  const floor = addRoom(mesh, scene, relief, isParted);
  return { parts: mesh.parts(), floor };
}

/** Modules as far apart as this share of their distance from the middle of the display. */
const PARTED = 0.22;

/** Where modules stand when they are parted: their ground, what is in none, and how far what stands somewhere moves. */
function partingOf(scene: Scene, relief: Relief) {
  const middle = centreOf(relief);
  const rest = relief.ground.slice();
  const pieces = listOf(scene, 'module').flatMap((module) => {
    const within = intersection(module, relief);
    if (!within) return [];
    const on = { ...within, ...at(within, relief) };
    for (let row = on.y; row < on.y + on.d; row++)
      rest.fill(OUTSIDE, row * relief.w + on.x, row * relief.w + on.x + on.w);
    const { x, y } = centreOf(module);
    return [{ module, on, shift: { x: PARTED * (x - middle.x), y: PARTED * (y - middle.y) } }];
  });
  return {
    ...{ rest, pieces },
    shiftAt: (place: { x: number; y: number }) =>
      pieces.find(({ module }) => containsPoint(module, place.x, place.y))?.shift ?? { x: 0, y: 0 },
  };
}

const at = ({ x, y }: { x: number; y: number }, origin: { x: number; y: number }) => ({
  x: x - origin.x,
  y: y - origin.y,
});

/** What the crown of a tree or plant is drawn with: in the colour of its leaves where it is not that of most. */
function leafMaterials(scene: Scene): (body: Body) => string {
  const { trees, plants } = leavesOf(scene);
  const at = (x: number, y: number, id: string) => `${x} ${y} ${id}`;
  const colours = new Map(
    listOf(scene, 'planting').flatMap((planting) =>
      plantsOf(planting).map(({ x, y }, i): [string, string | undefined] => [
        at(x, y, planting.id),
        plants.get(planting.id)?.[i],
      ]),
    ),
  );
  return ({ kind, id, bounds: { x, y, w, d } }) => {
    const colour = kind === 'tree' ? trees.get(id) : colours.get(at(x + w / 2, y + d / 2, id));
    return colour === undefined || colour === SUMMER_LEAF ? 'leaf' : `colour ${colour}`;
  };
}

/** What a wall is drawn with: its masonry, its row of arches, what is let into it. */
function wallMaterial(run: Entity<'run'>, layer: WallLayer): string {
  const colour = { wall: run.colour, front: run.archColour ?? run.colour, opening: run.letInColour }[layer];
  return colour === null || colour === ANY_COLOUR ? 'wall' : `colour ${colour}`;
}

/** What stands or lies over air and is no building. */
function addBody(
  mesh: MeshBuilder,
  { kind, corners, bounds, begins, top, as, layer = 'wall' }: Body,
  origin: { x: number; y: number },
  { isCoarse, leaf, run }: { isCoarse: boolean; leaf: string; run?: Entity<'run'> },
) {
  const outline = corners.map((corner) => at(corner, origin));
  const middle = { x: bounds.x + bounds.w / 2 - origin.x, y: bounds.y + bounds.d / 2 - origin.y };
  const [low, high] = [begins * STUDS_PER_PLATE, top * STUDS_PER_PLATE];
  const square = (side: number) =>
    wallCorners({ x: middle.x - side / 2, y: middle.y - side / 2, w: side, d: side, turn: 0 });
  if (isCoarse && (kind === 'tree' || kind === 'planting'))
    mesh.cone(leaf, middle, bounds.w / 2, low, high, 4);
  else if (isCoarse && kind === 'figure') mesh.prism('figure', square(1.4), low, high);
  else if (kind === 'tree') {
    const crown = low + 0.25 * (high - low);
    mesh.prism('wood', square(Math.max(0.8, bounds.w / 7)), low, crown + 0.2);
    mesh.cone(leaf, middle, bounds.w / 2, crown, high, 9);
  } else if (as !== undefined) mesh.prism('figure', outline, low, high);
  else if (kind === 'figure') {
    mesh.prism('figure', square(1.4), low, low + 0.72 * (high - low));
    mesh.prism('figure head', square(1.1), low + 0.72 * (high - low), high);
  } else if (kind === 'planting') mesh.cone(leaf, middle, bounds.w / 2, low, high, 6);
  else if (kind === 'deck' || kind === 'way' || kind === 'track') {
    mesh.prism('deck', outline, low, high);
    // Its underside, seen from below.
    mesh.face(
      'deck',
      outline.map(({ x, y }) => [x, low, y]),
    );
  } else if (kind === 'run' || kind === 'repeat')
    mesh.prism(kind === 'run' && run ? wallMaterial(run, layer) : 'wall', outline, low, high);
  else if (kind === 'flag') mesh.prism('wood', square(0.4), low, high);
}

/**
 * Tables with their cloth, barriers and the floor.
 * @param isEmpty the floor alone @returns how far it lies below the highest table, studs
 */
function addRoom(mesh: MeshBuilder, scene: Scene, relief: Relief, isEmpty: boolean): number {
  const frame = frameOf(scene);
  const tables = currentContents(scene, 'table');
  const most = highestTable(scene);
  const floor = most / MM_PER_STUD;
  // Under the lowest stud the bases lie on the tables.
  const base = (lowestOf(relief) - 1) * STUDS_PER_PLATE;
  const all: Rect[] = [{ x: 0, y: 0, w: relief.w, d: relief.d }];
  for (const table of isEmpty ? [] : tables) {
    const rect = rectToScene(frame, table);
    const box = { ...rect, ...at(rect, relief) };
    all.push(box);
    const top = base - (most - table.height) / MM_PER_STUD;
    mesh.prism('cloth', wallCorners({ ...box, turn: 0 }), base - floor, top, 'table');
  }
  for (const { x1, y1, x2, y2 } of isEmpty ? [] : currentContents(scene, 'barrier')) {
    const [a, b] = [
      { x: x1, y: y1 },
      { x: x2, y: y2 },
    ].map((point) => at(pointToScene(frame, point), relief));
    if (a.x === b.x && a.y === b.y) continue;
    const thick = BARRIER.thick / MM_PER_STUD;
    const outline = stripCorners(a, b, thick);
    const high = base - floor + BARRIER.high / MM_PER_STUD;
    mesh.prism('barrier', outline, high - thick, high);
    all.push(boundsOfPoints(outline));
  }
  const { x, y, w, d } = boundsOf(all);
  mesh.face('floor', [
    [x - AROUND, base - floor, y - AROUND],
    [x - AROUND, base - floor, y + d + AROUND],
    [x + w + AROUND, base - floor, y + d + AROUND],
    [x + w + AROUND, base - floor, y - AROUND],
  ]);
  return floor;
}
