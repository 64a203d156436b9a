import { sceneFrom } from '../document/index.ts';
import { compareTotals, findsOf, reportMarkdown, reportSince, storyOf, totalsOf } from './index.ts';

type Given = Parameters<typeof sceneFrom>[0];
const given: Given = {
  display: { name: 'Quay', kind: 'diorama', ratio: 40 },
  levels: [{ id: 'low', name: 'Low', height: 3 }],
  people: [{ id: 'ada', name: 'Ada Fenn', initials: 'AF' }],
  sections: [{ id: 's', letter: 'A', name: 'All', x: 0, y: 0, w: 64, d: 64, owner: 'ada', stage: 'dressed' }],
  ways: [
    {
      ...{ id: 'w', name: 'Lane', width: 8 },
      points: [
        { x: 0, y: 0 },
        { x: 30, y: 40 },
      ],
    },
  ],
  tracks: [{ id: 't', name: 'Line', x: 0, y: 40, level: 'low', pieces: [{ go: 'straight', length: 16 }] }],
  sessions: [
    { id: 'a', person: 'ada', start: '2031-01-01T10:00:00Z', minutes: 90 },
    { id: 'b', person: 'ada', start: '2031-01-02T10:00:00Z', minutes: null },
  ],
  characters: [
    { id: 'wenna', name: 'Old Wenna', named: true },
    { id: 'cart', name: 'Cart', form: 'vehicle' },
    { id: 'tam', name: 'Tam', crewOf: 'cart', named: true },
    { id: 'cats', name: 'Cats', form: 'animal', count: 3, seek: 'Cats' },
    { id: 'cat', name: 'Grey cat', form: 'animal', seek: 'cats' },
    { id: 'away', name: 'Stray', form: 'animal', seek: 'cats', state: 'lost', owner: 'ada' },
    { id: 'home', name: 'Home cat', form: 'animal', seek: 'cats' },
  ],
  figures: [
    { id: 'late', name: 'Gate', x: 5, y: 5, order: 2, spots: [{ character: 'cats' }, { character: 'away' }] },
    {
      id: 'soon',
      name: 'Market',
      x: 9,
      y: 9,
      order: 1,
      spots: [{ character: 'wenna' }, { character: 'cart' }],
    },
    { id: 'quiet', name: 'Secret', x: 20, y: 20, cast: 4, story: 'not told', spots: [{ character: 'cat' }] },
  ],
};

test('totals: casts by their spots, and ways and track at scale', () => {
  // 50 studs of lane and 16 of track are 528 mm: 21.12 m at 1:40. One session of 90 minutes is ended.
  const totals = totalsOf(sceneFrom(given), 1200);
  const of = (word: string) => totals.find((total) => total.word.startsWith(word));
  expect(of('pieces')?.count).toBe(1200);
  expect([of('figures')?.count, of('animals')?.count, of('vehicles')?.count]).toEqual([2, 5, 1]);
  expect(of('of way and track')).toEqual({ word: 'of way and track at 1:40', count: 21, unit: 'm' });
  expect(of('hours')?.count).toBe(2);
  // A lane of 4,000 studs is 32 m: 1.28 km.
  const long = sceneFrom({
    ...given,
    tracks: [],
    ways: [
      {
        ...{ id: 'w', name: 'Lane', width: 8 },
        points: [
          { x: 0, y: 0 },
          { x: 4000, y: 0 },
        ],
      },
    ],
  });
  expect(totalsOf(long, null).at(-1)).toEqual({ word: 'of way and track at 1:40', count: 1.3, unit: 'km' });
  // Side by side both are metres: neither a thousandth nor a thousandfold.
  expect(compareTotals(sceneFrom(given), long)).toContainEqual({
    ...{ word: 'm of way and track at 1:40', before: 21, after: 1280 },
  });
  expect(totalsOf(sceneFrom({ display: { name: 'Bare', kind: 'vignette' } }), null)).toEqual([]);
});

test('the story has the scenes with a number, in its order, and the names that may be read', () => {
  expect(storyOf(sceneFrom(given))).toEqual([
    { order: 1, name: 'Market', story: '', cast: ['Old Wenna', 'Tam'] },
    { order: 2, name: 'Gate', story: '', cast: [] },
  ]);
});

test('what is looked for is there: in hand, and in a scene; one word however it is written', () => {
  expect(findsOf(sceneFrom(given))).toEqual([{ word: 'cats', count: 4, where: ['Gate', 'Secret'] }]);
});

test('a report tells each version: how much differs in it now and before, which one is new, gone, or stands', () => {
  const tree = (id: string, version: string) => ({
    ...{
      id: `d-${version}-${id}`,
      version,
      of: 'tree',
      thing: id,
      how: 'changed' as const,
      fields: { height: 9 },
    },
  });
  const made = (stands: string | null, versions: string[], differences: ReturnType<typeof tree>[]) =>
    sceneFrom({
      ...given,
      display: { ...given.display, stands },
      trees: ['a', 'b'].map((id) => ({ id, name: id, x: 4, y: 4 })),
      versions: versions.map((id) => ({ id, name: `In ${id}` })),
      differences,
    });
  const before = made(null, ['may', 'june'], [tree('a', 'may')]);
  const after = made('may', ['may', 'snow'], [tree('a', 'may'), tree('b', 'may'), tree('a', 'snow')]);
  const options = {
    ...{ from: 0, fromAt: 0, upto: 0, at: 0, zone: '', missing: null, outlook: null, names: true },
  };
  const lines = reportSince(before, after, [], { ...options, section: null }).versions;
  expect(lines).toEqual([
    'In may: 2 things differ, 1 before; it stands now',
    'In snow: 1 thing differs, new',
    'In june: no version any more',
  ]);
  expect(reportMarkdown(reportSince(before, after, [], { ...options, section: null }))).toContain(
    '## Versions\n\n- In may: 2 things differ',
  );
  expect(reportSince(before, after, [], { ...options, section: 's' }).versions).toEqual([]);
});

test('a report tells what was promised meanwhile and next, and what is lost, with whose it is where names are told', () => {
  const scene = sceneFrom({
    ...given,
    milestones: [
      { id: 'old', name: 'Before', date: '2031-04-01', promises: [{ of: 'section', thing: 's' }] },
      {
        ...{ id: 'may', name: 'May letter', date: '2031-05-10' },
        promises: [
          { of: 'section', thing: 's', stage: 'structures' },
          { of: 'figure', thing: 'soon' },
        ],
      },
      { id: 'next', name: 'June letter', date: '2031-06-10', promises: [{ of: 'section', thing: 's' }] },
      { id: 'far', name: 'July letter', date: '2031-07-10', promises: [{ of: 'section', thing: 's' }] },
    ],
  });
  const options = {
    ...{ from: 0, fromAt: Date.parse('2031-05-01T12:00:00Z'), upto: 0, section: null },
    ...{ at: Date.parse('2031-06-01T12:00:00Z'), zone: '', missing: null, outlook: null },
  };
  const report = reportSince(scene, scene, [], { ...options, names: true });
  expect(report.promised).toEqual([
    {
      ...{ name: 'May letter', date: '2031-05-10' },
      ...{ words: ['Market placed'], met: ['section A, All at structures'] },
    },
    { name: 'June letter', date: '2031-06-10', words: ['section A, All at done'], met: [] },
  ]);
  expect(report.lookedFor).toEqual(['Stray (Ada Fenn), lost']);
  const markdown = reportMarkdown(report);
  for (const line of [
    '- May letter, 2031-05-10: 1 of 2 met',
    '  - open: Market placed',
    '- Stray (Ada Fenn), lost',
  ])
    expect(markdown).toContain(line);
  const nameless = reportSince(scene, scene, [], { ...options, names: false });
  expect(reportMarkdown(nameless)).not.toContain('Ada');
});

test('a report tells the wishes of followers, those that most have first, with what became of each', () => {
  const wish = (id: string, title: string, askedBy: number, state: string) => ({
    ...{ id, title, text: 'x', by: null, use: 'wish', askedBy, state },
  });
  const scene = sceneFrom({
    ...given,
    threads: [
      wish('cat', 'A cat', 7, 'resolved'),
      wish('lamp', 'A lamp', 38, 'accepted'),
      wish('ship', 'A ship', 12, 'accepted'),
      wish('fog', 'Real fog', 1, 'declined'),
      wish('rain', 'Rain', 2, 'open'),
      { id: 'ivy', title: 'Ivy', text: 'x', by: null },
    ],
    milestones: [
      { id: 'july', name: 'July letter', date: '2031-07-10', promises: [{ of: 'thread', thing: 'lamp' }] },
      {
        ...{ id: 'june', name: 'June letter', date: '2031-06-10' },
        // What is only promised and not accepted stays open.
        promises: [
          { of: 'thread', thing: 'lamp' },
          { of: 'thread', thing: 'rain' },
        ],
      },
    ],
  } as never);
  const options = { from: 0, fromAt: 0, upto: 0, at: 0, zone: '', missing: null, outlook: null, names: true };
  const report = reportSince(scene, scene, [], { ...options, section: null });
  // 38 + 12 + 7 + 2 + 1 = 60.
  expect(report.wishes).toEqual([
    '5 wishes of 60 followers: 1 granted, 1 promised, 1 accepted, 1 open, 1 declined',
    'A lamp: 38 followers, promised for June letter, 2031-06-10',
    'A ship: 12 followers, accepted',
    'A cat: 7 followers, granted',
    'Rain: 2 followers, open',
    'Real fog: 1 follower, declined',
  ]);
  expect(reportMarkdown(report)).toContain('## Wishes of followers\n\n5 wishes of 60 followers');
  expect(reportSince(scene, scene, [], { ...options, section: 's' }).wishes).toEqual([]);
});
