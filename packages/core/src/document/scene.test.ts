import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { Ajv2020 } from 'ajv/dist/2020.js';
import fc from 'fast-check';
import {
  FILE_VERSION,
  KINDS,
  STARTS,
  blankDisplay,
  denialReason,
  fromRows,
  listOf,
  publishedSchema,
  readDocument,
  readFile,
  reduce,
  sceneFrom,
  takeBack,
  toRows,
  undoable,
  writeFile,
  type Change,
  type Scene,
} from './index.ts';
import { migrate } from './file.ts';

const small = () =>
  sceneFrom({
    display: { name: 'Test square', kind: 'vignette' },
    levels: [{ id: 'low', name: 'Low', height: 3 }],
    people: [{ id: 'ada', name: 'Ada Fenn', initials: 'AF' }],
    pads: [{ id: 'pad-1', name: 'Green', x: 0, y: 0, w: 16, d: 16, level: 'low', ground: 'grass' }],
    sections: [{ id: 'sec', letter: 'A', name: 'All', x: 0, y: 0, w: 8, d: 16, owner: 'ada' }],
  });
const must = (scene: Scene, changes: Change[]) => {
  const reduction = reduce(scene, changes);
  if (!reduction.ok) throw new Error(reduction.refusal.sentence);
  return reduction;
};
const patchPad = (v: number, set: Record<string, unknown>): Change => ({
  op: 'patch',
  kind: 'pad',
  id: 'pad-1',
  v,
  set,
});

describe('the reducer', () => {
  test('a batch lands whole or not at all, and the scene passed in is untouched', () => {
    const scene = small();
    const before = writeFile(scene);
    const refused = reduce(scene, [
      patchPad(1, { w: 8 }),
      { op: 'remove', kind: 'pad', id: 'nothing', v: 1 },
    ]);
    expect(refused).toMatchObject({ ok: false, refusal: { reason: 'unknown', index: 1 } });
    const landed = must(scene, [patchPad(1, { w: 8 }), patchPad(2, { d: 8.5 })]);
    expect(landed.scene.pad['pad-1']).toMatchObject({ w: 8, d: 8.5, v: 3 });
    expect(writeFile(scene)).toBe(before);
  });

  test.each<[string, Change, string, string]>([
    ['a stale version', patchPad(7, { w: 8 }), 'stale', 'stands at 1'],
    ['an unknown field', patchPad(1, { colour: 'red' }), 'invalid', 'no “colour”'],
    ['a wrong type', patchPad(1, { w: 'wide' }), 'invalid', 'field “w”'],
    ['not a number', patchPad(1, { w: NaN }), 'invalid', 'field “w”'],
    ['a billion studs', patchPad(1, { w: 1e9 }), 'invalid', '4096'],
    ['a third of a stud', patchPad(1, { x: 0.3 }), 'invalid', 'half studs'],
    [
      'a level in use',
      { op: 'remove', kind: 'level', id: 'low', v: 1 },
      'in-use',
      'Green still names the level “low”',
    ],
    ['a level that is not there', patchPad(1, { level: 'high' }), 'in-use', '“high”'],
    ['an id twice', { op: 'add', kind: 'pad', id: 'pad-1', data: {} }, 'duplicate', 'pad-1'],
    ['an inherited name', { op: 'remove', kind: 'pad', id: 'constructor', v: 1 }, 'unknown', 'constructor'],
  ])('%s is refused and says so', (_, change, reason, words) => {
    expect(reduce(small(), [change])).toEqual({
      ok: false,
      refusal: expect.objectContaining({ reason, sentence: expect.stringContaining(words) }),
    });
  });

  test('an id that comes back never repeats a version', () => {
    const scene = small();
    const gone = must(scene, [{ op: 'remove', kind: 'section', id: 'sec', v: 1 }]);
    const back = must(gone.scene, gone.inverse);
    expect(back.scene.section.sec.v).toBe(2);
    expect(fromRows(toRows(gone.scene)).removed).toEqual({ 'section/sec': 1 });
    expect(fromRows(toRows(back.scene)).section).toEqual(back.scene.section);
  });

  const edit = fc.oneof(
    fc.record({
      kind: fc.constant('patch'),
      x: fc.integer({ min: -20, max: 20 }),
      name: fc.string({ minLength: 1, maxLength: 8 }),
    }),
    fc.record({ kind: fc.constant('add'), x: fc.integer({ min: 0, max: 20 }), name: fc.constant('new') }),
    fc.record({ kind: fc.constant('remove'), x: fc.constant(0), name: fc.constant('') }),
  );
  test('any sequence of landed batches is taken back by its inverses, last first', () => {
    fc.assert(
      fc.property(fc.array(edit, { maxLength: 12 }), (edits) => {
        let scene = small();
        const first = writeFile(scene);
        const inverses: Change[][] = [];
        edits.forEach(({ kind, x, name }, i) => {
          const pads = listOf(scene, 'pad');
          const pad = pads[x < 0 ? 0 : x % Math.max(1, pads.length)];
          const change: Change | null =
            kind === 'add'
              ? {
                  op: 'add',
                  kind: 'pad',
                  id: `new-${i}`,
                  data: { name, x, y: 0, w: 1, d: 1, level: 'low', ground: 'sand' },
                }
              : !pad
                ? null
                : kind === 'remove'
                  ? { op: 'remove', kind: 'pad', id: pad.id, v: pad.v }
                  : { op: 'patch', kind: 'pad', id: pad.id, v: pad.v, set: { x, name } };
          if (!change) return;
          const reduction = reduce(scene, [change]);
          if (!reduction.ok) return;
          scene = reduction.scene;
          inverses.unshift(reduction.inverse);
        });
        // The versions in an inverse are those it was made at; take each back through `takeBack`, as the pages do.
        for (const inverse of inverses) {
          const back = takeBack(scene, undoable('edit', inverse, scene));
          if (!back.ok) throw new Error(back.sentence);
          scene = must(scene, back.changes).scene;
        }
        return writeFile(scene) === first;
      }),
    );
  });
});

describe('taking back', () => {
  const done = () => {
    const { scene, inverse } = must(small(), [patchPad(1, { w: 8 })]);
    return { scene, mine: undoable('narrowed Green', inverse, scene) };
  };
  test('another field changed since does not stand in the way; the same field does', () => {
    const { scene, mine } = done();
    const renamed = must(scene, [patchPad(2, { name: 'Lawn' })]).scene;
    const back = takeBack(renamed, mine);
    expect(back).toEqual({ ok: true, changes: [patchPad(3, { w: 16 })] });
    const widened = must(scene, [patchPad(2, { w: 12 })]).scene;
    expect(takeBack(widened, mine)).toEqual({
      ok: false,
      sentence: expect.stringContaining('had its w changed'),
    });
  });
});

const file = () => JSON.parse(writeFile(small()));

describe('display files', () => {
  test('what is written reads back the same', () => {
    const reading = readFile(writeFile(small()));
    expect(reading.ok && writeFile(reading.scene)).toBe(writeFile(small()));
  });
  test('every preset is a valid display', () => {
    for (const { start } of STARTS)
      expect(listOf(blankDisplay('New', start, { name: 'Me', initials: 'M' }), 'section')).toHaveLength(1);
  });
  test.each<[string, () => unknown, string]>([
    ['another format', () => ({ format: 'other', version: 1 }), '"format"'],
    ['a newer version', () => ({ ...file(), version: FILE_VERSION + 1 }), 'reads up to version 1'],
    ['an unknown key', () => ({ ...file(), extras: [] }), 'unknown key “extras”'],
    ['a wrong type', () => ({ ...file(), pads: 'many' }), '“pads” must be a list'],
    ['too many', () => ({ ...file(), pads: Array(5001).fill({}) }), '5001 entries; the most is 5000'],
    ['a wrong id', () => ({ ...file(), levels: [{ id: 'Ä', name: 'x', height: 1 }] }), 'levels[0]'],
    ['no display', () => ({ format: 'open-quarry-display', version: 1 }), 'no “display”'],
    [
      'an unknown field',
      () => ({ ...file(), levels: [{ id: 'low', name: 'x', height: 1, colour: 'red' }] }),
      'colour',
    ],
  ])('%s is refused with the reason', (_, raw, words) => {
    expect(readDocument(raw())).toEqual({ ok: false, error: expect.stringContaining(words) });
  });
  test('broken, deep and huge text is refused before it is parsed', () => {
    expect(readFile('{"format":')).toMatchObject({ ok: false, error: expect.stringContaining('not JSON') });
    expect(readFile('['.repeat(100_000))).toMatchObject({
      ok: false,
      error: expect.stringContaining('more than 32 deep'),
    });
    expect(readFile(' '.repeat(20_000_001))).toMatchObject({
      ok: false,
      error: expect.stringContaining('20,000,000'),
    });
  });
  test('an older file is carried forward step by step; a missing step is a fault of ours', () => {
    const steps = {
      1: (raw: Record<string, unknown>) => ({ ...raw, grounds: raw.pads }),
      2: ({ pads: _pads, ...raw }: Record<string, unknown>) => raw,
    };
    expect(migrate({ version: 1, pads: [7] }, 1, 3, steps)).toEqual({ version: 3, grounds: [7] });
    expect(migrate({ version: 3 }, 3, 3, steps)).toEqual({ version: 3 });
    expect(() => migrate({ version: 1 }, 1, 4, steps)).toThrow('no step from file version 3 to 4');
  });
  test('a prototype cannot be smuggled in', () => {
    const reading = readFile(
      `{"format":"open-quarry-display","version":1,"display":{"name":"x","kind":"city"},"pads":[{"id":"__proto__"}]}`,
    );
    expect(reading.ok).toBe(false);
  });
});

describe('the published JSON Schema', () => {
  const path = join(import.meta.dirname, '../../../../docs/schema/display.schema.json');
  const validate = new Ajv2020({ formats: { date: true, 'date-time': true } }).compile(publishedSchema());
  test('the file in docs is the one the schemas give (npm run schema)', () => {
    expect(JSON.parse(readFileSync(path, 'utf8'))).toEqual(JSON.parse(JSON.stringify(publishedSchema())));
  });
  test('a general reader (ajv) takes what is written and refuses what the core refuses', () => {
    expect(validate(file())).toBe(true);
    expect(validate({ ...file(), extras: [] })).toBe(false);
    expect(validate({ ...file(), pads: [{ ...file().pads[0], w: 1e9 }] })).toBe(false);
    expect(validate({ ...file(), version: 2 })).toBe(false);
  });
});

describe('who may change what', () => {
  const add = (x: number): Change => ({
    op: 'add',
    kind: 'plot',
    id: 'hut',
    data: { name: 'Hut', x, y: 0, w: 8, d: 4, height: 9 },
  });
  const cases: [string, Change, boolean, boolean][] = [
    [
      'stage of the own section',
      { op: 'patch', kind: 'section', id: 'sec', v: 1, set: { stage: 'ground' } },
      true,
      true,
    ],
    [
      'owner of the own section',
      { op: 'patch', kind: 'section', id: 'sec', v: 1, set: { owner: null } },
      true,
      false,
    ],
    ['plot inside the own section', add(0), true, true],
    ['plot partly outside', add(1), true, false],
    ['pad that reaches outside', patchPad(1, { w: 4 }), true, false],
    [
      'the display',
      { op: 'patch', kind: 'display', id: 'display', v: 1, set: { name: 'Mine' } },
      true,
      false,
    ],
  ];
  test.each(cases)('%s', (_, change, planner, builder) => {
    const may = (role: 'owner' | 'planner' | 'builder' | 'viewer', person: string | null) =>
      denialReason({ role, person }, small(), change) === null;
    expect([
      may('owner', null),
      may('planner', null),
      may('builder', 'ada'),
      may('builder', 'bo'),
      may('builder', null),
      may('viewer', 'ada'),
    ]).toEqual([planner, planner, builder, false, false, false]);
  });
  test('every kind has a word and a group of its own', () => {
    const kinds = Object.values(KINDS);
    expect(new Set(kinds.map(({ group }) => group)).size).toBe(kinds.length);
  });
});
