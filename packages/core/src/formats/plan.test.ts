import DxfParser from 'dxf-parser';
import fc from 'fast-check';
import { boundsOf, roundOut, type Rect } from '../grid/index.ts';
import { OUTSIDE, compileRelief, indexAt } from '../terrain/index.ts';
import { randomDisplays } from '../../test/randomDisplays.ts';
import { GROUNDS, padsInOrder, sceneFrom } from '../document/index.ts';
import {
  planDrawing,
  gridRect,
  groundRuns,
  readAsc,
  countGrid,
  readOutlines,
  readPgm,
  terrainParts,
  writeAsc,
  writeDxf,
  writeSvg,
  type HeightGrid,
} from './index.ts';
import { runs } from '../../test/runs.ts';

const pads = [
  { id: 'a', name: 'Yard & <lane>', x: 0, y: 0, w: 40, d: 24, level: 'l', ground: 'grass' as const },
  {
    id: 'b',
    name: 'Wedge',
    x: 8,
    y: 4,
    w: 16,
    d: 8,
    order: 1,
    level: 'l',
    offset: 6,
    ground: 'paving' as const,
    shape: 'outline' as const,
    outline: [
      { x: 0, y: 0 },
      { x: 1, y: 0.25 },
      { x: 0.5, y: 1 },
    ],
  },
];
const scene = sceneFrom({
  display: { name: 'Plan', kind: 'diorama' },
  levels: [{ id: 'l', name: 'Street', height: 3 }],
  footprint: [{ id: 'f', name: 'All', x: 0, y: 0, w: 40, d: 24 }],
  pads,
  plots: [{ id: 'p', name: 'House', x: 26, y: 4, w: 8, d: 6, turn: 90, height: 20 }],
});
const relief = compileRelief(scene);

describe('the plan as outlines', () => {
  const drawing = planDrawing(scene, relief, { textSize: 14 });
  test('true millimetres: a plot of 8 × 6 studs turned by a quarter is 48 × 64 mm, read by a general DXF reader', () => {
    const entities = new DxfParser().parseSync(writeDxf(drawing))?.entities ?? [];
    const [plot] = entities.filter(({ layer }) => layer === 'PLOTS');
    const { vertices } = plot as unknown as { vertices: { x: number; y: number }[] };
    const span = (axis: 'x' | 'y') =>
      Math.max(...vertices.map((at) => at[axis])) - Math.min(...vertices.map((at) => at[axis]));
    expect([span('x'), span('y')].map((value) => Number(value.toFixed(6)))).toEqual([48, 64]);
  });
  test('what stands out over walls is dashed about them, turned with them', () => {
    const jettied = { ...scene, plot: { p: { ...scene.plot.p, overhang: { n: 0, e: 2, s: 0, w: 0 } } } };
    const lines = planDrawing(jettied, relief, { textSize: 14 }).items.filter(
      ({ layer }) => layer === 'PLOTS',
    );
    // Turned by a quarter its east wall looks south: from 48 × 64 mm to 48 × 80.
    const [, out] = lines.map((item) =>
      'points' in item ? boundsOf(item.points.map((at) => ({ ...at, w: 0, d: 0 }))) : null,
    );
    expect(lines).toHaveLength(2);
    expect([out?.w, out?.d].map((value) => Number(value?.toFixed(6)))).toEqual([48, 80]);
    expect(lines[1]).toMatchObject({ dashed: true });
  });
  test('a dimension is written with its length, as by Pythagoras: 9 and 12 studs make 15, 120 mm', () => {
    const points = [
      { x: 0, y: 0 },
      { x: 9, y: 12 },
    ];
    const with9by12 = { ...scene, dimension: { d: { id: 'd', v: 1, name: 'Kerb', points } } };
    const { items } = planDrawing(with9by12, relief, { textSize: 14 });
    const [text] = items.filter((item) => item.kind === 'text' && item.rank === 4);
    expect(text).toMatchObject({ text: 'Kerb: 15 studs, 120 mm', at: { x: 36, y: 48 } });
    expect(items).toHaveLength(drawing.items.length + 2);
  });
  test('the outlines of paving enclose as much as its studs cover (shoelace against count)', () => {
    const area = drawing.items.reduce((sum, item) => {
      if (item.kind !== 'line' || item.layer !== 'GROUND' || item.name !== 'paving') return sum;
      const { points } = item;
      return (
        sum +
        points.reduce((twice, a, i) => {
          const b = points[(i + 1) % points.length];
          return twice + a.x * b.y - b.x * a.y;
        }, 0) /
          2
      );
    }, 0);
    const studs = relief.ground.reduce((count, code) => count + (code === 4 ? 1 : 0), 0);
    expect(studs).toBeGreaterThan(40);
    expect(Math.abs(area)).toBeCloseTo(studs * 64, 3);
  });
  test('a plan as a picture shows what covers a deck, not the water under it', () => {
    const scene = sceneFrom({
      display: { name: 'Quay', kind: 'diorama' },
      levels: [{ id: 'low', name: 'Low', height: 3 }],
      footprint: [{ id: 'f', name: 'All', x: 0, y: 0, w: 20, d: 20 }],
      waters: [{ id: 'p', name: 'Pool', x: 0, y: 0, w: 20, d: 20, level: 'low', offset: 0, bank: 0 }],
      decks: [{ id: 'd', name: 'Quay', x: 4, y: 4, w: 10, d: 6, level: 'low', offset: 12, ground: 'paving' }],
    });
    const relief = compileRelief(scene);
    const studs = (ground: (typeof GROUNDS)[number]) =>
      groundRuns(relief, GROUNDS.indexOf(ground)).reduce((sum, { w, d }) => sum + w * d, 0);
    expect({ paving: studs('paving'), water: studs('water') }).toEqual({ paving: 60, water: 340 });
  });
  test('the pads of an exported plan come back as they were drawn', () => {
    const back = readOutlines(writeSvg(drawing));
    if (!back.ok) throw new Error(back.error);
    expect(back.outlines.map(({ name, x, y, w, d, shape }) => ({ name, x, y, w, d, shape }))).toEqual(
      pads.map(({ name, x, y, w, d, ...pad }) => ({
        name,
        x,
        y,
        w,
        d,
        shape: 'shape' in pad ? pad.shape : 'rect',
      })),
    );
    expect(back.outlines[1].outline).toEqual(pads[1].outline);
  });
  test('pads of every shape come back to the last digit; one that was moved by hand comes back where it is', () => {
    const share = fc.double({ min: 0, max: 1, noNaN: true });
    const half = (min: number, max: number) => fc.integer({ min: 2 * min, max: 2 * max }).map((n) => n / 2);
    const anyPad = fc.record({
      name: fc.constantFrom('Yard & <lane>', 'Öst "2" /> …', 'Δ 三'),
      ...{ x: half(-40, 90), y: half(-40, 90), w: half(1, 60), d: half(1, 60) },
      shape: fc.constantFrom('rect' as const, 'oval' as const, 'outline' as const),
      outline: fc.array(fc.record({ x: share, y: share }), { minLength: 3, maxLength: 9 }),
      ground: fc.constantFrom('water' as const, 'rock' as const),
      offset: fc.integer({ min: -9, max: 30 }),
      order: fc.integer({ min: 0, max: 9 }),
      reach: fc.integer({ min: 0, max: 9 }),
    });
    fc.assert(
      fc.property(fc.array(anyPad, { minLength: 1, maxLength: 6 }), (list) => {
        const display = sceneFrom({
          display: { name: 'Any', kind: 'diorama' },
          levels: [{ id: 'l', name: 'Street', height: 3 }],
          footprint: [{ id: 'f', name: 'All', x: 0, y: 0, w: 16, d: 16 }],
          pads: list.map((pad, i) => ({
            ...{ ...pad, id: `p${i}`, level: 'l' },
            outline: pad.shape === 'outline' ? pad.outline : [],
          })),
        });
        const svg = writeSvg(planDrawing(display, compileRelief(display), { textSize: 14 }));
        const back = readOutlines(svg);
        if (!back.ok) throw new Error(back.error);
        expect(back.outlines.map(({ pad }) => pad)).toEqual(
          padsInOrder(display).map(({ id: _id, v: _v, ...pad }) => pad),
        );
      }),
      { numRuns: runs(60) },
    );
    const moved = writeSvg(drawing).replaceAll(
      'points="0,0 320,0 320,192 0,192"',
      'points="8,0 320,0 320,192 8,192"',
    );
    const back = readOutlines(moved);
    if (!back.ok) throw new Error(back.error);
    expect(back.outlines[0]).toMatchObject({ pad: null, x: 1, y: 0, w: 39, d: 24 });
    expect(back.outlines[1].pad).toMatchObject({ name: 'Wedge', ground: 'paving', offset: 6 });
  });
  test.each([
    ['<svg/>', 'no layer PADS'],
    ['<g id="PADS"></g>', 'no closed outline'],
    ['<g id="PADS"><polygon points="0,0 8,8"/></g>', '2 corners; 3 to 400'],
    ['<g id="PADS"><polygon points="0,0 8,8 x,9"/></g>', 'no pair of numbers'],
    ['<g id="PADS"><polygon points="0,0 9000000,0 0,80"/></g>', 'beyond 4096 studs'],
    [`<g id="PADS">${'<polygon points="0,0 80,0 0,80"/>'.repeat(5001)}</g>`, 'more than 5000 outlines'],
  ])('%.40s is refused with what is wrong', (svg, words) => {
    expect(readOutlines(svg)).toEqual({ ok: false, error: expect.stringContaining(words) });
  });
});

/** Height at each stud of a bare display over which a grid is laid; null where it lays nothing. */
function laidOver(grid: HeightGrid, where: Rect): (x: number, y: number) => number | null {
  const { x, y, w, d } = roundOut(where);
  const bare = sceneFrom({
    display: { name: 'Bare', kind: 'diorama' },
    levels: [{ id: 'l', name: 'Datum', height: 0 }],
    footprint: [{ id: 'f', name: 'All', x, y, w, d }],
    terrains: terrainParts(grid, where, { as: 'plates' }).map((part, i) => ({
      ...{ ...part, id: `t${i}`, name: 'Read', level: 'l' },
    })),
  });
  const relief = compileRelief(bare);
  return (column, row) => {
    const i = indexAt(relief, column, row);
    return i < 0 || relief.owner[i] === 0 ? null : relief.height[i];
  };
}

describe('height files', () => {
  test('a grid written and read again has the height of each stud, the far row first', () => {
    const text = writeAsc(relief);
    expect(text.split('\n').slice(0, 6)).toEqual([
      'ncols 40',
      'nrows 24',
      'xllcorner 0',
      'yllcorner -192',
      'cellsize 8',
      'NODATA_value -9999',
    ]);
    const back = readAsc(text);
    if (!back.ok) throw new Error(back.error);
    expect([...back.grid.values]).toEqual([...relief.height]);
  });
  test('grey maps of 8 and 16 bits, plain and binary, say the same heights', () => {
    fc.assert(
      fc.property(fc.array(fc.integer({ min: 0, max: 60_000 }), { minLength: 6, maxLength: 6 }), (values) => {
        const plain = new TextEncoder().encode(`P2\n# by hand\n3 2\n65535\n${values.join(' ')}\n`);
        const head = new TextEncoder().encode('P5 3 2 65535\n');
        const binary = Uint8Array.from([...head, ...values.flatMap((value) => [value >> 8, value & 255])]);
        return [plain, binary].every((bytes) => {
          const read = readPgm(bytes);
          return read.ok && read.grid.values.join() === values.join();
        });
      }),
    );
  });
  test('a grid comes back where its head says, in its cell size, corner or centre; by hand', () => {
    const read = (head: string) => {
      const reading = readAsc(`ncols 2\nnrows 3\n${head}\n1 2\n3 4\n5 -9999\n`);
      if (!reading.ok) throw new Error(reading.error);
      return reading.grid;
    };
    // Cells of 16 mm are two studs: 4 × 6 studs; the south edge lies 80 mm south of the origin.
    const corner = read('xllcorner 24\nyllcorner -80\ncellsize 16');
    expect(gridRect(corner)).toEqual({ x: 3, y: 4, w: 4, d: 6 });
    expect(gridRect(read('xllcenter 32\nyllcenter -72\ncellsize 16'))).toEqual({ x: 3, y: 4, w: 4, d: 6 });
    expect(gridRect(read('cellsize 16'))).toBe(null);
    expect(countGrid(corner)).toEqual({ lowest: 1, highest: 5, gaps: 1, broken: 0 });
    expect(laidOver(corner, { x: 3, y: 4, w: 4, d: 6 })(6, 9)).toBe(null);
    expect(laidOver(corner, { x: 3, y: 4, w: 4, d: 6 })(4, 9)).toBe(5);
    // Cells of 1 mm: a stud takes the cell at its centre, (0.5, 0.5): the first column, the second row.
    const fine = { ...corner, cell: 1 };
    expect(terrainParts(fine, { x: 0.4, y: 0, w: 0.25, d: 0.5 }, { as: 'plates' })).toEqual([]);
    expect(laidOver(fine, { x: 0.4, y: 0.3, w: 0.25, d: 0.375 })(0, 0)).toBe(3);
  });
  test('whatever heights a display has, its grid read back lays them at the same studs, gaps and parts beyond 512 too', () => {
    fc.assert(
      fc.property(
        randomDisplays,
        fc.integer({ min: -9, max: 9 }),
        fc.constantFrom(1, 9),
        (display, shift, times) => {
          const { height, ground, w, d } = compileRelief(display);
          // The same ground again and again to the east, so that it takes more than one part.
          const wide = w * times;
          const at = (x: number, y: number) => y * w + (x % w);
          const repeated = {
            ...{ ...compileRelief(display), x: shift, y: -shift, w: wide },
            height: Int16Array.from(
              { length: wide * d },
              (_, i) => height[at(i % wide, Math.trunc(i / wide))],
            ),
            ground: Uint8Array.from({ length: wide * d }, (_, i) =>
              i % 7 === 0 ? OUTSIDE : ground[at(i % wide, Math.trunc(i / wide))],
            ),
          };
          const reading = readAsc(writeAsc(repeated));
          if (!reading.ok) throw new Error(reading.error);
          const where = gridRect(reading.grid);
          if (!where) throw new Error('the grid says no place');
          const heightAt = laidOver(reading.grid, where);
          for (let y = 0; y < d; y++)
            for (let x = 0; x < wide; x++) {
              const i = y * wide + x;
              const told = repeated.ground[i] === OUTSIDE ? null : repeated.height[i];
              if (heightAt(x + shift, y - shift) !== told)
                expect([x, y, heightAt(x + shift, y - shift)]).toEqual([x, y, told]);
            }
        },
      ),
      { numRuns: runs(12) },
    );
  });
  test.each([
    ['hello', 'does not begin with ncols'],
    ['ncols 3\nnrows 90000\n', '90000 rows; 1 to 16,384'],
    ['ncols 4096\nnrows 4096\n', '16,777,216 cells; the most is 4,194,304'],
    ['ncols 2\nnrows 2\ncellsize 0\n', 'cell size is 0'],
    ['ncols 2\nnrows 2\n1 2 3\n', '3 values; its header names 4'],
    ['ncols 2\nnrows 2\n1 2 3 4 5\n', 'more than the 4 values'],
    ['ncols 2\nnrows 2\n1 2\n3 x\n', '“x” on line 4'],
  ])('%j is refused with what is wrong', (text, words) => {
    expect(readAsc(text)).toEqual({ ok: false, error: expect.stringContaining(words) });
  });
  test.each([
    ['P6 2 2 255\n', 'begin with P2 or P5'],
    ['P5 2 2 255\nab', 'ends after 2 of 4 values'],
    ['P2 2 2 255\n1 2 3 300', '“300” as value 4; 0 to 255'],
    ['P5 2 2 99999\n', 'white is 99999'],
  ])('the grey map %j is refused with what is wrong', (text, words) => {
    expect(readPgm(new TextEncoder().encode(text))).toEqual({
      ok: false,
      error: expect.stringContaining(words),
    });
  });
});
