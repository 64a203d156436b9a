import { colourName } from '../catalogue/index.ts';
import { MM_PER_PLATE, MM, formatInches, formatMm, formatPlates } from '../grid/index.ts';
import { SIDE_WORDS, WIND_WORDS, displayOf, listOf, type Scene } from '../document/index.ts';
import { SCHOOL_LIST } from '../scale/index.ts';
import type { DrawingUnits } from './surveyDrawing.ts';

/** A heading and its lines: what it is about, and what was agreed. */
export interface RuleGroup {
  heading: string;
  lines: [string, string][];
}

const COLOURS = { strict: 'strict, as the recipe', aged: 'old and new mixed', free: 'any colour' };

/** The agreements of the crew, as printed lines. Lengths in the unit asked for. */
export function houseRules(scene: Scene, units: DrawingUnits): RuleGroup[] {
  const display = displayOf(scene);
  const length = (plates: number) =>
    units === 'in'
      ? formatInches(plates * MM_PER_PLATE * MM)
      : formatMm(Math.round(plates * MM_PER_PLATE * 10) * (MM / 10));
  const levels = listOf(scene, 'level').toSorted((a, b) => b.height - a.height);
  const shows = listOf(scene, 'milestone').toSorted((a, b) => (a.date < b.date ? -1 : 1));
  const groups: RuleGroup[] = [
    {
      heading: 'What is shown',
      lines: [
        ['Kind', display.kind],
        [
          'Scale',
          `1:${display.ratio}, ${SCHOOL_LIST[display.school].word.toLowerCase()}; things may differ by ${display.scaleSpread} %`,
        ],
        ['Looked at from', display.viewedSides.map((side) => SIDE_WORDS[side]).join(', ') || 'not agreed'],
        ['Wind blows from', display.wind ? WIND_WORDS[display.wind] : 'not agreed'],
        ['Season', display.season ?? 'not agreed'],
      ],
    },
    {
      heading: `Levels, above the ${display.datum}`,
      lines: [
        ...levels.map(({ name, height }): [string, string] => [
          name,
          `${formatPlates(height)} (${length(height)})`,
        ]),
        [
          'Step between levels',
          display.levelStep === null
            ? 'none agreed'
            : `${formatPlates(display.levelStep)} (${length(display.levelStep)})`,
        ],
      ],
    },
    {
      heading: 'How it is built',
      lines: [
        [
          'Street fronts',
          display.streetDepth === null
            ? 'no standard'
            : `${display.streetDepth} studs deep, ${display.streetWidths.join(', ')} wide`,
        ],
        [
          'Pavements',
          `light rows in ${colourName(display.pavementLight)}, dark rows in ${colourName(display.pavementDark)}`,
        ],
        ['Largest module', `${display.moduleMaxW} × ${display.moduleMaxD} studs`],
        ['Over a table edge', `at most ${display.overhang} studs, nothing heavy`],
        ['Colours where seen', COLOURS[display.colourSeen]],
        ['Colours where hidden', COLOURS[display.colourHidden]],
        ...listOf(scene, 'section').flatMap(({ letter, colour }): [string, string][] =>
          colour === null ? [] : [[`  in section ${letter}`, COLOURS[colour]]],
        ),
        ['Backs', display.backs],
        ['Glue', { none: 'none', hidden: 'only where unseen', allowed: 'allowed' }[display.glue]],
        [
          'Placeholders',
          {
            none: 'none may be built in',
            listed: 'each is listed, to be swapped',
            allowed: 'allowed to stay',
          }[display.placeholders],
        ],
      ],
    },
    {
      heading: 'When',
      lines: [
        ['Begun', display.startDate ?? 'not set'],
        ['Show', `${display.showName || 'the show'}, ${display.showDate ?? 'day not set'}`],
        ...shows.map(({ name, date, show }): [string, string] => [show ? `${name} (show)` : name, date]),
        [
          'Updates',
          {
            none: 'none agreed',
            weekly: 'every week',
            fortnightly: 'every two weeks',
            days: `every ${display.rhythmDays} days`,
          }[display.rhythm],
        ],
      ],
    },
    {
      heading: 'Who',
      lines: listOf(scene, 'section')
        .toSorted((a, b) => (a.letter < b.letter ? -1 : 1))
        .map(({ letter, name, owner }): [string, string] => [
          `${letter}  ${name}`,
          owner === null ? 'nobody yet' : (scene.person[owner]?.name ?? ''),
        ]),
    },
  ];
  if (display.kind === 'vignette') groups.splice(1, 0, ruleCard(scene));
  if (display.notes.trim()) groups.push({ heading: 'And besides', lines: [['', display.notes.trim()]] });
  return groups.filter(({ lines }) => lines.length > 0);
}

/** The contest's card, for a vignette. */
function ruleCard(scene: Scene): RuleGroup {
  const {
    limitW,
    limitD,
    limitHeight,
    cardOverhang,
    cardOverhangFrom,
    stance,
    sourceRule,
    kitName,
    kitCopies,
  } = displayOf(scene);
  const from = cardOverhangFrom > 0 ? ` from ${formatPlates(cardOverhangFrom)} up` : '';
  const parts = {
    any: 'any',
    own: 'own stock only',
    kit: `only from ${kitCopies} ${kitCopies === 1 ? 'copy' : 'copies'} of ${kitName || 'one kit'}`,
  };
  return {
    heading: 'Rule card',
    lines: [
      ['Base', limitW === null || limitD === null ? 'no limit' : `${limitW} × ${limitD} studs`],
      ['Height', limitHeight === null ? 'no limit' : `at most ${formatPlates(limitHeight)}`],
      ['Over the base’s sides', cardOverhang === 0 ? 'nothing' : `at most ${cardOverhang} studs${from}`],
      ['Shown', stance],
      ['Parts', parts[sourceRule]],
      ...listOf(scene, 'requirement').map(({ name, count }): [string, string] => [
        `Must have: ${name}`,
        String(count),
      ]),
    ],
  };
}
