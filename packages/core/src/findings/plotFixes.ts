import { partName } from '../catalogue/index.ts';
import { PLATES_PER_BRICK, countOf } from '../grid/index.ts';
import { ROOF_FORMS, SIDES, SIDE_WORDS, plotBounds, roofFormOf, type RoofForm } from '../document/index.ts';
import { MAX_UNTIED } from '../stability/index.ts';
import { ROOF_SLOPES } from '../terrain/index.ts';
import {
  COMPASS_WAYS,
  apart,
  moveFix,
  patch,
  namedThing,
  type FixesOf,
  moveFixes,
  turnFixes,
} from './fix.ts';

// Remedies for buildings: where they stand and how they are turned, what is left out of them, their roofs, fronts and lean.

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

export const PLOT_FIXES: Readonly<Record<string, FixesOf>> = {
  'good-side': (scene, finding) => {
    const plot = namedThing(scene, finding, 'plot');
    return plot
      ? [180, 90, 270].map((by) => ({
          words: `Turn “${plot.name}” by ${by}°`,
          changes: [patch('plot', plot, { turn: (plot.turn + by) % 360 })],
        }))
      : [];
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
};
