import { spawnSync } from 'node:child_process';
import { mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import DxfParser from 'dxf-parser';
import { cutProblemSchema, verifyCutting } from '@quarry/core/cut';
import { displayOf, readFile, sceneFrom } from '@quarry/core/document';
import { present } from '@quarry/core/grid';
import { shellPieces } from '@quarry/core/structures';
import { isAll, longTest } from '../../../packages/core/test/runs.ts';
import { quarry as run } from './quarry.ts';

// The program as its contract says: JSON out, complaints on standard error, exit codes 0, 1, 2. Each case is run in this
// process; that the built program does the same from a shell is tried by a few.
const PROGRAM = join(import.meta.dirname, '..', 'dist', 'main.js');
const DEMO = join(import.meta.dirname, '..', '..', '..', 'demo');
const folder = mkdtempSync(join(tmpdir(), 'quarry-cli-'));
afterAll(() => rmSync(folder, { recursive: true, force: true }));

const quarry = async (...args: string[]) => {
  const written = { stdout: '', stderr: '' };
  const collect = (to: keyof typeof written) =>
    jest.spyOn(process[to], 'write').mockImplementation((text) => {
      written[to] += String(text);
      return true;
    });
  const collected = [collect('stdout'), collect('stderr')];
  try {
    return { status: await run(args), ...written };
  } finally {
    for (const one of collected) one.mockRestore();
  }
};
const file = (name: string, body: unknown) => {
  const path = join(folder, name);
  writeFileSync(path, typeof body === 'string' ? body : JSON.stringify(body));
  return path;
};
/** The example of the contract. */
const PROBLEM = {
  region: [{ x: 0, y: 0, w: 240, d: 144 }],
  bases: [
    { w: 48, d: 48, price: 14, stock: 6 },
    { w: 32, d: 32, price: 7.5, stock: 0 },
    { w: 16, d: 32, price: 5, stock: 4, max: 10 },
  ],
  module: { maxW: 96, maxD: 48, maxMassKg: 12 },
  mass: {
    cell: 16,
    kg: [
      [0.4, 0.4],
      [0.5, 0.6],
    ],
  },
  keep: [{ x: 16, y: 0, w: 32, d: 32, name: 'assay office' }],
  seamCost: [{ x: 0, y: 80, w: 240, d: 16, cost: 3 }],
  pins: [{ x1: 96, y1: 0, x2: 96, y2: 144 }],
  weights: { module: 5, seam: 0.05 },
};

/** Rows of CSV without quoted fields. */
const rowsOf = (csv: string) =>
  csv
    .trim()
    .split(/\r?\n/)
    .map((line) => line.split(','));

describe('quarry fit, ring, roof, turn', () => {
  const answerOf = async (...args: string[]): Promise<unknown> => JSON.parse((await quarry(...args)).stdout);
  test('the answers of the trade, in the words of the contract', async () => {
    expect(await answerOf('fit', '--studs', '1:2', '--plates', '1:5')).toEqual([
      { half_studs: 2, half_plates: 5, error_mm: 0 },
      { half_studs: 4, half_plates: 10, error_mm: 0 },
    ]);
    expect(await answerOf('fit', '--studs', '1:1', '--plates', '1:2')).toEqual([]);
    expect(await answerOf('ring', '--pieces', '24', '--width', '4')).toEqual({
      ...{ pieces: 24, angle: 15, bays: [2, 3, 4, 6, 8, 12], grid_studs: 15 },
      // 32 ÷ (2 tan 7.5°) and 32 ÷ (2 sin 7.5°).
      ...{ inner_mm: expect.closeTo(121.532, 3), outer_mm: expect.closeTo(122.581, 3) },
      ...{ inner_studs: expect.closeTo(15.1915, 4), outer_studs: expect.closeTo(15.3226, 4) },
      error_mm: expect.closeTo(1.532, 3),
    });
    expect(await answerOf('roof', '--span', '15', '--pitch', 'slope-2x3-33')).toEqual({
      ...{ courses: 3, ridge_plates: 9, left_studs: 3 },
    });
    expect(await answerOf('turn', '--within', '10')).toEqual(
      [
        [3, 4, 5],
        [6, 8, 10],
      ].map(([a, b, c]) => ({ a, b, c, angle_deg: expect.closeTo(36.87, 2), error_mm: 0 })),
    );
  });
  test.each([
    [['ring', '--pieces', '2', '--width', '4'], '--pieces 2: must be a whole number from 3 to 1,000.'],
    [['ring', '--pieces', '24'], '--width is missing: it must be a number from 0.5 to 1,000.'],
    [['fit', '--studs', '9:2'], '--studs 9:2: must be a range such as 1:16'],
    [['roof', '--span', '16', '--pitch', 'steep'], '--pitch steep: must be one of slope-1x1x2p-30, '],
    [['turn', '--within', '5.5'], '--within 5.5: must be a whole number from 1 to 1,000.'],
    [['turn', '--width', '5'], '--width'],
  ])('%j is refused with the value and its limits', async (args, words) => {
    const { status, stdout, stderr } = await quarry(...args);
    expect({ status, stdout }).toEqual({ status: 2, stdout: '' });
    expect(stderr).toContain(words);
  });
});

describe('quarry stands, pieces', () => {
  const demo = join(DEMO, 'skarn-edge.quarry.json');
  longTest(
    'the demo’s sloping bridge is too thin to be tied: its module falls, the others stand',
    async () => {
      const { status, stdout } = await quarry('stands', demo);
      const [head, ...rows] = rowsOf(stdout);
      expect({ status, head: head?.join() }).toEqual({
        status: 1,
        head: 'module,pieces,free,loose,used,bound,verdict,kind',
      });
      expect(rows.filter((row) => row[6] !== 'stands')).toEqual([
        ['A3', expect.anything(), expect.anything(), '4', '', '', 'falls', 'module'],
      ]);
    },
  );
  const [display, least] = isAll ? [demo, 10_000] : [join(DEMO, 'larch-lane.quarry.json'), 1000];
  test('pieces fill no stud and plate twice', async () => {
    const [, ...rows] = rowsOf((await quarry('pieces', display)).stdout);
    const taken = new Set<number>();
    let twice = 0;
    for (const [owner, part, , ...numbers] of rows) {
      const [x = 0, y = 0, z = 0, w = 0, d = 0, h = 0] = numbers.map(Number);
      // What is scattered by hand lies between studs of others.
      if (/^(plant|clear|round)/.test(part ?? '')) continue;
      for (let k = 0; k < w * d * h; k++) {
        const stud = (x + (k % w)) * 4096 + y + (Math.trunc(k / w) % d);
        const key = stud * 4096 + z + Math.trunc(k / (w * d)) + 512;
        if (taken.has(key)) twice++;
        taken.add(key);
      }
      expect(owner).not.toBe('');
    }
    expect({ twice, any: rows.length > least }).toEqual({ twice: 0, any: true });
  });
  longTest('of the demo’s bridge are those of its pieces alone', async () => {
    const [, ...bridge] = rowsOf((await quarry('pieces', demo, '--of', 'beck-bridge')).stdout);
    expect(new Set(bridge.map(([owner]) => owner))).toEqual(new Set(['beck-bridge']));
  });
  test('a building whose list is that of its pieces is told piece by piece; turned, a door faces another way', async () => {
    // 8 × 8 studs, 18 plates: a floor, five courses and two plates; of its list one line is in two colours.
    const house = (turn: number) => ({
      ...{ id: 'h', name: 'House', x: 4, y: 4, w: 12, d: 8, height: 24, storeys: 1, turn },
      bays: [{ side: 's' as const, storey: 1, bays: [{ wide: 12, part: 'door-4x1', sill: 0, high: 6 }] }],
    });
    const display = (turn: number, lines: object[]) => ({
      ...{ format: 'open-quarry-display', version: 1, display: { name: 'Yard', kind: 'diorama' } },
      footprint: [{ id: 'f', name: 'All', x: 0, y: 0, w: 24, d: 24 }],
      plots: [house(turn)],
      partLists: [{ id: 'l', name: 'House', use: 'need', purpose: 'building', plot: 'h', lines }],
    });
    const scene = sceneFrom({ display: { name: 'Yard', kind: 'diorama' }, plots: [house(0)] });
    const lines = shellPieces(present(scene.plot.h, 'the house'), displayOf(scene)).flatMap(({ part, qty }) =>
      part === 'brick-1x4'
        ? [
            { part, colour: 'slate', qty: 3 },
            { part, colour: 'rust', qty: qty - 3 },
          ]
        : [{ part, colour: 'any', qty }],
    );
    const told = async (turn: number, more = 0) => {
      const [first, ...others] = lines;
      const listed = [{ ...present(first, 'a line'), qty: present(first, 'a line').qty + more }, ...others];
      const path = file('house.quarry.json', display(turn, listed));
      const [, ...rows] = rowsOf((await quarry('pieces', path, '--of', 'h')).stdout);
      return rows;
    };
    const counts = new Map<string, number>();
    for (const [, part, colour] of await told(0))
      counts.set(`${part} ${colour}`, (counts.get(`${part} ${colour}`) ?? 0) + 1);
    expect(Object.fromEntries(counts)).toEqual(
      Object.fromEntries(lines.map(({ part, colour, qty }) => [`${part} ${colour}`, qty])),
    );
    // In the middle of its south wall, over the floor; turned by a quarter about 10, 8 the south looks west.
    const doorOf = async (turn: number) =>
      (await told(turn)).find(([, part]) => part === 'door-4x1')?.slice(3);
    expect(await doorOf(0)).toEqual(['8', '11', '1', '4', '1', '18', '90']);
    expect(await doorOf(90)).toEqual(['6', '6', '1', '1', '4', '18', '180']);
    expect(await told(0, 1)).toEqual([]);
  });
});

describe('quarry cut', () => {
  test('cuts the contract’s example; the answer passes the checker and is the same each time', async () => {
    const path = file('problem.json', PROBLEM);
    const { status, stdout, stderr } = await quarry('cut', path, '--seconds', '20');
    expect({ status, stderr }).toEqual({ status: 0, stderr: '' });
    const cutting = JSON.parse(stdout);
    expect(verifyCutting(cutProblemSchema.parse(PROBLEM), cutting)).toEqual([]);
    expect(cutting.gap).toBeLessThanOrEqual(0.02);
    const again = JSON.parse((await quarry('cut', path, '--seconds', '20')).stdout);
    expect({ ...again, seconds: 0 }).toEqual({ ...cutting, seconds: 0 });
  });
  test('cuts a display file as the pages do', async () => {
    const { status, stdout } = await quarry('cut', join(DEMO, 'heron-weir.quarry.json'));
    expect({ status, modules: JSON.parse(stdout).modules.length }).toEqual({ status: 0, modules: 1 });
  });
  test('no feasible answer: exit 1 and a sentence for each reason', async () => {
    const { status, stdout, stderr } = await quarry(
      'cut',
      file('small.json', { ...PROBLEM, module: { maxW: 16, maxD: 16 } }),
    );
    expect({ status, stdout }).toEqual({ status: 1, stdout: '' });
    expect(stderr).toContain('“assay office” is 32 × 32 studs; the largest module is 16 × 16.');
  });
  test.each<[string, unknown, string]>([
    ['not JSON', '{"region":', 'not JSON'],
    ['an unknown key', { ...PROBLEM, colour: 'red' }, 'colour'],
    [
      'off the lattice',
      { ...PROBLEM, region: [{ x: 0, y: 0, w: 100, d: 48 }] },
      'region.0.w: must be a multiple of 8 studs',
    ],
    ['a broken display', { format: 'open-quarry-display', version: 9 }, 'version 9'],
  ])('%s: exit 2, the file, the place and the reason', async (name, body, words) => {
    const path = file(`${name.replace(/\W/g, '-')}.json`, body);
    const { status, stderr } = await quarry('cut', path);
    expect(status).toBe(2);
    expect(stderr).toContain(path);
    expect(stderr).toContain(words);
  });
});

describe('quarry check', () => {
  test('prints the findings as JSON and ends with 1 when an error is not kept', async () => {
    const { status, stdout } = await quarry('check', join(DEMO, 'heron-weir.quarry.json'));
    expect(status).toBe(1);
    // The hut stands half a stud off: on jumpers, a plate higher than its ground.
    expect(JSON.parse(stdout)).toEqual([
      expect.objectContaining({ rule: 'height-limit', severity: 'error', numbers: { top: 38, limit: 36 } }),
      expect.objectContaining({ rule: 'card-piece', severity: 'warning', numbers: { placed: 4, count: 6 } }),
    ]);
  });
  test('a display in order ends with 0; dates are judged only with --today', async () => {
    const quiet = file('quiet.json', {
      format: 'open-quarry-display',
      version: 1,
      display: { name: 'Quiet', kind: 'vignette', showDate: '2031-06-10' },
      footprint: [{ id: 'f', name: 'All', x: 0, y: 0, w: 16, d: 16 }],
      tables: [{ id: 't', name: 'Stand', x: 0, y: 0, w: 128, d: 128 }],
      people: [{ id: 'ada', name: 'Ada Fenn', initials: 'AF' }],
      sections: [{ id: 's', letter: 'A', name: 'All', x: 0, y: 0, w: 16, d: 16, owner: 'ada' }],
    });
    expect(await quarry('check', quiet)).toEqual({ status: 0, stdout: '[]\n', stderr: '' });
    expect(JSON.parse((await quarry('check', quiet, '--today', '2031-06-03')).stdout)).toHaveLength(1);
  });
  test('a version is judged by itself: who plays twice in it, plays once in the base', async () => {
    const figure = { name: 'Gate', x: 12, y: 8, spots: [{ character: 'wenna' }] };
    const two = file('two.json', {
      format: 'open-quarry-display',
      version: 1,
      display: { name: 'Two', kind: 'vignette' },
      footprint: [{ id: 'f', name: 'All', x: 0, y: 0, w: 16, d: 16 }],
      tables: [{ id: 't', name: 'Stand', x: 0, y: 0, w: 128, d: 128 }],
      people: [{ id: 'ada', name: 'Ada Fenn', initials: 'AF' }],
      sections: [{ id: 's', letter: 'A', name: 'All', x: 0, y: 0, w: 16, d: 16, owner: 'ada' }],
      characters: [{ id: 'wenna', name: 'Old Wenna' }],
      figures: [{ ...figure, id: 'm', name: 'Market', x: 4 }],
      versions: [{ id: 'fair', name: 'Fair' }],
      differences: [{ id: 'd', version: 'fair', of: 'figure', thing: 'g', how: 'added', fields: figure }],
    });
    expect(await quarry('check', two)).toEqual({ status: 0, stdout: '[]\n', stderr: '' });
    const { status, stdout } = await quarry('check', two, '--version', 'fair');
    expect([status, (JSON.parse(stdout) as { rule: string }[]).map(({ rule }) => rule)]).toEqual([
      1,
      ['cast-twice'],
    ]);
  });
  test.each([
    [['check'], 'takes one file'],
    [['check', 'nowhere.json'], 'nowhere.json: cannot be read'],
    [['carve', 'x.json'], '“carve” is no verb'],
    [['check', 'x.json', '--today', 'soon'], '--today soon'],
    [
      ['check', join(DEMO, 'skarn-edge.quarry.json'), '--version', 'none'],
      'has no such version; it has first-snow',
    ],
    [['schedule', 'x.csv', '--version', 'snow'], '“schedule” reads no display'],
    [['cut', 'x.json', '--seconds', '-1'], '--seconds'],
    [['cut', 'x.json', '--fast'], '--fast'],
    [['cut', 'x.json', '--seed', '0.5'], '--seed'],
  ])('%j is bad input: exit 2', async (args, words) => {
    const { status, stderr } = await quarry(...args);
    expect(status).toBe(2);
    expect(stderr).toContain(words);
  });
});

describe('quarry sight', () => {
  const grid = ['ncols 5', 'nrows 1', 'xllcorner 0', 'yllcorner -8', 'cellsize 8', 'NODATA_value -1'];
  test('eyes counted stud by stud, under the head of the heights', async () => {
    // An eye 3 studs west at 64 mm; a wall of 10 plates, 32 mm: its shadow ends 2 × 5 studs from the eye, 7 into the row.
    const heights = file('row.asc', [...grid, '0 10 0 -1 0', ''].join('\n'));
    const eyes = file('eyes.csv', 'x,y,z\n-3,0.5,64\n-3,0.5,64\n2.5,0.5,1000\n');
    const { status, stdout, stderr } = await quarry('sight', heights, eyes);
    expect([status, stderr]).toEqual([0, '']);
    expect(stdout).toBe([...grid, '3 3 1 -9999 1', ''].join('\n'));
  });
  test('what is wrong is named', async () => {
    const heights = file('row2.asc', [...grid, '0 10 0 -1 0', ''].join('\n'));
    const wrong = (eyes: string) => quarry('sight', heights, file('wrong.csv', eyes));
    expect(await wrong('x,y,z\n1,2,high\n')).toMatchObject({
      status: 2,
      stderr: expect.stringContaining('row 2: z “high”'),
    });
    expect(await wrong('x,y\n1,2\n')).toMatchObject({
      status: 2,
      stderr: expect.stringContaining('“z” is missing'),
    });
    expect((await quarry('sight', heights)).status).toBe(2);
  });
});

describe('quarry masonry', () => {
  const heights = (w: number, d: number, plates: number) =>
    `ncols ${w}\nnrows ${d}\nxllcorner 0\nyllcorner 0\ncellsize 8\nNODATA_value -9999\n${`${`${plates} `.repeat(w).trim()}\n`.repeat(d)}`;
  const rows = (csv: string) => csv.trim().split('\r\n').slice(1);
  test('32 × 32 and 6 bricks high, solid: 768 bricks 2 × 4 (by hand), layer by layer and piece by piece', async () => {
    const path = file('block.asc', heights(32, 32, 18));
    const { status, stdout } = await quarry('masonry', path, '--method', 'solid', '--colour', 'slate');
    expect(status).toBe(0);
    expect(rows(stdout)).toEqual([1, 2, 3, 4, 5, 6].map((layer) => `${layer},brick-2x4,slate,128`));
    const pieces = rows((await quarry('masonry', path, '--method', 'solid', '--pieces')).stdout);
    expect(pieces).toHaveLength(768);
    // Recounted here: each stud of each layer lies under one piece.
    const seen = new Set(
      pieces.flatMap((row) => {
        const [, , x, y, w, d, z] = row.split(',').map(Number);
        return Array.from({ length: w * d }, (_, i) => `${z} ${x + (i % w)} ${y + Math.floor(i / w)}`);
      }),
    );
    expect(seen.size).toBe(6 * 32 * 32);
  });
  test('a raft has a deck of plates no larger than asked', async () => {
    const { stdout } = await quarry(
      'masonry',
      file('deck.asc', heights(16, 16, 10)),
      '--method',
      'raft',
      '--deck',
      '8',
    );
    expect(rows(stdout).at(-1)).toBe('4,plate-8x8,any,4');
  });
  test.each([
    [['--method', 'magic'], '--method magic: must be one of solid, raft'],
    [[], 'needs --method'],
    [['--method', 'raft', '--deck', '20'], '--deck 20'],
    [['--method', 'raft', '--colour', 'plaid'], '--colour plaid'],
  ])('%j is bad input: exit 2', async (args, words) => {
    const { status, stderr } = await quarry('masonry', file('small.asc', heights(4, 4, 3)), ...args);
    expect({ status, stderr }).toEqual({ status: 2, stderr: expect.stringContaining(words) });
  });
  test('a height between plates is named with its place', async () => {
    const { status, stderr } = await quarry(
      'masonry',
      file('odd.asc', heights(4, 4, 1.5)),
      '--method',
      'solid',
    );
    expect({ status, stderr }).toEqual({
      status: 2,
      stderr: expect.stringContaining('1.5 plates at column 1, row 1'),
    });
  });
});

describe('quarry source', () => {
  const needs = 'part,colour,qty\nbrick-2x4,slate,100\nplate-1x2,moss,40\n';
  const head = 'seller,part,colour,qty,price,shipping,min_order\n';
  const offers = `${head}Ash,brick-2x4,slate,80,0.1,3,0\nAsh,plate-1x2,moss,40,0.05,3,0\nBeech,brick-2x4,slate,200,0.12,2,5\nBeech,plate-1x2,moss,10,0.02,2,5\n`;
  test('the cheapest complete buy, by hand: all bricks and ten plates from one, the rest from the other', async () => {
    const { status, stdout, stderr } = await quarry(
      'source',
      file('needs.csv', needs),
      file('offers.csv', offers),
    );
    expect(status).toBe(0);
    // Ash 80 × 0.1 + 40 × 0.05 + 3 = 13 leaves 20 bricks for Beech, whose least order is 5: 42 bricks or 34 and plates.
    const rows = stdout
      .trim()
      .split('\r\n')
      .slice(1)
      .map((row) => row.split(','));
    const goods = rows.reduce((sum, [, , , qty, price]) => sum + Number(qty) * Number(price), 0);
    expect(stderr).toBe(`total ${(goods + 5).toFixed(2)} bound ${(goods + 5).toFixed(2)} gap 0.0000\n`);
    expect(
      rows.filter(([, part]) => part === 'brick-2x4').reduce((sum, [, , , qty]) => sum + Number(qty), 0),
    ).toBe(100);
    const beech = rows
      .filter(([seller]) => seller === 'Beech')
      .reduce((sum, [, , , qty, price]) => sum + Number(qty) * Number(price), 0);
    expect(beech).toBeGreaterThanOrEqual(5);
  });
  test('what nobody offers: exit 1, listed', async () => {
    const { status, stderr } = await quarry(
      'source',
      file('more.csv', `${needs}tile-2x2,chalk,3\n`),
      file('offers.csv', offers),
    );
    expect({ status, stderr }).toEqual({
      status: 1,
      stderr: expect.stringContaining('not covered: 3 × tile-2x2 in chalk'),
    });
  });
  test.each([
    [
      'a strange column',
      `${needs}`,
      `seller,part,colour,qty,price,shipping,min_order,mood\n`,
      '“mood” is no column',
    ],
    ['no number', 'part,colour,qty\nbrick-2x4,slate,many\n', offers, 'row 2: qty “many”'],
    ['two postages', needs, `${offers}Ash,tile-2x2,chalk,1,1,9,0\n`, 'row 6: “Ash” has another shipping'],
  ])('%s: exit 2 with the file and the row', async (name, left, right, words) => {
    const { status, stderr } = await quarry('source', file('n.csv', left), file('o.csv', right));
    expect({ name, status, stderr }).toEqual({ name, status: 2, stderr: expect.stringContaining(words) });
  });
});

describe('quarry pack', () => {
  const HEAD = 'id,w,d,h,mass_g,turn,stack,order\n';
  const items = (rows: string) => file('items.csv', HEAD + rows);
  test('needed first at the door, the base below, by hand', async () => {
    const path = items(
      'dome,500,500,300,900,no,0,2\nyard,500,500,200,4000,no,1000,2\nsigns,500,200,100,300,yes,0,1\n',
    );
    const { status, stdout, stderr } = await quarry('pack', path, '--space', '500,700,500');
    expect(status).toBe(0);
    expect(rowsOf(stdout)).toEqual([
      ['trip', 'id', 'x', 'y', 'z', 'w', 'd', 'h'],
      ['1', 'yard', '0', '200', '0', '500', '500', '200'],
      ['1', 'dome', '0', '200', '200', '500', '500', '300'],
      ['1', 'signs', '0', '0', '0', '500', '200', '100'],
    ]);
    expect(stderr).toBe('trips 1 bound 1\n');
  });
  test('what fits nowhere, is too heavy or left out: listed, exit 1, the rest packed', async () => {
    const path = items('a,900,900,900,1,no,0,1\nb,900,900,900,1,no,0,1\nlong,2000,10,10,1,yes,0,1\n');
    const answer = await quarry(
      'pack',
      path,
      '--space',
      '1000,1000,1000',
      '--trips',
      '1',
      '--seconds',
      '0.1',
    );
    expect(answer.status).toBe(1);
    expect(rowsOf(answer.stdout)).toHaveLength(2);
    expect(answer.stderr.trim().split('\n')).toEqual([
      'fits nowhere: long',
      expect.stringMatching(/^not packed in 1 trips: [ab]$/),
      'trips 1 bound 2',
    ]);
    const heavy = await quarry(
      'pack',
      items('a,9,9,9,2000,no,0,1\n'),
      '--space',
      '10,10,10',
      '--max-kg',
      '1.5',
    );
    expect([heavy.status, heavy.stderr]).toEqual([1, 'fits nowhere: a\ntrips 0 bound 0\n']);
  });
  test.each([
    ['a,1,1,1,1,no,0,1\na,1,1,1,1,no,0,1\n', ['--space', '9,9,9'], 'row 3: the id “a” is there twice'],
    ['a,1,1,1,1,maybe,0,1\n', ['--space', '9,9,9'], 'turn “maybe” must be yes or no'],
    ['a,1,1,1,1,no,0,1.5\n', ['--space', '9,9,9'], 'order “1.5” must be a whole number'],
    ['a,0,1,1,1,no,0,1\n', ['--space', '9,9,9'], 'w of “a” must be above 0 mm'],
    ['a,1,1,1,1,no,0,1\n', ['--space', '9,9'], '--space 9,9: must be width, depth and height'],
    ['a,1,1,1,1,no,0,1\n', ['--space', '9,9,9', '--trips', '0'], '--trips 0: must be a whole number from 1'],
    ['a,1,1,1,1,no,0,1\n', ['--space', '9,9,9', '--max-kg', 'x'], '--max-kg x: must be above 0'],
  ])('bad input %j %j ends with 2 and says why', async (rows, options, why) => {
    const { status, stderr } = await quarry('pack', items(rows), ...options);
    expect([status, stderr]).toEqual([2, expect.stringContaining(why)]);
  });
});

describe('quarry schedule', () => {
  const tasks = (rows: string) => file('tasks.csv', `id,minutes,hands,after\n${rows}`);
  test('two hands, by hand: what one carries alone goes on beside the other', async () => {
    const path = tasks('cloth,5,1,\ntable,10,2,\nA,15,2,table cloth\nB,20,1,table\nC,15,1,table\n');
    const { status, stdout, stderr } = await quarry('schedule', path, '--hands', '2');
    // 5 + 20 + 30 + 20 + 15 minutes of work are 45 for two hands: the table, then B beside C and the cloth, then A.
    expect([status, stderr]).toEqual([0, 'length 45 bound 45\n']);
    expect(rowsOf(stdout)).toHaveLength(6);
  });
  test('a circle and too few hands: exit 1, named', async () => {
    const circle = await quarry('schedule', tasks('a,1,1,b\nb,1,1,a\n'), '--hands', '2');
    expect([circle.status, circle.stderr]).toEqual([1, expect.stringContaining('a')]);
    const few = await quarry('schedule', tasks('dome,1,5,\n'), '--hands', '2');
    expect([few.status, few.stderr]).toEqual([1, 'dome needs 5 hands; there are 2.\n']);
  });
  test.each([
    ['a,1,1,x\n', ['--hands', '1'], 'row 2: “a” is after “x”, which is no task'],
    ['a,1,1,\na,1,1,\n', ['--hands', '1'], 'row 3: the id “a” is there twice'],
    ['a,0,1,\n', ['--hands', '1'], 'minutes of “a” must be 1 or more'],
    ['a,1.5,1,\n', ['--hands', '1'], 'minutes “1.5” must be a whole number'],
    ['a,1,1,\n', [], '--hands (missing): must be a whole number from 1'],
  ])('bad input %j %j ends with 2 and says why', async (rows, options, why) => {
    const { status, stderr } = await quarry('schedule', tasks(rows), ...options);
    expect([status, stderr]).toEqual([2, expect.stringContaining(why)]);
  });
});

describe('quarry convert', () => {
  const valley = join(DEMO, 'skarn-edge.quarry.json');
  test('outlines of the place asked for, in true millimetres; nothing on standard output', async () => {
    const out = join(folder, 'hall.svg');
    expect(await quarry('convert', valley, out, '--place', 'larkmoor')).toEqual({
      status: 0,
      stdout: '',
      stderr: '',
    });
    const svg = readFileSync(out, 'utf8');
    expect(svg).toContain('Larkmoor drill hall');
    // The hall is 8,000 × 6,200 mm: its north wall runs from corner to corner.
    expect(svg).toContain('points="0,0 8000,0"');
    const inches = join(folder, 'hall-in.svg');
    expect((await quarry('convert', valley, inches, '--place', 'larkmoor', '--units', 'in')).status).toBe(0);
    expect(readFileSync(inches, 'utf8')).toContain('≈ 314 15/16 in');
  });
  test('DXF that a general reader opens, and a display file that reads as the one it was made from', async () => {
    const dxf = join(folder, 'workshop.dxf');
    expect((await quarry('convert', valley, dxf)).status).toBe(0);
    const layers = new DxfParser().parseSync(readFileSync(dxf, 'utf8'))?.entities.map(({ layer }) => layer);
    expect(layers).toEqual(expect.arrayContaining(['WALLS', 'TABLES', 'SCENE', 'DIMENSIONS']));
    const tidy = join(folder, 'tidy.quarry.json');
    expect((await quarry('convert', valley, tidy)).status).toBe(0);
    const sceneOf = (path: string) => readFile(readFileSync(path, 'utf8'));
    expect(sceneOf(tidy)).toEqual(sceneOf(valley));
    expect(sceneOf(tidy)).toHaveProperty('ok', true);
  });
  test.each([
    [['convert', valley], 'takes two files'],
    [['convert', valley, 'out.bmp'], 'no format for this ending; there are .svg, .dxf, .asc, .quarry.json'],
    [['convert', valley, 'out.svg', '--place', 'moon'], '--place moon'],
    [['convert', valley, 'out.svg', '--units', 'ells'], '--units ells: must be mm or in'],
    [['convert', valley, 'out.svg', '--sheet', 'bed'], '--sheet bed: must be plan or survey'],
    [['convert', valley, join(folder, 'no', 'such', 'folder.svg')], 'cannot be written'],
  ])('%j is bad input: exit 2', async (args, words) => {
    const { status, stderr } = await quarry(...args);
    expect(status).toBe(2);
    expect(stderr).toContain(words);
  });
});

describe('from a shell', () => {
  const shell = (...args: string[]) => spawnSync(process.execPath, [PROGRAM, ...args], { encoding: 'utf8' });
  test.each([
    ['done', 0, ['turn', '--within', '10']],
    ['findings of severity error', 1, ['check', join(DEMO, 'heron-weir.quarry.json')]],
    ['no answer', 1, ['schedule', file('many.csv', 'id,minutes,hands,after\ndome,1,5,\n'), '--hands', '2']],
    ['bad input', 2, ['check', join(DEMO, 'heron-weir.quarry.json'), '--version', 'none']],
  ])('the built program does the same: %s, exit %i', async (_, code, args) => {
    const { status, stdout, stderr } = shell(...args);
    expect(status).toBe(code);
    expect({ status, stdout, stderr }).toEqual(await quarry(...args));
  });
});
