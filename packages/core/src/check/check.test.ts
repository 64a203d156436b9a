import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { readFile, reduce, sceneFrom, type Scene } from '../scene/index.ts';
import { RULES, checkScene } from './index.ts';

/** A display that is in order: no finding at all. Each case below spoils one thing. */
const file = () => ({
  display: {
    name: 'Quiet',
    kind: 'diorama' as const,
    limitW: 96,
    limitD: 48,
    limitHeight: 60,
    levelStep: 15,
    showDate: '2031-10-01',
  },
  levels: [
    { id: 'low', name: 'Low', height: 3 },
    { id: 'street', name: 'Street', height: 18 },
  ],
  footprint: [{ id: 'f', name: 'All', x: 0, y: 0, w: 96, d: 48 }],
  tables: [{ id: 't', name: 'Long table', x: 0, y: 0, w: 768, d: 384, height: 740 }],
  passages: [{ id: 'door', name: 'hall door', width: 390, height: 2000 }],
  pads: [{ id: 'p', name: 'Green', x: 0, y: 0, w: 96, d: 48, level: 'street', ground: 'grass' as const }],
  plots: [
    { id: 'a', name: 'Baker', x: 0, y: 0, w: 16, d: 16, height: 30 },
    { id: 'b', name: 'Dyer', x: 16, y: 0, w: 16, d: 16, height: 30 },
  ],
  people: [{ id: 'ada', name: 'Ada Fenn', initials: 'AF' }],
  sections: [{ id: 's', letter: 'A', name: 'All', x: 0, y: 0, w: 96, d: 48, owner: 'ada' }],
  bases: [{ id: 'big', w: 48, d: 48, price: 14, stock: 2 }],
  modules: [
    { id: 'm1', name: 'A1', x: 0, y: 0, w: 48, d: 48, bases: [{ x: 0, y: 0, w: 48, d: 48 }] },
    { id: 'm2', name: 'A2', x: 48, y: 0, w: 48, d: 48, bases: [{ x: 48, y: 0, w: 48, d: 48 }] },
  ],
});
type File = ReturnType<typeof file>;
const findings = (scene: Scene, today = '2031-06-01') => checkScene(scene, { today });

test('a display in order has no findings', () => expect(findings(sceneFrom(file()))).toEqual([]));

const spoiled: [string, (f: File) => unknown, string[]][] = [
  [
    'off-table',
    (f) => (f.tables[0].w = 700),
    ['8.5 studs (68 mm)', 'limit is 6', '«Long table»', '144 studs'],
  ],
  [
    'plot-overhangs',
    (f) => {
      f.tables[0].x = 8;
    },
    ['«Baker»', '16 studs', 'up to 1 stud (8 mm)'],
  ],
  ['no-table', (f) => (f.tables = []), ['0 of at least 1']],
  [
    'tables-overlap',
    (f) => f.tables.push({ ...f.tables[0], id: 'u', name: 'Second', x: 760 }),
    ['8 mm × 384 mm'],
  ],
  [
    'table-step',
    (f) => f.tables.push({ ...f.tables[0], id: 'u', name: 'Second', x: 768, height: 720 }),
    ['20 mm', '«Second»'],
  ],
  ['footprint-limit', (f) => (f.display.limitW = 80), ['96 × 48', '80 × 48']],
  ['height-limit', (f) => (f.plots[1].height = 43), ['«Dyer»', '20b1p (195.2 mm)', '20b (192 mm)']],
  ['outside-footprint', (f) => (f.plots[0].y = -2), ['«Baker»', '32 studs outside']],
  ['plots-overlap', (f) => (f.plots[1].x = 14), ['«Baker» and «Dyer»', '2 × 16 studs']],
  [
    'plot-uneven',
    (f) => f.pads.push({ ...f.pads[0], id: 'q', x: 8, w: 8, level: 'low' }),
    ['«Baker»', 'from 1b to 6b', '5b (48 mm)'],
  ],
  ['plot-over-seam', (f) => (f.plots[1].x = 40), ['«Dyer»', '2 modules (A1, A2)']],
  ['module-passage', (f) => (f.passages[0].width = 380), ['Module A1 is 383.8 mm', 'hall door lets 380 mm']],
  [
    'module-size',
    (f) => Object.assign(f.display, { moduleMaxW: 40, moduleMaxD: 40 }),
    ['48 × 48', '40 × 40'],
  ],
  ['modules-cover', (f) => f.modules.pop(), ['2,304 studs in no module']],
  ['bases-short', (f) => (f.bases[0].stock = 1), ['2 bases of 48×48 and 1 are owned: 1 short, about 14.00']],
  ['level-step', (f) => (f.levels[1].height = 19), ['5b1p (51.2 mm)', 'agreed step is 5b']],
  ['section-owner', (f) => Object.assign(f.sections[0], { owner: null }), ['Section A', 'no owner']],
  [
    'sections-overlap',
    (f) => f.sections.push({ ...f.sections[0], id: 'z', letter: 'B', w: 4 }),
    ['A and B share 4 × 48'],
  ],
  ['no-section', (f) => (f.sections[0].w = 95), ['48 studs']],
  ['show-near', (f) => (f.display.showDate = '2031-06-15'), ['in 14 days', '7 stages']],
];

test.each(spoiled)('%s: names the thing, the number and the limit', (rule, spoil, words) => {
  const spoiledFile = file();
  spoil(spoiledFile);
  const found = findings(sceneFrom(spoiledFile)).filter((finding) => finding.rule === rule);
  expect(found.length).toBeGreaterThan(0);
  for (const word of words) expect(found[0].sentence).toContain(word);
  expect(found[0].remedy).toMatch(/\.$/);
});
test('each rule of the registry has such a case, and tells how its number is made', () => {
  expect(RULES.map(({ id }) => id).sort()).toEqual(spoiled.map(([id]) => id).sort());
  for (const rule of RULES) expect(rule.basis.length).toBeGreaterThan(20);
});

test('an accepted finding stays accepted until its numbers change', () => {
  const spoiledFile = file();
  spoiledFile.bases[0].stock = 1;
  const scene = sceneFrom(spoiledFile);
  const [finding] = findings(scene);
  const accept = {
    op: 'add' as const,
    kind: 'acceptance' as const,
    id: 'acc',
    data: { finding: finding.key, fingerprint: finding.fingerprint, reason: 'lent by the club' },
  };
  const kept = reduce(scene, [accept]);
  if (!kept.ok) throw new Error(kept.refusal.sentence);
  expect(findings(kept.scene)[0].accepted).toMatchObject({ reason: 'lent by the club' });
  const worse = reduce(kept.scene, [{ op: 'patch', kind: 'baseType', id: 'big', v: 1, set: { stock: 0 } }]);
  if (!worse.ok) throw new Error(worse.refusal.sentence);
  expect(findings(worse.scene)[0]).toMatchObject({ accepted: null, lapsed: 'lent by the club' });
});

test('the demo displays open, and the valley has its planted flaws', () => {
  const demo = (name: string) =>
    readFileSync(join(__dirname, '../../../../demo', `${name}.quarry.json`), 'utf8');
  const rules = (name: string) => {
    const reading = readFile(demo(name));
    if (!reading.ok) throw new Error(reading.error);
    return new Set(findings(reading.scene, '2026-08-08').map(({ rule }) => rule));
  };
  for (const rule of [
    'module-passage',
    'plot-over-seam',
    'off-table',
    'section-owner',
    'bases-short',
    'table-step',
  ])
    expect(rules('skarn-edge')).toContain(rule);
  expect(rules('heron-weir')).toContain('height-limit');
  expect(rules('larch-lane')).toContain('plots-overlap');
});
