import { MM, MM_PER_PLATE, MM_PER_STUD, centreOf, formatMm, formatPlates } from '../grid/index.ts';
import { isLoose, listedMass, offBase, tipsOfPlot, weightOf } from '../terrain/index.ts';
import { SIDE_WORDS, builtRect, displayOf, listOf, turnedSide } from '../document/index.ts';
import { type FindingDraft, type Rule } from './finding.ts';
import { listed } from './figures.ts';
import { plotRef } from './plots.ts';

// What is judged of a building by itself: whether it tips, which sides of it are looked at, what holds it.

const plotTips: Rule = {
  id: 'plot-tips',
  title: 'Something tall and thin tips easily',
  basis:
    'Each building on its own feet, and each part that lifts off or stands loose by itself: atan(half its narrower side ÷ height of its centre of mass), by its list or its plain shell, against the limit of the display (10°, common practice toward visitors, no source). The venue’s rules and qualified people decide.',
  page: 'plan',
  severity: 'warning',
  check({ scene, carried }) {
    const { tipLimit } = displayOf(scene);
    const listed = listedMass(scene);
    return listOf(scene, 'plot').flatMap((plot): FindingDraft[] => {
      const built = builtRect(plot);
      const narrow = Math.min(built.w, built.d);
      const whole = weightOf(plot, listed);
      const pieces = [
        {
          ...{ name: null, height: plot.height * MM_PER_PLATE, z: whole.z * MM_PER_PLATE, of: narrow },
          tips: tipsOfPlot(plot, built, whole),
        },
        ...carried()
          .filter(({ kind, ref }) => kind === 'part' && ref.id === plot.id)
          .map(({ name, h, centre, tips }) => ({
            ...{ name, height: h, z: centre.z, of: Math.min(plot.w, plot.d), tips },
          })),
      ];
      return pieces.flatMap(({ name, height, z, of, tips }, i): FindingDraft[] => {
        if (tips >= tipLimit) return [];
        const lean = Math.tan((tipLimit * Math.PI) / 180);
        const off = name === null ? offBase(plot, built, whole) : { x: 0, y: 0 };
        const wide = Math.ceil(
          (2 * lean * z) / MM_PER_STUD + 2 * Math.max(Math.abs(off.x), Math.abs(off.y)) - 1e-9,
        );
        const most = Math.floor((height * (of * MM_PER_STUD)) / 2 / lean / z / MM_PER_PLATE + 1e-9);
        return [
          {
            sentence: `${name === null ? `“${plot.name}”` : `“${name}” of “${plot.name}”, set down by itself,`} ${tips > 0 ? `tips at ${tips.toFixed(0)}°` : 'tips over by itself'}: ${of} studs across and ${formatMm(Math.round(height * MM))} tall; at least ${tipLimit}° are wanted where visitors pass, children above all.`,
            remedy: `Make its foot ${wide} studs across, or keep it to ${formatPlates(most)} of its own, or tie it to something heavier behind it.`,
            place: centreOf(plot),
            part: name === null ? 'whole' : `part ${i}`,
            things: [plotRef(plot)],
            numbers: { tips: Number(tips.toFixed(1)), limit: tipLimit },
          },
        ];
      });
    });
  },
};

const goodSide: Rule = {
  id: 'good-side',
  title: 'A building hides its good sides',
  basis:
    'The sides of a building that are worth showing, turned with it, against the sides from which the display is looked at.',
  page: 'plan',
  severity: 'note',
  check({ scene }) {
    const { viewedSides } = displayOf(scene);
    if (viewedSides.length === 0) return [];
    return listOf(scene, 'plot').flatMap((plot): FindingDraft[] => {
      const shows = (turn: number) =>
        plot.goodSides.some((side) => viewedSides.includes(turnedSide(side, turn)));
      if (plot.goodSides.length === 0 || shows(plot.turn)) return [];
      const better = [90, 180, 270].find((by) => shows(plot.turn + by));
      return [
        {
          sentence: `The good sides of “${plot.name}” look ${listed(plot.goodSides.map((side) => SIDE_WORDS[turnedSide(side, plot.turn)]))}; the display is looked at from the ${listed(viewedSides.map((side) => SIDE_WORDS[side]))}.`,
          remedy: `Turn it by ${better ?? 180}°, or give its detail to the sides that are seen.`,
          place: centreOf(plot),
          things: [plotRef(plot)],
          numbers: { turn: plot.turn },
        },
      ];
    });
  },
};
const stanceLoose: Rule = {
  id: 'stance-loose',
  title: 'Something loose in a display that hangs or lies on its back',
  basis:
    'Buildings that stand loose or on a turntable, in a display that is shown hung on a wall or lying on its back: nothing holds them there.',
  page: 'brief',
  severity: 'error',
  check({ scene }) {
    const { stance } = displayOf(scene);
    if (stance === 'standing') return [];
    return listOf(scene, 'plot')
      .filter(isLoose)
      .map((plot) => ({
        sentence: `“${plot.name}” stands ${plot.mount === 'loose' ? 'loose' : 'on a turntable'}; in a display that is shown ${stance === 'hung' ? 'hung on a wall' : 'lying on its back'} 0 things may.`,
        remedy: 'Pin it, or show the display standing.',
        place: centreOf(plot),
        things: [plotRef(plot)],
        numbers: { stance: stance === 'hung' ? 2 : 1 },
      }));
  },
};

export const LIFTING_RULES: readonly Rule[] = [plotTips, goodSide, stanceLoose];
