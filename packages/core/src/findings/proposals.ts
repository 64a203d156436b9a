import { partName } from '../catalogue/index.ts';
import { MM_PER_STUD, PLATES_PER_BRICK, boundsOf, countOf, type Rect } from '../grid/index.ts';
import {
  ROOF_FORMS,
  SIDES,
  SIDE_WORDS,
  displayOf,
  influenceBounds,
  isStandingKind,
  keyOf,
  labelOf,
  moveAll,
  placeIn,
  plotBounds,
  resizeDisplay,
  roofFormOf,
  standFieldsFor,
  type Entity,
  type RoofForm,
} from '../document/index.ts';
import { MAX_UNTIED } from '../stability/index.ts';
import { PIER, ROOF_SLOPES, footprintBounds } from '../terrain/index.ts';
import { currentContents } from '../venue/index.ts';
import { CARRY_FIXES } from './carryFixes.ts';
import { CAST_FIXES } from './castFixes.ts';
import { DRESS_FIXES } from './dressFixes.ts';
import { WALL_FIXES } from './wallFixes.ts';
import { SIGNBOARD_FIXES } from './signboards.ts';
import { POWER_FIXES } from './powerFixes.ts';
import {
  COMPASS,
  COMPASS_WAYS,
  apart,
  moveFix,
  patch,
  namedThing,
  type FixesOf,
  type Fix,
  moveFixes,
  turnFixes,
} from './fix.ts';

// Remedies that a computation can propose, by rule. They are tried in fixes.ts before they are offered.

const separatePlots: FixesOf = (scene, finding) => {
  const [a, b] = [namedThing(scene, finding, 'plot', 0), namedThing(scene, finding, 'plot', 1)];
  if (!a || !b) return [];
  return [
    [a, b],
    [b, a],
  ].flatMap(([fixed, loose]) => {
    // What stands out over the walls keeps apart too.
    const boxes = [fixed, loose].map((plot) => plotBounds(plot));
    return apart(boxes[0], boxes[1], 1).map(({ by, way }) =>
      moveFix(scene, { kind: 'plot', id: loose.id }, by, way),
    );
  });
};

const ROOF_FORM_WORDS: Readonly<Record<RoofForm, string>> = {
  gable: 'fall to two sides',
  hip: 'fall to all sides',
  'lean-to': 'fall to its front alone',
  stepped: 'rise in rings of bricks',
};

/** Proposed fixes by rule, in the order in which they are tried. */
export const PROPOSED: Readonly<Record<string, FixesOf>> = {
  ...POWER_FIXES,
  ...CARRY_FIXES,
  ...CAST_FIXES,
  ...DRESS_FIXES,
  ...WALL_FIXES,
  ...SIGNBOARD_FIXES,
  'good-side': (scene, finding) => {
    const plot = namedThing(scene, finding, 'plot');
    return plot
      ? [180, 90, 270].map((by) => ({
          words: `Turn “${plot.name}” by ${by}°`,
          changes: [patch('plot', plot, { turn: (plot.turn + by) % 360 })],
        }))
      : [];
  },
  'scene-unseen': (scene, finding) => {
    const figure = namedThing(scene, finding, 'figure');
    return figure ? moveFixes(scene, { kind: 'figure', id: figure.id }, [8, 16]) : [];
  },
  'good-side-hidden': (scene, finding) => {
    const plot = namedThing(scene, finding, 'plot');
    if (!plot) return [];
    return [...moveFixes(scene, { kind: 'plot', id: plot.id }, [8, 16, 24]), ...turnFixes(plot)];
  },
  'corners-left-out': (scene, finding) => {
    const plot = namedThing(scene, finding, 'plot');
    const most = finding.numbers.most;
    if (!plot || most === undefined) return [];
    return [most, Math.floor(most / 2)].map((w) => ({
      words: `Leave out at most ${countOf(w, 'stud')} at each corner of “${plot.name}”`,
      changes: [
        patch('plot', plot, { notches: plot.notches.map((one) => ({ ...one, w: Math.min(one.w, w) })) }),
      ],
    }));
  },
  'recess-not-built': (scene, finding) => {
    const plot = namedThing(scene, finding, 'plot');
    const { recess: number, length, depth } = finding.numbers;
    const recess = plot?.recesses[number - 1];
    if (!plot || !recess) return [];
    const put = (words: string, recesses: typeof plot.recesses) => ({
      words,
      changes: [patch('plot', plot, { recesses })],
    });
    const changed = (fields: Partial<typeof recess>) =>
      plot.recesses.map((one) => (one === recess ? { ...one, ...fields } : one));
    const name = `recess ${number} of “${plot.name}”`;
    const wide = Math.max(1, Math.min(recess.wide, length - 2));
    const at = Math.max(1, Math.min(recess.at, length - 1 - wide));
    const less = [...new Set([depth - 1, Math.floor(depth / 2)])].filter(
      (deep) => deep > 0 && deep < recess.deep,
    );
    return [
      ...less.map((deep) => put(`Let ${name} stand back ${countOf(deep, 'stud')}`, changed({ deep }))),
      put(`Let ${name} begin ${countOf(at, 'stud')} along its side, ${wide} wide`, changed({ at, wide })),
      put(
        `Remove ${name}`,
        plot.recesses.filter((one) => one !== recess),
      ),
    ];
  },
  'roof-flat': (scene, finding) => {
    const plot = namedThing(scene, finding, 'plot');
    if (!plot) return [];
    const slopes = ROOF_SLOPES.filter(({ id }) => id !== plot.slope).map(({ id }) => ({
      words: `Roof “${plot.name}” with ${partName(id)}`,
      changes: [patch('plot', plot, { slope: id, lowerSlope: null })],
    }));
    const forms = ROOF_FORMS.filter(
      (form) => form !== roofFormOf(plot) && roofFormOf({ ...plot, roofForm: form }) === form,
    ).map((form) => ({
      words: `Let the roof of “${plot.name}” ${ROOF_FORM_WORDS[form]}`,
      changes: [patch('plot', plot, { roofForm: form })],
    }));
    return [...slopes, ...forms];
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
    const place = ref && placeIn(scene, ref.kind, ref.id);
    if (!whole || !place) return [];
    const thick = ref.kind === 'run' ? influenceBounds('run', scene.run[ref.id]) : null;
    const box = ref.kind === 'plot' ? plotBounds(scene.plot[ref.id]) : (thick ?? place);
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
  'lean-ties': (scene, finding) => {
    const plot = namedThing(scene, finding, 'plot');
    return plot
      ? [
          {
            words: `Tie “${plot.name}” each ${MAX_UNTIED} studs`,
            changes: [patch('plot', plot, { tieEvery: MAX_UNTIED })],
          },
        ]
      : [];
  },
  'lean-hold': (scene, finding) => {
    const plot = namedThing(scene, finding, 'plot');
    if (!plot) return [];
    return [0.75, 0.5, 0.25, 0].map((share) => {
      const lean = Math.floor(plot.lean * share);
      return {
        words: lean === 0 ? `Stand “${plot.name}” upright` : `Lean “${plot.name}” by ${lean}°`,
        changes: [patch('plot', plot, { lean })],
      };
    });
  },
  'part-joint': (scene, finding) => {
    const plot = namedThing(scene, finding, 'plot');
    const { part, by } = finding.numbers;
    const own = plot?.parts[part];
    if (!plot || !own) return [];
    const parts = plot.parts.map((one, i) => (i === part ? { ...one, height: one.height + by } : one));
    return [{ words: `Lift “${own.name}” off at the eaves`, changes: [patch('plot', plot, { parts })] }];
  },
  // Wall to wall with another building: moved along that wall until both doors face each other.
  'door-leads': (scene, finding) => {
    const [own, other] = [namedThing(scene, finding, 'plot', 0), namedThing(scene, finding, 'plot', 1)];
    const { east, south } = finding.numbers;
    if (!own || !other || east === undefined || south === undefined) return [];
    return [
      { plot: own, dx: east, dy: south },
      { plot: other, dx: -east, dy: -south },
    ].flatMap(({ plot, dx, dy }) =>
      Number.isInteger(2 * dx) && Number.isInteger(2 * dy) && (dx !== 0 || dy !== 0)
        ? [
            {
              words: `Move “${plot.name}” along the wall, so that both doors face each other`,
              changes: [patch('plot', plot, { x: plot.x + dx, y: plot.y + dy })],
            },
          ]
        : [],
    );
  },
  'window-row': (scene, finding) => {
    const plot = namedThing(scene, finding, 'plot');
    const { storey, side, by } = finding.numbers;
    if (!plot) return [];
    const bays = plot.bays.map((front) =>
      front.storey === storey && front.recess === null && front.side === SIDES[side]
        ? {
            ...front,
            bays: front.bays.map((bay) =>
              bay.part?.startsWith('window') ? { ...bay, sill: bay.sill + by / PLATES_PER_BRICK } : bay,
            ),
          }
        : front,
    );
    const isWhole = bays.every((front) =>
      front.bays.every(({ sill }) => Number.isInteger(sill) && sill >= 0),
    );
    const words = `Move the windows of “${plot.name}” to the ${SIDE_WORDS[SIDES[side]]} ${by > 0 ? 'up' : 'down'}`;
    return isWhole ? [{ words, changes: [patch('plot', plot, { bays })] }] : [];
  },
  'overhang-hold': (scene, finding) => {
    const plot = namedThing(scene, finding, 'plot');
    const { by, most } = finding.numbers;
    if (!plot) return [];
    return [
      ...SIDES.filter((side) => plot.overhang[side] === by).map((side) => ({
        words: `Let “${plot.name}” stand out ${countOf(most, 'stud')} to the ${SIDE_WORDS[side]}`,
        changes: [patch('plot', plot, { overhang: { ...plot.overhang, [side]: most } })],
      })),
      ...[1, 2, 3].map((more) => ({
        words: `Make the walls of “${plot.name}” ${plot.wall + more} studs thick`,
        changes: [patch('plot', plot, { wall: plot.wall + more })],
      })),
    ];
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
  'plots-overlap': separatePlots,
  'turn-reaches': separatePlots,
  'plots-gap': (scene, finding) => {
    const [a, b] = [namedThing(scene, finding, 'plot', 0), namedThing(scene, finding, 'plot', 1)];
    const { gap } = finding.numbers;
    if (!a || !b || gap === undefined) return [];
    return [b, a].flatMap((plot) =>
      COMPASS_WAYS.map((way) => moveFix(scene, { kind: 'plot', id: plot.id }, gap, way)),
    );
  },
  'pinned-half': (scene, finding) => {
    const plot = namedThing(scene, finding, 'plot');
    if (!plot) return [];
    const { x, y } = plotBounds(plot);
    const [dx, dy] = [Math.round(x) - x, Math.round(y) - y];
    return [
      {
        words: `Move “${plot.name}” onto whole studs`,
        changes: [patch('plot', plot, { x: plot.x + dx, y: plot.y + dy })],
      },
      { words: `Stand “${plot.name}” on jumpers`, changes: [patch('plot', plot, { mount: 'jumpers' })] },
    ];
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
