import { sceneFrom } from '../packages/core/src/document/index.ts';
import { circuitReports } from '../packages/core/src/power/index.ts';
import { seeded, compile } from '../packages/core/src/terrain/index.ts';
import {
  packingOf,
  showOf,
  timetableOf,
  type PackItem,
  type PackSpace,
} from '../packages/core/src/transport/index.ts';
import { largeScene } from './relief.ts';
import type { Row } from './table.ts';

/** Pieces into vehicles, tasks into a day, and what a large display brings to its show. */
export function benchTransport(): Row[] {
  const random = seeded(3);
  const int = (low: number, high: number) => low + Math.floor(random() * (high - low + 1));
  const items = Array.from({ length: 120 }, (_, i): PackItem => ({
    ...{ id: `p${i}`, w: int(150, 760), d: int(150, 500), h: int(80, 420), mass: int(500, 9000) },
    ...{ canTurn: true, bears: [0, 5000, 40_000][int(0, 2)], order: int(1, 6) },
  }));
  const tasks = Array.from({ length: 200 }, (_, i) => ({
    ...{ id: `t${i}`, minutes: int(2, 30), hands: int(1, 4) },
    after: Array.from({ length: int(0, 2) }, () => int(0, i))
      .filter((j) => j < i)
      .map((j) => `t${j}`),
  }));
  const time = (work: () => unknown): number => {
    const began = performance.now();
    work();
    return performance.now() - began;
  };
  const van: PackSpace = { w: 1600, d: 2400, h: 1200, maxMass: 600_000 };
  // Three that differ, with doors narrower than they are, and arches.
  const fleet: PackSpace[] = [
    { ...van, d: 3600, h: 1700, door: { x: 150, w: 1300 }, arches: { from: 1100, w: 200, d: 800, h: 280 } },
    { ...van, door: { x: 200, w: 1200 }, arches: { from: 800, w: 180, d: 700, h: 260 } },
    { ...van, w: 1000, d: 1500, h: 800 },
  ];
  // No seconds: the first answer alone.
  const once = { seconds: 0, now: () => performance.now() };
  const scene = largeScene();
  const { relief } = compile(scene);
  const lit = litScene();
  const ground = compile(lit).relief;
  const ms = { unit: 'ms', better: 'less' } as const;
  return [
    {
      what: '120 pieces into vans, first answer',
      measured: time(() => packingOf(items, van, once)),
      aim: 500,
      ...ms,
    },
    {
      what: '… into three that differ, with doors and arches',
      measured: time(() => packingOf(items, fleet, once)),
      aim: 500,
      ...ms,
    },
    {
      what: '400 lights on 20 circuits over 100 modules: ways, currents, voltages',
      measured: time(() => circuitReports(lit, ground)),
      aim: 200,
      ...ms,
    },
    { what: '200 tasks for 12 people', measured: time(() => timetableOf(tasks, 12)), aim: 2000, ...ms },
    {
      what: '… three of whom come later',
      measured: time(() => timetableOf(tasks, 12, { absent: [{ until: 45, hands: 3 }] })),
      aim: 2000,
      ...ms,
    },
    {
      what: '480×320: what is brought, and the order of building up',
      measured: time(() => showOf(scene, relief)),
      ...ms,
    },
  ];
}

/** 480 × 320 studs in 100 modules, with 400 lights on 20 circuits of 4 connectors. */
function litScene() {
  const random = seeded(5);
  const stud = (most: number) => Math.floor(random() * most);
  const ids = (count: number, letter: string) => Array.from({ length: count }, (_, i) => `${letter}${i}`);
  return sceneFrom({
    display: { name: 'Lit', kind: 'city' },
    footprint: [{ id: 'f', name: 'All', x: 0, y: 0, w: 480, d: 320 }],
    modules: ids(100, 'm').map((id, i) => {
      const rect = { x: 48 * (i % 10), y: 32 * Math.floor(i / 10), w: 48, d: 32 };
      return { id, name: id, ...rect, bases: [rect] };
    }),
    supplies: ids(20, 's').map((id, i) => ({ id, name: id, x: 24 * i, y: -4 })),
    circuits: ids(20, 'c').map((id, i) => ({
      ...{ id, name: id, supply: `s${i}` },
      connectors: Array.from({ length: 4 }, (_, k) => ({ x: 24 * i, y: 32 * k })),
    })),
    devices: ids(400, 'd').map((id, i) => ({
      ...{ id, name: id, circuit: `c${i % 20}` },
      ...{ x: Math.min(479, 24 * (i % 20) + stud(60)), y: stud(320) },
    })),
  });
}
