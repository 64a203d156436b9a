import { z } from 'zod';
import { MM, STUD, formatMm, formatPlates, formatStuds } from '../grid/index.ts';
import { colourName, partName } from '../catalogue/index.ts';
import {
  DEGREES_PER_TURN,
  KINDS,
  REFERENCES,
  colourField,
  isFixedGround,
  WINDS,
  WIND_WORDS,
  labelOf,
  partField,
  specOf,
  type Kind,
  type Scene,
} from '../document/index.ts';

// The fields of the document in words, and what they hold with their units.

type Unit =
  | 'studs'
  | 'plates'
  | 'mm'
  | 'volts'
  | 'milliamps'
  | 'milliampHours'
  | 'percent'
  | 'kg'
  | 'metres'
  | 'degrees'
  | 'grams'
  | 'hours'
  | 'minutes';

const UNITS: Readonly<Record<Unit, readonly string[]>> = {
  studs: [
    ...['x', 'y', 'w', 'd', 'width', 'reach', 'bank', 'crown', 'thick', 'every', 'base', 'length', 'wall'],
    ...['bed', 'clearSide', 'keepOff', 'pavement', 'limitW', 'limitD', 'moduleMaxW', 'moduleMaxD', 'growth'],
    ...['overhang', 'cardOverhang', 'streetDepth', 'deckMost', 'deckSpan', 'tieEvery', 'panel'],
    ...['pierEvery', 'spacing', 'pillar', 'wallBrick', 'slideX', 'slideY'],
  ],
  plates: [
    ...[
      'height',
      'below',
      'offset',
      'depth',
      'terrace',
      'rise',
      'low',
      'high',
      'eaves',
      'overhangFrom',
      'tolerance',
      'storeyHeights',
    ],
    ...[
      'clearHeight',
      'limitHeight',
      'levelStep',
      'cardOverhangFrom',
      'bridgeThick',
      'clear',
      'riseBy',
      'up',
      'above',
    ],
  ],
  mm: [
    ...['leafGap', 'ceiling', 'sceneX', 'sceneY', 'armReach', 'ladderReach', 'standDepth', 'aisle'],
    ...[
      'eyeAdult',
      'eyeSeated',
      'eyeChild',
      'eyeShoulders',
      'width2',
      'insideW',
      'insideD',
      'insideH',
      'at',
      'x1',
      'y1',
    ],
    ...[
      'x2',
      'y2',
      'h',
      'archFrom',
      'archW',
      'archD',
      'archH',
      'padding',
      'loadGap',
      'leadMm',
      'belowMm',
      'letters',
      'eye',
    ],
  ],
  percent: [
    'percent',
    'stageDone',
    'maxGrade',
    'shows',
    'spares',
    'bend',
    'scaleSpread',
    'vehicleShare',
    'slack',
    'maxDrop',
    'ornament',
    'scored',
    'sideStudded',
  ],
  kg: ['ratedKg', 'moduleMaxKg', 'maxKg', 'ownKg', 'bearsKg', 'kg', 'carriesKg'],
  metres: ['trueLength', 'carryMetres'],
  degrees: ['turn', 'pitch', 'bearing', 'lean', 'leanTo', 'downBy', 'swingBy', 'facing', 'tipLimit'],
  grams: ['grams', 'studHold'],
  hours: ['hours', 'likely', 'rests'],
  minutes: ['minutes', 'driveMinutes', 'took'],
  volts: ['volts'],
  milliamps: ['milliamps'],
  milliampHours: ['capacity'],
};
const UNIT_OF = new Map<string, Unit>();
for (const [unit, fields] of Object.entries(UNITS))
  for (const field of fields) if (isUnit(unit)) UNIT_OF.set(field, unit);
function isUnit(word: string): word is Unit {
  return Object.hasOwn(UNITS, word);
}

const WRITE: Readonly<Record<Unit, (value: number) => string>> = {
  studs: (value) => formatStuds(value * STUD),
  plates: formatPlates,
  mm: (value) => formatMm(Math.round(value * 10) * (MM / 10)),
  percent: (value) => `${value} %`,
  kg: (value) => `${value} kg`,
  metres: (value) => `${value} m`,
  degrees: (value) => `${value}°`,
  grams: (value) => `${value} g`,
  hours: (value) => `${value} h`,
  minutes: (value) => `${value} min`,
  volts: (value) => `${value} V`,
  milliamps: (value) => `${value} mA`,
  milliampHours: (value) => `${value} mAh`,
};

/** What a field's number is counted in; null for one without a unit. */
export function unitOf(kind: Kind, field: string): Unit | null {
  if (kind === 'deck' && field === 'thick') return 'plates';
  if (kind === 'space' && (field === 'w' || field === 'd')) return 'metres';
  if (kind === 'task' && (field === 'low' || field === 'high')) return 'hours';
  const unit = UNIT_OF.get(field) ?? null;
  return specOf(kind).inRoom && (unit === 'studs' || unit === 'plates') ? 'mm' : unit;
}

const WORDS: Readonly<Record<string, string>> = {
  x: 'place from west',
  y: 'place from north',
  w: 'width',
  d: 'depth',
  qty: 'count',
  stageDone: 'share of its stage',
  partsBy: 'day its parts are needed',
  moduleMaxW: 'largest module, width',
  moduleMaxD: 'largest module, depth',
  moduleMaxKg: 'most a module may weigh',
  ratedKg: 'rated load',
  maxGrade: 'steepest grade',
  showDate: 'day of the show',
  colourSeen: 'colours where seen',
  colourHidden: 'colours where hidden',
  by: 'author',
  low: 'least',
  high: 'most',
  after: 'order',
  struck: 'sides that waves strike',
  viewedSides: 'sides it is looked at from',
  crowd: 'how busy each side is',
  crowdAlong: 'how busy the thirds of each side are',
  eyeShoulders: 'eyes on shoulders',
  shareAdult: 'parts of adults among visitors',
  shareSeated: 'parts of those in a wheelchair among visitors',
  shareChild: 'parts of children among visitors',
  shareShoulders: 'parts of those on shoulders among visitors',
  onSteep: 'way over steep ground',
  limitW: 'allowed width',
  limitD: 'allowed depth',
  limitHeight: 'allowed height',
  rhythm: 'rhythm of updates',
  rhythmDays: 'days from one update to the next',
  x1: 'one end from west',
  y1: 'one end from north',
  x2: 'other end from west',
  y2: 'other end from north',
  upto: 'end',
  maxKg: 'most it may hold',
  ownKg: 'own mass',
  bearsKg: 'what it bears on top',
  kg: 'mass',
  showPlace: 'place of the show',
  accessFrom: 'hall open to builders',
  opensAt: 'open to visitors',
  closesAt: 'closed to visitors',
  clearBy: 'hall to be empty',
  showDays: 'days with visitors',
  stands: 'version that is set up',
  eveFrom: 'hall open the evening before, from',
  eveTo: 'hall open the evening before, until',
  morrowFrom: 'hall open the day after, from',
  morrowTo: 'hall open the day after, until',
  driveMinutes: 'drive from home to the hall',
  leaveFrom: 'packing at home begins',
  rebuildFrom: 'set up at home again from',
  rebuildBy: 'standing at home again by',
  eve: 'there the evening before',
  carriesKg: 'carries at most',
  crewOf: 'vehicle that it rides in',
  wears: 'parts that it wears and holds',
  seek: 'what visitors look for',
  promises: 'what is promised for it',
  askedBy: 'followers who asked for it',
  named: 'name told to the public',
  wheels: 'on wheels',
  loadGap: 'air about each thing in a vehicle',
  milliamps: 'current',
  wire: 'copper of each wire in mm²',
  slack: 'what is cut longer',
  leadMm: 'length of its lead',
  belowMm: 'how far below the table top',
  maxDrop: 'allowed fall of voltage',
  plug: 'low-voltage plug',
  sets: 'charged ones brought',
  carryMetres: 'way from the vehicle to the tables',
};

/** A field as a sentence names it: “largest module, width”, “rated load”, “bank ground”. */
export const fieldWord = (field: string): string =>
  WORDS[field] ?? field.replace(/([a-z])([A-Z0-9])/g, (_, a: string, b: string) => `${a} ${b.toLowerCase()}`);

/** Fields that hold points of the compass. */
const TOWARDS: ReadonlySet<string> = new Set([
  ...['heading', 'wind', 'front', 'goodSides', 'bareSides', 'faces', 'struck', 'viewedSides'],
]);

/** What a field holds without its default, of a list what each of its items is. */
function innerSchema(kind: Kind, field: string): unknown {
  let schema: unknown = Object.entries(specOf(kind).schema.shape).find(([key]) => key === field)?.[1];
  while (
    schema instanceof z.ZodDefault ||
    schema instanceof z.ZodPrefault ||
    schema instanceof z.ZodNullable ||
    schema instanceof z.ZodArray
  )
    schema = schema.unwrap();
  return schema;
}

/** The longest text that is quoted whole. */
const MOST = 60;
const short = (text: string) => (text.length > MOST ? `${text.slice(0, MOST - 1)}…` : text);

/**
 * Formats a field's value for a sentence: lengths with their unit, people and levels by name, texts in quotes.
 * @param scene where names are looked up
 */
export function valueWord(scene: Scene, kind: Kind, field: string, value: unknown): string {
  if (value === null || value === undefined || value === '') return 'nothing';
  if (typeof value === 'boolean') return value ? 'yes' : 'no';
  if (typeof value === 'number') {
    // Of track that goes in sixteenths of a circle.
    if (kind === 'track' && field === 'heading') return `${value * DEGREES_PER_TURN}°`;
    const unit = unitOf(kind, field);
    return unit ? WRITE[unit](value) : value.toLocaleString('en');
  }
  if (typeof value === 'string') {
    const to = REFERENCES.find((entry) => entry.kind === kind && entry.field === field)?.to;
    if (to === 'customGround' && isFixedGround(value)) return value;
    if (to)
      return Object.hasOwn(scene[to], value) ? labelOf(scene, to, value) : `a ${KINDS[to].word} that is gone`;
    if (TOWARDS.has(field)) {
      const wind = WINDS.find((one) => one === value);
      if (wind) return WIND_WORDS[wind];
    }
    if (field === 'shape' && value === 'rect') return 'rectangle';
    const schema = innerSchema(kind, field);
    if (field === 'part' || schema === partField) return partName(value);
    if (schema === colourField) return colourName(value);
    return value.includes(' ') || value.length > 12 ? `“${short(value)}”` : value;
  }
  if (Array.isArray(value)) {
    if (value.length === 0) return 'none';
    const all = value.every((one) => typeof one === 'string' || typeof one === 'number');
    return all
      ? short(value.map((one) => valueWord(scene, kind, field, one)).join(', '))
      : `${value.length} of them`;
  }
  return 'several things';
}
