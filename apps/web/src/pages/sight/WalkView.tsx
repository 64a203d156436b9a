import { Canvas, useThree } from '@react-three/fiber';
import { useEffect, useImperativeHandle, useMemo, useRef, useState, type Ref } from 'react';
import {
  BufferAttribute,
  BufferGeometry,
  Mesh,
  MeshLambertMaterial,
  MeshStandardMaterial,
  PerspectiveCamera,
  Vector3,
  type Group,
} from 'three';
import type { Lamp } from '@quarry/core/power';
import {
  PLANNED,
  SEEN,
  SEEN_CLASSES,
  type MeshPart,
  type SeenClass,
  type WalkMesh,
} from '@quarry/core/visibility';
import { Orbit } from '../../ui/Orbit.tsx';
import { Detail } from './detail.ts';
import type { HeadTurn } from './standpoint.ts';
import { paintOf } from '../../ui/paint.ts';

/** What things are drawn in that have no colour of the palette. */
const PAINTS: Readonly<Record<string, string>> = {
  'ground grass': '#7f9460',
  'ground rock': '#8f8c86',
  'ground soil': '#8a7155',
  'ground sand': '#d8c799',
  'ground paving': '#b3ada2',
  'ground road': '#74736f',
  'ground ballast': '#978f84',
  'ground water': '#4f8d95',
  'ground bare': '#d2cbbb',
  deck: '#a09a90',
  leaf: '#52703f',
  wood: '#6f5238',
  figure: '#3f5b86',
  'figure head': '#e0b64a',
  wall: '#9d978c',
  table: '#7a6a58',
  cloth: '#66727a',
  floor: '#b9b3a6',
  barrier: '#a8482a',
  furniture: '#7d5a3a',
};
/** Shades by who sees the ground: light where most do. */
export const SEEN_PAINTS: Readonly<Record<SeenClass, string>> = {
  nobody: '#a8442a',
  few: '#c08a2e',
  some: '#c9c4a0',
  most: '#f3f0e2',
};
const SHADES = new Map(SEEN_CLASSES.map((seen) => [`${SEEN}${seen}`, SEEN_PAINTS[seen]]));
const SKY = { day: '#e6e1d6', night: '#20272c' } as const;
/** A dark hall, and its lamps: the colour of warm light, size in studs, strength, how far each reaches. */
const DARK = '#0b0e11';
const LAMP = { colour: '#ffd9a0', off: '#59544b', size: 0.7, strength: 160, reach: 70 } as const;
/** So many of the nearest light what is about them: each costs time in every pixel. */
const MAX_SHINING = 12;
/** How much of what does not stand yet is seen, 0 to 1. */
const GHOST = 0.28;
/** How far one looks up and down, radians. */
const MOST_PITCH = 1.4;
const clampPitch = (pitch: number) => Math.min(MOST_PITCH, Math.max(-MOST_PITCH, pitch));
/** Radians by pixel of a drag. */
const LOOK = 0.004;
/** Share of the resolution while one moves. */
const MOVING_RESOLUTION = 0.5;
/** A stud in metres: the unit of glTF. */
const METRES = 0.008;

/** Studs east, up and south. */
type Place3 = readonly [number, number, number];

/** What can be taken from the view. */
export interface WalkHandle {
  /** The view as it is, PNG. */
  picture(): Promise<Blob | null>;
  /** The whole display as glTF 2.0 in one file, metres. */
  model(): Promise<Blob>;
}

interface WalkViewProps {
  mesh: WalkMesh;
  /** A shade over the ground; null: none. */
  cover: readonly MeshPart[] | null;
  /** null: seen from above, turned by hand. */
  standing: { eye: Place3; target: Place3 } | null;
  label: string;
  theme: 'day' | 'night';
  /** The hall is dark, and these are its lamps; null: daylight. */
  lamps: readonly Lamp[] | null;
  /** What does not stand yet is seen through. */
  isToday: boolean;
  /** How far the head is turned from what is looked at: views side by side turn together. */
  head: HeadTurn;
  ref?: Ref<WalkHandle>;
}

/** The display in three dimensions, from an eye that stands before it or turned by hand. */
export function WalkView({ mesh, cover, standing, label, theme, lamps, isToday, head, ref }: WalkViewProps) {
  const far = Math.max(mesh.w, mesh.d);
  const isDark = lamps !== null;
  const [detail] = useState(() => new Detail());
  const move = useMemo(() => () => detail.move(), [detail]);
  return (
    <Canvas
      frameloop="demand"
      dpr={1}
      camera={{ position: [0, far * 0.8, far * 1.1], fov: 45, near: 2, far: far * 8 + 2000 }}
      aria-label={label}
      role="img"
    >
      <color attach="background" args={[isDark ? DARK : SKY[theme]]} />
      <hemisphereLight args={['#ffffff', '#8d8678', isDark ? 0.14 : 1.6]} />
      <directionalLight position={[-far, far * 2, far * 1.4]} intensity={isDark ? 0.08 : 1.7} />
      {lamps && <Lamps lamps={lamps} mesh={mesh} about={standing?.target ?? [mesh.w / 2, 0, mesh.d / 2]} />}
      <Faces mesh={mesh} cover={cover} isToday={isToday} detail={detail} ref={ref} />
      {standing ? (
        <Stand {...centred(standing, mesh)} head={head} onMove={move} />
      ) : (
        <>
          <StepBack far={far} />
          <Orbit below={Math.PI / 2.05} onMove={move} />
        </>
      )}
    </Canvas>
  );
}

/** Each lamp as a small bright ball; the nearest to what is looked at shine on what is about them. */
function Lamps({ lamps, mesh, about: [x, y, z] }: { lamps: readonly Lamp[]; mesh: WalkMesh; about: Place3 }) {
  const invalidate = useThree((state) => state.invalidate);
  useEffect(() => invalidate(), [lamps, invalidate]);
  const shining = lamps
    .filter(({ isLit }) => isLit)
    .map((lamp) => ({ lamp, far: Math.hypot(lamp.x - x, lamp.z - y, lamp.y - z) }))
    .sort((a, b) => a.far - b.far)
    .slice(0, MAX_SHINING);
  return (
    <group position={[-mesh.w / 2, 0, -mesh.d / 2]}>
      {lamps.map((lamp) => (
        <mesh key={lamp.id} position={[lamp.x, lamp.z, lamp.y]}>
          <sphereGeometry args={[LAMP.size, 10, 8]} />
          <meshBasicMaterial color={lamp.isLit ? LAMP.colour : LAMP.off} />
        </mesh>
      ))}
      {shining.map(({ lamp }) => (
        <pointLight
          key={lamp.id}
          position={[lamp.x, lamp.z + 1, lamp.y]}
          color={LAMP.colour}
          intensity={LAMP.strength}
          distance={LAMP.reach}
        />
      ))}
    </group>
  );
}

/** From the corner of the footprint to its middle, over which it is turned. */
function centred(
  { eye, target }: { eye: Place3; target: Place3 },
  { w, d }: WalkMesh,
): { eye: Place3; target: Place3 } {
  const moved = ([x, y, z]: Place3): Place3 => [x - w / 2, y, z - d / 2];
  return { eye: moved(eye), target: moved(target) };
}

/** Far enough to see all of it, once, before it is turned by hand. */
function StepBack({ far }: { far: number }) {
  const camera = useThree((state) => state.camera);
  useEffect(() => {
    camera.position.set(0, far * 0.7, far * 0.95);
  }, [camera, far]);
  return null;
}

/** The faces by material, their middle over the origin: all of them, or few while one moves. */
function Faces({
  mesh,
  cover,
  isToday,
  detail,
  ref,
}: {
  mesh: WalkMesh;
  cover: readonly MeshPart[] | null;
  isToday: boolean;
  detail: Detail;
  ref?: Ref<WalkHandle>;
}) {
  const group = useRef<Group>(null);
  const coarse = useRef<Group>(null);
  const { gl, scene, camera, invalidate, setDpr } = useThree();
  useEffect(() => {
    const end = detail.listen((isMoving) => {
      if (coarse.current) coarse.current.visible = isMoving;
      if (group.current) group.current.visible = !isMoving || coarse.current === null;
      setDpr(isMoving ? MOVING_RESOLUTION : 1);
      invalidate();
    });
    return () => {
      end();
      detail.rest();
    };
  }, [detail, invalidate, setDpr]);
  useEffect(() => invalidate(), [mesh, isToday, invalidate]);
  useImperativeHandle(
    ref,
    () => ({
      picture: () =>
        new Promise((resolve) => {
          // Drawn in full and read in one step, so that the picture is still there.
          detail.rest();
          gl.render(scene, camera);
          gl.domElement.toBlob(resolve, 'image/png');
        }),
      model: async () => {
        const { GLTFExporter } = await import('three/examples/jsm/exporters/GLTFExporter.js');
        const copy = group.current?.clone() ?? scene;
        copy.scale.setScalar(METRES);
        // glTF knows materials by roughness; what is drawn here is plainer, for speed.
        copy.traverse((part) => {
          if (part instanceof Mesh && part.material instanceof MeshLambertMaterial) {
            const { name, color } = part.material;
            part.material = new MeshStandardMaterial({ name, color, roughness: 0.85 });
          }
        });
        const answer = await new GLTFExporter().parseAsync(copy, { binary: true });
        return new Blob([answer instanceof ArrayBuffer ? answer : JSON.stringify(answer)], {
          type: 'model/gltf-binary',
        });
      },
    }),
    [gl, scene, camera, detail],
  );
  const place: Place3 = [-mesh.w / 2, 0, -mesh.d / 2];
  return (
    <>
      <group ref={group} position={place}>
        <Solids parts={mesh.parts} isToday={isToday} />
        {cover && <Solids parts={cover} isToday={false} />}
      </group>
      {mesh.coarse && (
        <group ref={coarse} position={place} visible={false}>
          <Solids parts={mesh.coarse} isToday={isToday} />
        </group>
      )}
    </>
  );
}

/** Faces by material; what does not stand yet is seen through where that is asked. */
function Solids({ parts: given, isToday }: { parts: readonly MeshPart[]; isToday: boolean }) {
  const invalidate = useThree((state) => state.invalidate);
  const parts = useMemo(
    () =>
      given.map(({ material: name, positions, indices }) => {
        const isPlanned = name.startsWith(PLANNED);
        const material = isPlanned ? name.slice(PLANNED.length) : name;
        const geometry = new BufferGeometry();
        geometry.setAttribute('position', new BufferAttribute(positions, 3));
        geometry.setIndex(new BufferAttribute(indices, 1));
        geometry.computeVertexNormals();
        const colour = material.startsWith('colour ')
          ? paintOf(material.slice('colour '.length))
          : (SHADES.get(material) ?? PAINTS[material] ?? '#888888');
        return { name, isPlanned, geometry, colour };
      }),
    [given],
  );
  useEffect(() => {
    invalidate();
    return () => parts.forEach(({ geometry }) => geometry.dispose());
  }, [parts, invalidate]);
  return parts.map(({ name, isPlanned, geometry, colour }) => (
    <mesh key={name} name={name} geometry={geometry} renderOrder={isPlanned && isToday ? 1 : 0}>
      <meshLambertMaterial
        key={isPlanned && isToday ? 'ghost' : 'solid'}
        name={name}
        color={colour}
        transparent={isPlanned && isToday}
        opacity={isPlanned && isToday ? GHOST : 1}
        depthWrite={!(isPlanned && isToday)}
      />
    </mesh>
  ));
}

/** An eye that stands: it looks at its target, and wherever the pointer turns it from there. */
function Stand({
  eye: [x, y, z],
  target: [tx, ty, tz],
  head,
  onMove,
}: {
  eye: Place3;
  target: Place3;
  head: HeadTurn;
  onMove: () => void;
}) {
  const { camera, gl, invalidate } = useThree();
  const isFirst = useRef(true);
  useEffect(() => {
    const element = gl.domElement;
    const ahead = new Vector3(tx - x, ty - y, tz - z);
    const straight = {
      yaw: Math.atan2(ahead.x, ahead.z),
      pitch: Math.atan2(ahead.y, Math.hypot(ahead.x, ahead.z)),
    };
    head.reset();
    const show = () => {
      const yaw = straight.yaw + head.yaw;
      const pitch = clampPitch(straight.pitch + head.pitch);
      camera.position.set(x, y, z);
      camera.lookAt(
        x + Math.sin(yaw) * Math.cos(pitch),
        y + Math.sin(pitch),
        z + Math.cos(yaw) * Math.cos(pitch),
      );
      if (camera instanceof PerspectiveCamera) camera.updateProjectionMatrix();
      invalidate();
    };
    const move = (event: PointerEvent) => {
      if (event.buttons === 0) return;
      const pitch = clampPitch(straight.pitch + head.pitch + event.movementY * LOOK);
      head.turn(event.movementX * LOOK, pitch - straight.pitch - head.pitch);
    };
    const unheard = head.listen(() => {
      onMove();
      show();
    });
    element.style.touchAction = 'none';
    element.addEventListener('pointermove', move);
    if (!isFirst.current) onMove();
    isFirst.current = false;
    show();
    return () => {
      unheard();
      element.removeEventListener('pointermove', move);
    };
  }, [camera, gl, invalidate, onMove, head, x, y, z, tx, ty, tz]);
  return null;
}
