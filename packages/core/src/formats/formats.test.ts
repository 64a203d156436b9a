import DxfParser from 'dxf-parser';
import { sceneFrom } from '../document/index.ts';
import { houseRules, surveyDrawing, writeDxf, writeSvg } from './index.ts';

const scene = sceneFrom({
  display: {
    name: 'Łódź & <Marsh>',
    kind: 'diorama',
    place: 'hall',
    season: 'autumn',
    levelStep: 15,
    streetDepth: 32,
  },
  places: [
    {
      id: 'hall',
      name: 'Hall',
      walls: [
        { x: 0, y: 0 },
        { x: 6000, y: 0 },
        { x: 6000, y: 4000 },
        { x: 0, y: 4000 },
      ],
      sceneX: 2000,
      sceneY: 1000,
    },
  ],
  levels: [{ id: 'l', name: 'Street', height: 18 }],
  footprint: [{ id: 'f', name: 'All', x: 0, y: 0, w: 100, d: 50 }],
  tables: [{ id: 'a', name: 'A', place: 'hall', x: 1900, y: 900, w: 1000, d: 600 }],
  openings: [{ id: 'd', name: 'Door', place: 'hall', wall: 2, at: 1000, width: 900 }],
});
const drawing = surveyDrawing(scene, { units: 'mm', textSize: 60 });
const outline = (layer: string) =>
  drawing.items.flatMap((item) => (item.kind === 'line' && item.layer === layer ? item.points : []));

test('outlines are in true millimetres: the scene 800 × 400 at (2000, 1000), the wall open at the door', () => {
  expect(outline('SCENE')).toEqual([
    { x: 2000, y: 1000 },
    { x: 2800, y: 1000 },
    { x: 2800, y: 1400 },
    { x: 2000, y: 1400 },
  ]);
  const south = outline('WALLS')
    .filter(({ y }) => y === 4000)
    .map(({ x }) => x);
  // The south wall runs from the east: its door lies from 5,000 to 4,100.
  expect(south).toEqual([6000, 6000, 5000, 4100, 0, 0]);
});
test('dimensions say the walls, the scene and its clear distances, in either unit', () => {
  const texts = (units: 'mm' | 'in') =>
    surveyDrawing(scene, { units, textSize: 60 }).items.flatMap((item) =>
      item.kind === 'text' && item.layer === 'DIMENSIONS' ? [item.text] : [],
    );
  expect(texts('mm').sort()).toEqual(
    [
      '6,000 mm',
      '4,000 mm',
      '6,000 mm',
      '4,000 mm',
      '800 mm',
      '400 mm',
      '1,000 mm',
      '2,600 mm',
      '2,000 mm',
      '3,200 mm',
    ].sort(),
  );
  expect(texts('in')).toContain('≈ 236 1/4 in');
});
test('DXF: a general reader finds the same outlines on layers of their names, in millimetres', () => {
  const dxf = new DxfParser().parseSync(writeDxf(drawing));
  expect(dxf?.header.$INSUNITS).toBe(4); // millimetres (DXF reference)
  const closed = dxf?.entities.filter(({ layer, type }) => layer === 'SCENE' && type === 'LWPOLYLINE') ?? [];
  expect(closed).toHaveLength(1);
  expect(closed[0]).toMatchObject({
    shape: true,
    vertices: [
      { x: 2000, y: -1000 },
      { x: 2800, y: -1000 },
      { x: 2800, y: -1400 },
      { x: 2000, y: -1400 },
    ],
  });
  expect(Object.keys(dxf?.tables.layer.layers ?? {})).toEqual(
    expect.arrayContaining(['WALLS', 'TABLES', 'DIMENSIONS']),
  );
});
test('SVG: its size is its true size, and names cannot break out of it', () => {
  const svg = writeSvg(drawing);
  const [, w, d, box] = /width="([\d.]+)mm" height="([\d.]+)mm" viewBox="([^"]+)"/.exec(svg) ?? [];
  expect(box.split(' ').slice(2)).toEqual([w, d]);
  expect(Number(w)).toBeGreaterThan(6000);
  expect(svg).toContain('<title>Łódź &amp; &lt;Marsh&gt;, Hall</title>');
  expect(svg).toContain('points="2000,1000 2800,1000 2800,1400 2000,1400"');
  // Every tag that opens closes: a strict reader would accept it.
  const open = [...svg.matchAll(/<(\/?)([a-z]+)[^>]*?(\/?)>/g)];
  const depth = open.reduce((sum, [, close, , self]) => sum + (close ? -1 : self ? 0 : 1), 0);
  expect(depth).toBe(0);
});
test('the house rules say what was agreed and what was not', () => {
  const lines = new Map(houseRules(scene, 'mm').flatMap((group) => group.lines));
  expect(lines.get('Season')).toBe('autumn');
  expect(lines.get('Wind blows from')).toBe('not agreed');
  expect(lines.get('Street')).toBe('6b (57.6 mm)');
  expect(lines.get('Street fronts')).toBe('32 studs deep, 16, 32, 48, 64 wide');
  expect(new Map(houseRules(scene, 'in').flatMap((group) => group.lines)).get('Street')).toBe(
    '6b (≈ 2 1/4 in)',
  );
});
test('a vignette’s sheet has its rule card, with what must be in it', () => {
  const vignette = sceneFrom({
    display: {
      name: 'Square',
      kind: 'vignette',
      limitW: 16,
      limitD: 16,
      limitHeight: 36,
      cardOverhang: 2,
      cardOverhangFrom: 6,
      sourceRule: 'kit',
      kitCopies: 2,
      kitName: 'the host’s kit',
    },
    requirements: [{ id: 'h', name: 'heron', count: 1 }],
  });
  const card = houseRules(vignette, 'mm').find(({ heading }) => heading === 'Rule card');
  expect(card?.lines).toEqual([
    ['Base', '16 × 16 studs'],
    ['Height', 'at most 12b'],
    ['Over the base’s sides', 'at most 2 studs from 2b up'],
    ['Shown', 'standing'],
    ['Parts', 'only from 2 copies of the host’s kit'],
    ['Must have: heron', '1'],
  ]);
  expect(houseRules(scene, 'mm').some(({ heading }) => heading === 'Rule card')).toBe(false);
});
