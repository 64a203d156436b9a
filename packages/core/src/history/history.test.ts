import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import fc from 'fast-check';
import {
  emptyScene,
  displayOf,
  fromRows,
  listOf,
  mentionsIn,
  readFile,
  reduce,
  rebase,
  sceneFrom,
  sectionOfEntity,
  stampOf,
  toRows,
  unreadThreads,
  writeFile,
  type Change,
  type Kind,
  type Scene,
} from '../document/index.ts';
import {
  handoverWords,
  holdingsOf,
  publicProgress,
  publicScene,
  replay,
  reportMarkdown,
  reportSince,
  restoring,
  sharesByDay,
  takeBackBatch,
  describeBatch,
  describeLog,
  valueWord,
  type Entry,
} from './index.ts';

const start = () =>
  sceneFrom({
    display: { name: 'Shared', kind: 'diorama', showDate: '2031-07-10' },
    levels: [{ id: 'low', name: 'Low', height: 18 }],
    people: [
      { id: 'ada', name: 'Ada Fenn', initials: 'AF' },
      { id: 'bo', name: 'Bo Lind', initials: 'BL' },
    ],
    sections: [
      { id: 'west', letter: 'W', name: 'West', x: 0, y: 0, w: 16, d: 16, owner: 'ada' },
      { id: 'east', letter: 'E', name: 'East', x: 16, y: 0, w: 16, d: 16 },
    ],
    pads: [{ id: 'yard', name: 'Upper yard', x: 2, y: 2, w: 8, d: 8, level: 'low', ground: 'grass' }],
    plots: [{ id: 'mill', name: 'Mill', x: 18, y: 2, w: 8, d: 8, height: 18 }],
    tables: [{ id: 't', name: 'Table 1', x: 0, y: 0, w: 1200, d: 800, height: 720 }],
    modules: [
      { id: 'a', name: 'A1', x: 0, y: 0, w: 16, d: 16, bases: [{ x: 0, y: 0, w: 16, d: 16 }] },
      { id: 'b', name: 'A2', x: 16, y: 0, w: 16, d: 16, bases: [{ x: 16, y: 0, w: 16, d: 16 }] },
    ],
  });
const after = (scene: Scene, changes: Change[]): Scene => {
  const reduction = reduce(scene, changes);
  if (!reduction.ok) throw new Error(reduction.refusal.sentence);
  return reduction.scene;
};
const patch = (scene: Scene, kind: Kind, id: string, set: Record<string, unknown>): Change => ({
  ...{ op: 'patch', kind, id, v: scene[kind][id].v },
  set,
});
const tell = (scene: Scene, ...changes: Change[]) =>
  describeBatch(scene, after(scene, changes), changes).map(({ sentence }) => sentence);

describe('the log as sentences', () => {
  const scene = start();
  test.each<[string, Kind, string, Record<string, unknown>]>([
    ['raised Mill from 6b to 7b', 'plot', 'mill', { height: 21 }],
    ['lowered the level Low from 6b to 5b1p', 'level', 'low', { height: 16 }],
    ['moved Upper yard 4 studs east and 1.5 studs north', 'pad', 'yard', { x: 6, y: 0.5 }],
    ['resized Mill from 8 studs × 8 studs to 8 studs × 10 studs', 'plot', 'mill', { d: 10 }],
    ['moved Table 1 250 mm west', 'table', 't', { x: -250 }],
    ['raised Table 1 from 720 mm to 740 mm', 'table', 't', { height: 740 }],
    ['handed section W from Ada Fenn to Bo Lind', 'section', 'west', { owner: 'bo' }],
    ['gave section E to Bo Lind', 'section', 'east', { owner: 'bo' }],
    ['moved section W from planned to ground', 'section', 'west', { stage: 'ground', stageDone: 0 }],
    ['brought section W to 40 % of planned', 'section', 'west', { stageDone: 40 }],
    ['renamed Upper yard to Top yard', 'pad', 'yard', { name: 'Top yard' }],
    ['set the wind of the display from nothing to west', 'display', 'display', { wind: 'w' }],
    [
      'set the most a module may weigh of the display from nothing to 12 kg',
      'display',
      'display',
      { moduleMaxKg: 12 },
    ],
    ['changed the edges of Upper yard', 'pad', 'yard', { edges: { n: { kind: 'cliff' } } }],
    [
      'moved Mill 2 studs west, set the mount of Mill from pinned to loose',
      'plot',
      'mill',
      { x: 16, mount: 'loose' },
    ],
  ])('%s', (sentence, kind, id, set) => {
    expect(tell(scene, patch(scene, kind, id, set))).toEqual([sentence]);
  });

  test('what is added, removed and said; each with its section; a thousand at once are counted', () => {
    const plot = { name: 'Kiln', x: 2, y: 10, w: 4, d: 4, height: 9 };
    expect(tell(scene, { op: 'add', kind: 'plot', id: 'kiln', data: plot })).toEqual(['added Kiln']);
    expect(tell(scene, { op: 'remove', kind: 'pad', id: 'yard', v: 1 })).toEqual(['removed Upper yard']);
    const gone: Change = { op: 'remove', kind: 'plot', id: 'mill', v: 1 };
    expect(describeBatch(scene, after(scene, [gone]), [gone])[0].section).toBe('east');
    const thread = { title: 'Why?', text: 'Because', by: 'bo', section: 'west' };
    expect(tell(scene, { op: 'add', kind: 'thread', id: 'q', data: thread })).toEqual(['advised “Why?”']);
    const many = Array.from({ length: 1000 }, (_, i): Change => ({
      ...{ op: 'add', kind: 'level', id: `l${i}` },
      data: { name: `Level ${i}`, height: i },
    }));
    const told = tell(scene, ...many);
    expect([told.length, told[39]]).toEqual([40, 'and 961 changes more']);
  });
});

/** A random change that fits the scene: what one does to plots, levels, sections, pads. */
const act = fc.record({ what: fc.nat(5), n: fc.nat(5), x: fc.integer({ min: 0, max: 20 }) });
function changeFor(scene: Scene, { what, n, x }: { what: number; n: number; x: number }): Change {
  const id = `plot-${n}`;
  const plot = scene.plot[id];
  if (what === 0 && plot) return { op: 'remove', kind: 'plot', id, v: plot.v };
  if (what <= 2 && !plot)
    return { op: 'add', kind: 'plot', id, data: { name: `P${n}`, x, y: 0, w: 4, d: 4, height: 9 } };
  if (what <= 3 && plot) return patch(scene, 'plot', id, { x });
  if (what === 4) return patch(scene, 'level', 'low', { height: x });
  return patch(scene, 'section', n % 2 ? 'west' : 'east', { stageDone: x });
}
function logOf(acts: readonly Parameters<typeof changeFor>[1][]): { log: Entry[]; scenes: Scene[] } {
  const scenes = [start()];
  const log = acts.map((one, i): Entry => {
    const changes = [changeFor(scenes[i], one)];
    scenes.push(after(scenes[i], changes));
    return { seq: i + 1, id: `b${i}`, author: 'Ada Fenn', at: i, label: `act ${i + 1}`, changes };
  });
  return { log, scenes };
}

describe('the past', () => {
  test('the log replayed is the scene, at every moment, and each entry is told', () => {
    fc.assert(
      fc.property(fc.array(act, { minLength: 1, maxLength: 30 }), fc.nat(30), (acts, cut) => {
        const { log, scenes } = logOf(acts);
        const at = Math.min(cut, log.length);
        expect(toRows(replay(scenes[0], log.slice(0, at)))).toEqual(toRows(scenes[at]));
        const { told, scene } = describeLog(scenes[0], log);
        expect(toRows(scene)).toEqual(toRows(scenes[log.length]));
        // A change that sets what stood already says nothing; every other one says something.
        for (const [i, entry] of told.entries())
          expect(entry.descriptions.length > 0).toBe(writeFile(scenes[i]) !== writeFile(scenes[i + 1]));
      }),
    );
  });

  test('taken back, a batch leaves the rest as it was; where it cannot be, a later batch is named that touched the same', () => {
    fc.assert(
      fc.property(fc.array(act, { minLength: 2, maxLength: 20 }), fc.nat(19), (acts, pick) => {
        const { log, scenes } = logOf(acts);
        const i = pick % log.length;
        const now = scenes[log.length];
        const back = takeBackBatch(scenes[i], log[i], log.slice(i + 1), now);
        const [{ kind, id }] = log[i].changes;
        const touching = log
          .slice(i + 1)
          .filter(({ changes }) => changes.some((change) => change.kind === kind && change.id === id));
        if (!back.ok) {
          expect(back.sentence).not.toBe('');
          expect(back.later.map(({ seq }) => seq)).toEqual(touching.map(({ seq }) => seq));
          expect(back.later.length).toBeGreaterThan(0);
          return;
        }
        const left = after(now, back.changes);
        // The others' things are untouched; with nothing since on the same thing it is as before the batch.
        for (const other of listOf(now, 'plot'))
          if (kind !== 'plot' || other.id !== id) expect(left.plot[other.id]).toEqual(other);
        if (touching.length === 0) {
          const strip = (scene: Scene) => {
            const entity: object | undefined = scene[kind][id];
            return JSON.stringify(entity && { ...entity, v: 0 });
          };
          expect(strip(left)).toEqual(strip(scenes[i]));
        }
      }),
    );
  });

  test('something that names what a batch brought stands in its way', () => {
    const scene = start();
    const level: Change = { op: 'add', kind: 'level', id: 'top', data: { name: 'Top', height: 40 } };
    const one = after(scene, [level]);
    const pad: Change = {
      ...{ op: 'add', kind: 'pad', id: 'p' },
      data: { name: 'P', x: 0, y: 0, w: 2, d: 2, level: 'top', ground: 'rock' },
    };
    const entry = (seq: number, changes: Change[]): Entry => ({
      ...{ seq, id: `b${seq}`, author: 'Bo Lind', at: 0, label: 'drew P', changes },
    });
    const back = takeBackBatch(scene, entry(1, [level]), [entry(2, [pad])], after(one, [pad]));
    expect(back).toMatchObject({ ok: false, later: [{ seq: 2, label: 'drew P', author: 'Bo Lind' }] });
  });

  test('brought back to any moment by new changes only, a display says what it said then', () => {
    fc.assert(
      fc.property(fc.array(act, { minLength: 1, maxLength: 25 }), fc.nat(25), (acts, pick) => {
        const { log, scenes } = logOf(acts);
        const then = scenes[pick % scenes.length];
        const now = scenes[log.length];
        const changes = restoring(now, then);
        const back = changes.length === 0 ? now : after(now, changes);
        expect(writeFile(back)).toBe(writeFile(then));
        for (const kind of ['plot', 'level', 'section'] as const)
          for (const { id, v } of listOf(back, kind)) expect(v).toBeGreaterThanOrEqual(now[kind][id]?.v ?? 1);
      }),
    );
  });

  test('advice and people stay when a display is brought back; advice about a section that goes is about none', () => {
    const then = start();
    const now = after(then, [
      { op: 'add', kind: 'person', id: 'cy', data: { name: 'Cy', initials: 'C' } },
      { op: 'add', kind: 'section', id: 'new', data: { letter: 'N', name: 'New', x: 0, y: 16, w: 4, d: 4 } },
      { op: 'add', kind: 'thread', id: 'q', data: { title: 'Q', text: 'Q', by: 'cy', section: 'new' } },
    ]);
    const back = after(now, restoring(now, then));
    expect([back.thread.q.section, back.person.cy.name, back.section.new]).toEqual([null, 'Cy', undefined]);
  });
});

describe('who holds what', () => {
  test('a section waits for an owner, signatures, parts, advice; a hand-over lists them; a done one waits for nothing', () => {
    let scene = start();
    scene = after(scene, [
      { op: 'add', kind: 'thread', id: 'q', data: { title: 'Q', text: 'Q', by: 'bo', section: 'east' } },
    ]);
    const demand = { section: 'east' };
    const [east] = holdingsOf(scene, { findings: [], netted: [{ demand, short: 12, late: 3 }] });
    expect(east.waits.map(({ sentence }) => sentence)).toEqual([
      'nobody holds it',
      '12 pieces short',
      '3 pieces coming too late',
      '1 seam not signed by both: A1–A2',
      '1 advice to answer',
    ]);
    const words = handoverWords(scene, east, 'Bo Lind', null);
    expect(words).toContain('Section E, East, goes to Bo Lind.');
    expect(words).toContain('– 12 pieces short');
    const done = after(scene, [patch(scene, 'section', 'east', { stage: 'done' })]);
    expect(holdingsOf(done, { findings: null, netted: null })[0]).toMatchObject({ done: 1, waits: [] });
  });
});

describe('a report', () => {
  test('says what changed by section, how far it is, what is short and what comes; Markdown marks in names are plain', () => {
    const before = start();
    const changes = [patch(before, 'section', 'west', { stage: 'ground' })];
    const middle = after(before, changes);
    const more = [patch(middle, 'plot', 'mill', { name: 'Mill *one*' })];
    const handed = [patch(after(middle, more), 'section', 'west', { owner: 'bo' })];
    const { told, scene } = describeLog(before, [
      { seq: 1, id: 'a', author: 'Ada Fenn', at: 1, label: '', changes },
      { seq: 2, id: 'b', author: 'Bo Lind', at: 2, label: '', changes: more },
      { seq: 3, id: 'c', author: 'Bo Lind', at: 3, label: '', changes: handed },
    ]);
    const options = {
      ...{ from: 0, fromAt: null, upto: 3, at: Date.parse('2031-07-01T12:00:00Z'), section: null },
      zone: '',
      missing: [
        { part: 'brick-2x4', colour: 'slate', qty: 5, section: 'west' },
        { part: 'brick-2x4', colour: 'slate', qty: 7, section: 'east' },
      ],
      outlook: { shows: [{ name: 'Fair', date: '2031-07-10', chance: 0.374 }], without: ['E'] },
    };
    const report = reportSince(before, scene, told, { ...options, names: true });
    // Two sections of one size, one of them planned and supported: 5 + 10 of 100 parts of its work.
    expect(report.done.before).toBe(0);
    expect(report.done.after).toBeCloseTo(0.15 / 2, 12);
    expect(report.sections.map(({ name, sentences }) => [name, sentences])).toEqual([
      ['E, East', ['Bo Lind renamed Mill to Mill *one*']],
      [
        'W, West',
        [
          'Bo Lind handed section W from Ada Fenn to Bo Lind',
          'Ada Fenn moved section W from planned to ground',
        ],
      ],
    ]);
    expect([report.short, report.missing]).toEqual([12, [{ part: 'brick-2x4', colour: 'slate', qty: 12 }]]);
    expect(report.next).toEqual([
      'Section E: planned, then supported',
      'Section W (Bo Lind): ground, then structures',
      '2031-07-10: the show',
    ]);
    const markdown = reportMarkdown(report, 'We go on.');
    expect(markdown).toContain('- Bo Lind renamed Mill to Mill \\*one\\*');
    expect(markdown).toContain('We go on.');
    expect(markdown).toContain('- Ready for Fair, 2031-07-10, but for section E: **37 %**');
    const session = (id: string, start: string, minutes: number | null, section: string) =>
      ({
        op: 'add',
        kind: 'session',
        id,
        data: { person: 'ada', start, minutes, pieces: 120, section },
      }) as const;
    const worked = after(scene, [
      session('in', '2031-06-20T18:00:00Z', 90, 'west'),
      session('too', '2031-06-21T18:00:00Z', 60, 'east'),
      session('before', '2031-06-01T18:00:00Z', 90, 'west'),
      session('runs', '2031-07-01T11:00:00Z', null, 'west'),
    ]);
    const span = { ...options, fromAt: Date.parse('2031-06-10T00:00:00Z'), names: true };
    expect(reportSince(before, worked, told, span).work).toEqual({ sessions: 2, hours: 2.5, pieces: 240 });
    expect(reportMarkdown(reportSince(before, worked, told, { ...span, section: 'west' }))).toContain(
      '1.5 hours at the table in 1 session, 120 pieces counted.',
    );
    // At noon in UTC the next day begins in Auckland.
    const there = reportMarkdown(reportSince(before, scene, told, { ...span, zone: 'Pacific/Auckland' }));
    expect(there).toContain('From 2031-06-10 to 2031-07-02.');
    // Of one section; and for the public without anybody's name.
    const west = reportSince(before, scene, told, { ...options, section: 'west', names: false });
    expect([west.batches, west.sections.length, west.short]).toEqual([2, 1, 5]);
    expect(west.sections[0].sentences[0]).toBe('handed section W from a builder to a builder');
    expect(reportMarkdown(west)).not.toMatch(/Ada|Bo/);
  });
});

test('a report leaves out what is again as it was or came and went, and prints no code', () => {
  const before = start();
  let scene = before;
  const log = [
    patch(scene, 'table', 't', { w: 1300 }),
    { ...patch(scene, 'table', 't', { w: 1200 }), v: 2 },
    { op: 'add', kind: 'flag', id: 'f', data: { name: 'Pennant', x: 2, y: 2 } },
    { op: 'remove', kind: 'flag', id: 'f', v: 1 },
    patch(scene, 'display', 'display', { wind: 'nw', viewedSides: ['n', 'e'] }),
    patch(scene, 'plot', 'mill', { goodSides: ['s', 'w'], front: 'n' }),
    patch(scene, 'pad', 'yard', { shape: 'oval' }),
    { ...patch(scene, 'pad', 'yard', { shape: 'rect', ground: 'sand' }), v: 2 },
  ] as Change[];
  const entries = log.map((change, i): Entry => {
    scene = after(scene, [change]);
    return { seq: i + 1, id: `b${i}`, author: 'Ada Fenn', at: i, label: '', changes: [change] };
  });
  const { told } = describeLog(before, entries);
  const { sections } = reportSince(before, scene, told, {
    ...{ from: 0, fromAt: null, upto: log.length, at: 0, section: null, names: true },
    ...{ missing: null, outlook: null, zone: '' },
  });
  const said = sections.flatMap(({ sentences }) => sentences);
  expect(said).toHaveLength(4);
  expect(said.join(' ')).toMatch(/wind of the display from nothing to north-west/);
  expect(said.join(' ')).toContain('sides it is looked at from of the display to north, east');
  expect(said.join(' ')).toContain('good sides of Mill to south, west');
  expect(said.join(' ')).not.toMatch(/\b(n|e|s|w|nw|rect)\b|Pennant|Table/);
  // A name that is looked up for somebody who has gone since.
  const gone = after(before, [{ op: 'remove', kind: 'section', id: 'east', v: 1 }]);
  expect(valueWord(gone, 'session', 'section', 'east')).toBe('a section that is gone');
});
test.each([
  ['plot', 'slope', 'slope-2x2-45', 'slope 2×2 45°'],
  ['plot', 'lowerSlope', null, 'nothing'],
  ['signboard', 'ink', 'rust', 'Rust'],
  ['partType', 'colours', ['slate', 'moss'], 'Slate, Moss'],
  ['deck', 'thick', 2, '2p'],
  ['run', 'thick', 2, '2 studs'],
  ['plot', 'ornament', 40, '40 %'],
] as const)('of a %s its %s is told as people call it', (kind, field, value, words) => {
  expect(valueWord(emptyScene(), kind, field, value)).toBe(words);
});

describe('how far the sections were', () => {
  test('at the end of every day on which one moved, by the weights of the time (worked by hand)', () => {
    const from = start();
    const at = (day: number, hour = 12) =>
      Date.parse(`2031-06-${String(day).padStart(2, '0')}T${hour}:00:00Z`);
    const set = (id: string, set: object) => ({
      op: 'patch' as const,
      kind: 'section' as const,
      id,
      v: 1,
      set: { ...set },
    });
    const weights = [0, 0, 1, 1, 0, 0, 0];
    const entries = [
      { at: at(2), changes: [set('west', { stage: 'ground' })] },
      {
        at: at(2, 18),
        changes: [set('west', { stageDone: 50 }), set('east', { name: 'Nothing of stages' })],
      },
      { at: at(3), changes: [set('east', { name: 'Again nothing' })] },
      {
        at: at(4),
        changes: [{ op: 'patch', kind: 'display', id: 'display', v: 1, set: { stageWeights: weights } }],
      },
      { at: at(5), changes: [{ op: 'remove', kind: 'section', id: 'east', v: 1 }] },
    ] satisfies Parameters<typeof sharesByDay>[2];
    // 5 + 10 of 100 parts, and half of 30; then half of the one stage of two that count.
    expect(sharesByDay(from, at(1), entries, '')).toEqual([
      { date: '2031-06-01', done: { west: 0, east: 0 } },
      { date: '2031-06-02', done: { west: expect.closeTo(0.3, 12), east: 0 } },
      { date: '2031-06-04', done: { west: 0.25, east: 0 } },
      { date: '2031-06-05', done: { west: 0.25 } },
    ]);
    // Noon in UTC is midnight in Auckland: the next day begins.
    expect(sharesByDay(from, at(1), entries, 'Pacific/Auckland').map(({ date }) => date)).toEqual([
      ...['2031-06-02', '2031-06-03', '2031-06-05', '2031-06-06'],
    ]);
  });
});

/** Fields that hold ids and choices, not words of people. */
const NOT_SAID = new Set(['id', 'at', 'section', 'part', 'colour', 'use', 'purpose', 'ground', 'state']);

describe('the public page', () => {
  const demo = readFile(
    readFileSync(join(import.meta.dirname, '../../../../demo/skarn-edge.quarry.json'), 'utf8'),
  );
  if (!demo.ok) throw new Error(demo.error);
  const { scene } = demo;
  test('shows nothing of people, words, stock or money; the ground is the same', () => {
    const seen = JSON.stringify([publicScene(scene), publicProgress(scene, false)]);
    const texts = (kind: Kind) =>
      listOf(scene, kind).flatMap((thing) =>
        Object.entries(thing).flatMap(([field, value]) =>
          typeof value === 'string' && value.length > 5 && !NOT_SAID.has(field) ? [value] : [],
        ),
      );
    const secret = [
      ...(['person', 'thread', 'reply', 'report', 'note', 'marker', 'acceptance', 'order', 'lot'] as const),
      ...(['partList', 'placeholder', 'place', 'milestone', 'requirement', 'recipe'] as const),
    ].flatMap(texts);
    expect(secret.length).toBeGreaterThan(60);
    // A list of parts may be called after its building, whose name is shown.
    const names = new Set(
      (['plot', 'section', 'repeat', 'level'] as const).flatMap((kind) =>
        listOf(scene, kind).map(({ name }) => name),
      ),
    );
    expect(secret.filter((word) => !names.has(word) && seen.includes(word))).toEqual([]);
    expect(seen).not.toContain(displayOf(scene).notes);
    for (const { notes } of listOf(scene, 'plot')) if (notes) expect(seen).not.toContain(notes);
    expect(publicScene(scene).pad).toEqual(scene.pad);
  });
  test('names of builders only where they are allowed', () => {
    expect(JSON.stringify(publicProgress(scene, true))).toContain('Brenna Rook');
    expect(JSON.stringify(publicProgress(scene, true))).not.toContain('Suri Vale');
  });
});

describe('advice', () => {
  test('people are named by whole or first name; “@Adam” is not Ada', () => {
    const scene = start();
    expect(mentionsIn(scene, 'ask @Ada, or @bo lind.')).toEqual(['ada', 'bo']);
    expect(mentionsIn(scene, '@Adam knows')).toEqual([]);
  });
  test('a thing is of the section it names or stands in', () => {
    const scene = start();
    expect([sectionOfEntity(scene, 'pad', 'yard'), sectionOfEntity(scene, 'plot', 'mill')]).toEqual([
      'west',
      'east',
    ]);
    expect(sectionOfEntity(scene, 'table', 't')).toBeNull();
  });
  test('a proposal fits a scene that has moved on, or says what is in its way', () => {
    const scene = start();
    const proposal = [patch(scene, 'plot', 'mill', { x: 20 }), patch(scene, 'pad', 'yard', { x: 0 })];
    const later = after(scene, [patch(scene, 'plot', 'mill', { height: 30 })]);
    const fitted = rebase(later, proposal);
    expect(fitted).toMatchObject({ ok: true, moved: ['Mill'] });
    if (fitted.ok) expect(after(later, fitted.changes).plot.mill).toMatchObject({ x: 20, height: 30 });
    const gone = after(scene, [{ op: 'remove', kind: 'plot', id: 'mill', v: 1 }]);
    expect(rebase(gone, proposal)).toMatchObject({ ok: false, sentence: expect.stringContaining('mill') });
  });
  test('unread is what others said since one’s mark; one’s own thread is read until somebody answers', () => {
    const asked = after(start(), [
      { op: 'add', kind: 'thread', id: 'q', data: { title: 'Q', text: 'Q', by: 'bo' } },
    ]);
    expect([unreadThreads(asked, 'bo', {}).size, unreadThreads(asked, 'ada', {}).size]).toEqual([0, 1]);
    const answered = after(asked, [
      { op: 'add', kind: 'reply', id: 'r', data: { thread: 'q', text: 'R', by: 'ada' } },
    ]);
    expect([...unreadThreads(answered, 'bo', {})]).toEqual(['q']);
    expect(unreadThreads(answered, 'bo', { q: stampOf(answered, answered.thread.q) }).size).toBe(0);
  });
  test('a row that came over the wire reads back', () => {
    const scene = after(start(), [
      { op: 'add', kind: 'thread', id: 'q', data: { title: 'Q', text: 'Q', by: 'bo' } },
      { op: 'add', kind: 'reply', id: 'r', data: { thread: 'q', text: 'R', by: 'ada' } },
    ]);
    expect(toRows(fromRows(toRows(scene)))).toEqual(toRows(scene));
    // An answer holds its thread; a helper holds a person.
    expect(reduce(scene, [{ op: 'remove', kind: 'thread', id: 'q', v: 1 }])).toMatchObject({ ok: false });
    const helped = after(scene, [patch(scene, 'section', 'east', { helpers: ['bo'] })]);
    expect(
      reduce(helped, [
        { op: 'patch', kind: 'section', id: 'west', v: 1, set: { owner: null } },
        { op: 'remove', kind: 'person', id: 'bo', v: 1 },
      ]),
    ).toMatchObject({
      ok: false,
      refusal: { sentence: expect.stringContaining('as its helpers') },
    });
  });
});
