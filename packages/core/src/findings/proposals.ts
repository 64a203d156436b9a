import { MM_PER_STUD, boundsOf, countOf, type Rect } from '../grid/index.ts';
import {
  displayOf,
  isStandingKind,
  keyOf,
  labelOf,
  moveAll,
  resizeDisplay,
  standFieldsFor,
  type Entity,
} from '../document/index.ts';
import { PIER, footprintBounds } from '../terrain/index.ts';
import { currentContents } from '../venue/index.ts';
import { CARRY_FIXES } from './carryFixes.ts';
import { CAST_FIXES } from './castFixes.ts';
import { DRESS_FIXES } from './dressFixes.ts';
import { takenBounds } from './places.ts';
import { PLOT_FIXES } from './plotFixes.ts';
import { WALL_FIXES } from './wallFixes.ts';
import { SIGNBOARD_FIXES } from './signboards.ts';
import { POWER_FIXES } from './powerFixes.ts';
import { COMPASS, apart, patch, namedThing, type FixesOf, type Fix, moveFixes } from './fix.ts';

// Remedies that a computation can propose, by rule. They are tried in fixes.ts before they are offered.

/** Proposed fixes by rule, in the order in which they are tried. */
export const PROPOSED: Readonly<Record<string, FixesOf>> = {
  ...POWER_FIXES,
  ...CARRY_FIXES,
  ...CAST_FIXES,
  ...DRESS_FIXES,
  ...WALL_FIXES,
  ...PLOT_FIXES,
  ...SIGNBOARD_FIXES,
  'scene-unseen': (scene, finding) => {
    const figure = namedThing(scene, finding, 'figure');
    return figure ? moveFixes(scene, { kind: 'figure', id: figure.id }, [8, 16]) : [];
  },
  'footprint-limit': (scene) => {
    const { limitW, limitD } = displayOf(scene);
    if (limitW === null || limitD === null) return [];
    return [
      [limitW, limitD],
      [limitD, limitW],
    ].map(([w, d]) => ({
      words: `Fit the display to the card: ${w} × ${d} studs`,
      changes: resizeDisplay(scene, w, d).changes,
    }));
  },
  'outside-footprint': (scene, { things: [ref] }) => {
    const whole = footprintBounds(scene);
    const box = ref && takenBounds(scene, ref.kind, ref.id);
    if (!whole || !box) return [];
    const into = (at: number, size: number, from: number, length: number) =>
      at < from
        ? Math.ceil(from - at)
        : at + size > from + length
          ? -Math.ceil(at + size - from - length)
          : 0;
    const [dx, dy] = [into(box.x, box.w, whole.x, whole.w), into(box.y, box.d, whole.y, whole.d)];
    const ways = [
      ...(dx === 0 ? [] : [`${countOf(Math.abs(dx), 'stud')} ${dx > 0 ? 'east' : 'west'}`]),
      ...(dy === 0 ? [] : [`${countOf(Math.abs(dy), 'stud')} ${dy > 0 ? 'south' : 'north'}`]),
    ];
    return ways.length === 0
      ? []
      : [
          {
            words: `Move ${labelOf(scene, ref.kind, ref.id)} ${ways.join(' and ')}`,
            changes: moveAll(scene, [ref], dx, dy),
          },
        ];
  },
  'way-over-water': (scene, finding) => {
    const way = namedThing(scene, finding, 'way');
    const over = way ?? namedThing(scene, finding, 'track');
    return over
      ? [
          {
            words: `Let “${over.name}” bridge what lies under it`,
            changes: [patch(way ? 'way' : 'track', over, { bridges: true })],
          },
        ]
      : [];
  },
  'slab-span': (scene, finding) => {
    const deck = namedThing(scene, finding, 'deck');
    const way = namedThing(scene, finding, 'way') ?? namedThing(scene, finding, 'track');
    const { deckSpan } = displayOf(scene);
    if (way) {
      const kind = scene.way[way.id] === way ? 'way' : 'track';
      return [deckSpan + PIER, deckSpan, deckSpan / 2]
        .filter((pierEvery) => pierEvery < way.pierEvery)
        .map((pierEvery) => ({
          words: `Stand a pier each ${pierEvery} studs`,
          changes: [patch(kind, way, { pierEvery })],
        }));
    }
    if (!deck) return [];
    const closer = [deckSpan + deck.pillar, deckSpan, deckSpan / 2].filter(
      (spacing) => spacing < deck.spacing || deck.support === 'ends',
    );
    return (['pillars', 'walls', 'arches'] as const).flatMap((support) =>
      (support === deck.support ? closer : [deck.spacing, ...closer]).map((spacing) => ({
        words: `Carry “${deck.name}” by ${support} each ${spacing} studs`,
        changes: [patch('deck', deck, { support, spacing })],
      })),
    );
  },
  'cavity-roof': (scene, finding) => {
    const cavity = namedThing(scene, finding, 'cavity');
    const by = (finding.numbers.least ?? 0) - (finding.numbers.roof ?? 0);
    if (!cavity || by <= 0) return [];
    return [
      {
        words: `Lower “${cavity.name}” by ${countOf(by, 'plate')}`,
        changes: [patch('cavity', cavity, { offset: cavity.offset - by })],
      },
      {
        words: `Make “${cavity.name}” ${countOf(by, 'plate')} lower inside`,
        changes: [patch('cavity', cavity, { clear: cavity.clear - by })],
      },
    ].filter(() => cavity.clear > by);
  },
  'bridge-steps': (scene, finding) => {
    const way = namedThing(scene, finding, 'way');
    const over = way ?? namedThing(scene, finding, 'track');
    const { wanted } = finding.numbers;
    return over && wanted !== undefined
      ? [
          {
            words: `Make the bridge of “${over.name}” ${countOf(wanted, 'plate')} thick`,
            changes: [patch(way ? 'way' : 'track', over, { bridgeThick: wanted })],
          },
        ]
      : [];
  },
  'decks-overlap': (scene, finding) => {
    const { by } = finding.numbers;
    return finding.things.flatMap(({ kind, id }) => {
      const deck = kind === 'deck' ? scene.deck[id] : undefined;
      return deck && by !== undefined
        ? [by, -by].map((up) => ({
            words: `${up > 0 ? 'Raise' : 'Lower'} “${deck.name}” by ${countOf(by, 'plate')}`,
            changes: [patch('deck', deck, { offset: deck.offset + up })],
          }))
        : [];
    });
  },
  'stands-on-nothing': (scene, finding) => {
    const [ref] = finding.things;
    if (!ref || !isStandingKind(ref.kind)) return [];
    const thing = scene[ref.kind][ref.id];
    return thing
      ? [
          {
            words: `Stand “${labelOf(scene, ref.kind, ref.id)}” on the highest surface under it`,
            changes: [patch(ref.kind, thing, { ...standFieldsFor(null) })],
          },
        ]
      : [];
  },
  'level-step': (scene, finding) => {
    const level = namedThing(scene, finding, 'level');
    const { rise, step } = finding.numbers;
    if (!level || rise === undefined || step === undefined) return [];
    const steps = Math.round(rise / step);
    return [steps, steps + 1]
      .filter((count) => count > 0)
      .map((count) => ({
        words: `Set the level “${level.name}” to the agreed step`,
        changes: [patch('level', level, { height: level.height - rise + count * step })],
      }));
  },
  'no-table': (scene) => {
    const whole = footprintBounds(scene);
    if (!whole) return [];
    const [w, d] = [whole.w * MM_PER_STUD, whole.d * MM_PER_STUD];
    const { place } = displayOf(scene);
    const table = { name: 'Table', x: whole.x * MM_PER_STUD, y: whole.y * MM_PER_STUD, w, d, place };
    const id = ['table', ...Array.from({ length: 100 }, (_, i) => `table-${i + 2}`)].find(
      (one) => !Object.hasOwn(scene.table, one) && !Object.hasOwn(scene.removed, keyOf('table', one)),
    );
    return id && place === null
      ? [
          {
            words: `Put a table of ${w} × ${d} mm under the display`,
            changes: [{ op: 'add', kind: 'table', id, data: table }],
          },
        ]
      : [];
  },
  'tables-overlap': (scene, finding) => {
    const [a, b] = [namedThing(scene, finding, 'table', 0), namedThing(scene, finding, 'table', 1)];
    if (!a || !b) return [];
    return [
      [a, b],
      [b, a],
    ].flatMap(([fixed, loose]) =>
      apart(fixed, loose, 1).map(({ by, way }) => ({
        words: `Move “${loose.name}” ${by} mm ${way}`,
        changes: [
          patch('table', loose, { x: loose.x + by * COMPASS[way][0], y: loose.y + by * COMPASS[way][1] }),
        ],
      })),
    );
  },
  'off-table': (scene, finding) => {
    const table = namedThing(scene, finding, 'table');
    const whole = footprintBounds(scene);
    if (!table || !whole || displayOf(scene).place !== null || currentContents(scene, 'table').length > 1)
      return [];
    // The table that carries the scene alone takes the scene's whole size.
    const scenery = {
      x: whole.x * MM_PER_STUD,
      y: whole.y * MM_PER_STUD,
      w: whole.w * MM_PER_STUD,
      d: whole.d * MM_PER_STUD,
    };
    const { x, y, w, d } = boundsOf([table, scenery]);
    return [
      {
        words: `Widen “${table.name}” to ${Math.round(w)} × ${Math.round(d)} mm`,
        changes: [patch('table', table, { x, y, w, d })],
      },
    ];
  },
  'way-steep': (scene, finding) => {
    const way = namedThing(scene, finding, 'way');
    const words = { ramp: 'Level “% ” to a ramp', steps: 'Build steps on “% ”' } as const;
    return way
      ? (['ramp', 'steps'] as const)
          .filter((onSteep) => onSteep !== way.onSteep)
          .map((onSteep) => ({
            words: words[onSteep].replace('% ', way.name),
            changes: [patch('way', way, { onSteep })],
          }))
      : [];
  },
  'sections-overlap': (scene, finding) => {
    const [a, b] = [namedThing(scene, finding, 'section', 0), namedThing(scene, finding, 'section', 1)];
    if (!a || !b) return [];
    return [
      [a, b],
      [b, a],
    ].flatMap(([fixed, loose]) => trimmed(fixed, loose));
  },
};

/** Ways to take an overlap from a section by drawing one of its sides in. */
function trimmed(fixed: Rect, loose: Entity<'section'>): Fix[] {
  const words = `Draw section ${loose.letter} in to the border of its neighbour`;
  const east = fixed.x + fixed.w;
  const south = fixed.y + fixed.d;
  return [
    { x: loose.x, y: loose.y, w: fixed.x - loose.x, d: loose.d },
    { x: east, y: loose.y, w: loose.x + loose.w - east, d: loose.d },
    { x: loose.x, y: loose.y, w: loose.w, d: fixed.y - loose.y },
    { x: loose.x, y: south, w: loose.w, d: loose.y + loose.d - south },
  ]
    .filter(({ w, d }) => w > 0 && d > 0 && w <= loose.w && d <= loose.d)
    .sort((a, b) => b.w * b.d - a.w * a.d)
    .map((rect) => ({ words, changes: [patch('section', loose, { ...rect })] }));
}
