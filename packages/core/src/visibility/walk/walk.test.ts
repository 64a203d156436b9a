import { sceneFrom } from '../../document/index.ts';
import { OUTSIDE, compileRelief } from '../../terrain/index.ts';
import { NO_STUD, SEEN_CLASSES, UNSEEN, seenCover, sightOf, walkMesh, type MeshPart } from '../index.ts';

/** Sum over faces of one coordinate × the area that faces along it: the volume of a closed solid, by each axis (Gauss). */
function volumes(parts: readonly MeshPart[]): [number, number, number] {
  const sums: [number, number, number] = [0, 0, 0];
  for (const { positions, indices } of parts)
    for (let i = 0; i < indices.length; i += 3) {
      const [a, b, c] = [0, 1, 2].map((k) => {
        const at = 3 * indices[i + k];
        return [...positions.subarray(at, at + 3)];
      });
      const [u, v] = [b.map((value, k) => value - a[k]), c.map((value, k) => value - a[k])];
      for (let k = 0; k < 3; k++) {
        const [l, m] = [(k + 1) % 3, (k + 2) % 3];
        sums[k] += ((u[l] * v[m] - u[m] * v[l]) / 2) * ((a[k] + b[k] + c[k]) / 3);
      }
    }
  return sums;
}
/** Area of the faces that look up, studs. */
function topArea(positions: Float32Array, indices: Uint32Array): number {
  let area = 0;
  for (let i = 0; i < indices.length; i += 3) {
    const [a, b, c] = [0, 1, 2].map((k) => 3 * indices[i + k]);
    if (positions[a + 1] !== positions[b + 1] || positions[a + 1] !== positions[c + 1]) continue;
    const at = (k: number, axis: number) => positions[k + axis] - positions[a + axis];
    area += (at(b, 2) * at(c, 0) - at(b, 0) * at(c, 2)) / 2;
  }
  return area;
}
const base = {
  display: { name: 'Walk', kind: 'diorama' as const },
  footprint: [
    { id: 'f', name: 'All', x: 0, y: 0, w: 40, d: 24 },
    { id: 'g', name: 'Ell', x: 40, y: 0, w: 8, d: 10 },
  ],
};
const meshOf = (more: object = {}) => {
  const scene = sceneFrom({ ...base, ...more });
  const relief = compileRelief(scene);
  const mesh = walkMesh(scene, relief);
  if (!mesh) throw new Error('no mesh');
  return {
    relief,
    mesh,
    of: (what: string) => mesh.parts.filter(({ material }) => material.startsWith(what)),
    studs: (what: string) =>
      mesh.parts
        .filter(({ material }) => material === what)
        .reduce((sum, { positions, indices }) => sum + topArea(positions, indices), 0),
  };
};

test('the sides of the ground hold what its tops do: the volume of all columns, stud by stud', () => {
  const { relief, of } = meshOf({
    levels: [{ id: 'quay', name: 'Quay', height: 6 }],
    pads: [{ id: 'p', name: 'Yard', x: 4, y: 4, w: 12, d: 9, level: 'quay', ground: 'paving' }],
    hills: [{ id: 'h', name: 'Fell', x: 18, y: 2, w: 20, d: 18, level: 'quay', height: 40, ground: 'rock' }],
  });
  // Down to a plate under the lowest: studs × 3.2 mm, in cubes of a stud.
  const low = -1;
  const expected = relief.height.reduce(
    (sum, height, i) => sum + (relief.ground[i] === OUTSIDE ? 0 : (height - low) * 0.4),
    0,
  );
  const [x, y, z] = volumes(of('ground'));
  expect(x).toBeCloseTo(expected, 3);
  expect(z).toBeCloseTo(expected, 3);
  // Tops are counted from the datum, and without an underside.
  const studs = relief.ground.reduce((sum, code) => sum + (code === OUTSIDE ? 0 : 1), 0);
  expect(y).toBeCloseTo(expected + low * 0.4 * studs, 3);
});

test.each([
  ['a box', {}],
  ['with a hipped roof, turned off the grid', { eaves: 18, roofForm: 'hip', turn: 30 }],
  [
    'an L with hips and a valley',
    { eaves: 18, roofForm: 'hip', d: 16, notches: [{ corner: 'ne', w: 6, d: 6 }] },
  ],
  ['round with a cone', { shape: 'round', w: 14, d: 14, eaves: 18, roundRoof: 'cone' }],
])('a building is closed: every axis gives one volume; its room is not shown (%s)', (_, more) => {
  const { of, mesh } = meshOf({
    plots: [{ id: 'b', name: 'Block', x: 8, y: 6, w: 16, d: 10, height: 30, storeys: 2, ...more }],
  });
  const [x, y, z] = volumes(of('colour'));
  expect(x / y).toBeCloseTo(1, 3);
  expect(z / y).toBeCloseTo(1, 3);
  // More than the walls alone would have, since it is full where no air comes in.
  expect(y).toBeGreaterThan(0.7 * 10 * 10 * 18 * 0.4);
  expect(mesh.high).toBeGreaterThanOrEqual(18 * 0.4);
});

test('with its roof off one looks into the uppermost storey: its floor, and what has a place there', () => {
  const house = {
    ...{ id: 'b', name: 'House', x: 8, y: 6, w: 16, d: 10, height: 30, storeys: 2, eaves: 20 },
    ...{ wallColour: 'rust', roofColour: 'slate' },
    fittings: [
      { name: 'Table', on: 10, height: 6, place: { x: 2, y: 3, w: 4, d: 3 } },
      { name: 'Stove', height: 9 },
    ],
  };
  const scene = sceneFrom({ ...base, plots: [house] });
  const relief = compileRelief(scene);
  const seenFrom = (isOpen: boolean) => {
    const parts = walkMesh(scene, relief, { isOpen })?.parts ?? [];
    return {
      furniture: volumes(parts.filter(({ material }) => material === 'furniture'))[0],
      roof: parts.some(({ material }) => material === 'colour slate'),
      // Of the upper floor: any colour, as what is hidden.
      floor: parts
        .filter(({ material }) => material === 'colour any')
        .reduce((sum, { positions, indices }) => sum + topArea(positions, indices), 0),
    };
  };
  expect(seenFrom(false)).toMatchObject({ furniture: 0, roof: true, floor: 0 });
  const open = seenFrom(true);
  // A table of 4 × 3 studs and 6 plates of 0.4 studs; a stove that has no place is not drawn.
  expect(open.furniture).toBeCloseTo(4 * 3 * 6 * 0.4, 4);
  expect(open.roof).toBe(false);
  expect(open.floor).toBe(14 * 8);
});

test('a large display has a coarse form: a plain keeps its volume, hills nearly, with fewer faces', () => {
  const hills = Array.from({ length: 300 }, (_, i) => ({
    ...{ id: `h${i}`, name: `Hill ${i}`, x: (i % 20) * 21, y: Math.trunc(i / 20) * 20, w: 25, d: 23 },
    ...{ level: 'quay', height: 30 + (i % 40), ground: 'grass' },
  }));
  const made = (more: object) => {
    const scene = sceneFrom({
      display: base.display,
      footprint: [{ id: 'f', name: 'All', x: 0, y: 0, w: 426, d: 300 }],
      levels: [{ id: 'quay', name: 'Quay', height: 6 }],
      ...more,
    });
    return walkMesh(scene, compileRelief(scene));
  };
  expect(made({})?.coarse).toBeNull();
  const mesh = made({ hills });
  if (!mesh?.coarse) throw new Error('no coarse form');
  const countOf = (parts: readonly MeshPart[]) =>
    parts.reduce((sum, { indices }) => sum + indices.length / 3, 0);
  expect(countOf(mesh.coarse)).toBeLessThan(countOf(mesh.parts) / 3);
  const ground = (parts: readonly MeshPart[]) =>
    volumes(parts.filter(({ material }) => material.startsWith('ground')))[0];
  expect(ground(mesh.coarse) / ground(mesh.parts)).toBeCloseTo(1, 1);
  // Nothing of it reaches beyond the footprint, though 426 is no whole number of squares.
  const east = mesh.coarse
    .filter(({ material }) => material.startsWith('ground'))
    .flatMap(({ positions }) => [...positions].filter((_, i) => i % 3 === 0));
  expect(east.reduce((most, x) => Math.max(most, x), 0)).toBe(426);
});

test('ground has the colour that most of it has by its recipe or description; without one its own', () => {
  const pad = (id: string, x: number, ground: string) => ({
    ...{ id, name: id, x, y: 0, w: 8, d: 4, level: 'quay', ground, order: x },
  });
  const { studs } = meshOf({
    levels: [{ id: 'quay', name: 'Quay', height: 6 }],
    pads: [pad('a', 0, 'grass'), pad('b', 8, 'custom-1'), pad('c', 16, 'custom-2'), pad('d', 24, 'sand')],
    customGrounds: ['custom-1', 'custom-2'].map((id) => ({ id, name: id, colour: 'chalk' })),
    recipes: [
      {
        ...{ id: 'g', name: 'Winter', ground: 'grass' },
        tones: [
          { colour: 'moss', share: 1 },
          { colour: 'mist', share: 3 },
        ],
      },
      { id: 'h', name: 'Deep', ground: 'custom-2', tones: [{ colour: 'ice', share: 1 }] },
    ],
  });
  expect(['mist', 'chalk', 'ice', 'moss'].map((colour) => studs(`colour ${colour}`))).toEqual([
    32, 32, 32, 0,
  ]);
  expect([studs('ground sand'), studs('ground grass')]).toEqual([32, 0]);
});

test('tables stand on the floor as high as they are, the floor lies under the highest', () => {
  const { mesh, of } = meshOf({
    display: { ...base.display, place: 'hall' },
    places: [{ id: 'hall', name: 'Hall', walls: [], sceneX: 1000, sceneY: 1000 }],
    tables: [
      { id: 'a', name: 'A', place: 'hall', x: 1000, y: 1000, w: 400, d: 200, height: 720 },
      { id: 'b', name: 'B', place: 'hall', x: 1400, y: 1000, w: 400, d: 200, height: 640 },
    ],
  });
  expect(mesh.floor).toBe(90);
  const heights = new Set(
    of('table')
      .flatMap(({ positions }) => [...positions].filter((_, i) => i % 3 === 1))
      .map((y) => Math.round(10 * y) / 10),
  );
  // The lowest ground is a plate over the tables; the lower one lies 80 mm under the other.
  expect(heights).toEqual(new Set([-0.4, -10.4]));
});

test('what does not stand yet has a material of its own: ground, houses and trees by the stage of their section', () => {
  const section = (letter: string, x: number, stage: string) => ({
    ...{ id: letter.toLowerCase(), letter, name: letter, x, y: 0, w: 16, d: 24 },
    stage,
  });
  const house = (id: string, x: number) => ({
    id,
    name: id,
    x,
    y: 4,
    w: 6,
    d: 6,
    height: 12,
    wallColour: 'rust',
  });
  const tree = (id: string, x: number) => ({ id, name: id, x, y: 18, height: 15 });
  const { of, studs } = meshOf({
    // Its ground is being built; its houses are; all but figures stand.
    sections: [section('A', 0, 'ground'), section('B', 16, 'structures'), section('C', 32, 'peopled')],
    plots: [house('p', 4), house('q', 20), house('r', 36)],
    trees: [tree('t', 8), tree('u', 24), tree('v', 38)],
  });
  const volumeOf = (what: string) => volumes(of(what))[0];
  expect(studs('planned ground bare')).toBe(16 * 24);
  // 40 × 24 and 8 × 10 in all.
  expect(studs('ground bare')).toBe(24 * 24 + 8 * 10);
  expect(volumeOf('planned colour')).toBeCloseTo(2 * volumeOf('colour'), 3);
  expect(volumeOf('planned leaf')).toBeCloseTo(2 * volumeOf('leaf'), 3);
  // Of no section, or with the stage past: it stands.
  expect(meshOf({ plots: [house('p', 4)] }).of('planned')).toEqual([]);
});

test('the shade lies on all ground on which nothing stands, each stud in the class of who sees it, at its height', () => {
  const scene = sceneFrom({
    ...base,
    levels: [{ id: 'quay', name: 'Quay', height: 6 }],
    pads: [{ id: 'p', name: 'Yard', x: 4, y: 4, w: 12, d: 9, level: 'quay', ground: 'paving' }],
    hills: [{ id: 'h', name: 'Fell', x: 18, y: 2, w: 20, d: 18, level: 'quay', height: 40, ground: 'rock' }],
    plots: [{ id: 'b', name: 'Shed', x: 5, y: 5, w: 6, d: 4, height: 12 }],
    trees: [{ id: 't', name: 'Oak', x: 42, y: 4, height: 20, crown: 5 }],
  });
  const relief = compileRelief(scene);
  // Percents that differ from stud to stud, some of nobody.
  const studs = Uint8Array.from(relief.ground, (code, i) =>
    code === OUTSIDE ? NO_STUD : i % 7 === 0 ? UNSEEN : (i * 37) % 101,
  );
  const { parts, studs: counts } = seenCover(scene, relief, { studs, things: [], hiddenFaces: [] });
  const wanted = { nobody: 0, few: 0, some: 0, most: 0 };
  const heights = new Map<string, number>();
  studs.forEach((share, i) => {
    if (share === NO_STUD || relief.top[i] !== relief.surface[i]) return;
    const seen = share === 0 ? 'nobody' : share < 25 ? 'few' : share < 75 ? 'some' : 'most';
    wanted[seen]++;
    heights.set(seen, (heights.get(seen) ?? 0) + relief.surface[i] * 0.4 + 0.06);
  });
  expect(counts).toEqual(wanted);
  expect(wanted.nobody + wanted.few + wanted.some + wanted.most).toBeLessThan(40 * 24 + 8 * 10 - 24);
  for (const seen of SEEN_CLASSES) {
    const own = parts.filter(({ material }) => material === `seen ${seen}`);
    const area = own.reduce((sum, { positions, indices }) => sum + topArea(positions, indices), 0);
    expect([seen, area]).toEqual([seen, expect.closeTo(wanted[seen], 3)]);
    // What lies under all of it is the sum of its heights (a plate is 0.4 studs).
    const under = own.reduce((sum, { positions, indices }) => {
      let volume = 0;
      for (let i = 0; i < indices.length; i += 3) {
        const triangle = indices.subarray(i, i + 3);
        volume += topArea(positions, triangle) * positions[3 * triangle[0] + 1];
      }
      return sum + volume;
    }, 0);
    expect([seen, under]).toEqual([seen, expect.closeTo(heights.get(seen) ?? 0, 2)]);
  }
});

test('modules apart keep their ground, each moved from the middle, with sides where they met', () => {
  const modules = [
    { id: 'a', name: 'A', x: 0, y: 0, w: 20, d: 24, bases: [] },
    { id: 'b', name: 'B', x: 20, y: 0, w: 20, d: 24, bases: [] },
  ];
  const scene = sceneFrom({
    ...base,
    levels: [{ id: 'quay', name: 'Quay', height: 6 }],
    pads: [{ id: 'p', name: 'Yard', x: 0, y: 0, w: 40, d: 24, level: 'quay', ground: 'paving' }],
    plots: [{ id: 'h', name: 'House', x: 4, y: 4, w: 8, d: 6, height: 9, wallColour: 'rust' }],
    modules,
    tables: [{ id: 't', name: 'Table', x: 0, y: 0, w: 500, d: 300, height: 740 }],
  });
  const relief = compileRelief(scene);
  const look = (isParted: boolean) => {
    const parts = walkMesh(scene, relief, { isParted })?.parts ?? [];
    const of = (what: string) => parts.filter(({ material }) => material === what);
    const xs = (what: string) =>
      of(what).flatMap(({ positions }) => [...positions].filter((_, i) => i % 3 === 0));
    return { of, range: (what: string) => [Math.min(...xs(what)), Math.max(...xs(what))] };
  };
  const [whole, parted] = [look(false), look(true)];
  const area = (of: ReturnType<typeof look>['of']) =>
    of('ground paving').reduce((sum, { positions, indices }) => sum + topArea(positions, indices), 0);
  expect([area(whole.of), area(parted.of)]).toEqual([40 * 24, 40 * 24]);
  // The display is 48 studs wide: its middle is at 24, the modules’ at 10 and 30. They move by 0.22 of 14 and of 6.
  expect(whole.range('ground paving')).toEqual([0, 40]);
  expect(parted.range('ground paving')).toEqual([
    expect.closeTo(-0.22 * 14, 4),
    expect.closeTo(40 + 0.22 * 6, 4),
  ]);
  const [before, after] = [whole.range('colour rust'), parted.range('colour rust')];
  expect(after.map((x, i) => x - before[i])).toEqual([
    expect.closeTo(-0.22 * 14, 4),
    expect.closeTo(-0.22 * 14, 4),
  ]);
  // Solid all round: the volume of both is that of their columns, 7 plates of 0.4 studs down to the table.
  const volume = volumes(parted.of('ground paving'));
  expect(volume[0]).toBeCloseTo(40 * 24 * 7 * 0.4, 1);
  expect([whole.of('cloth').length > 0, parted.of('cloth').length]).toEqual([true, 0]);
});

test('sides of buildings are shaded by how much of them is seen, and faces that nobody sees, each seen from before it', () => {
  const scene = sceneFrom({
    display: { ...base.display, viewedSides: ['s'], place: 'hall' },
    places: [{ id: 'hall', name: 'Hall', walls: [], sceneX: 0, sceneY: 0 }],
    tables: [{ id: 't', name: 'Table', place: 'hall', x: 0, y: 0, w: 320, d: 192, height: 740 }],
    levels: [{ id: 'low', name: 'Low', height: 6 }],
    footprint: [{ id: 'f', name: 'All', x: 0, y: 0, w: 40, d: 24 }],
    pads: [{ id: 'p', name: 'Ground', x: 0, y: 0, w: 40, d: 24, level: 'low', ground: 'grass' }],
    plots: [{ id: 'b', name: 'Shed', x: 14, y: 8, w: 10, d: 6, height: 20, eaves: 15 }],
  });
  const relief = compileRelief(scene);
  const sight = sightOf(scene, relief);
  if (!sight) throw new Error('nobody looks');
  /** The area of upright faces of a class that look to a side (x east, z south), studs. */
  const areaOf = (seen: string, axis: 0 | 2, sign: 1 | -1) =>
    seenCover(scene, relief, sight)
      .parts.filter(({ material }) => material === `seen ${seen}`)
      .reduce((sum, { positions, indices }) => {
        for (let i = 0; i < indices.length; i += 3) {
          const [a, b, c] = [0, 1, 2].map((k) => [
            ...positions.subarray(3 * indices[i + k], 3 * indices[i + k] + 3),
          ]);
          const [u, v] = [b.map((value, k) => value - a[k]), c.map((value, k) => value - a[k])];
          const normal = [u[1] * v[2] - u[2] * v[1], u[2] * v[0] - u[0] * v[2], u[0] * v[1] - u[1] * v[0]];
          if (Math.abs(normal[1]) < 1e-3 && sign * normal[axis] > 1e-3) sum += (sign * normal[axis]) / 2;
        }
        return sum;
      }, 0);
  // The front of the shed, 10 studs by 15 plates of 0.4; nothing is before it. Its back, and the edge behind it, 40 by 6 plates.
  expect(areaOf('most', 2, 1)).toBeCloseTo(10 * 6, 3);
  expect(areaOf('nobody', 2, -1)).toBeCloseTo(10 * 6 + 40 * 2.4, 3);
  expect(areaOf('nobody', 2, 1)).toBe(0);
  // The edges at the ends face no eye; the flanks of the shed each face one of the two places.
  expect(areaOf('nobody', 0, 1)).toBeCloseTo(24 * 2.4, 3);
  expect(areaOf('nobody', 0, -1)).toBeCloseTo(24 * 2.4, 3);
  expect(areaOf('most', 0, 1)).toBeCloseTo(6 * 6, 3);
});
