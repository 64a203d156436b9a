import {
  MM,
  MM_PER_STUD,
  PLATE,
  centreOf,
  formatPlates,
  formatStuds,
  outerSize,
  intersection,
  STUD,
  type Rect,
  countOf,
  formatKg,
  quadOf,
  formatPercent,
} from '../grid/index.ts';
import { displayOf, labelOf, listOf, type Kind } from '../document/index.ts';
import {
  CARRY_STUDS,
  carriedHeight,
  currentPlace,
  frameOf,
  currentContents,
  tableJoints,
  evaluatePassage,
  passagesFor,
  largestModule,
  leafGaps,
  leavesRoom,
  lengthOf,
  openingFloor,
  openingLine,
  overlapDepth,
  pointToScene,
  sceneInRoom,
  sidesOf,
  tableInStuds,
  wayOf,
  highestTable,
} from '../venue/index.ts';
import { sectionShares, shareOf } from '../reach/index.ts';
import { formatTenths, type Context, type FindingDraft, type Rule } from './finding.ts';

/** Tables, obstacles and the scene itself as they stand in the room, each with its name. */
function standing({ scene }: Context): { kind: Kind; id: string; name: string; rect: Rect<'mm'> }[] {
  const named = (kind: 'table' | 'obstacle') =>
    currentContents(scene, kind).map((thing) => ({
      kind,
      id: thing.id,
      name: `“${thing.name}”`,
      rect: thing,
    }));
  const parts = listOf(scene, 'footprint');
  return [
    ...named('table'),
    ...named('obstacle'),
    ...sceneInRoom(scene).map((rect, i) => ({
      kind: 'footprint' as const,
      id: parts[i].id,
      name: `The scene (“${parts[i].name}”)`,
      rect,
    })),
  ];
}

const tableLoad: Rule = {
  id: 'table-load',
  title: 'A table carries more than it is rated for',
  basis:
    'Ground as counted piece by piece where it is, else by area from the relief: 0.18 g a stud of base, 0.096 g a stud and plate (a 2×4 brick of 2.3 g, from memory), ground 40 % and buildings 20 % solid (defaults of ours). A stud rests on the table under its centre, else on the nearest. An estimate, without what people lean on it.',
  page: 'survey',
  severity: 'error',
  check: ({ scene, loads }) =>
    loads().flatMap(({ table, kg, studs }): FindingDraft[] => {
      if (table.ratedKg === null || kg <= table.ratedKg) return [];
      return [
        {
          sentence: `“${table.name}” carries about ${formatKg(1000 * kg)} of scene (${countOf(studs, 'stud')}); it is rated for ${table.ratedKg} kg.`,
          remedy:
            'Spread the scene, or bring a stronger table. The maker’s plate and the venue’s rules decide, not this estimate.',
          place: centreOf(tableInStuds(scene, table)),
          things: [{ kind: 'table', id: table.id }],
          numbers: { kg: Number(kg.toFixed(1)), rated: table.ratedKg },
        },
      ];
    }),
};

/** A fault of a table suppresses the same fault of the scene on it. */
const withoutEchoes = (drafts: FindingDraft[]): FindingDraft[] =>
  drafts.some(({ things }) => things[0]?.kind === 'table')
    ? drafts.filter(({ things }) => things[0]?.kind !== 'footprint')
    : drafts;

/** A share of a section past the arm that is worth saying, from 0 to 1. */
const REACH_SHARE = 0.01;

const outOfReach: Rule = {
  id: 'out-of-reach',
  title: 'Ground that nobody can reach',
  basis:
    'The straight distance from each stud’s centre to the nearest edge at which one can stand: floor free of walls, tables and obstacles to the standing depth over 450 mm. Arm and ladder line are the place’s (common practice: 750 mm, and from about 1,000 mm on a step ladder, where leaning breaks things and people fall).',
  page: 'survey',
  severity: 'note',
  check(context) {
    const { scene } = context;
    if (currentContents(scene, 'table').length === 0 || currentPlace(scene) === null) return [];
    const reach = context.reach();
    const parts = sectionShares(scene, reach).map(({ section, share }) => ({
      name: `section ${section.letter}`,
      things: [{ kind: 'section' as const, id: section.id }],
      share,
    }));
    const whole = { name: 'the scene', things: [], share: shareOf(reach) };
    return (parts.length > 0 ? parts : [whole]).flatMap(({ name, things, share }): FindingDraft[] => {
      const { studs, pastArm, pastLadder, farthest, at } = share;
      if (studs === 0 || pastArm / studs < REACH_SHARE) return [];
      const percent = (count: number) => formatPercent(count / studs);
      const far = Number.isFinite(farthest)
        ? `the farthest ${formatTenths(farthest)}`
        : 'and no side is open';
      const past = pastLadder > 0 ? ` and ${percent(pastLadder)} past ${formatTenths(reach.ladder)}` : '';
      return [
        {
          severity: pastLadder > 0 ? 'warning' : 'note',
          sentence: `${percent(pastArm)} of ${name} lies past an arm’s ${formatTenths(reach.arm)}${past}, ${far}.`,
          remedy:
            'Look at the three best moves on the Survey: pull from a wall, turn, or split with an aisle. Do not lean over from a step ladder.',
          place: at,
          things,
          numbers: { pastArm, pastLadder, studs },
        },
      ];
    });
  },
};

const throughWall: Rule = {
  id: 'through-wall',
  title: 'Something stands through a wall',
  basis: 'The corners of each table, obstacle and footprint part against the room’s walls, in millimetres.',
  page: 'survey',
  severity: 'error',
  check(context) {
    const place = currentPlace(context.scene);
    if (!place) return [];
    const frame = frameOf(context.scene);
    const drafts = standing(context).flatMap(({ kind, id, name, rect }): FindingDraft[] => {
      const by = leavesRoom(place.walls, rect);
      if (by < 1) return [];
      return [
        {
          sentence: `${name} reaches ${formatTenths(by)} through a wall of “${place.name}”; 0 mm may.`,
          remedy: 'Move it into the room, or correct the room’s corners.',
          place: pointToScene(frame, centreOf(rect)),
          things: [{ kind, id }],
          numbers: { by: Math.round(by) },
        },
      ];
    });
    return withoutEchoes(drafts);
  },
};

const obstacleHit: Rule = {
  id: 'obstacle-hit',
  title: 'A table or the scene stands in an obstacle',
  basis:
    'The area that a table or a footprint part shares with a fixed obstacle of the room. What is no higher than a table may stand under it.',
  page: 'survey',
  severity: 'error',
  check(context) {
    const { scene } = context;
    const frame = frameOf(scene);
    const things = standing(context).filter(({ kind }) => kind !== 'obstacle');
    const tables = currentContents(scene, 'table');
    return currentContents(scene, 'obstacle').flatMap((obstacle) =>
      withoutEchoes(
        things.flatMap(({ kind, id, name, rect }): FindingDraft[] => {
          const shared = intersection(rect, obstacle);
          if (!shared) return [];
          const carrying =
            kind === 'table' ? [scene.table[id]] : tables.filter((table) => intersection(table, shared));
          const under = carrying.length === 0 ? 0 : Math.min(...carrying.map(({ height }) => height));
          if (obstacle.height <= under) return [];
          return [
            {
              sentence: `${name} stands ${formatTenths(shared.w)} × ${formatTenths(shared.d)} in “${obstacle.name}”, ${formatTenths(obstacle.height)} high; they need 0.`,
              remedy: `Move it ${formatTenths(Math.min(shared.w, shared.d))} aside.`,
              place: pointToScene(frame, centreOf(shared)),
              things: [
                { kind, id },
                { kind: 'obstacle', id: obstacle.id },
              ],
              numbers: { w: shared.w, d: shared.d },
            },
          ];
        }),
      ),
    );
  },
};

const ceilingLow: Rule = {
  id: 'ceiling-low',
  title: 'The display is taller than the room',
  basis:
    'The highest of all that stands in the scene, on the highest table of the place (on the floor where there is none), against the ceiling.',
  page: 'survey',
  severity: 'error',
  check({ scene, card }) {
    const ceiling = currentPlace(scene)?.ceiling ?? null;
    if (ceiling === null) return [];
    const under = highestTable(scene);
    const { height, tallest } = card();
    const top = under + (height * PLATE) / MM;
    if (top <= ceiling) return [];
    return [
      {
        sentence: `${tallest ? `“${labelOf(scene, tallest.kind, tallest.id)}”` : 'The ground'} reaches ${formatTenths(top)} above the floor, ${formatPlates(height)} on a table of ${formatTenths(under)}; the ceiling is at ${formatTenths(ceiling)}.`,
        remedy: 'Lower it or the table, or build it up where the ceiling is higher.',
        place: null,
        things: tallest ? [tallest] : [],
        numbers: { top: Math.round(top), ceiling },
      },
    ];
  },
};

const doorBlocked: Rule = {
  id: 'door-blocked',
  title: 'A door cannot open',
  basis:
    'The floor a door leaf swings over, as deep as the door is wide, against tables, obstacles and the scene. Escape ways have rules of their own: ask the venue.',
  page: 'survey',
  severity: 'warning',
  check(context) {
    const { scene } = context;
    const place = currentPlace(scene);
    if (!place) return [];
    const frame = frameOf(scene);
    return currentContents(scene, 'opening').flatMap((opening) => {
      const line = openingLine(place.walls, opening);
      if (!line || opening.use === 'window') return [];
      const floor = openingFloor(place.walls, line, opening.width);
      const drafts = standing(context).flatMap(({ kind, id, name, rect }): FindingDraft[] => {
        const depth = overlapDepth(floor, quadOf(rect));
        if (depth < 1) return [];
        return [
          {
            sentence: `${name} stands ${formatTenths(depth)} into the ${formatTenths(opening.width)} of floor that “${opening.name}” needs to open.`,
            remedy: `Move it ${formatTenths(depth)} away from the door, or hang the door to open outwards.`,
            place: pointToScene(frame, centreOf(rect)),
            things: [
              { kind, id },
              { kind: 'opening', id: opening.id },
            ],
            numbers: { depth: Math.round(depth), needed: opening.width },
          },
        ];
      });
      return withoutEchoes(drafts);
    });
  },
};

const openingOff: Rule = {
  id: 'opening-off-wall',
  title: 'An opening is longer than its wall',
  basis: 'The place of each door and window along its wall and its width, against the length of that wall.',
  page: 'survey',
  severity: 'warning',
  check({ scene }) {
    const place = currentPlace(scene);
    if (!place) return [];
    const sides = sidesOf(place.walls);
    return currentContents(scene, 'opening').flatMap((opening): FindingDraft[] => {
      const side = sides[opening.wall];
      const length = side ? lengthOf(side) : 0;
      const end = opening.at + opening.width;
      if (side && end <= length + 0.5) return [];
      return [
        {
          sentence: side
            ? `“${opening.name}” ends ${formatTenths(end)} along wall ${opening.wall + 1}, which is ${formatTenths(length)} long.`
            : `“${opening.name}” is in wall ${opening.wall + 1}; the room has ${sides.length}.`,
          remedy: 'Move the opening, or correct the room’s corners.',
          place: null,
          things: [{ kind: 'opening', id: opening.id }],
          numbers: { end: Math.round(end), length: Math.round(length) },
        },
      ];
    });
  },
};

const jointGap: Rule = {
  id: 'joint-gap',
  title: 'A gap under the scene is too wide',
  basis:
    'The clear gap between two table tops, or two leaves of one, under the scene, against the overhang the display allows: a base must not hang farther than it may.',
  page: 'survey',
  severity: 'warning',
  check({ scene }) {
    const limit = displayOf(scene).overhang * MM_PER_STUD;
    const parts = sceneInRoom(scene);
    const frame = frameOf(scene);
    const wide = (gap: number, name: string, at: { x: number; y: number }, ids: string[]): FindingDraft[] =>
      gap <= limit
        ? []
        : [
            {
              sentence: `${name} leave a gap of ${formatTenths(gap)} (${formatStuds((gap / MM_PER_STUD) * STUD)}) under the scene; ${formatTenths(limit)} may be bridged.`,
              remedy: 'Push them together, or lay a board over the gap.',
              place: pointToScene(frame, at),
              things: ids.map((id) => ({ kind: 'table' as const, id })),
              numbers: { gap: Math.round(gap), limit },
            },
          ];
    return [
      ...tableJoints(scene).flatMap(({ a, b, gap, at }) =>
        wide(gap, `“${a.name}” and “${b.name}”`, at, [a.id, b.id]),
      ),
      ...currentContents(scene, 'table').flatMap((table) =>
        leafGaps(table)
          .filter((gap) => parts.some((part) => intersection(part, gap)))
          .slice(0, 1)
          .flatMap((gap) => wide(table.leafGap, `The leaves of “${table.name}”`, centreOf(gap), [table.id])),
      ),
    ];
  },
};

const moduleLimit: Rule = {
  id: 'module-limit',
  title: 'The largest module does not pass the way in',
  basis:
    'The largest module agreed, upright and level, as tall as the highest stud with all that lifts off taken off, through every passage of the Survey. The largest that passes is searched on steps of 8 studs, up to 192 studs (1.5 m) long.',
  page: 'survey',
  severity: 'warning',
  check({ scene, relief }) {
    const { moduleMaxW, moduleMaxD } = displayOf(scene);
    const way = wayOf(scene);
    const height = carriedHeight(scene, relief);
    const [long, short] = [Math.max(moduleMaxW, moduleMaxD), Math.min(moduleMaxW, moduleMaxD)];
    const box = { short: outerSize(short) / MM, long: outerSize(long) / MM, height };
    for (const passage of passagesFor(way, box)) {
      const judged = evaluatePassage(passage, box);
      if (judged.passes) continue;
      const best = largestModule(way, height, CARRY_STUDS);
      return [
        {
          sentence: `The largest module agreed is ${long} × ${short} studs (${formatTenths(box.long)} × ${formatTenths(box.short)}); the ${passage.name} lets ${formatTenths(judged.limit)} of ${judged.by} through.`,
          remedy: best
            ? `Agree on ${best.long} × ${best.short} studs, the largest that passes: press “Make it the module limit” on the Survey.`
            : 'Find another way in: not even a module of 8 × 8 studs passes.',
          place: null,
          things: [{ kind: 'passage', id: passage.id }],
          numbers: { long, short, limit: judged.limit },
        },
      ];
    }
    return [];
  },
};

export const SURVEY_RULES: readonly Rule[] = [
  tableLoad,
  outOfReach,
  throughWall,
  obstacleHit,
  ceilingLow,
  doorBlocked,
  openingOff,
  jointGap,
  moduleLimit,
];
