import {
  CONNECTORS,
  FALLS,
  FIGURE_STATES,
  GROUNDS,
  MARKER_STATES,
  MAX_STUDS,
  MOUNTS,
  ON_STEEP,
  PROFILES,
  REPEAT_USES,
  RUN_USES,
  SEASONS,
  SHAPES,
  SPACINGS,
  WAY_USES,
  WINDS,
  type Kind,
} from '@quarry/core/document';
import { capital } from '../../ui/words.ts';

// The fields of each kind of thing on the plan, as its data sheet lists them: one table instead of many sheets.

type Data = Readonly<Record<string, unknown>>;
interface Common {
  key: string;
  label: string;
  /** Hidden where it has no meaning. */
  when?: (data: Data) => boolean;
}
export type FieldSpec =
  | (Common & { as: 'text' | 'long' | 'check' | 'sides' | 'level' })
  | (Common & {
      as: 'length';
      measure: 'studs' | 'plates';
      min: number;
      max: number;
      step?: number;
      optional?: boolean;
    })
  | (Common & { as: 'number'; min: number; max: number; whole?: boolean; unit?: string })
  | (Common & { as: 'choice'; options: readonly { value: string; word: string }[] });

const choice = (
  key: string,
  label: string,
  values: readonly string[],
  words: Readonly<Record<string, string>> = {},
  when?: Common['when'],
): FieldSpec => ({
  as: 'choice',
  key,
  label,
  options: values.map((value) => ({ value, word: words[value] ?? capital(value) })),
  when,
});
const studs = (
  key: string,
  label: string,
  min: number,
  max: number,
  step = 0.5,
  when?: Common['when'],
): FieldSpec => ({
  as: 'length',
  measure: 'studs',
  key,
  label,
  min,
  max,
  step,
  when,
});
const plates = (key: string, label: string, min: number, max = 3000, when?: Common['when']): FieldSpec => ({
  as: 'length',
  measure: 'plates',
  key,
  label,
  min,
  max,
  when,
});
const text = (key: string, label: string): FieldSpec => ({ as: 'text', key, label });
const long = (key: string, label: string): FieldSpec => ({ as: 'long', key, label });
const check = (key: string, label: string): FieldSpec => ({ as: 'check', key, label });
const sides = (key: string, label: string, when?: Common['when']): FieldSpec => ({
  as: 'sides',
  key,
  label,
  when,
});
const grade: FieldSpec = { as: 'number', key: 'maxGrade', label: 'Steepest', min: 0.5, max: 200, unit: '%' };

const area = (step: number): FieldSpec[] => [
  studs('w', 'Width, east', step, MAX_STUDS, step),
  studs('d', 'Depth, south', step, MAX_STUDS, step),
  studs('x', 'From west', -MAX_STUDS, MAX_STUDS, step),
  studs('y', 'From north', -MAX_STUDS, MAX_STUDS, step),
];
const spot = [
  studs('x', 'From west', -MAX_STUDS, MAX_STUDS),
  studs('y', 'From north', -MAX_STUDS, MAX_STUDS),
];
const level: FieldSpec[] = [
  { as: 'level', key: 'level', label: 'Level' },
  plates('offset', 'Above it', -3000),
];
const shape = choice('shape', 'Shape', SHAPES, { rect: 'Rectangle' });
const ground = choice('ground', 'Ground', GROUNDS);
const bankGround = choice('bankGround', 'Shore', GROUNDS, {}, ({ bank }) => bank !== 0);
const season = choice('season', 'Leaves of', ['any', ...SEASONS], { any: 'Any season' });
const COMPASS = {
  n: 'North',
  ne: 'North-east',
  e: 'East',
  se: 'South-east',
  s: 'South',
  sw: 'South-west',
  w: 'West',
  nw: 'North-west',
};
const rising = [
  choice('profile', 'Slope', PROFILES, {
    even: 'Even',
    convex: 'Convex, a dome',
    concave: 'Concave, a horn',
    sheer: 'Sheer, flat top',
  }),
  plates('terrace', 'Terraces of', 0),
  sides('faces', 'Rock faces'),
  ground,
];

export const FIELDS: Partial<Record<Kind, readonly FieldSpec[]>> = {
  footprint: [text('name', 'Name'), ...area(1)],
  pad: [
    text('name', 'Name'),
    ...area(0.5),
    ...level,
    ground,
    shape,
    studs('reach', 'Slopes reach', 0, 256, 0.5, leadsOn),
  ],
  hill: [text('name', 'Name'), ...area(0.5), ...level, plates('height', 'Height', 1), shape, ...rising],
  hollow: [text('name', 'Name'), ...area(0.5), ...level, plates('depth', 'Depth', 1), shape, ...rising],
  water: [
    text('name', 'Name'),
    ...area(0.5),
    ...level,
    plates('depth', 'Deep', 1),
    shape,
    studs('bank', 'Shore', 0, 64),
    { ...bankGround, label: 'Shore ground' },
    sides('struck', 'Waves strike'),
  ],
  stream: [
    text('name', 'Name'),
    ...level,
    studs('width', 'Width', 0.5, 128),
    plates('depth', 'Deep', 1),
    choice('falls', 'Falls', FALLS, { even: 'Evenly', points: 'At its points' }),
    studs('bank', 'Banks', 0, 64),
    { ...bankGround, label: 'Bank ground' },
  ],
  way: [
    text('name', 'Name'),
    choice('use', 'It is a', WAY_USES),
    studs('width', 'Width', 0.5, 128),
    ground,
    plates('rise', 'Above ground', -30, 30),
    grade,
    choice('onSteep', 'Where steeper', ON_STEEP, {
      follow: 'Follow the ground',
      ramp: 'Level to a ramp',
      steps: 'Build steps',
    }),
  ],
  track: [
    text('name', 'Name'),
    studs('x', 'Starts, from west', -MAX_STUDS, MAX_STUDS),
    studs('y', 'From north', -MAX_STUDS, MAX_STUDS),
    ...level,
    studs('bed', 'Bed', 0.5, 64),
    { ...grade, max: 100 },
    studs('clearSide', 'Clear, each side', 0, 64),
    plates('clearHeight', 'Clear above', 0),
  ],
  terrain: [
    text('name', 'Name'),
    ...area(0.5),
    ...level,
    plates('low', 'Lowest', -3000),
    plates('high', 'Highest', -3000),
    ground,
    long('notes', 'Notes'),
  ],
  plot: [
    text('name', 'Name'),
    ...area(0.5),
    { as: 'number', key: 'turn', label: 'Turned', min: 0, max: 359.9, unit: '°' },
    plates('height', 'Height', 1),
    { as: 'number', key: 'storeys', label: 'Storeys', min: 0, max: 60, whole: true },
    studs('wall', 'Walls', 0.5, 8),
    choice('mount', 'Mount', MOUNTS, {
      pinned: 'Pinned to the ground',
      jumpers: 'On jumpers',
      loose: 'Loose on plates',
      turntable: 'On a turntable',
    }),
    check('mayCut', 'A seam may cut it'),
    check('coverUnder', 'Ground cover under it'),
    check('streetFront', 'Street front'),
    choice('front', 'Door to the', ['n', 'e', 's', 'w'], COMPASS),
    sides('goodSides', 'Good sides'),
    {
      ...studs('pavement', 'Pavement', 0, 64, 0.5, ({ streetFront }) => streetFront === true),
      as: 'length',
      measure: 'studs',
      min: 0,
      max: 64,
      optional: true,
    },
    choice(
      'connectors',
      'Connectors',
      CONNECTORS,
      { unsaid: 'Not said', standard: 'As the standard' },
      ({ streetFront }) => streetFront === true,
    ),
    { as: 'length', measure: 'plates', key: 'eaves', label: 'Roof from', min: 0, max: 3000, optional: true },
    plates('overhangFrom', 'Stands out from', 0),
    long('notes', 'Notes'),
  ],
  run: [
    text('name', 'Name'),
    choice('use', 'It is a', RUN_USES),
    plates('height', 'Height', 1),
    studs('thick', 'Thick', 0.5, 16),
  ],
  repeat: [
    text('name', 'Name'),
    choice('use', 'Of', REPEAT_USES, {
      lamp: 'Lamps',
      arch: 'Arches',
      panel: 'Panels',
      post: 'Posts',
      other: 'Other things',
    }),
    choice('spacing', 'Set', SPACINGS, {
      count: 'A number, evenly',
      every: 'One every so far',
      base: 'So many to a base',
    }),
    {
      as: 'number',
      key: 'count',
      label: 'How many',
      min: 1,
      max: 1000,
      whole: true,
      when: ({ spacing }) => spacing !== 'every',
    },
    studs('every', 'Every', 0.5, 512, 0.5, ({ spacing }) => spacing === 'every'),
    studs('base', 'Base length', 0.5, 512, 0.5, ({ spacing }) => spacing === 'base'),
    studs('length', 'Each long', 0.5, 256),
    plates('height', 'Each high', 1),
    studs('keepOff', 'Off seams by', 0, 64),
  ],
  planting: [
    text('name', 'Name'),
    ...area(0.5),
    shape,
    { as: 'number', key: 'density', label: 'To 100 studs', min: 0, max: 100, unit: 'plants' },
    { as: 'number', key: 'seed', label: 'Pattern number', min: 0, max: 1_000_000, whole: true },
  ],
  tree: [
    text('name', 'Name'),
    ...spot,
    plates('height', 'Height', 1),
    studs('crown', 'Crown', 0.5, 64),
    season,
  ],
  figure: [
    text('name', 'Name'),
    ...spot,
    { as: 'number', key: 'cast', label: 'Cast', min: 1, max: 500, whole: true, unit: 'figures' },
    choice('state', 'State', FIGURE_STATES),
    long('story', 'What happens'),
  ],
  flag: [
    text('name', 'Name'),
    ...spot,
    choice('heading', 'Points', WINDS, COMPASS),
    plates('height', 'Height', 1),
  ],
  marker: [
    text('name', 'To be decided'),
    ...area(0.5),
    choice('state', 'State', MARKER_STATES),
    long('notes', 'Notes'),
  ],
  reserved: [text('name', 'Kept for'), ...area(0.5), long('notes', 'Notes')],
  note: [text('name', 'Heading'), ...spot, long('text', 'Note')],
  picture: [
    text('name', 'Name'),
    ...area(0.5),
    { as: 'number', key: 'shows', label: 'Shows', min: 5, max: 100, whole: true, unit: '%' },
  ],
};

function leadsOn({ edges, shape: form }: Data): boolean {
  return form === 'rect' && JSON.stringify(edges).match(/slope|terrace/) !== null;
}
