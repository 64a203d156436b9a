import { z } from 'zod';
import { ANY_COLOUR } from '../../catalogue/index.ts';
import {
  MAX_STUDS,
  clockTime,
  date,
  line,
  money,
  name,
  plates,
  reference,
  showTimes,
  text,
  wholeSize,
} from '../fields.ts';
import { COLOUR_POLICIES, METHODS, SEASONS, SIDES, STAGES, WINDS } from '../vocabulary.ts';
import { defineKind } from '../kind.ts';
import { colourField, tonesField } from '../partLines.ts';

export const KINDS_OF_DISPLAY = ['city', 'diorama', 'vignette'] as const;
export const SCHOOLS = ['height', 'width', 'rail', 'small', 'eye'] as const;

/** How a vignette is shown. */
export const STANCES = ['standing', 'lying', 'hung'] as const;

/** Where parts may come from. */
export const SOURCE_RULES = ['any', 'own', 'kit'] as const;
export const BACKS = ['bare', 'plain', 'finished'] as const;
export const GLUES = ['none', 'hidden', 'allowed'] as const;
export const PLACEHOLDERS = ['none', 'listed', 'allowed'] as const;
export const RIMS = ['plates', 'bare'] as const;
export const RHYTHMS = ['none', 'weekly', 'fortnightly', 'days'] as const;

const crowded = z.int().min(1).max(100).default(100);
/** How busy the thirds of a side are, from its west or north end, percent of how busy the side is. */
const thirds = z.tuple([z.int().min(1).max(100), z.int().min(1).max(100), z.int().min(1).max(100)]);
const evenThirds = thirds.default([100, 100, 100]);

export const displayKind = defineKind({
  schema: z.strictObject({
    name,
    kind: z.enum(KINDS_OF_DISPLAY),
    /** How the scale is chosen, and the ratio 1 : n. */
    school: z.enum(SCHOOLS).default('height'),
    ratio: z.number().min(1).max(2000).default(45),
    startDate: date.default(null),
    showDate: date.default(null),
    showName: line().max(80).default(''),
    /** The place of the show, for what is loaded and done there; null: where it stands now. */
    showPlace: reference.default(null),
    ...showTimes,
    /** When packing at home begins, and setting up there again after the show, until when. */
    leaveFrom: clockTime.nullable().default(null),
    rebuildFrom: clockTime.nullable().default(null),
    rebuildBy: clockTime.nullable().default(null),
    /** What is kept free about each thing in a vehicle, for blankets and hands, mm (a default of ours, no source). */
    loadGap: z.number().min(0).max(200).default(20),
    /** Footprint and height the rules or the place allow; null: no limit. Studs and plates. */
    limitW: wholeSize.nullable().default(null),
    limitD: wholeSize.nullable().default(null),
    limitHeight: plates.min(1).nullable().default(null),
    /** Largest module, either way round, studs. */
    moduleMaxW: wholeSize.default(96),
    moduleMaxD: wholeSize.default(48),
    /** How far the scene may hang over a table edge, studs (common practice: about 6). */
    overhang: z.number().min(0).max(64).default(6),
    /** What leans less than this before it tips is found, degrees (common practice toward visitors, no source). */
    tipLimit: z.number().min(1).max(45).default(10),
    /** The agreed step between named levels, plates (common practice: 5 or 6 bricks); null: none agreed. */
    levelStep: plates.min(1).nullable().default(null),
    /** What one more module and one stud of seam are worth, in money: the weights of a cutting. */
    moduleWeight: money.default(5),
    seamWeight: money.default(0.05),
    /** The most a module may weigh, kg; null: no limit. */
    moduleMaxKg: z.number().positive().max(1000).nullable().default(null),
    /** What bases cannot cover at the edge of the footprint: laid with plates as part of its modules, or left bare. */
    rim: z.enum(RIMS).default('plates'),
    /** Modules keep to one section: where a border lies on the bases' steps a seam must be. */
    cutAtSections: z.boolean().default(true),
    currency: line().trim().min(1).max(4).default('¤'),
    notes: text.default(''),
    /** The version that is set up now; null: the base. */
    stands: reference.default(null),
    /** Where the display stands now: the place whose tables and room are judged; null: tables of no place. */
    place: reference.default(null),
    /** Why the largest module is what it is, such as the passage that sets it. */
    moduleReason: text.default(''),

    /** The rule card: how far parts may stand out over the base's sides, studs, and above which height, plates. */
    cardOverhang: z.number().min(0).max(64).default(0),
    cardOverhangFrom: plates.min(0).default(0),
    stance: z.enum(STANCES).default('standing'),
    sourceRule: z.enum(SOURCE_RULES).default('any'),
    kitName: line().max(80).default(''),
    kitCopies: z.int().min(1).max(1000).default(1),
    /** The sides from which the display is looked at. */
    viewedSides: z.array(z.enum(SIDES)).max(4).default([]),
    /** How many visitors stand along each of those sides, percent of the busiest. */
    crowd: z.strictObject({ n: crowded, e: crowded, s: crowded, w: crowded }).prefault({}),
    /** How that is shared out along each side: a corner that all pass, a far end that few reach. */
    crowdAlong: z.strictObject({ n: evenThirds, e: evenThirds, s: evenThirds, w: evenThirds }).prefault({}),
    /** How much street front is still to come, studs. */
    growth: z.int().min(0).max(MAX_STUDS).default(0),

    /** How far a thing's own scale may lie from the display's, percent. */
    scaleSpread: z.number().min(0).max(100).default(15),
    /** How much of the ground vehicles may cover, percent (a default of ours, no source). */
    vehicleShare: z.number().min(0).max(100).default(10),

    /** House rules. */
    wind: z.enum(WINDS).nullable().default(null),
    season: z.enum(SEASONS).nullable().default(null),
    /** The month that is shown: leaves by month are of it. */
    month: z.int().min(1).max(12).nullable().default(null),
    /** Colours of the leaves of each month, by parts of the whole; a month that is not here has those of the season. */
    leaves: z
      .array(
        z.strictObject({
          month: z.int().min(1).max(12),
          tones: tonesField('leaves need one colour'),
        }),
      )
      .max(12)
      .refine((list) => new Set(list.map(({ month }) => month)).size === list.length, {
        message: 'a month has one mix of leaves',
      })
      .default([]),
    datum: line().max(80).default('table top'),
    streetDepth: wholeSize.nullable().default(null),
    streetWidths: z.array(wholeSize).max(12).default([16, 32, 48, 64]),
    /** Colours of the pavement of street fronts: its light rows at both edges, and the rows between. */
    pavementLight: colourField.default(ANY_COLOUR),
    pavementDark: colourField.default(ANY_COLOUR),
    colourSeen: z.enum(COLOUR_POLICIES).default('strict'),
    colourHidden: z.enum(COLOUR_POLICIES).default('free'),
    backs: z.enum(BACKS).default('bare'),
    glue: z.enum(GLUES).default('none'),
    placeholders: z.enum(PLACEHOLDERS).default('listed'),
    rhythm: z.enum(RHYTHMS).default('fortnightly'),
    /** Days from one update to the next, where the rhythm is of days. */
    rhythmDays: z.int().min(1).max(365).default(10),

    /** What share of a section's work each stage before “done” is, by parts of the whole (a default of ours, no source). */
    stageWeights: z.array(z.number().min(0).max(1000)).length(7).default([5, 10, 30, 30, 15, 5, 5]),
    /** What this display calls its stages, in their order. */
    stageNames: z
      .array(line().trim().min(1, 'a stage needs a name').max(24))
      .length(8)
      .default([...STAGES]),
    /** When a build that is boxed in one day must be over; null: unknown. */
    clockEnd: z.iso.datetime().nullable().default(null),

    /** Default method of filling ground; the largest plate of a deck and its free span, studs. */
    method: z.enum(METHODS).default('raft'),
    deckMost: z.int().min(2).max(16).default(16),
    deckSpan: z.int().min(2).max(14).default(8),
    /** Base sheets may lie in decks, level with the plates. */
    deckSheets: z.boolean().default(false),
    /** What one stud holds before it comes off, grams: a guess until it is tried with a weight hung on. */
    studHold: z.number().min(5).max(2000).default(100),
    /** Bought over the count, percent, where a family has no figure of its own; null: each family's usual one. */
    spares: z.number().min(0).max(100).nullable().default(null),
  }),
  group: 'display',
  word: 'display',
  refs: { place: 'place', showPlace: 'place', stands: 'version' },
});
