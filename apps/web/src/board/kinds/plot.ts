import { formatPlates, present, type Rect } from '@quarry/core/grid';
import {
  CONNECTORS,
  CORNERS,
  CORNER_WORDS,
  MOUNTS,
  ROOF_FORMS,
  MOVES,
  PLOT_SHAPES,
  ROUND_ROOFS,
  SIDES,
  SIDE_WORDS,
  isOverhanging,
  leanAt,
  outerCorners,
  areaBounds,
  listOf,
  plotBounds,
  roofFormOf,
  roomCorners,
  wallCorners,
  type Plot,
  type RoofForm,
} from '@quarry/core/document';
import { isInOutline, sweepOf, ROOF_SLOPES } from '@quarry/core/terrain';
import { field, type ChoiceContext } from '../../ui/fieldSpec.ts';
import { MONO, SANS, hatch, visible, within, wrapText, type Picture } from '../ink.ts';
import { LABEL_RANKS, type BoardLabel } from '../labels.ts';
import { toScreen } from '../viewport.ts';
import { ofLevel } from '../drawSlabs.ts';
import type { BoardKind } from './kind.ts';

type Ctx = CanvasRenderingContext2D;

/** Whether a form is of a building that fills its rectangle. */
const isBox = ({ shape, notches, recesses }: Readonly<Record<string, unknown>>): boolean =>
  shape !== 'round' && [notches, recesses].every((list) => !Array.isArray(list) || list.length === 0);

const SOME_CORNER: Plot['notches'] = [{ corner: 'ne', w: 1, d: 1 }];

/** Whether a form is of a building whose roof would be one of slopes. */
const isSloped = (form: Readonly<Record<string, unknown>>): boolean =>
  form.shape !== 'round' && (isBox(form) || form.roofForm !== 'stepped');

/** Whether it is to have one: over its eaves. */
const isRising = (form: Readonly<Record<string, unknown>>): boolean => form.eaves !== null && isSloped(form);

const ROOF_WORDS: Readonly<Record<RoofForm, string>> = {
  gable: 'Two sides',
  hip: 'All sides',
  'lean-to': 'The front alone',
  stepped: 'Rings of bricks',
};

/** The forms of a roof that a building can have; one that it keeps but cannot have tells what it is instead. */
const roofChoices = ({ data }: ChoiceContext): { value: string; word: string }[] => {
  return ROOF_FORMS.flatMap((value) => {
    const laid = roofFormOf({ roofForm: value, notches: isBox(data) ? [] : SOME_CORNER });
    if (laid === value) return [{ value, word: ROOF_WORDS[value] }];
    const why = isBox(data) ? 'needs a part left out' : 'needs a box';
    return data.roofForm === value
      ? [{ value, word: `${ROOF_WORDS[laid]} (${ROOF_WORDS[value]} ${why})` }]
      : [];
  });
};

export const plotBoard: BoardKind = {
  drawings: [{ rank: 50, draw: drawPlots }],
  labels: (picture) => plotLabels(picture),
  layer: 'plots',
  picked: 80,
  // By its turned walls.
  hit: (scene, id, { at }) => {
    const plot = scene.plot[id];
    return plot !== undefined && isInOutline(wallCorners(plot), at);
  },
  boxed: true,
  snaps: true,
  tool: {
    draws: 'area',
    key: 'b',
    make: (_scene, rect, name) => ({
      words: 'a plot',
      data: { name: name('Plot'), ...rect, height: 30, storeys: 2 },
    }),
  },
  fields: [
    field.text('name', 'Name'),
    ...field.area(0.5),
    field.choice('shape', 'Shape', PLOT_SHAPES, { box: 'Box', round: 'Round' }),
    field.number('turn', 'Turned', 0, 359.9, { unit: '°' }),
    field.plates('height', 'Height', 1),
    field.number('storeys', 'Storeys', 0, 60, { whole: true }),
    field.studs('wall', 'Walls', 0.5, 8),
    field.choice('mount', 'Mount', MOUNTS, {
      pinned: 'Pinned to the ground',
      jumpers: 'On jumpers',
      loose: 'Loose on plates',
      turntable: 'On a turntable',
    }),
    field.check('mayCut', 'A seam may cut it'),
    field.check('coverUnder', 'Ground cover under it'),
    field.check('streetFront', 'Street front'),
    field.choice('front', 'Door to the', SIDES, SIDE_WORDS),
    field.sides('goodSides', 'Good sides'),
    field.sides('bareSides', 'Sides nobody sees'),
    {
      as: 'length',
      measure: 'studs',
      key: 'pavement',
      label: 'Pavement',
      min: 0,
      max: 64,
      step: 0.5,
      optional: 'not known',
      when: (plot) => plot.streetFront === true && plot.shape !== 'round',
    },
    field.choice(
      'connectors',
      'Connectors',
      CONNECTORS,
      { unsaid: 'Not known', standard: 'As the standard' },
      ({ streetFront }) => streetFront === true,
    ),
    {
      as: 'length',
      measure: 'plates',
      key: 'eaves',
      label: 'Roof from',
      min: 0,
      max: 3000,
      optional: 'flat roof',
    },
    {
      as: 'choice',
      key: 'roofForm',
      label: 'Roof falls to',
      options: roofChoices,
      when: (plot) => plot.eaves !== null && plot.shape !== 'round',
    },
    field.choice(
      'roundRoof',
      'Rings draw in',
      ROUND_ROOFS,
      { cone: 'Evenly: a cone, hips', dome: 'In a curve: a dome' },
      (plot) => plot.eaves !== null && !isSloped(plot),
    ),
    field.part('slope', 'Slopes', ROOF_SLOPES, 'Nearest to its height', isRising),
    field.part('lowerSlope', 'Steeper slopes below', ROOF_SLOPES, 'None: one pitch', isRising),
    field.number('lowerCourses', 'Courses of them', 1, 40, {
      whole: true,
      when: (plot) => plot.lowerSlope !== null && isRising(plot),
    }),
    field.number('wallBrick', 'Longest brick of its walls', 1, 4, { whole: true, unit: 'studs' }),
    field.number('scored', 'Scored, of its bricks 1 × 2', 0, 100, {
      unit: '%',
      when: (plot) => Number(plot.wall) < 1.5,
    }),
    field.number('sideStudded', 'Studded at the side, of those', 0, 100, {
      unit: '%',
      when: (plot) => Number(plot.wall) < 1.5,
    }),
    field.colour('wallColour', 'Walls in'),
    field.colour('roofColour', 'Roof in'),
    field.colour('letInColour', 'Windows and doors in'),
    field.number('ornament', 'Ornament over its shell, guess', 0, 400, { unit: '%', whole: true }),
    field.plates('overhangFrom', 'Stands out from', 0, 3000),
    field.number('lean', 'Leans', 0, 45, { unit: '°' }),
    field.number('leanTo', 'Leans to', 0, 359.9, {
      unit: '° from north',
      when: ({ lean }) => Number(lean) > 0,
    }),
    {
      as: 'length',
      measure: 'studs',
      key: 'tieEvery',
      label: 'A tie each',
      min: 1,
      max: 64,
      step: 0.5,
      optional: 'none',
      when: ({ lean }) => Number(lean) > 0,
    },
    field.choice('moves', 'Moves', MOVES, {
      none: 'Not at all',
      swing: 'Swings about a corner',
      slide: 'Slides',
      rise: 'Rises',
      lower: 'Is let down',
    }),
    field.choice('hinge', 'Hinge', CORNERS, CORNER_WORDS, ({ moves }) => moves === 'swing'),
    field.number('swingBy', 'Swings by', -360, 360, { unit: '°', when: ({ moves }) => moves === 'swing' }),
    field.studs('slideX', 'Slides east', -256, 256, 0.5, ({ moves }) => moves === 'slide'),
    field.studs('slideY', 'Slides south', -256, 256, 0.5, ({ moves }) => moves === 'slide'),
    field.plates('riseBy', 'Rises by', 1, 600, ({ moves }) => moves === 'rise'),
    field.choice('downTo', 'Let down to the', SIDES, SIDE_WORDS, ({ moves }) => moves === 'lower'),
    field.number('downBy', 'Let down by', 1, 90, { unit: '°', when: ({ moves }) => moves === 'lower' }),
    field.long('notes', 'Notes'),
  ],
};

function drawPlots(ctx: Ctx, picture: Picture): void {
  const { palette, view } = picture;
  const fills = new Path2D();
  const walls = new Path2D();
  const hatched: Rect<'px'>[] = [];
  for (const plot of ofLevel(picture, listOf(picture.scene, 'plot'))) {
    const on = visible(picture, plotBounds(plot));
    if (!on) continue;
    outline(fills, picture, plot);
    // Walls too thin to be seen are left out.
    const wall = plot.wall * view.scale > 1.2 ? plot.wall : 0;
    if (wall > 0 && plot.w > 4 * wall && plot.d > 4 * wall) closed(walls, picture, roomCorners(plot));
    if (plot.turn % 90 === 0)
      for (const piece of hatchedPieces(plot)) {
        const inner = visible(picture, piece);
        if (inner && inner.w > 26 && inner.d > 12) hatched.push(inner);
      }
  }
  ctx.fillStyle = palette.sheet;
  ctx.fill(fills);
  ctx.strokeStyle = palette.line;
  ctx.lineWidth = 0.7;
  ctx.beginPath();
  const inset = view.scale > 1.2 ? view.scale : 0;
  for (const on of hatched)
    hatch(ctx, { x: on.x + inset, y: on.y + inset, w: on.w - 2 * inset, d: on.d - 2 * inset });
  ctx.stroke();
  ctx.strokeStyle = palette.ink;
  ctx.lineWidth = 1.2;
  ctx.stroke(fills);
  ctx.lineWidth = 0.6;
  ctx.stroke(walls);
  drawMoves(ctx, picture);
  drawOutreach(ctx, picture);
}

/** The rectangles of a building that are hatched, studs: of a round one the square in it. */
function hatchedPieces(plot: Plot): Rect[] {
  if (plot.shape !== 'round') return areaBounds(plot);
  const off = (1 - Math.SQRT1_2) / 2;
  const { x, y, w, d } = plotBounds(plot);
  return [{ x: x + off * w, y: y + off * d, w: (1 - 2 * off) * w, d: (1 - 2 * off) * d }];
}

/** Where what moves goes to, dashed, with the path of its far corners. */
function drawMoves(ctx: Ctx, picture: Picture): void {
  const { palette, view } = picture;
  ctx.strokeStyle = palette.iron;
  ctx.lineWidth = 1;
  ctx.setLineDash([4, 3]);
  for (const plot of ofLevel(picture, listOf(picture.scene, 'plot'))) {
    const sweep = sweepOf(plot, 0);
    if (!sweep || plot.moves === 'rise' || plot.moves === 'none') continue;
    const path = new Path2D();
    const on = ({ x, y }: { x: number; y: number }) => toScreen(view, x, y);
    for (let corner = 0; corner < 4; corner++)
      sweep.steps.forEach(({ corners }, i) => {
        const { x, y } = on(present(corners[corner], 'a corner of what turns'));
        if (i === 0) path.moveTo(x, y);
        else path.lineTo(x, y);
      });
    sweep.steps.at(-1)?.corners.forEach((point, i) => {
      const { x, y } = on(point);
      if (i === 0) path.moveTo(x, y);
      else path.lineTo(x, y);
    });
    path.closePath();
    ctx.stroke(path);
  }
  ctx.setLineDash([]);
}

/** What stands out over walls, and where the top of a leaning building is with lines to it from its foot: dashed. */
function drawOutreach(ctx: Ctx, picture: Picture): void {
  const { palette, view } = picture;
  ctx.strokeStyle = palette.ink;
  ctx.lineWidth = 1.2;
  ctx.setLineDash([5, 3]);
  for (const plot of ofLevel(picture, listOf(picture.scene, 'plot'))) {
    const path = new Path2D();
    if (isOverhanging(plot)) closed(path, picture, outerCorners(plot));
    if (plot.lean === 0) {
      ctx.stroke(path);
      continue;
    }
    const by = leanAt(plot, plot.height);
    outline(path, picture, { ...plot, x: plot.x + by.x, y: plot.y + by.y });
    for (const { x, y } of wallCorners(plot)) {
      const [foot, top] = [toScreen(view, x, y), toScreen(view, x + by.x, y + by.y)];
      path.moveTo(foot.x, foot.y);
      path.lineTo(top.x, top.y);
    }
    ctx.stroke(path);
  }
  ctx.setLineDash([]);
}

/** The name of each building with how tall it is, where there is room; else its name, else its first letters. */
const plotLabels = (picture: Picture): BoardLabel[] =>
  ofLevel(picture, listOf(picture.scene, 'plot')).flatMap((plot) => {
    // Within a building with corners left out, not in its corner.
    const [largest] = areaBounds(plot).toSorted((a, b) => b.w * b.d - a.w * a.d);
    const on = largest && visible(picture, largest);
    if (!on || on.w < 18 || on.d < 12) return [];
    const { palette } = picture;
    const line = (text: string) => ({ text, font: `500 11px ${SANS}`, ink: palette.ink });
    const lines = wrapText(plot.name, on.w - 8, Math.trunc((on.d - 4) / 13)).map(line);
    const note = { text: `${formatPlates(plot.height)} tall`, font: `10px ${MONO}`, ink: palette.ink2 };
    const isTall = on.d > lines.length * 13 + 22 && on.w > 56;
    return [
      {
        rank: LABEL_RANKS.plot,
        says: [
          ...(isTall ? [[...lines, note]] : []),
          ...(on.w > 26 ? [lines, wrapText(plot.name, on.w - 8, 1).map(line)] : []),
          [line(initialsOf(plot.name))],
        ],
        spots: [{ x: on.x + on.w / 2, y: on.y + on.d / 2 }, ...within(on)],
        ground: { as: 'plate', paper: palette.sheet },
        air: 0,
      },
    ];
  });

/** `Mill house` → `MH`. */
const initialsOf = (name: string): string =>
  name
    .split(/\s+/)
    .map((word) => [...word][0] ?? '')
    .join('')
    .slice(0, 3)
    .toUpperCase();

const outline = (path: Path2D, picture: Picture, plot: Parameters<typeof wallCorners>[0]): void =>
  closed(path, picture, wallCorners(plot));

function closed(path: Path2D, { view }: Picture, corners: readonly { x: number; y: number }[]): void {
  corners.forEach((corner, i) => {
    const { x, y } = toScreen(view, corner.x, corner.y);
    if (i === 0) path.moveTo(x, y);
    else path.lineTo(x, y);
  });
  path.closePath();
}
