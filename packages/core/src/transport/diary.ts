import {
  displayOf,
  idFor,
  isoAfter,
  listOf,
  type Change,
  type Chore,
  type Display,
  type Entity,
  type Scene,
} from '../document/index.ts';
import type { Relief } from '../terrain/index.ts';
import { dayBoundOf } from './dayPlan.ts';
import { closingsOf, helpersOf, nightsOf, phaseTimes, type PhaseTimes } from './phases.ts';
import { stoppedUnits } from './shipment.ts';
import { showOf } from './show.ts';
import { showTasks } from './showTasks.ts';

// Several shows: the one that is prepared is told by the display, each further one by a milestone.

/** A show of the diary, judged in its own place by its own hours. */
export interface DiaryShow {
  /** Its milestone; null: the show that is prepared now. */
  id: string | null;
  name: string;
  /** First and last day with visitors; null: not set. */
  from: string | null;
  to: string | null;
  /** Its place by name; null: none is chosen, judged where the display stands. */
  place: string | null;
  nights: number;
  /** What does not pass the access route, the first of it, and where. */
  stopped: { count: number; first: string; passage: string } | null;
  times: PhaseTimes;
  /** No plan of setting up is ready before, minutes after it begins; null: too few hands. */
  bound: number | null;
}

type ShowMilestone = Entity<'milestone'>;

/** Shows that are not prepared yet, or are over. */
export const furtherShows = (scene: Pick<Scene, 'milestone'>): ShowMilestone[] =>
  listOf(scene, 'milestone')
    .filter(({ show }) => show)
    .toSorted((a, b) => (a.date < b.date ? -1 : a.date > b.date ? 1 : a.id < b.id ? -1 : 1));

/** The fields of a show that the display and a milestone share. */
function timesOfShow<T extends ShowMilestone | Display>(of: T) {
  const { showDays, accessFrom, opensAt, closesAt, clearBy } = of;
  const { eveFrom, eveTo, morrowFrom, morrowTo, driveMinutes } = of;
  return {
    ...{ showDays, accessFrom, opensAt, closesAt, clearBy, eveFrom, eveTo, morrowFrom, morrowTo },
    driveMinutes,
  };
}

/** What the display holds while a show is prepared. */
const preparing = (show: ShowMilestone) => ({
  ...{ showName: show.name, showDate: show.date, showPlace: show.place },
  ...timesOfShow(show),
});

/** The scene as if a further show were prepared. */
function sceneFor(scene: Scene, show: ShowMilestone): Scene {
  const display = displayOf(scene);
  return { ...scene, display: { [display.id]: { ...display, ...preparing(show) } } };
}

/** All shows by date, each judged. Cost: a whole show is worked out for each. */
export function showDiary(scene: Scene, relief: Relief): DiaryShow[] {
  const { showName } = displayOf(scene);
  const shows = [
    { id: null, name: showName || 'The show', scene },
    ...furtherShows(scene).map((one) => ({ id: one.id, name: one.name, scene: sceneFor(scene, one) })),
  ];
  return shows
    .map(({ id, name, scene: then }): DiaryShow => {
      const { showDate, showDays, showPlace } = displayOf(then);
      const show = showOf(then, relief);
      const times = phaseTimes(then, 'setup');
      const tasks = showTasks(show.scene, show.shipment, show.order, 'setup');
      const stopped = stoppedUnits(show.scene, show.shipment.units);
      return {
        ...{ id, name, times },
        from: showDate,
        to: showDate === null ? null : isoAfter(showDate, showDays - 1),
        place: showPlace === null ? null : (then.place[showPlace]?.name ?? null),
        nights: nightsOf(then),
        stopped:
          stopped.length === 0
            ? null
            : { count: stopped.length, first: stopped[0].unit.name, passage: stopped[0].passage.name },
        bound: dayBoundOf(
          tasks.filter(({ chore }) => !chore?.dropped),
          helpersOf(then, 'setup'),
          closingsOf(times),
        ),
      };
    })
    .sort((a, b) => ((a.from ?? '') < (b.from ?? '') ? -1 : (a.from ?? '') > (b.from ?? '') ? 1 : 0));
}

/** The days on which the display is at a show, the evening before and the day after with them. */
export function daysAt(show: Pick<Display, 'showDays' | 'eveFrom' | 'morrowFrom'>, date: string) {
  return {
    from: isoAfter(date, show.eveFrom === null ? 0 : -1),
    to: isoAfter(date, show.showDays - 1 + (show.morrowFrom === null ? 0 : 1)),
  };
}

/** Longer than this no task of a show goes on: somebody forgot to end it, minutes. */
const MAX_LEARNT = 240;
const MINUTE_MS = 60_000;

/**
 * Prepares a further show: it becomes that of the display, and the one before goes into the diary. What is ticked of the
 * load and the tasks begins again; how long a task really took is kept as its minutes where none are typed.
 * @returns no changes where there is no such show
 */
export function prepareShow(scene: Scene, id: string): Change[] {
  const display = displayOf(scene);
  const milestone: ShowMilestone | undefined = scene.milestone[id];
  if (!milestone?.show) return [];
  const { showName, showDate, showPlace } = display;
  const left = milestone.v;
  return [
    {
      ...{ op: 'patch' as const, kind: 'display' as const, id: display.id, v: display.v },
      set: preparing(milestone),
    },
    showDate === null
      ? { op: 'remove', kind: 'milestone', id, v: left }
      : {
          ...{ op: 'patch' as const, kind: 'milestone' as const, id, v: left },
          set: {
            ...{ name: showName || 'The show', date: showDate, place: showPlace },
            ...timesOfShow(display),
            promises: [],
          },
        },
    // What was promised for its day stays promised for it.
    ...(milestone.promises.length === 0
      ? []
      : [
          {
            ...{
              op: 'add' as const,
              kind: 'milestone' as const,
              id: idFor('milestone', `${id} ${milestone.date}`),
            },
            data: { name: milestone.name, date: milestone.date, promises: milestone.promises },
          },
        ]),
    ...listOf(scene, 'handling')
      .filter(({ loaded, arrived }) => loaded !== null || arrived !== null)
      .map((one): Change => ({
        ...{ op: 'patch', kind: 'handling', id: one.id, v: one.v, set: { loaded: null, arrived: null } },
      })),
    ...listOf(scene, 'chore')
      .filter(({ began, ended, dropped }) => began !== null || ended !== null || dropped)
      .map((one): Change => {
        const minutes = one.minutes ?? learntMinutes(one);
        const set = { began: null, ended: null, dropped: false, minutes };
        return { op: 'patch', kind: 'chore', id: one.id, v: one.v, set };
      }),
  ];
}

/** How long a task took by its clock, minutes; null: it is not known, or no honest time. */
export function learntMinutes({ began, ended }: Pick<Chore, 'began' | 'ended'>): number | null {
  if (began === null || ended === null) return null;
  const took = Math.round((Date.parse(ended) - Date.parse(began)) / MINUTE_MS);
  return took >= 0 && took <= MAX_LEARNT ? Math.max(1, took) : null;
}
