import { MM, centreOf, countOf, formatKg, formatMm } from '../grid/index.ts';
import { displayOf, listOf } from '../document/index.ts';
import { currentContents, passagesFor, evaluatePassage, wayOf } from '../venue/index.ts';
import {
  fitsAlone,
  handsOfShow,
  minutesOf,
  packItemOf,
  packingBoundOf,
  phaseHours,
  showTasks,
  timetableBoundOf,
  tripsOf,
  type LoadUnit,
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
    'Trees, figures and flags are taken off before a module is carried. They go by section into the smallest crates of the display that hold them, padded; these are left over.',
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
        sentence: `Of trees, figures and flags ${things} ${things === 1 ? 'is' : 'are'} in no crate; the largest, “${largest.name}”, is ${sizeOf(largest)}.`,
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
      const { from, to, isGuess } = phaseHours(scene, phase);
      if (isGuess) return [];
      const tasks = showTasks(scene, shipment, order, phase).filter(({ chore }) => !chore?.dropped);
      const helpers = handsOfShow(scene, from);
      const window = minutesOf(to) - minutesOf(from);
      if (helpers.length === 0 || tasks.some(({ hands }) => hands > helpers.length)) return [];
      const bound = timetableBoundOf(
        tasks.map(({ key, ...task }) => ({ id: key, ...task })),
        helpers.length,
        helpers.map(({ arrives }) => ({ until: arrives, hands: 1 })),
      );
      if (bound <= window) return [];
      const end = phase === 'setup' ? 'opens' : 'is to be empty';
      return [
        {
          sentence: `${phase === 'setup' ? 'Setting up' : 'Taking down'} takes at least ${bound} min with ${peopleWord(helpers.length)}; from ${from} until the hall ${end} at ${to} there are ${window} min.`,
          remedy: 'Come earlier, bring more hands, or leave tasks out: “Day” on Transport says which help.',
          place: null,
          part: phase,
          things: [],
          numbers: { bound, window },
        },
      ];
    });
  },
};

const setupHands: Rule = {
  id: 'setup-hands',
  title: 'A task of the show needs more hands than come',
  basis:
    'Hands by the lift index (NIOSH, see Cut): one up to 1 and 1 m long, two while each’s half stays at 1, more above; tables take two. Against the people who come (Transport), once the hours of the hall are known. Local rules and qualified people decide about lifting.',
  page: 'transport',
  severity: 'warning',
  check({ show }) {
    const { scene, shipment, order } = show();
    const { from, isGuess } = phaseHours(scene, 'setup');
    if (listOf(scene, 'person').length === 0 || isGuess) return [];
    const helpers = handsOfShow(scene, from);
    const tasks = showTasks(scene, shipment, order, 'setup').filter(
      ({ chore, hands }) => !chore?.dropped && hands > helpers.length,
    );
    if (tasks.length === 0) return [];
    const hardest = tasks.reduce((a, b) => (b.hands > a.hands ? b : a));
    const more = tasks.length === 1 ? '' : ` So do ${countOf(tasks.length - 1, 'other task')}.`;
    const tables = currentContents(scene, 'table').filter(({ id }) => hardest.key === `table ${id}`);
    return [
      {
        sentence: `“${hardest.title}” needs ${peopleWord(hardest.hands)}; ${helpers.length} ${helpers.length === 1 ? 'comes' : 'come'} to set up.${more}`,
        remedy: 'Find more hands, part it into lighter pieces, or use a trolley and type the hands it takes.',
        place: null,
        things: tables.map(({ id }) => ({ kind: 'table', id })),
        numbers: { hands: hardest.hands, come: helpers.length },
      },
    ];
  },
};

export const TRANSPORT_RULES: readonly Rule[] = [
  loadTrips,
  loadStuck,
  loadUncrated,
  vehicleDriver,
  setupShort,
  setupHands,
];
