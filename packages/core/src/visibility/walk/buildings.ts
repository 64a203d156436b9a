import { isCornerSlope, isSlope, isValleySlope } from '../../catalogue/index.ts';
import { STUDS_PER_PLATE, boundsOf, centreOf, quadOf } from '../../grid/index.ts';
import { areaPieces, builtRect, turnedPoint, wallStuds, wallTop, type Plot } from '../../document/index.ts';
import { footOfFitting } from '../../terrain/index.ts';
import { buildingPieces, type BuildingPiece, type StreetRules } from '../../structures/index.ts';
import { mergedCells, type MeshCorner, type MeshBuilder } from './mesh.ts';

/** A stud and plate of a building: nothing in it, a slope, or the number of a colour and two. */
type Cells = Uint16Array;
const SLOPE = 1;
const FIRST = 2;

/** How a building is put on the display. */
interface Placing {
  /** Plates above the datum. */
  foot: number;
  street: StreetRules;
  origin: { x: number; y: number };
  /** Its roof is off: one looks into its uppermost storey, with what stands there. */
  isOpen: boolean;
}

/** A building in few faces: its walls up to its height, in their colour. */
export function addBlocks(mesh: MeshBuilder, plot: Plot, { foot, origin }: Placing): void {
  for (const piece of areaPieces(plot)) {
    const outline = piece.map(({ x, y }) => ({ x: x - origin.x, y: y - origin.y }));
    const [low, high] = [foot * STUDS_PER_PLATE, (foot + plot.height) * STUDS_PER_PLATE];
    mesh.prism(`colour ${plot.wallColour}`, outline, low, high, `colour ${plot.roofColour}`);
  }
}

/** What stands in the rooms of a building. */
function addFittings(mesh: MeshBuilder, plot: Plot, { foot, origin }: Placing): void {
  const built = builtRect(plot);
  const middle = centreOf(plot);
  const wall = wallStuds(plot);
  for (const fitting of plot.fittings) {
    if (!fitting.place) continue;
    const { x, y, w, d } = fitting.place;
    const corners = quadOf({ x: built.x + wall + x, y: built.y + wall + y, w, d }).map((corner) => {
      const at = turnedPoint(corner, middle, plot.turn);
      return { x: at.x - origin.x, y: at.y - origin.y };
    });
    const low = foot + footOfFitting(plot, fitting);
    mesh.prism('furniture', corners, low * STUDS_PER_PLATE, (low + fitting.height) * STUDS_PER_PLATE);
  }
}

/** The outer faces of a building's pieces by colour; slopes are slanted. */
export function addBuilding(mesh: MeshBuilder, plot: Plot, placing: Placing): void {
  const { foot, street, origin, isOpen } = placing;
  const top = wallTop(plot);
  const pieces = buildingPieces(plot, street).filter(({ use, z }) => !isOpen || (use !== 'roof' && z < top));
  if (isOpen) addFittings(mesh, plot, placing);
  if (pieces.length === 0) return;
  const built = builtRect(plot);
  const middle = centreOf(plot);
  const bounds = boundsOf(pieces);
  const [west, north] = [Math.floor(bounds.x), Math.floor(bounds.y)];
  const [w, d] = [Math.ceil(bounds.x + bounds.w) - west, Math.ceil(bounds.y + bounds.d) - north];
  const bottom = Math.min(...pieces.map(({ z }) => z));
  const h = Math.max(...pieces.map((piece) => piece.z + piece.h)) - bottom;
  /** From studs and plates of the grid to the display, turned as the building is. */
  const corner = (x: number, y: number, z: number): MeshCorner => {
    const at = turnedPoint({ x: built.x + west + x, y: built.y + north + y }, middle, plot.turn);
    return [at.x - origin.x, (foot + bottom + z) * STUDS_PER_PLATE, at.y - origin.y];
  };
  const colours: string[] = [];
  const cells: Cells = new Uint16Array(w * d * h);
  const numberOf = (colour: string): number => {
    const at = colours.indexOf(colour);
    return FIRST + (at < 0 ? colours.push(colour) - 1 : at);
  };
  for (const piece of pieces) {
    const isSlanting = isSlope(piece);
    if (isSlanting) addSlope(mesh, piece, (x, y, z) => corner(x - west, y - north, z - bottom));
    const number = isSlanting ? SLOPE : numberOf(piece.colour);
    const [x0, y0] = [Math.round(piece.x) - west, Math.round(piece.y) - north];
    for (let z = piece.z - bottom; z < piece.z + piece.h - bottom; z++)
      for (let y = y0; y < Math.min(d, y0 + Math.ceil(piece.d)); y++)
        cells.fill(number, (z * d + y) * w + x0, (z * d + y) * w + Math.min(w, x0 + Math.ceil(piece.w)));
  }
  const air = outerAir(cells, w, d, h);
  // What is closed in is full, so that only what lies behind a slope is drawn of it.
  const inside = numberOf(plot.wallColour);
  cells.forEach((cell, i) => {
    if (cell === 0 && air[i] === 0) cells[i] = inside;
  });
  const isAir = (x: number, y: number, z: number) => {
    if (x < 0 || y < 0 || z < 0 || x >= w || y >= d || z >= h) return true;
    const i = (z * d + y) * w + x;
    return air[i] === 1 || cells[i] === SLOPE;
  };
  const shown = (x: number, y: number, z: number, besides: readonly [number, number, number]) => {
    const cell = cells[(z * d + y) * w + x];
    return cell >= FIRST && isAir(x + besides[0], y + besides[1], z + besides[2]) ? cell : 0;
  };
  const face = (key: number, corners: readonly MeshCorner[]) =>
    mesh.face(`colour ${colours[key - FIRST]}`, corners);
  for (let z = 0; z < h; z++)
    mergedCells(
      w,
      d,
      (x, y) => shown(x, y, z, [0, 0, 1]),
      (x, y, wide, deep, key) =>
        face(key, [
          corner(x, y, z + 1),
          corner(x, y + deep, z + 1),
          corner(x + wide, y + deep, z + 1),
          corner(x + wide, y, z + 1),
        ]),
    );
  // Undersides of what stands out over others; the lowest ones lie on the ground.
  for (let z = 1; z < h; z++)
    mergedCells(
      w,
      d,
      (x, y) => shown(x, y, z, [0, 0, -1]),
      (x, y, wide, deep, key) =>
        face(key, [
          corner(x, y, z),
          corner(x + wide, y, z),
          corner(x + wide, y + deep, z),
          corner(x, y + deep, z),
        ]),
    );
  for (let y = 0; y < d; y++)
    for (const by of [-1, 1] as const)
      mergedCells(
        w,
        h,
        (x, z) => shown(x, y, z, [0, by, 0]),
        (x, z, wide, high, key) => {
          const at = by > 0 ? y + 1 : y;
          const [from, to] = by > 0 ? [x, x + wide] : [x + wide, x];
          face(key, [
            corner(from, at, z + high),
            corner(from, at, z),
            corner(to, at, z),
            corner(to, at, z + high),
          ]);
        },
      );
  for (let x = 0; x < w; x++)
    for (const by of [-1, 1] as const)
      mergedCells(
        d,
        h,
        (y, z) => shown(x, y, z, [by, 0, 0]),
        (y, z, deep, high, key) => {
          const at = by > 0 ? x + 1 : x;
          const [from, to] = by > 0 ? [y + deep, y] : [y, y + deep];
          face(key, [
            corner(at, from, z + high),
            corner(at, from, z),
            corner(at, to, z),
            corner(at, to, z + high),
          ]);
        },
      );
}

/** A slope: high at its back, a plate high where it falls to; of a corner its top is folded from there to where it falls. */
function addSlope(
  mesh: MeshBuilder,
  piece: BuildingPiece,
  corner: (x: number, y: number, z: number) => MeshCorner,
): void {
  const { x, y, w, d, z, h, turn, colour } = piece;
  const material = `colour ${colour}`;
  const low = z + Math.min(1, h);
  // Its corners from the north-west with the clock.
  const plan = [
    [x, y],
    [x + w, y],
    [x + w, y + d],
    [x, y + d],
  ] as const;
  const lowOnes = lowCorners(piece);
  const top = plan.map(([a, b], i) => corner(a, b, lowOnes.includes(i) ? low : z + h));
  const foot = plan.map(([a, b]) => corner(a, b, z));
  if (isCornerSlope(piece)) {
    const out = outerCorner(turn);
    const [a, b, c, e] = [out, out + 1, out + 2, out + 3].map((i) => top[i % 4]);
    mesh.face(material, [c, b, a]);
    mesh.face(material, [a, e, c]);
  } else mesh.face(material, top.toReversed());
  mesh.face(material, foot);
  for (let i = 0; i < 4; i++) {
    const next = (i + 1) % 4;
    mesh.face(material, [top[i], top[next], foot[next], foot[i]]);
  }
}

/** The corner that a slope of a corner falls to, from the north-west with the clock. */
const outerCorner = (turn: number): number => (Math.round((turn - 45) / 90) + 2) % 4;

/** Corners of a slope that are low: of a corner slope all but its inner one, of a valley slope its outer one. */
function lowCorners(piece: BuildingPiece): readonly number[] {
  if (isCornerSlope(piece)) {
    const out = outerCorner(piece.turn);
    return isValleySlope(piece) ? [out] : [out, (out + 1) % 4, (out + 3) % 4];
  }
  // Those on the side it falls to: east, south, west, north.
  return [
    [1, 2],
    [2, 3],
    [3, 0],
    [0, 1],
  ][Math.round(piece.turn / 90) % 4];
}

/** 1 where air reaches from outside: what a closed building has inside is not seen. */
function outerAir(cells: Cells, w: number, d: number, h: number): Uint8Array {
  const air = new Uint8Array(cells.length);
  const stack: number[] = [];
  const enter = (x: number, y: number, z: number) => {
    if (x < 0 || y < 0 || z < 0 || x >= w || y >= d || z >= h) return;
    const i = (z * d + y) * w + x;
    if (cells[i] !== 0 || air[i] === 1) return;
    air[i] = 1;
    stack.push(i);
  };
  for (let z = 0; z < h; z++)
    for (let y = 0; y < d; y++)
      for (let x = 0; x < w; x++)
        if (x === 0 || y === 0 || x === w - 1 || y === d - 1 || z === h - 1) enter(x, y, z);
  for (let i = stack.pop(); i !== undefined; i = stack.pop()) {
    const x = i % w;
    const y = Math.floor(i / w) % d;
    const z = Math.floor(i / w / d);
    enter(x - 1, y, z);
    enter(x + 1, y, z);
    enter(x, y - 1, z);
    enter(x, y + 1, z);
    enter(x, y, z - 1);
    enter(x, y, z + 1);
  }
  return air;
}
