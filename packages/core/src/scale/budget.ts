import { MM_PER_STUD, rectsInArea, studsOfArea, type StudArea } from '../grid/index.ts';

/** A room or yard with its true inside size, m, its walls in studs, and the plot it is given, studs outside. */
export interface SpaceAsked {
  id: string;
  w: number;
  d: number;
  wall: number;
  plot: { w: number; d: number } | null;
  /** The studs inside its walls where the plot is no rectangle. */
  room?: StudArea | null;
}

export interface SpaceJudged {
  id: string;
  /** The plot it needs at scale, whole studs outside, turned as the plot it has where that fits better. */
  need: { w: number; d: number };
  /** Floor inside the plot it has over the floor it needs; null without a plot. 1 and more: enough area. */
  share: number | null;
  /** Whether the room fits the plot, one way round or the other. */
  fits: boolean | null;
  /** The ratio 1 : n from which on the room fits its plot; null when the walls alone fill the plot, or no plot. */
  ratio: number | null;
}

export interface Budget {
  /** The worst first: without a plot last. */
  spaces: SpaceJudged[];
  /** The ratio from which on every room with a plot fits; null when there is none, or one can never fit. */
  ratio: number | null;
}

/** Studs that a true length needs at 1 : ratio. */
const studs = (metres: number, ratio: number) => (metres * 1000) / ratio / MM_PER_STUD;
/** Counts up to whole studs, forgiving the last bits of a division. */
const up = (value: number) => Math.ceil(value - 1e-9);

/**
 * The plot each room needs at scale beside the plot it has; of a plot that is no rectangle the rectangles in it. The floor
 * compared is the inside: the plot less its
 * walls on all four sides (an 8 × 8 house with walls of one stud has 6 × 6 = 36 studs inside: common practice).
 * @param ratio the display's scale 1 : n
 */
export function spaceBudget(asked: readonly SpaceAsked[], ratio: number): Budget {
  const spaces = asked.map(({ id, w, d, wall, plot, room }): SpaceJudged => {
    const [long, short] = [Math.max(w, d), Math.min(w, d)];
    const across = (metres: number) => up(studs(metres, ratio)) + 2 * wall;
    const wideways = plot ? plot.w >= plot.d : w >= d;
    const need = wideways ? { w: across(long), d: across(short) } : { w: across(short), d: across(long) };
    if (!plot) return { id, need, share: null, fits: null, ratio: null };
    const whole = { w: plot.w - 2 * wall, d: plot.d - 2 * wall };
    const rects = (room ? rectsInArea(room) : [whole]).filter((rect) => rect.w > 0 && rect.d > 0);
    if (rects.length === 0) return { id, need, share: 0, fits: false, ratio: null };
    const floor = room ? studsOfArea(room) : whole.w * whole.d;
    const inside = rects.map((rect) => ({ long: Math.max(rect.w, rect.d), short: Math.min(rect.w, rect.d) }));
    return {
      id,
      need,
      share: floor / (studs(w, ratio) * studs(d, ratio)),
      fits: inside.some(
        (rect) => across(long) <= rect.long + 2 * wall && across(short) <= rect.short + 2 * wall,
      ),
      // The whole studs inside are what the true size must shrink to.
      ratio: Math.min(
        ...inside.map((rect) =>
          Math.max(
            (long * 1000) / (Math.floor(rect.long) * MM_PER_STUD),
            (short * 1000) / (Math.floor(rect.short) * MM_PER_STUD),
          ),
        ),
      ),
    };
  });
  spaces.sort((a, b) => (a.share ?? Infinity) - (b.share ?? Infinity) || (a.id < b.id ? -1 : 1));
  const given = spaces.filter(({ share }) => share !== null);
  const ratios = given.map(({ ratio: one }) => one).filter((one) => one !== null);
  return {
    spaces,
    ratio: given.length > 0 && ratios.length === given.length ? Math.max(...ratios) : null,
  };
}

/** Vehicles of a scene as built, and how many of a kind. */
export interface VehiclesBuilt {
  id: string;
  count: number;
  /** Studs as built, and the true length, m. */
  length: number;
  width: number;
  trueLength: number;
}

/**
 * The share of the ground that vehicles cover, 0 to 1, and each kind's own ratio against the figures': above 0 it
 * is built larger than the figures' scale asks for.
 * @param area of the scene, square studs
 * @param figures the ratio 1 : n of the figures
 */
export function vehicleShare(
  vehicles: readonly VehiclesBuilt[],
  area: number,
  figures: number,
): { share: number; vehicles: { id: string; ratio: number; beside: number; covers: number }[] } {
  const each = vehicles.map(({ id, count, length, width, trueLength }) => {
    const ratio = (trueLength * 1000) / (length * MM_PER_STUD);
    return { id, ratio, beside: figures / ratio - 1, covers: count * length * width };
  });
  const covered = each.reduce((sum, { covers }) => sum + covers, 0);
  return { share: area > 0 ? covered / area : 0, vehicles: each };
}
