import loadHighs, { type Highs } from 'highs';
import fc from 'fast-check';
import { listOf, sceneFrom, type Scene } from '../document/index.ts';
import { CountCache } from '../masonry/index.ts';
import {
  compile,
  compileRelief,
  listedMass,
  loadsOf,
  loosePieces,
  type ListedMass,
  tipsOfPlot,
  weightOf,
} from '../terrain/index.ts';
import {
  ForceList,
  balance,
  judge,
  judgeCarried,
  judgedThings,
  jointsOf,
  leanCard,
  overhangCards,
  mendsOf,
  piecesOfDeck,
  piecesOfModule,
  type Assembly,
  type PieceGroup,
  type StandingPiece,
} from './index.ts';
import { randomDisplays } from '../../test/randomDisplays.ts';
import { runs } from '../../test/runs.ts';

let highs: Highs;
beforeAll(async () => {
  highs = await loadHighs();
});

/** A semicircular arch of wedges without any hold: mean radius 1, its thickness a share of it. */
function archOf(wedges: number, thickness: number): Assembly {
  const [inner, outer] = [1000 * (1 - thickness / 2), 1000 * (1 + thickness / 2)];
  const forces = new ForceList();
  const [centre, load]: [number[], number[]] = [[], []];
  const half = Math.PI / wedges / 2;
  for (let i = 0; i < wedges; i++) {
    const angle = (Math.PI * (i + 0.5)) / wedges;
    // Centroid of a ring's sector.
    const far = ((2 / 3) * Math.sin(half) * (outer ** 3 - inner ** 3)) / (half * (outer ** 2 - inner ** 2));
    centre.push(far * Math.cos(angle), 0, far * Math.sin(angle));
    load.push(0, 0, -1, 0, 0, 0);
  }
  for (let j = 0; j <= wedges; j++) {
    const angle = (Math.PI * j) / wedges;
    const [cos, sin] = [Math.cos(angle), Math.sin(angle)];
    for (const radius of [inner, outer])
      for (const y of [-50, 50])
        // Rough joints: a friction of 3.
        for (const rough of [-3, 3])
          forces.add(
            j,
            [j < wedges ? j : -1, j - 1],
            [radius * cos, y, radius * sin],
            [-sin + rough * cos, 0, cos + rough * sin],
          );
  }
  return {
    ...{ centre: Float64Array.from(centre), load: Float64Array.from(load) },
    ...{ joints: wedges + 1, forces: forces.done() },
  };
}

const piece = (
  [x, y, z]: readonly [number, number, number],
  [w, d, h]: readonly [number, number, number],
  grams: number,
  studded = true,
): StandingPiece => ({ x, y, z, w, d, h, grams, studded, part: `brick-${Math.min(w, d)}x${Math.max(w, d)}` });
const group = (pieces: StandingPiece[], more: Partial<PieceGroup> = {}): PieceGroup => ({
  ...{ pieces, loads: [], floor: 0, sockets: [] },
  ...more,
});
const HOLD = 100;
const judged = (of: PieceGroup, hold = HOLD) => {
  const standing = judge(of, { highs, hold });
  if (!standing) throw new Error('it was ended');
  return standing;
};

describe('equilibrium against known limits', () => {
  test('a semicircular arch stands from a thickness of 0.1075 of its radius on (Milankovitch 1907, Heyman 1969)', () => {
    const stands = [0.1, 0.107, 0.108, 0.12].map(
      (thickness) => balance(highs, archOf(40, thickness))?.stands,
    );
    expect(stands).toEqual([false, false, true, true]);
  });

  // Each block of 24 studs may stand out by 24 / 2n over the n-th from the top (Paris 1855, from memory).
  test.each([
    [[12, 6, 4, 3], true],
    [[12, 6, 4, 4], false],
    [[12, 7, 4, 3], false],
    [[13, 6, 4, 3], false],
  ])('a dry corbel that stands out by %j studs, from the top: stands %s', (out, stands) => {
    const blocks: StandingPiece[] = [];
    let x = 0;
    [...out, 0].toReversed().forEach((by, level) => {
      x += by;
      blocks.push(piece([x, 0, 3 * level], [24, 2, 3], 10, false));
    });
    const { used, bound, loose } = judged(group(blocks));
    expect({ stands: used === 0, proven: bound === used, loose }).toEqual({
      stands,
      proven: true,
      loose: [],
    });
  });

  test('a cantilever needs its moment over the edge against the pull of its studs: n/2 − m by n over m²/2 holds', () => {
    // 16 × 2 studs of 1 g a stud on 4 studs: 32 g at 8 − 4 studs, against 8 studs of 100 g at 2 studs.
    const beam = group([piece([0, 0, 0], [4, 2, 3], 4), piece([0, 0, 3], [16, 2, 1], 32)]);
    const { used, bound, weakest } = judged(beam);
    expect(used).toBeCloseTo((32 * 4) / (8 * HOLD * 2), 6);
    expect(bound).toBeCloseTo(used, 6);
    expect(weakest).toMatchObject([{ x: 0, y: 0, w: 4, d: 2, z: 3, studs: 8 }]);
    // With a hold of 5 g a stud it would need 128 of 80; the least mass tried that makes up for 48 at 3.5 studs is 20 g.
    const mends = mendsOf(beam, judged(beam, 5), { highs, hold: 5 });
    expect(mends).toContainEqual({
      ...{ kind: 'mass', grams: 20, at: { x: 0.5, y: 1.5, z: 4 } },
      used: expect.closeTo((128 - 20 * 3.5) / 80, 6),
    });
    // 350 g on its end: 350 × 11.5 more.
    const loaded = judged({ ...beam, loads: [{ x: 15.5, y: 1, z: 4, grams: 350 }] });
    expect(loaded.used).toBeCloseTo((32 * 4 + 350 * 11.5) / 1600, 6);
  });

  test('what hangs under a plate pulls on its studs', () => {
    const pieces = [
      piece([0, 0, 0], [2, 2, 3], 3),
      piece([6, 0, 0], [2, 2, 3], 3),
      piece([0, 0, 3], [8, 2, 1], 4),
      piece([3, 0, 2], [2, 2, 1], 40),
    ];
    expect(judged(group(pieces)).used).toBeCloseTo(40 / (4 * HOLD), 6);
    // On a smooth top nothing hangs.
    pieces[3] = { ...pieces[3], studded: false };
    expect(judged(group(pieces)).used).toBe(Infinity);
  });

  test('two plates over a gap that meet in its middle fall; one more across them holds', () => {
    const halves = [
      piece([0, 0, 0], [4, 4, 3], 5),
      piece([16, 0, 0], [4, 4, 3], 5),
      piece([0, 0, 3], [10, 4, 1], 400),
      piece([10, 0, 3], [10, 4, 1], 400),
    ];
    const apart = judged(group(halves));
    // 400 g at 1 stud over the edge of 16 studs at 2: more than nothing, less than all.
    expect(apart.used).toBeCloseTo(400 / (16 * HOLD * 2), 6);
    const weak = judged(group(halves), 10);
    expect(weak.bound).toBeCloseTo(400 / (16 * 10 * 2), 6);
    const mends = mendsOf(group(halves), weak, { highs, hold: 10 });
    expect(mends.map(({ kind }) => kind).toSorted()).toEqual(['pillars', 'tie']);
    for (const { used } of mends) expect(used).toBeLessThanOrEqual(1);
  });

  test('a viaduct stands by its arches, whose steps reach out stud by stud, with hold to spare', () => {
    const scene = sceneFrom({
      display: { name: 'Test', kind: 'diorama', method: 'solid' },
      levels: [{ id: 'low', name: 'Low', height: 0 }],
      footprint: [{ id: 'f', name: 'All', x: 0, y: 0, w: 48, d: 8 }],
      modules: [{ id: 'm', name: 'A1', x: 0, y: 0, w: 48, d: 8, bases: [] }],
      decks: [
        {
          ...{ id: 'd', name: 'Viaduct', x: 3, y: 2, w: 42, d: 4, level: 'low', offset: 42, thick: 2 },
          ...{ support: 'arches', spacing: 20, pillar: 2 },
        },
      ],
    });
    const pieces = piecesOfModule(scene, compile(scene), 'm');
    if (!pieces) throw new Error('no module');
    const { used, loose } = judged(pieces, 100);
    expect(loose).toEqual([]);
    expect(used).toBeLessThan(0.5);
  });
  test('a piece that nothing ties to the base falls, and a pillar is offered for it', () => {
    const falling = group([
      piece([0, 0, 0], [2, 2, 3], 3),
      piece([2, 0, 3], [2, 2, 1], 1),
      piece([2, 0, 0], [2, 2, 1], 1),
    ]);
    const standing = judged(falling);
    expect(standing).toMatchObject({ used: Infinity, bound: Infinity, loose: [1] });
    expect(mendsOf(falling, standing, { highs, hold: HOLD })).toContainEqual(
      expect.objectContaining({ kind: 'pillars', spots: [{ x: 2, y: 0, w: 2, d: 2, from: 1, to: 3 }] }),
    );
  });
});

/** All bodies and all joints in one program, with pushes at every stud's corners and a pull at every stud. */
function wholeProgram({ pieces, floor }: PieceGroup, hold: number): number {
  const centre = pieces.flatMap(({ x, y, z, w, d, h }) => [
    8 * (x + w / 2),
    8 * (y + d / 2),
    3.2 * (z + h / 2),
  ]);
  const load = pieces.flatMap(({ grams }) => [0, 0, -grams, 0, 0, 0]);
  const forces = new ForceList();
  let joint = 0;
  const stud = (upper: number, lower: number, x: number, y: number, z: number, pulls: boolean) => {
    for (const fx of [0, 1])
      for (const fy of [0, 1]) {
        forces.add(joint, [upper, lower], [8 * (x + fx), 8 * (y + fy), 3.2 * z], [0, 0, 1]);
      }
    if (pulls) forces.add(joint, [upper, lower], [8 * (x + 0.5), 8 * (y + 0.5), 3.2 * z], [0, 0, -1], hold);
    joint++;
  };
  pieces.forEach((upper, i) => {
    for (let y = upper.y; y < upper.y + upper.d; y++)
      for (let x = upper.x; x < upper.x + upper.w; x++) {
        if (upper.z <= floor) stud(i, -1, x, y, upper.z, true);
        pieces.forEach((lower, j) => {
          const isUnder = x >= lower.x && x < lower.x + lower.w && y >= lower.y && y < lower.y + lower.d;
          if (isUnder && lower.z + lower.h === upper.z) stud(i, j, x, y, upper.z, lower.studded);
        });
      }
  });
  const answer = balance(highs, {
    ...{ centre: Float64Array.from(centre), load: Float64Array.from(load) },
    ...{ joints: joint, forces: forces.done() },
  });
  return answer?.used ?? NaN;
}

/** Piles of plates that do not lie in one another, each on what is highest under it or hung beside. */
const piles = fc
  .array(
    fc.record({
      x: fc.integer({ min: 0, max: 9 }),
      y: fc.integer({ min: 0, max: 3 }),
      w: fc.integer({ min: 1, max: 8 }),
      d: fc.integer({ min: 1, max: 3 }),
      grams: fc.integer({ min: 1, max: 60 }),
    }),
    { minLength: 2, maxLength: 14 },
  )
  .map((list) => {
    const top = new Map<string, number>();
    return list.map(({ x, y, w, d, grams }) => {
      const keys = Array.from({ length: w * d }, (_, k) => `${x + (k % w)} ${y + Math.trunc(k / w)}`);
      const z = Math.max(...keys.map((key) => top.get(key) ?? 0));
      for (const key of keys) top.set(key, z + 1);
      return piece([x, y, z], [w, d, 1], grams);
    });
  });

test('random piles: what is found holds by the whole program too, and is not better than it', () => {
  fc.assert(
    fc.property(piles, (pieces) => {
      const all = group(pieces);
      const { used, bound } = judged(all, 20);
      const least = wholeProgram(all, 20);
      expect(least).toBeLessThanOrEqual(used + 1e-4);
      // Shares below a thousandth are told as none.
      if (Number.isFinite(least)) expect(bound).toBeLessThanOrEqual(least + 1e-4);
      expect(bound > 1 + 1e-6).toBe(least > 1 + 1e-6);
      expect(used < 1e-3).toBe(least < 1e-3);
      expect(used > 1 + 1e-6).toBe(least > 1 + 1e-6);
    }),
    { numRuns: runs(200) },
  );
});

describe('buildings that lean', () => {
  const tower = (more: object) => {
    const scene = sceneFrom({
      display: { name: 'Test', kind: 'diorama' },
      levels: [{ id: 'low', name: 'Low', height: 0 }],
      footprint: [{ id: 'f', name: 'All', x: 0, y: 0, w: 64, d: 64 }],
      plots: [{ id: 'a', name: 'Tower', x: 20, y: 20, w: 16, d: 8, height: 100, ...more }],
    });
    return scene.plot.a;
  };
  test('tips about the edge it leans to: what is left of half its foot over the height of its centre', () => {
    // A centre 50 plates up is 20 studs up; at 10° it is 20 tan 10° = 3.527 studs off the middle.
    const off = 20 * Math.tan((10 * Math.PI) / 180);
    const foot = { x: 20, y: 20, w: 16, d: 8 };
    const tips = (half: number) => (Math.atan(half / 20) * 180) / Math.PI;
    // To the west half of 16 studs is left, but half of 8 to north and south.
    expect(tipsOfPlot(tower({ lean: 10, leanTo: 270 }), foot, { x: 0, y: 0, z: 50 })).toBeCloseTo(
      Math.min(tips(8 - off), tips(4)),
      9,
    );
    expect(tipsOfPlot(tower({ lean: 10, leanTo: 0 }), foot, { x: 0, y: 0, z: 50 })).toBeCloseTo(
      tips(4 - off),
      9,
    );
    // Turned by a quarter its long side lies along the lean.
    expect(tipsOfPlot(tower({ lean: 10, leanTo: 0, turn: 90 }), foot, { x: 0, y: 0, z: 50 })).toBeCloseTo(
      Math.min(tips(8 - off), tips(4)),
      9,
    );
  });
  test('its foot holds it by the pull of its studs at half their length; loose it needs what nothing gives', () => {
    const weight = { grams: 500, x: 0, y: 0, z: 50 };
    const off = 20 * Math.tan((15 * Math.PI) / 180);
    const card = leanCard(tower({ lean: 15, leanTo: 180 }), weight, 100);
    // 5.36 studs off the middle of 8: 500 g at 1.36 studs against 128 studs of 100 g at 4.
    expect(card?.share).toBeCloseTo((500 * (off - 4)) / (128 * 100 * 4), 9);
    // 100 plates are 40 studs upright.
    expect(card?.length).toBeCloseTo(40 / Math.cos((15 * Math.PI) / 180), 9);
    expect(card).toMatchObject({ ties: 0, wanted: 4 });
    expect(leanCard(tower({ lean: 15, leanTo: 180, mount: 'loose' }), weight, 100)?.share).toBe(Infinity);
    expect(leanCard(tower({ lean: 15, tieEvery: 8 }), weight, 100)).toMatchObject({ ties: 5, wanted: 4 });
    expect(leanCard(tower({}), weight, 100)).toBeNull();
  });
  test('its mass is where it leans to: the module under it has its centre there', () => {
    const scene = (lean: number) =>
      sceneFrom({
        display: { name: 'Test', kind: 'diorama' },
        levels: [{ id: 'low', name: 'Low', height: 0 }],
        footprint: [{ id: 'f', name: 'All', x: 0, y: 0, w: 64, d: 64 }],
        plots: [{ id: 'a', name: 'Tower', x: 20, y: 20, w: 16, d: 16, height: 60, lean, leanTo: 90 }],
      });
    const momentOf = (of: ReturnType<typeof scene>) => {
      const relief = compileRelief(of);
      const { grams } = loadsOf(of, relief).fixed;
      const sum = grams.reduce((total, one) => total + one, 0);
      return { sum, x: grams.reduce((total, one, i) => total + one * ((i % relief.w) + 0.5), 0) / sum };
    };
    const [upright, leaning] = [momentOf(scene(0)), momentOf(scene(5))];
    expect(upright.x).toBeCloseTo(28, 4);
    expect(leaning.sum).toBeCloseTo(upright.sum, 2);
    const { z } = weightOf(scene(5).plot.a, listedMass(scene(5)));
    expect(leaning.x - 28).toBeCloseTo(z * 0.4 * Math.tan((5 * Math.PI) / 180), 4);
  });
  test('it stands over what it leans to, from the height at which it does, and is carried as wide as it is', () => {
    const scene = sceneFrom({
      display: { name: 'Test', kind: 'diorama' },
      levels: [{ id: 'low', name: 'Low', height: 0 }],
      footprint: [{ id: 'f', name: 'All', x: 0, y: 0, w: 64, d: 64 }],
      plots: [
        {
          id: 'a',
          name: 'Tower',
          x: 20,
          y: 20,
          w: 8,
          d: 8,
          height: 100,
          lean: 30,
          leanTo: 90,
          mount: 'loose',
        },
      ],
    });
    // Its top is 40 tan 30° = 23.1 studs east of its foot: from 43.1 to 51.1.
    const { top, w } = compileRelief(scene);
    const topAt = (x: number) => top[24 * w + x];
    expect([topAt(19), topAt(50), topAt(52)]).toEqual([0, 100, 0]);
    // Over stud 30 its roof's east wall is when it is 2 studs out: what lies lower is no more than a slice off.
    expect(topAt(24)).toBeLessThan(60);
    const [piece] = loosePieces(scene.plot.a, listedMass(scene));
    expect(piece.w).toBeCloseTo(8 * 8 - 0.2 + 8 * 40 * Math.tan(Math.PI / 6), 6);
  });
});

describe('what stands out over walls', () => {
  // An 8 × 8 hall of walls one stud thick, 60 plates high with one floor; from 30 plates up it stands out 4 studs to the east.
  const hall = (more: object = {}) =>
    sceneFrom({
      display: { name: 'Test', kind: 'diorama' },
      levels: [{ id: 'low', name: 'Low', height: 0 }],
      footprint: [{ id: 'f', name: 'All', x: 0, y: 0, w: 64, d: 64 }],
      plots: [
        {
          ...{ id: 'a', name: 'Hall', x: 20, y: 20, w: 8, d: 8, height: 60 },
          ...{ overhang: { e: 4 }, overhangFrom: 30, ...more },
        },
      ],
    });
  const G = 2.3 / 24;
  const none: ListedMass = { plots: new Map(), sections: new Map() };

  test('its mass, its centre and its size as carried are with it', () => {
    const { a } = hall({ mount: 'loose' }).plot;
    // Outside: a wall of 8 studs 30 plates high and two plates of 3 × 8. Without: 28 × 60 + 36 + 64 stud-plates.
    const [own, out] = [28 * 60 + 36 + 64, 8 * 30 + 2 * 24];
    const weight = weightOf(a, none);
    expect(weight.grams).toBeCloseTo((own + out) * G, 9);
    // From the hall's middle the outer wall is 7.5 studs, the plates between 5.5.
    expect(weight.x).toBeCloseTo((240 * 7.5 + 48 * 5.5) / (own + out), 9);
    expect(weight.y).toBeCloseTo(0, 9);
    const [piece] = loosePieces(a, none);
    expect([piece.w, piece.d]).toEqual([12 * 8 - 0.2, 8 * 8 - 0.2]);
    expect(piece.centre.x).toBeCloseTo(8 * (4 + weight.x) - 0.1, 9);
    // It tips to the east, about the wall under what stands out.
    expect(piece.tips).toBeCloseTo((Math.atan((8 * (4 - weight.x)) / (3.2 * weight.z)) * 180) / Math.PI, 9);
    // Turned by a quarter its middle lies south of the hall's, for the module too.
    const turned = hall({ turn: 90 });
    const relief = compileRelief(turned);
    const { grams } = loadsOf(turned, relief).fixed;
    const sum = grams.reduce((total, one) => total + one, 0);
    const y = grams.reduce((total, one, i) => total + one * (Math.trunc(i / relief.w) + 0.5), 0) / sum;
    expect(y - 24).toBeCloseTo(weight.x, 4);
  });
  test('a wing is held by the studs of its wall and the wall over them', () => {
    const { a } = hall().plot;
    const [card] = overhangCards(a, none, 20);
    const [out, above] = [(8 * 30 + 48) * G, 8 * 30 * G];
    const lever = (240 * 3.5 + 48 * 1.5) / 288;
    expect(card).toMatchObject({ side: 'e', most: 4 });
    expect([card.grams, card.lever]).toEqual([expect.closeTo(out, 9), expect.closeTo(lever, 9)]);
    // 8 studs of 20 g at half a stud against what the wall over them does not hold already.
    expect(card.share).toBeCloseTo((out * lever - above * 0.5) / (20 * 8 * 0.5), 9);
    // It holds as far as is offered, and half a stud more does not.
    const heavy = hall({ overhang: { e: 30 } }).plot.a;
    const [{ share, most }] = overhangCards(heavy, none, 20);
    expect(share).toBeGreaterThan(1);
    const shareAt = (e: number) => overhangCards(hall({ overhang: { e } }).plot.a, none, 20)[0].share;
    expect(shareAt(most)).toBeLessThanOrEqual(1);
    expect(shareAt(most + 0.5)).toBeGreaterThan(1);
    // A list of twice the mass needs twice as much.
    const listed: ListedMass = { ...none, plots: new Map([['a', 2 * weightOf(a, none).grams]]) };
    expect(overhangCards(a, listed, 20)[0].share).toBeCloseTo(2 * card.share, 9);
    // From its ground up it stands on that.
    expect(overhangCards(hall({ overhangFrom: 0 }).plot.a, none, 20)).toEqual([]);
  });
});

describe('decks that lift off', () => {
  // Two walls 8 studs apart carry a deck of 8 × 6; it stands out to the east of them by what is over 8.
  const yard = (w: number, plots: NonNullable<Parameters<typeof sceneFrom>[0]['plots']> = []) =>
    sceneFrom({
      display: { name: 'Test', kind: 'diorama' },
      levels: [
        { id: 'low', name: 'Low', height: 0 },
        { id: 'high', name: 'High', height: 15 },
      ],
      footprint: [{ id: 'f', name: 'All', x: 0, y: 0, w: 64, d: 64 }],
      pads: [{ id: 'p', name: 'Ground', x: 0, y: 0, w: 64, d: 64, level: 'low', ground: 'grass' }],
      decks: [
        {
          ...{ id: 'd', name: 'Yard', x: 20, y: 20, w, d: 6, level: 'high', thick: 2 },
          ...{ support: 'walls', spacing: 8, loose: true },
        },
      ],
      plots,
    });
  const judged = (scene: Scene) => {
    const standing = judgeCarried(scene, compile(scene), { kind: 'deck', id: 'd' }, { highs });
    if (!standing) throw new Error('it was ended');
    return standing;
  };
  test('is judged by its own pieces, and rests on its feet', () => {
    const scene = yard(16);
    expect(judgedThings(scene)).toEqual([{ kind: 'deck', id: 'd' }]);
    const counted = new CountCache()
      .count(scene, compile(scene))
      ?.blocks.filter(({ block }) => block.part?.loose);
    const qty = counted?.flatMap(({ lines }) => lines).reduce((sum, line) => sum + line.qty, 0);
    const { pieces, used, loose, name } = judged(scene);
    expect({ pieces, used, loose, name }).toEqual({ pieces: qty, used: 0, loose: 0, name: 'Yard' });
    // Nothing of its kind where it does not lift off.
    const fixed = { ...scene, deck: { d: { ...scene.deck.d, loose: false } } };
    expect(judgedThings(fixed)).toEqual([]);
    expect(piecesOfDeck(fixed, compile(fixed), 'd')).toBeNull();
  });
  test('what stands on its feet tips when its mass is beyond them, whatever the studs hold', () => {
    // A deck of 4 studs on one foot of 2 in its middle, and a weight at one end: nothing holds the foot down.
    const of = (grams: number, isLoose: boolean) =>
      judge(
        group([piece([1, 0, 0], [2, 2, 3], 2), piece([0, 0, 3], [4, 2, 1], 4)], {
          ...{ isLoose, loads: [{ x: 3.5, y: 1, z: 4, grams }] },
        }),
        { highs, hold: 1000 },
      )?.bound;
    // About the foot's east edge at 3: 4 g at 1 stud and 2 g at 1 stud against the weight at half a stud.
    expect(of(11.9, true)).toBeLessThanOrEqual(1);
    expect(of(12.1, true)).toBe(Infinity);
    expect(of(12.1, false)).toBeLessThan(1);
  });
  test('a building on it presses on it', () => {
    const hut = { id: 'h', name: 'Hut', x: 22, y: 21, w: 4, d: 4, height: 12, onDeck: 'd' };
    const scene = yard(16, [hut]);
    const group = piecesOfDeck(scene, compile(scene), 'd');
    const sum = group?.loads.reduce((total, { grams }) => total + grams, 0);
    expect(sum).toBeCloseTo(weightOf(scene.plot.h, listedMass(scene)).grams, 6);
  });
});

test('random displays: each module is judged by exactly the pieces that are counted for it, and a hold without end holds what hangs together', () => {
  fc.assert(
    fc.property(randomDisplays, (scene) => {
      const compiled = compile(scene);
      const count = new CountCache().count(scene, compiled);
      for (const { id } of listOf(scene, 'module')) {
        const own = piecesOfModule(scene, compiled, id);
        const counted = count?.blocks.filter(
          ({ block }) => block.id === id || (block.part?.module === id && !block.part.loose),
        );
        const lines =
          counted?.flatMap((each) => each.lines.filter(({ purpose }) => purpose !== 'accent')) ?? [];
        expect(own?.pieces.length).toBe(lines.reduce((sum, { qty }) => sum + qty, 0));
        const standing = own && judge(own, { highs, hold: 1e9 });
        if (!standing) throw new Error('it was ended');
        expect([standing.used, standing.bound].some(Number.isNaN)).toBe(false);
        // Every joint with studs holds then: only what no chain of them ties can fall.
        const tied = standing.loose.length === 0 && own.pieces.every(({ studded }) => studded);
        if (tied) expect(standing.used).toBeLessThan(1);
      }
    }),
    { numRuns: runs(25) },
  );
});

test('joints are the areas on which pieces lie on each other', () => {
  const joints = jointsOf(
    group([
      piece([0, 0, 0], [2, 4, 3], 1),
      piece([2, 0, 0], [2, 4, 3], 1, false),
      piece([1, 1, 3], [4, 2, 1], 1),
    ]),
  );
  expect(joints.filter(({ upper }) => upper === 2)).toEqual([
    { upper: 2, lower: 0, x: 1, y: 1, w: 1, d: 2, z: 3, studs: 2 },
    { upper: 2, lower: 1, x: 2, y: 1, w: 2, d: 2, z: 3, studs: 0 },
  ]);
});
