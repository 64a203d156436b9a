import fc from 'fast-check';
import { runs } from '../../test/runs.ts';
import {
  appearances,
  castCount,
  castSize,
  characterAt,
  copyAll,
  crewOf,
  isInHand,
  listOf,
  reduce,
  sceneFrom,
  vehicleOf,
  wantedAt,
  type Change,
  type Character,
  type Scene,
} from '../document/index.ts';
import { castScenes, castingOf, oneMoreOf, castingChanges } from './index.ts';

type Given = Parameters<typeof sceneFrom>[0];
const show = (given: Pick<Given, 'characters' | 'figures'>): Scene =>
  sceneFrom({ display: { name: 'Quay', kind: 'diorama' }, ...given });
const apply = (scene: Scene, changes: readonly Change[]): Scene => {
  const done = reduce(scene, changes);
  if (!done.ok) throw new Error(done.refusal.sentence);
  return done.scene;
};

/** Which units may take a spot, by the words of the rule and nothing of the search. */
function takers(scene: Scene, ready: readonly Character[], figure: string, k: number): string[] {
  const spot = scene.figure[figure].spots[k];
  const named = characterAt(scene, spot);
  const wanted = wantedAt(scene, spot);
  return ready
    .filter((one) => {
      const isNamed = named !== null && (named.id === one.id || vehicleOf(scene, named)?.id === one.id);
      const fits =
        one.form === wanted.form &&
        one.count === wanted.count &&
        (wanted.role === '' || one.role.toLowerCase() === wanted.role.toLowerCase());
      return isNamed || (fits && !(named && spot.isFixed));
    })
    .map(({ id }) => id);
}

/** The most scenes that can be played at once: every choice for every spot. */
function slowMost(scene: Scene, also?: Character): number {
  const ready = listOf(scene, 'character').filter(
    (one) => vehicleOf(scene, one) === null && (isInHand(scene, one) || one.id === also?.id),
  );
  const figures = castScenes(scene);
  const play = (i: number, k: number, used: ReadonlySet<string>): number => {
    if (i === figures.length) return 0;
    if (k === figures[i].spots.length) return 1 + play(i + 1, 0, used);
    let most = k === 0 ? play(i + 1, 0, used) : -1;
    for (const id of takers(scene, ready, figures[i].id, k))
      if (!used.has(id)) most = Math.max(most, play(i, k + 1, new Set([...used, id])));
    return most;
  };
  return Math.max(0, play(0, 0, new Set()));
}

const role = fc.constantFrom('', 'mason', 'baker');
const ids = ['a', 'b', 'c', 'd', 'e', 'f'] as const;
const characters = fc.array(
  fc.record({
    role,
    form: fc.constantFrom('figure', 'figure', 'figure', 'vehicle'),
    state: fc.constantFrom('ready', 'ready', 'lost', 'wanted'),
    count: fc.constantFrom(1, 1, 1, 4),
    crewOf: fc.constantFrom(null, null, 0, 1, 2),
  }),
  { minLength: 1, maxLength: 6 },
);
const spots = fc.array(
  fc.record({
    character: fc.constantFrom(null, null, ...ids),
    role,
    form: fc.constantFrom('figure', 'figure', 'vehicle'),
    isFixed: fc.boolean(),
  }),
  { minLength: 1, maxLength: 3 },
);
const casts = fc.tuple(characters, fc.array(spots, { minLength: 1, maxLength: 4 })).map(([people, scenes]) =>
  show({
    characters: people.map(({ crewOf: vehicle, ...one }, i) => ({
      ...{ id: ids[i], name: ids[i].toUpperCase(), ...one },
      crewOf: vehicle !== null && vehicle < people.length ? ids[vehicle] : null,
    })),
    figures: scenes.map((each, i) => ({ id: `s${i}`, name: `Scene ${i}`, x: i, y: 0, spots: each })),
  }),
);

test('as many small scenes are made as any casting makes; nobody plays twice, and all who play may', () => {
  fc.assert(
    fc.property(casts, (scene) => {
      const { scenes, made, bound, spare } = castingOf(scene);
      expect(made).toBe(slowMost(scene));
      expect(bound).toBe(made);
      expect(scenes.filter(({ isMade }) => isMade)).toHaveLength(made);
      const ready = listOf(scene, 'character').filter(
        (one) => vehicleOf(scene, one) === null && isInHand(scene, one),
      );
      const units: string[] = [];
      for (const { id, isMade, spots: each } of scenes)
        for (const [k, { played }] of each.entries()) {
          expect(played !== null || !isMade).toBe(true);
          if (!played) continue;
          const unit = vehicleOf(scene, played)?.id ?? played.id;
          expect(takers(scene, ready, id, k)).toContain(unit);
          units.push(unit);
        }
      expect(new Set(units).size).toBe(units.length);
      const playing = scenes
        .filter(({ isMade }) => isMade)
        .flatMap(({ spots: each }) => each)
        .flatMap(({ played }) => (played ? [vehicleOf(scene, played)?.id ?? played.id] : []));
      const free = ready.filter(({ id }) => !playing.includes(id)).map(({ id }) => id);
      expect(spare.map(({ id }) => id).sort()).toEqual(free.sort());
    }),
    { numRuns: runs(400) },
  );
});

test('a character that is told to make one more possible does, and no other does', () => {
  fc.assert(
    fc.property(casts, (scene) => {
      const now = slowMost(scene);
      const told = new Map(
        oneMoreOf(scene).flatMap((one) => (one.character ? [[one.character.id, one]] : [])),
      );
      for (const one of listOf(scene, 'character')) {
        if (vehicleOf(scene, one) !== null || isInHand(scene, one)) continue;
        const most = slowMost(scene, one);
        expect(most - now).toBeLessThanOrEqual(1);
        expect(told.has(one.id)).toBe(most > now);
      }
    }),
    { numRuns: runs(300) },
  );
});

test('a casting that is used names its players, and makes as many scenes without a stand-in', () => {
  fc.assert(
    fc.property(casts, (scene) => {
      const before = castingOf(scene);
      let after = scene;
      for (const { id, isMade } of before.scenes)
        if (isMade) after = apply(after, castingChanges(after, before, id));
      const then = castingOf(after);
      expect(then.made).toBe(before.made);
      for (const { id, isMade } of before.scenes)
        for (const spot of isMade ? after.figure[id].spots : [])
          expect(characterAt(after, spot)).not.toBeNull();
      // Nobody who was set down by it stands twice.
      const stands = appearances(after);
      const made = new Set(before.scenes.filter(({ isMade }) => isMade).map(({ id }) => id));
      for (const all of stands.values())
        expect(all.filter(({ figure }) => made.has(figure.id)).length).toBeLessThanOrEqual(1);
    }),
    { numRuns: runs(300) },
  );
});

const wagon = () =>
  show({
    characters: [
      { id: 'wagon', name: 'Wagon', form: 'vehicle' },
      { id: 'ned', name: 'Ned', role: 'carter', crewOf: 'wagon' },
      { id: 'ann', name: 'Ann', role: 'carter', crewOf: 'wagon' },
      { id: 'queue', name: 'Queue', count: 12 },
      { id: 'cat', name: 'Cat', form: 'animal' },
    ],
    figures: [
      {
        id: 'lane',
        name: 'Lane',
        x: 10,
        y: 10,
        spots: [{ character: 'wagon' }, { character: 'queue', dx: 6 }],
      },
      { id: 'yard', name: 'Yard', x: 40, y: 10, cast: 3, spots: [{ form: 'animal' }, { role: 'carter' }] },
      { id: 'quay', name: 'Quay', x: 60, y: 10, cast: 3 },
    ],
  });

test('the cast of a scene is that of its spots: groups as many as they are, vehicles with their crew', () => {
  const scene = wagon();
  // Two carters on the wagon and a queue of twelve; by hand.
  expect(castCount(scene, scene.figure.lane)).toEqual({ figure: 14, animal: 0, vehicle: 1 });
  expect(castCount(scene, scene.figure.yard)).toEqual({ figure: 1, animal: 1, vehicle: 0 });
  expect(castSize(scene, scene.figure.quay)).toBe(3);
  expect(crewOf(scene, 'wagon').map(({ id }) => id)).toEqual(['ann', 'ned']);
});

test('who rides in a vehicle plays nowhere else, and a vehicle is not there without its crew', () => {
  const scene = wagon();
  // Both carters ride: nobody is left for the yard.
  expect(castingOf(scene)).toMatchObject({ made: 1, bound: 1 });
  expect(oneMoreOf(scene)).toEqual([{ character: null, form: 'figure', role: 'carter', makes: ['Yard'] }]);
  const off = apply(scene, [{ op: 'patch', kind: 'character', id: 'ned', v: 1, set: { crewOf: null } }]);
  expect(castingOf(off).made).toBe(2);
  const lost = apply(scene, [{ op: 'patch', kind: 'character', id: 'ann', v: 1, set: { state: 'lost' } }]);
  expect(castingOf(lost).made).toBe(0);
  expect(castingOf(lost).spare.map(({ id }) => id)).toEqual(['cat', 'queue']);
});

test('a spot that names nobody there is, whatever it names, is open', () => {
  const scene = show({
    characters: [{ id: 'cat', name: 'Cat', form: 'animal' }],
    figures: [
      { id: 's', name: 'S', x: 0, y: 0, spots: [{ character: 'constructor' }, { character: 'gone' }] },
    ],
  });
  expect(castCount(scene, scene.figure.s)).toEqual({ figure: 2, animal: 0, vehicle: 0 });
  expect(castingOf(scene)).toMatchObject({
    made: 0,
    scenes: [{ spots: [{ named: null }, { named: null }] }],
  });
});

test('a copy of a small scene asks for the same roles and names nobody', () => {
  const scene = wagon();
  const { changes } = copyAll(scene, [{ kind: 'figure', id: 'lane' }], { dx: 0, dy: 10 }, () => 'copy');
  const copied = apply(scene, changes);
  expect(copied.figure.copy.spots).toMatchObject([
    { character: null, form: 'vehicle' },
    { character: null, form: 'figure', dx: 6 },
  ]);
});

test('a hundred small scenes with four hundred characters are cast, with a bound', () => {
  const scene = show({
    characters: Array.from({ length: 400 }, (_, i) => ({
      ...{ id: `c${i}`, name: `C ${i}`, role: ['mason', 'baker', 'clerk', ''][i % 4] },
      state: i % 5 === 0 ? ('lost' as const) : ('ready' as const),
    })),
    figures: Array.from({ length: 100 }, (_, i) => ({
      ...{ id: `s${i}`, name: `S ${i}`, x: 0, y: 0 },
      spots: Array.from({ length: 1 + (i % 8) }, (_unused, k) => ({
        role: ['mason', 'baker', 'clerk', ''][(i + k) % 4],
        character: k === 0 ? `c${i * 4}` : null,
      })),
    })),
  });
  const { made, bound, scenes } = castingOf(scene);
  expect(made).toBeGreaterThan(50);
  expect(bound).toBeGreaterThanOrEqual(made);
  expect(scenes).toHaveLength(100);
});
