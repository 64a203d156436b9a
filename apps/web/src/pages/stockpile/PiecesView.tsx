import { Canvas } from '@react-three/fiber';
import { useLayoutEffect, useMemo, useRef } from 'react';
import {
  BoxGeometry,
  BufferAttribute,
  BufferGeometry,
  Color,
  CylinderGeometry,
  Matrix4,
  type InstancedMesh,
} from 'three';
import { isStudded, isValleySlope } from '@quarry/core/catalogue';
import { countOf, STUDS_PER_PLATE } from '@quarry/core/grid';
import type { BuildSteps, StepPiece } from '@quarry/core/masonry';
import { Orbit } from '../../ui/Orbit.tsx';
import { paintOf } from '../../ui/paint.ts';

/** Radius and height of a stud, in studs: 4.8 mm across, 1.6 mm high (common practice, no source). */
const STUD = { radius: 0.3, height: 0.2 };
/** Gap between pieces that shows their joints, studs. */
const GAP = 0.04;
/** What lies below the step that is looked at fades towards this. */
const FADED = new Color('#c9c4b8');
const EDGE = '#22292e';
/** The paint of a marked piece, and what marks none. */
const MARKED = '#c2371b';
const NO_MARK = [-1, -1, -1] as const;

/** A piece with its paint; `now`: of the step that is looked at. One that is marked is red. */
interface Placed extends StepPiece {
  part: string;
  colour: string;
  now: boolean;
  isMarked: boolean;
}

interface PiecesViewProps {
  /** Size of the block, studs. */
  w: number;
  d: number;
  steps: BuildSteps['steps'];
  lines: BuildSteps['lines'];
  /** The last step that is drawn. */
  upTo: number;
  /** A stud and the underside of the piece to mark; null: none. */
  marked: { x: number; y: number; z: number } | null;
}

/** A block's pieces up to a step in three dimensions: each with its edges, slopes slanted, and the studs one sees. */
export function PiecesView({ w, d, steps, lines, upTo, marked }: PiecesViewProps) {
  const [mx, my, mz] = marked ? [marked.x, marked.y, marked.z] : NO_MARK;
  const pieces = useMemo(
    () =>
      steps.slice(0, upTo + 1).flatMap((step, index) =>
        step.pieces.map((piece): Placed => ({
          ...piece,
          part: lines[piece.line]?.part ?? '',
          colour: lines[piece.line]?.colour ?? 'any',
          now: index === upTo,
          isMarked:
            piece.z === mz &&
            mx >= piece.x &&
            my >= piece.y &&
            mx < piece.x + piece.w &&
            my < piece.y + piece.d,
        })),
      ),
    [steps, lines, upTo, mx, my, mz],
  );
  const byShape = useMemo(() => {
    const of = (shape: keyof typeof CORNERS) => pieces.filter((piece) => shapeOf(piece) === shape);
    return { boxes: of('box'), slants: of('slant'), corners: of('corner'), valleys: of('valley') };
  }, [pieces]);
  const studs = useMemo(() => openStuds(pieces, w, d), [pieces, w, d]);
  // The whole block's height, so that the eye stays where it is while the steps go by.
  const top = useMemo(() => topOf(steps) * STUDS_PER_PLATE, [steps]);
  const far = Math.max(w, d, 1.2 * top);
  return (
    <Canvas
      frameloop="demand"
      camera={{ position: [far * 0.87, far * 1.2 + top / 2, far * 1.5], fov: 35, near: 1, far: far * 8 }}
      aria-label={`The steps up to number ${upTo + 1}, ${countOf(pieces.length, 'piece')}`}
      role="img"
    >
      <hemisphereLight args={['#ffffff', '#8d8678', 1.5]} />
      <directionalLight position={[far * 0.5, far * 2, far * 1.1]} intensity={1.9} />
      <group position={[-w / 2, 0, -d / 2]}>
        <mesh position={[w / 2, -0.2, d / 2]}>
          <boxGeometry args={[w, 0.3, d]} />
          <meshStandardMaterial color="#9a9c98" />
        </mesh>
        <Instances geometry={BOX} items={byShape.boxes} place={matrixOf} paint={colourOfPiece} />
        <Instances geometry={SLANT} items={byShape.slants} place={matrixOf} paint={colourOfPiece} />
        <Instances geometry={CORNER} items={byShape.corners} place={matrixOf} paint={colourOfPiece} />
        <Instances geometry={VALLEY} items={byShape.valleys} place={matrixOf} paint={colourOfPiece} />
        <Instances geometry={STUD_SHAPE} items={studs} place={studMatrix} paint={colourOfStud} />
        <Edges pieces={pieces} />
      </group>
      <Orbit below={Math.PI / 2.05} height={top / 2} />
    </Canvas>
  );
}

const topOf = (steps: BuildSteps['steps']) =>
  steps.reduce((top, step) => step.pieces.reduce((most, { z, h }) => Math.max(most, z + h), top), 0);

interface InstancesProps<T> {
  geometry: BufferGeometry;
  items: readonly T[];
  place: (item: T, into: Matrix4) => void;
  paint: (item: T, into: Color) => void;
}

function Instances<T>({ geometry, items, place, paint }: InstancesProps<T>) {
  const mesh = useRef<InstancedMesh>(null);
  useLayoutEffect(() => {
    const target = mesh.current;
    if (!target) return;
    const matrix = new Matrix4();
    const colour = new Color();
    items.forEach((item, i) => {
      place(item, matrix);
      target.setMatrixAt(i, matrix);
      paint(item, colour);
      target.setColorAt(i, colour);
    });
    target.instanceMatrix.needsUpdate = true;
    if (target.instanceColor) target.instanceColor.needsUpdate = true;
    target.computeBoundingSphere();
  }, [items, place, paint]);
  return (
    <instancedMesh key={items.length} ref={mesh} args={[geometry, undefined, items.length]}>
      <meshStandardMaterial roughness={0.75} polygonOffset polygonOffsetFactor={1} polygonOffsetUnits={1} />
    </instancedMesh>
  );
}

const BOX = new BoxGeometry(1, 1, 1);
const STUD_SHAPE = new CylinderGeometry(STUD.radius, STUD.radius, STUD.height, 10);
/** Corners of a unit slope that falls east, centred, its low edge a sixth of its height. */
const LIP = -0.5 + 1 / 6;
const SLANT_CORNERS = [
  [-0.5, -0.5, -0.5],
  [0.5, -0.5, -0.5],
  [0.5, LIP, -0.5],
  [-0.5, 0.5, -0.5],
  [-0.5, -0.5, 0.5],
  [0.5, -0.5, 0.5],
  [0.5, LIP, 0.5],
  [-0.5, 0.5, 0.5],
] as const;
const BOX_CORNERS = SLANT_CORNERS.map(([x, y, z], i) => [x, i % 4 === 2 ? 0.5 : y, z] as const);
/** A slope of a corner: it falls east and south from where the other keeps a row of studs. */
const CORNER_CORNERS = SLANT_CORNERS.map(([x, y, z], i) => [x, i === 7 ? LIP : y, z] as const);
/** A slope in an inner corner: low at its east and south end alone. */
const VALLEY_CORNERS = BOX_CORNERS.map(([x, y, z], i) => [x, i === 6 ? LIP : y, z] as const);
/** Sides of all shapes as corners, seen from outside in the order against the clock. */
const FACES = [
  [0, 3, 2, 1],
  [4, 5, 6, 7],
  [0, 1, 5, 4],
  [1, 2, 6, 5],
  [3, 7, 6, 2],
  [0, 4, 7, 3],
] as const;
/** Edges of all shapes as pairs of corners. */
const EDGES = [0, 1, 1, 2, 2, 3, 3, 0, 4, 5, 5, 6, 6, 7, 7, 4, 0, 4, 1, 5, 2, 6, 3, 7] as const;
const CORNERS = {
  ...{ box: BOX_CORNERS, slant: SLANT_CORNERS },
  ...{ corner: CORNER_CORNERS, valley: VALLEY_CORNERS },
} as const;
const SLANT = geometryOf(SLANT_CORNERS);
const CORNER = geometryOf(CORNER_CORNERS);
const VALLEY = geometryOf(VALLEY_CORNERS);

/** A piece that falls between two sides, at half a quarter turn, is of a corner. */
function shapeOf({ falls, part }: Placed): keyof typeof CORNERS {
  if (falls === undefined) return 'box';
  if (Number.isInteger(falls)) return 'slant';
  return isValleySlope({ part }) ? 'valley' : 'corner';
}

function geometryOf(corners: readonly (readonly [number, number, number])[]): BufferGeometry {
  const points = FACES.flatMap(([a, b, c, d]) =>
    [a, b, c, a, c, d].flatMap((corner) => corners[corner] ?? []),
  );
  const geometry = new BufferGeometry();
  geometry.setAttribute('position', new BufferAttribute(new Float32Array(points), 3));
  geometry.computeVertexNormals();
  return geometry;
}

/** Quarter turns in display order (east, south, west, north) about the upright axis of the picture. */
const TURNS = [0, 1, 2, 3].map((falls) => new Matrix4().makeRotationY((-falls * Math.PI) / 2));

function matrixOf({ x, y, z, w, d, h, falls }: Placed, into: Matrix4): void {
  into.makeScale(w - GAP, h * STUDS_PER_PLATE, d - GAP);
  into.setPosition(x + w / 2, (z + h / 2) * STUDS_PER_PLATE, y + d / 2);
  const turn = falls === undefined ? undefined : TURNS[Math.floor(falls)];
  if (turn) into.multiply(turn);
}

function colourOfPiece({ colour, now, isMarked }: Placed, into: Color): void {
  into.set(isMarked ? MARKED : paintOf(colour));
  if (!now && !isMarked) into.lerp(FADED, 0.4);
}

/** A stud that nothing covers, with the piece it is on. */
interface Stud {
  x: number;
  y: number;
  piece: Placed;
}

/** Studs of the topmost piece of each place, where its part has studs. */
function openStuds(pieces: readonly Placed[], w: number, d: number): Stud[] {
  const top = new Array<Placed | undefined>(w * d);
  for (const piece of pieces)
    for (let y = Math.max(0, Math.floor(piece.y)); y < Math.min(d, piece.y + piece.d); y++)
      for (let x = Math.max(0, Math.floor(piece.x)); x < Math.min(w, piece.x + piece.w); x++) {
        const other = top[y * w + x];
        if (!other || other.z + other.h <= piece.z + piece.h) top[y * w + x] = piece;
      }
  const studs: Stud[] = [];
  top.forEach((piece, at) => {
    if (piece && isStudded(piece.part)) studs.push({ x: at % w, y: Math.floor(at / w), piece });
  });
  return studs;
}

function studMatrix({ x, y, piece: { z, h } }: Stud, into: Matrix4): void {
  into.makeTranslation(x + 0.5, (z + h) * STUDS_PER_PLATE + STUD.height / 2, y + 0.5);
}

const colourOfStud = ({ piece }: Stud, into: Color) => colourOfPiece(piece, into);

/** All edges of all pieces as one set of lines. */
function Edges({ pieces }: { pieces: readonly Placed[] }) {
  const geometry = useMemo(() => {
    const points = new Float32Array(pieces.length * EDGES.length * 3);
    const corner = new Matrix4();
    let at = 0;
    for (const piece of pieces) {
      matrixOf(piece, corner);
      const m = corner.elements;
      const shape = CORNERS[shapeOf(piece)];
      for (const end of EDGES) {
        const [x, y, z] = shape[end];
        points[at++] = m[0] * x + m[4] * y + m[8] * z + m[12];
        points[at++] = m[1] * x + m[5] * y + m[9] * z + m[13];
        points[at++] = m[2] * x + m[6] * y + m[10] * z + m[14];
      }
    }
    const lines = new BufferGeometry();
    lines.setAttribute('position', new BufferAttribute(points, 3));
    return lines;
  }, [pieces]);
  useLayoutEffect(() => () => geometry.dispose(), [geometry]);
  return (
    <lineSegments geometry={geometry}>
      <lineBasicMaterial color={EDGE} transparent opacity={0.55} />
    </lineSegments>
  );
}
