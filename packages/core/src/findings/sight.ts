import { DISTINCT_DELTA_E, colourDeltaE, colourName, partOf } from '../catalogue/index.ts';
import { SIDES, SIDE_WORDS, displayOf, listOf, turnedSide, type Entity } from '../document/index.ts';
import { centreOf, countOf, intersection } from '../grid/index.ts';
import { plainMask } from '../masonry/index.ts';
import { OUTSIDE, indexAt, studMiddle, type Relief } from '../terrain/index.ts';
import { WATCHERS, WATCHER_WORDS, cavityFloor, thinned } from '../visibility/index.ts';
import { listed, percent } from './figures.ts';
import { formatTenths, type FindingDraft, type Rule } from './finding.ts';

// What visitors cannot see, or not make out.

const sceneUnseen: Rule = {
  id: 'scene-unseen',
  title: 'Visitors cannot see a small scene',
  basis:
    'Straight lines to the faces of its figures from eyes of adults, of people in a wheelchair, of children and of those on shoulders, each half metre along the sides the display is looked at from, as far off as the nearest barrier. When nobody sees them it is a warning, when neither children nor people in a wheelchair do a note.',
  page: 'plan',
  severity: 'warning',
  check({ scene, lookout: ask }) {
    const figures = listOf(scene, 'figure');
    const lookout = figures.length > 0 ? ask() : null;
    if (!lookout) return [];
    return figures.flatMap((figure): FindingDraft[] => {
      const { free, hiders } = lookout.look('figure', figure.id);
      const there = WATCHERS.filter((who) => free[who] !== null);
      const seeing = there.filter((who) => (free[who] ?? 0) > 0);
      if (seeing.includes('seated') || seeing.includes('child')) return [];
      const blind = there.filter((who) => !seeing.includes(who));
      // Where neither of them comes, nobody is left out.
      if (seeing.length > 0 && blind.length === 0) return [];
      const places = lookout.eyes.places.length;
      const [hider] = hiders;
      const by = hider ? ` “${hider.name}” cuts off ${percent(100 * hider.share)} of the lines to them.` : '';
      const from = seeing.map((who) => percent(100 * (free[who] ?? 0)));
      return [
        {
          severity: seeing.length > 0 ? 'note' : 'warning',
          sentence:
            seeing.length > 0
              ? `Only ${listed(seeing.map((who) => WATCHER_WORDS[who]))} see the faces of “${figure.name}”, from ${listed(from)} of ${places} places; 0 % of ${listed(blind.map((who) => WATCHER_WORDS[who]))} do.${by}`
              : `Nobody sees the faces of “${figure.name}”: 0 of ${places} places, at ${there.length} heights of eyes.${by}`,
          remedy:
            'Move it, raise what it stands on, or lower what is before it; Sight tells what would free it.',
          place: { x: figure.x, y: figure.y },
          things: [
            { kind: 'figure', id: figure.id },
            ...(hider && hider.id !== '' ? [{ kind: hider.kind, id: hider.id }] : []),
          ],
          numbers: { adult: Math.round(100 * (free.adult ?? 0)), seated: 0, child: 0 },
        },
      ];
    });
  },
};

/** A good side of which less is seen is worth a note, and a warning: shares of the lines to it. */
const HALF = 0.5;
const QUARTER = 0.25;

const goodSideHidden: Rule = {
  id: 'good-side-hidden',
  title: 'The good side of a building is hidden',
  basis:
    'Straight lines from visitors’ eyes to those sides of a building that are worth showing and face a side the display is looked at from, as on Sight: when less than half of them is free it is a note, less than a quarter a warning.',
  page: 'plan',
  severity: 'note',
  check({ scene, lookout: ask }) {
    const { viewedSides } = displayOf(scene);
    const plots = listOf(scene, 'plot').filter(({ goodSides, turn }) =>
      goodSides.some((side) => viewedSides.includes(turnedSide(side, turn))),
    );
    const lookout = plots.length > 0 ? ask() : null;
    if (!lookout) return [];
    return plots.flatMap((plot): FindingDraft[] => {
      const good = plot.goodSides.map((side) => turnedSide(side, plot.turn));
      const { sides, hiders } = lookout.look('plot', plot.id);
      const [hider] = hiders;
      return sides.flatMap(({ side, free }): FindingDraft[] => {
        if (!good.includes(side) || !viewedSides.includes(side) || free >= HALF) return [];
        return [
          {
            severity: free < QUARTER ? 'warning' : 'note',
            sentence: `The good side of “${plot.name}” looks ${SIDE_WORDS[side]}, and visitors see ${percent(100 * free)} of it.${hider ? ` “${hider.name}” hides most of the building: ${percent(100 * hider.share)} of all lines to it.` : ''}`,
            remedy: 'Move or turn it, or lower what is before it; Sight tells what would free it.',
            place: centreOf(plot),
            part: SIDE_WORDS[side],
            things: [
              { kind: 'plot', id: plot.id },
              ...(hider && hider.id !== '' ? [{ kind: hider.kind, id: hider.id }] : []),
            ],
            numbers: { free: Number(free.toFixed(2)) },
          },
        ];
      });
    });
  },
};

const sceneBlends: Rule = {
  id: 'scene-blends',
  title: 'Figures have the colour of what is behind them',
  basis:
    'What straight lines from visitors’ eyes meet behind the heads of a small scene, its colour beside those of the figures’ torsos: below 10 by CIEDE2000 they are one colour (common practice, no source). Found when that is so for half of what is seen.',
  page: 'plan',
  severity: 'note',
  check({ scene, lookout: ask }) {
    const figures = listOf(scene, 'figure').filter(({ spots }) => spots.length > 0);
    const lookout = figures.length > 0 ? ask() : null;
    if (!lookout) return [];
    return figures.flatMap((figure): FindingDraft[] => {
      const blends = lookout.blendOf('figure', figure.id);
      const [most] = blends?.against ?? [];
      if (!blends || !most || blends.share < HALF) return [];
      return [
        {
          sentence: `${percent(100 * blends.share)} of “${figure.name}” is seen before its own colour: ${colourName(most.own)} before ${colourName(most.colour)} of “${most.name}” differs by ${most.deltaE.toFixed(1)}; ${DISTINCT_DELTA_E} or more is told apart.`,
          remedy: 'Give it clothes of another colour, or turn it so that something else is behind it.',
          place: { x: figure.x, y: figure.y },
          things: [{ kind: 'figure', id: figure.id }],
          numbers: { share: Number(blends.share.toFixed(2)), difference: Number(most.deltaE.toFixed(1)) },
        },
      ];
    });
  },
};

const doorBlends: Rule = {
  id: 'door-blends',
  title: 'Doors and windows have the colour of the wall',
  basis:
    'The colour of what is let into the walls of a building that has a door, beside that of its walls: below 10 by CIEDE2000 they are one colour (common practice, no source).',
  page: 'plan',
  severity: 'note',
  check({ scene }) {
    return listOf(scene, 'plot').flatMap((plot): FindingDraft[] => {
      const { wallColour, letInColour } = plot;
      const difference = colourDeltaE(wallColour, letInColour);
      const hasDoor = plot.bays.some(({ bays }) =>
        bays.some(({ part }) => part !== null && partOf(part)?.family === 'door'),
      );
      if (!hasDoor || difference >= DISTINCT_DELTA_E) return [];
      return [
        {
          sentence: `The doors and windows of “${plot.name}” are ${colourName(letInColour)} in walls of ${colourName(wallColour)}: they differ by ${difference.toFixed(1)}; ${DISTINCT_DELTA_E} or more is told apart.`,
          remedy: 'Take another colour for one of them.',
          place: centreOf(plot),
          things: [{ kind: 'plot', id: plot.id }],
          numbers: { difference: Number(difference.toFixed(1)) },
        },
      ];
    });
  },
};

/** Printed faces are told apart down to so many mm (a guess), as far as they fill a minute of arc. */
const FEATURE = 1;
const MINUTE = Math.PI / 180 / 60;

const facesFar: Rule = {
  id: 'faces-far',
  title: 'Visitors stand too far off to make out faces',
  basis:
    'The straight way from the nearest eyes to the faces of a small scene. A normal eye tells apart what fills a sixtieth of a degree (Snellen 1862: 20/20); what is printed on a face is about a millimetre wide (a guess), which fills that at 3.44 m.',
  page: 'plan',
  severity: 'note',
  check({ scene, lookout: ask }) {
    const figures = listOf(scene, 'figure');
    const lookout = figures.length > 0 ? ask() : null;
    if (!lookout) return [];
    const limit = FEATURE / Math.tan(MINUTE);
    return figures.flatMap((figure): FindingDraft[] => {
      const distance = lookout.nearest('figure', figure.id);
      if (!Number.isFinite(distance) || distance <= limit) return [];
      return [
        {
          sentence: `The faces of “${figure.name}” are ${formatTenths(distance)} from the nearest eyes; what is printed on them is made out up to ${formatTenths(limit)}.`,
          remedy: 'Move it nearer to the edge, the barrier nearer to the display, or tell it by poses.',
          place: { x: figure.x, y: figure.y },
          things: [{ kind: 'figure', id: figure.id }],
          numbers: { distance: Math.round(distance), limit: Math.round(limit) },
        },
      ];
    });
  },
};

const tunnelDeep: Rule = {
  id: 'tunnel-deep',
  title: 'Visitors do not see far into a tunnel',
  basis:
    'Straight lines from visitors’ eyes to the middle of each stud of the floor of a tunnel or cave, under its roof and past its sides, as on Sight. Found when less than half of its floor is seen by anybody.',
  page: 'plan',
  severity: 'note',
  check({ scene, relief, lookout: ask }) {
    const cavities = listOf(scene, 'cavity').filter(({ use }) => use === 'tunnel' || use === 'cave');
    const lookout = cavities.length > 0 ? ask() : null;
    if (!lookout) return [];
    return cavities.flatMap((cavity): FindingDraft[] => {
      const floor = cavityFloor(scene, relief, cavity.id);
      if (!floor) return [];
      const { free, depths } = lookout.lookInto(floor);
      const most = Math.max(...WATCHERS.map((who) => free[who] ?? 0));
      if (most >= HALF) return [];
      const deep = depths.map(({ side, seen, of }) => `${seen} of ${of} studs from the ${SIDE_WORDS[side]}`);
      return [
        {
          sentence: `Visitors see at most ${percent(100 * most)} of the floor of “${cavity.name}”, ${listed(deep)} deep.`,
          remedy: 'Spend no detail on what is deeper, raise its roof, or bring what matters to its mouth.',
          place: centreOf(cavity),
          things: [{ kind: 'cavity', id: cavity.id }],
          numbers: { seen: Number(most.toFixed(2)) },
        },
      ];
    });
  },
};

/** Of plain ground so many studs are looked at, at most. */
const MAX_PLAIN = 1500;

/** The studs of plain faces with the side they look to, by number of SIDES. */
function facesOfPlain(plains: readonly Entity<'plain'>[], relief: Relief): { stud: number; side: number }[] {
  return plains.flatMap(({ faces }) =>
    faces.flatMap(({ side, ...strip }) => {
      const on = intersection(strip, relief);
      if (!on) return [];
      return Array.from({ length: on.w * on.d }, (_, k) => ({
        stud: indexAt(relief, on.x + (k % on.w), on.y + Math.trunc(k / on.w)),
        side: SIDES.indexOf(side),
      }));
    }),
  );
}

const plainSeen: Rule = {
  id: 'plain-seen',
  title: 'Ground that was left plain is seen',
  basis:
    'Straight lines from visitors’ eyes to the tops of the studs of plain ground, and to its plain faces, as on Sight: it is laid in any colour because nobody saw it. Found when more than one in a hundred is seen; of more than 1,500 so many are looked at, evenly among them.',
  page: 'plan',
  severity: 'note',
  check({ scene, relief, lookout: ask }) {
    const plains = listOf(scene, 'plain');
    const lookout = plains.length > 0 ? ask() : null;
    if (!lookout) return [];
    const things = plains.map(({ id }) => ({ kind: 'plain' as const, id }));
    const faces = thinned(facesOfPlain(plains, relief), MAX_PLAIN);
    const seenFaces = faces.filter(({ stud, side }) => lookout.seesFace(stud, side));
    const [face] = seenFaces;
    const ofFaces: FindingDraft[] =
      seenFaces.length * 100 <= faces.length
        ? []
        : [
            {
              sentence: `${seenFaces.length.toLocaleString('en')} of ${countOf(faces.length, 'face')} of cliffs and edges that were left plain are seen now; 0 were meant to be.`,
              remedy: 'Look at Sight again and leave plain what is hidden now, or take it back.',
              place: studMiddle(relief, face.stud),
              part: 'faces',
              things,
              numbers: { seen: seenFaces.length },
            },
          ];
    const mask = plainMask(scene, relief);
    const studs = [...mask.keys()].filter((i) => mask[i] === 1 && relief.ground[i] !== OUTSIDE);
    const looked = thinned(studs, MAX_PLAIN);
    const found = lookout.seenTops(looked);
    if (found.length * 100 <= looked.length) return ofFaces;
    const seen = Math.round((studs.length * found.length) / looked.length);
    const about = looked.length < studs.length ? 'About ' : '';
    const [first] = found;
    return [
      ...ofFaces,
      {
        sentence: `${about}${seen.toLocaleString('en')} of ${countOf(studs.length, 'stud')} of plain ground are seen now; 0 were meant to be.`,
        remedy: 'Look at Sight again and leave plain what is hidden now, or take it back.',
        place: studMiddle(relief, first),
        things,
        numbers: { seen },
      },
    ];
  },
};

export const SIGHT_RULES: readonly Rule[] = [
  sceneUnseen,
  goodSideHidden,
  sceneBlends,
  doorBlends,
  facesFar,
  tunnelDeep,
  plainSeen,
];
