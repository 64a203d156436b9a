import { MM, centreOf, countOf, formatKg, formatMm } from '../grid/index.ts';
import { daysBetween, displayOf, listOf } from '../document/index.ts';
import { currentContents, passagesFor, evaluatePassage, wayOf } from '../venue/index.ts';
import {
  canBear,
  closingsOf,
  dayBoundOf,
  daysAt,
  fitsAlone,
  furtherShows,
  helpersOf,
  loadOf,
  openMinutes,
  packItemOf,
  packingBoundOf,
  phaseTimes,
  sceneAtShow,
  showTasks,
  tripsOf,
  type LoadUnit,
  type ShowTask,
} from '../transport/index.ts';
import type { FindingDraft, Rule } from './finding.ts';

// What does not go to the show, and what is not ready when it opens: by bounds that no loading and no plan beats.

const sizeOf = ({ w, d, h }: { w: number; d: number; h: number }) =>
  `${formatMm(Math.round(w) * MM)} × ${formatMm(Math.round(d) * MM)} × ${formatMm(Math.round(h) * MM)}`;

const peopleWord = (count: number) => `${count} ${count === 1 ? 'person' : 'people'}`;

const loadTrips: Rule = {
  id: 'load-trips',
  title: 'The vehicles go too seldom for the load',
  basis:
    'A number of trips that no loading is below: by volume, by mass against what a vehicle may be loaded with, by floor under what bears nothing, and by things of which no two go together, each with the air kept about it (Transport). It is proven, and more may be needed: the loading there says what is found.',
  page: 'transport',
  severity: 'error',
  check({ show }) {
    const { units, carriers, unknown, gap } = show().shipment;
    const trips = tripsOf(carriers);
    if (trips.length === 0 || unknown.length > 0) return [];
    const items = units.map((unit) => packItemOf(unit, gap));
    const bound = packingBoundOf(
      items,
      trips.map(({ carrier }) => carrier.space),
    );
    if (bound <= trips.length) return [];
    const grams = units.reduce((sum, unit) => sum + unit.grams, 0);
    return [
      {
        sentence: `The load of ${countOf(units.length, 'thing')}, ${formatKg(grams)}, takes at least ${countOf(bound, 'trip')}; ${trips.length} ${trips.length === 1 ? 'is' : 'are'} planned (${carriers.map(({ name }) => name).join(', ')}).`,
        remedy:
          'Let a vehicle go again, add one to the access route on the Survey, or leave something at home.',
        place: null,
        things: carriers.map(({ id }) => ({ kind: 'passage', id })),
        numbers: { bound, trips: trips.length },
      },
    ];
  },
};

const loadStuck: Rule = {
  id: 'load-stuck',
  title: 'Something fits into no vehicle',
  basis:
    'Each thing that travels, bare or in its crate, upright and either way round with the air kept about it, by itself in each empty vehicle: through its door, between its wheel arches, under what it may be loaded with. What does not pass the access route at all is told there.',
  page: 'transport',
  severity: 'error',
  check({ show, carried }) {
    const { scene, shipment } = show();
    const { units, carriers, gap } = shipment;
    if (carriers.length === 0) return [];
    const way = wayOf(scene);
    // Of pieces without a crate the passages speak.
    const isTold = ({ key, w, d, h }: LoadUnit) => {
      if (!carried().some(({ id }) => id === key)) return false;
      const box = { short: Math.min(w, d), long: Math.max(w, d), height: h };
      return passagesFor(way, box).some(
        (passage) => passage.kind === 'vehicle' && !evaluatePassage(passage, box).passes,
      );
    };
    return units.flatMap((unit): FindingDraft[] => {
      const item = packItemOf(unit, gap);
      if (carriers.some(({ space }) => fitsAlone(item, space)) || isTold(unit)) return [];
      const { name, space } = carriers[0];
      const most = space.maxMass === null ? '' : `, ${formatKg(space.maxMass)} at most`;
      const piece = carried().find(({ id }) => id === unit.key);
      return [
        {
          sentence: `“${unit.name}” is ${sizeOf(unit)}, ${formatKg(unit.grams)}, and ${formatMm(gap * MM)} of air goes round it; the ${name} has ${sizeOf(space)} inside, a door of ${formatMm((space.door?.w ?? space.w) * MM)}${most}.`,
          remedy: 'Part it, lay it on its side, pack it in a smaller crate, or take a larger vehicle.',
          place: piece ? centreOf(piece.area) : null,
          part: unit.key,
          things: [...(unit.ref ? [unit.ref] : []), { kind: 'passage', id: carriers[0].id }],
          numbers: { w: unit.w, d: unit.d, h: unit.h, grams: Math.round(unit.grams) },
        },
      ];
    });
  },
};

const loadUncrated: Rule = {
  id: 'load-uncrated',
  title: 'Small things have no crate',
  basis:
    'Trees, figures, flags and signboards are taken off before a module is carried. They go by section into the smallest crates of the display that hold them, padded; these are left over.',
  page: 'transport',
  severity: 'note',
  check({ scene, show }) {
    if (listOf(scene, 'crate').length === 0) return [];
    const { uncrated } = show().shipment;
    if (uncrated.length === 0) return [];
    const things = uncrated.reduce((sum, { count }) => sum + count, 0);
    const largest = uncrated.reduce((a, b) => (b.w * b.d * b.h > a.w * a.d * a.h ? b : a));
    return [
      {
        sentence: `Of trees, figures, flags and signboards ${things} ${things === 1 ? 'is' : 'are'} in no crate; the largest, “${largest.name}”, is ${sizeOf(largest)}.`,
        remedy: 'Add crates of that size, or one more of those there are.',
        place: null,
        things: uncrated.slice(0, 5).map(({ ref }) => ref),
        numbers: { things },
      },
    ];
  },
};

const vehicleDriver: Rule = {
  id: 'vehicle-driver',
  title: 'Nobody drives a vehicle',
  basis: 'Each vehicle of the access route, once the day of the show is known and its inside is.',
  page: 'transport',
  severity: 'warning',
  check({ scene, show }) {
    const { showDate } = displayOf(scene);
    if (showDate === null || listOf(scene, 'person').length === 0) return [];
    return show().shipment.carriers.flatMap(({ id, name, driver }): FindingDraft[] => {
      const person = driver === null ? null : scene.person[driver];
      if (person?.comes) return [];
      return [
        {
          sentence: person
            ? `${person.name} is to drive the ${name} to the show and does not come.`
            : `Nobody drives the ${name} to the show on ${showDate}: 0 of 1.`,
          remedy: 'Choose who drives it, on Transport.',
          place: null,
          things: [{ kind: 'passage', id }],
          numbers: { drivers: 0 },
        },
      ];
    });
  },
};

const setupShort: Rule = {
  id: 'setup-short',
  title: 'It cannot be ready when the show opens',
  basis:
    'Minutes that no plan of setting up is below, by the tasks from the plan (order of building up, tables, what is carried in) and one’s own: the longest chain of tasks, and the work that all hands share, from when each comes. Judged once both hours of the hall are known. Minutes not typed are guesses.',
  page: 'transport',
  severity: 'error',
  check({ show }) {
    const { scene, shipment, order } = show();
    return (['setup', 'takedown'] as const).flatMap((phase): FindingDraft[] => {
      const times = phaseTimes(scene, phase);
      const { from, to, isGuess } = times;
      if (isGuess) return [];
      const tasks = showTasks(scene, shipment, order, phase).filter(({ chore }) => !chore?.dropped);
      const helpers = helpersOf(scene, phase);
      const window = openMinutes(times);
      const bound = dayBoundOf(tasks, helpers, closingsOf(times));
      if (bound === null || bound <= times.until) return [];
      const over = bound - times.until;
      const end = phase === 'setup' ? 'opens' : 'is to be empty';
      return [
        {
          sentence: `${phase === 'setup' ? 'Setting up' : 'Taking down'} takes at least ${window + over} min with ${peopleWord(helpers.length)}; from ${from} until the hall ${end} at ${to} there are ${window} min${times.windows.length > 1 ? ', the night left out' : ''}.`,
          remedy: 'Come earlier, bring more hands, or leave tasks out: “Day” on Transport says which help.',
          place: null,
          part: phase,
          things: [],
          numbers: { bound: window + over, window },
        },
      ];
    });
  },
};

const setupHands: Rule = {
  id: 'setup-hands',
  title: 'A task of the show needs more hands than come',
  basis:
    'Hands by the lift index (NIOSH, see Cut): one up to 1 and 1 m long, two while each’s half stays at 1, more above; tables take two. Against the people who come, and what each says they carry at most (Transport), once the hours of the hall are known. Local rules and qualified people decide about lifting.',
  page: 'transport',
  severity: 'warning',
  check({ show }) {
    const { scene, shipment, order } = show();
    if (listOf(scene, 'person').length === 0 || phaseTimes(scene, 'setup').isGuess) return [];
    const helpers = helpersOf(scene, 'setup');
    const ableTo = (task: ShowTask) => helpers.filter((helper) => canBear(helper, loadOf(task))).length;
    const tasks = showTasks(scene, shipment, order, 'setup').filter(
      (task) => !task.chore?.dropped && task.hands > ableTo(task),
    );
    if (tasks.length === 0) return [];
    const hardest = tasks.reduce((a, b) => (b.hands > a.hands ? b : a));
    const able = ableTo(hardest);
    const more = tasks.length === 1 ? '' : ` So do ${countOf(tasks.length - 1, 'other task')}.`;
    const bears =
      able < helpers.length ? ` who carry ${formatKg((1000 * hardest.kg) / hardest.hands)} each` : '';
    const tables = currentContents(scene, 'table').filter(({ id }) => hardest.key === `table ${id}`);
    return [
      {
        sentence: `“${hardest.title}” needs ${peopleWord(hardest.hands)}${bears}; ${bears ? `of ${helpers.length} who come ${able} ${able === 1 ? 'does' : 'do'}` : `${able} ${able === 1 ? 'comes' : 'come'} to set up`}.${more}`,
        remedy: 'Find more hands, part it into lighter pieces, or put it on wheels.',
        place: null,
        things: tables.map(({ id }) => ({ kind: 'table', id })),
        numbers: { hands: hardest.hands, come: able },
      },
    ];
  },
};

const crateUnfit: Rule = {
  id: 'crate-unfit',
  title: 'A thing is not in the crate that is chosen for it',
  basis:
    'Each thing for which a crate is chosen on Transport, against what that crate may hold and its inside less the padding, upright and either way round. Where both would do, the crates of that size are full.',
  page: 'transport',
  severity: 'warning',
  check({ scene, show }) {
    const chosen = listOf(scene, 'handling').filter(({ packing, crate }) => packing === 'crate' && crate);
    if (chosen.length === 0) return [];
    const { units, uncrated } = show().shipment;
    const contents = new Map(
      [...units, ...units.flatMap(({ holds }) => holds), ...uncrated].map((one) => [one.key, one]),
    );
    return chosen.flatMap(({ id, piece, crate: wanted }): FindingDraft[] => {
      const crate = scene.crate[wanted ?? ''];
      const thing = contents.get(piece);
      if (!crate || !thing) return [];
      const isIn = units.some(
        ({ key, holds }) => key.startsWith(`crate-${crate.id}-`) && holds.some((one) => one.key === piece),
      );
      if (isIn) return [];
      const { grams } = thing;
      const isHeavy = crate.maxKg !== null && grams > 1000 * crate.maxKg;
      const inside = { w: crate.insideW, d: crate.insideD, h: crate.insideH };
      const [short, long] = [thing.w, thing.d].map((side) => side + 2 * crate.padding).sort((a, b) => a - b);
      const [narrow, wide] = [inside.w, inside.d].sort((a, b) => a - b);
      const isLarge = thing.h + crate.padding > inside.h || short > narrow || long > wide;
      const why = isHeavy
        ? `weighs ${formatKg(grams)}; “${crate.name}” may hold ${formatKg(1000 * (crate.maxKg ?? 0))}`
        : isLarge
          ? `is ${sizeOf(thing)} and takes ${formatMm(crate.padding * MM)} of padding; “${crate.name}” is ${sizeOf(inside)} inside`
          : `goes into no “${crate.name}”: all ${crate.count} are full`;
      return [
        {
          sentence: `“${thing.name}” ${why}.`,
          remedy: 'Choose a larger crate, let it go into any, or have more crates of that size.',
          place: null,
          part: piece,
          things: [
            { kind: 'handling', id },
            { kind: 'crate', id: crate.id },
          ],
          numbers: { grams: Math.round(grams), w: thing.w, d: thing.d, h: thing.h },
        },
      ];
    });
  },
};

const liftStairs: Rule = {
  id: 'lift-stairs',
  title: 'Too heavy for two on a stair',
  basis:
    'On a stair two carry, one behind the other. Of each thing that goes over a stair of the access route the lift index of each of two (NIOSH, see Cut), above 1: a caution, since that equation is made for level ground and a stair is harder. Local rules and qualified people decide about lifting.',
  page: 'transport',
  severity: 'warning',
  check({ scene, show }) {
    const stairs = wayOf(sceneAtShow(scene)).filter(({ kind }) => kind === 'stair');
    if (stairs.length === 0) return [];
    const heavy = show()
      .shipment.units.filter(({ lift }) => lift.two.index > 1)
      .toSorted((a, b) => b.lift.two.index - a.lift.two.index);
    if (heavy.length === 0) return [];
    const [first] = heavy;
    const others = heavy.length - 1;
    const more = others === 0 ? '' : ` So ${others === 1 ? 'does' : 'do'} ${countOf(others, 'other thing')}.`;
    return stairs.map(({ id, name }): FindingDraft => ({
      sentence: `“${first.name}”, ${formatKg(first.grams)}, goes over the ${name} with a lift index of ${first.lift.two.index.toFixed(2)} for each of two; 1 is the limit.${more}`,
      remedy:
        'Split it, take parts off first, carry what is in it by itself, or find a way without the stair.',
      place: null,
      part: id,
      things: [{ kind: 'passage', id }, ...(first.ref ? [first.ref] : [])],
      numbers: { index: first.lift.two.index, things: heavy.length },
    }));
  },
};

const showsClash: Rule = {
  id: 'shows-clash',
  title: 'Two shows at once',
  basis:
    'The days of each show of the diary with the evening before and the day after it, where its hall is open then; two that share one cannot both have the display.',
  page: 'transport',
  severity: 'error',
  check({ scene }) {
    const display = displayOf(scene);
    const shows = [
      ...(display.showDate === null
        ? []
        : [{ name: display.showName || 'The show', ...daysAt(display, display.showDate), id: null }]),
      ...furtherShows(scene).map((one) => ({ name: one.name, ...daysAt(one, one.date), id: one.id })),
    ];
    return shows.flatMap((one, i) =>
      shows.slice(i + 1).flatMap((other): FindingDraft[] => {
        const [from, to] = [
          one.from > other.from ? one.from : other.from,
          one.to < other.to ? one.to : other.to,
        ];
        if (from > to) return [];
        const days = daysBetween(from, to) + 1;
        return [
          {
            sentence: `“${one.name}” (${one.from} to ${one.to}) and “${other.name}” (${other.from} to ${other.to}) share ${countOf(days, 'day')}.`,
            remedy: 'Move one of them, or show at one only.',
            place: null,
            things: [one, other].flatMap(({ id }) => (id === null ? [] : [{ kind: 'milestone', id }])),
            numbers: { days },
          },
        ];
      }),
    );
  },
};

export const TRANSPORT_RULES: readonly Rule[] = [
  loadTrips,
  loadStuck,
  loadUncrated,
  vehicleDriver,
  setupShort,
  setupHands,
  crateUnfit,
  liftStairs,
  showsClash,
];
