import { formatKg, formatPercent, formatSum } from '@quarry/core/grid';
import { displayOf, listOf, type Scene } from '@quarry/core/document';
import type { Caution, KitItem, OwnedValue } from '@quarry/core/kit';
import { inSwitchOrder, powerParts, type Power } from '@quarry/core/power';
import {
  contentWord,
  handsOf,
  helpersOf,
  phaseTimes,
  type DayPlan,
  type LoadPlan,
  type Shipment,
  type ShowPhase,
  type ShowTask,
} from '@quarry/core/transport';
import { figure } from './CircuitsPart.tsx';
import { clockAfter } from './clock.ts';
import { tripWord } from './tripWord.ts';
import { PHASE_WORDS } from './useDay.ts';

// Everything for the show as lists to print: what the sheets of this page say, in their words.

/** A table under its heading. */
export interface PaperList {
  head: string;
  note: string;
  columns: { head: string; share: number; align?: 'left' | 'right' }[];
  tick: boolean;
  rows: string[][];
}

/** The phases of a show in their order, each with its plan; null: there is none. */
export type PhaseDays = readonly {
  phase: ShowPhase;
  tasks: readonly ShowTask[];
  plan: DayPlan | null;
}[];

export interface ShowFacts {
  scene: Scene;
  shipment: Shipment;
  load: LoadPlan | null;
  days: PhaseDays;
  power: Power;
  kit: readonly KitItem[];
  values: readonly OwnedValue[];
  cautions: readonly Caution[];
}

/** @returns the lists in the order in which they are needed; those that have nothing to say are left out */
export function showPapers(facts: ShowFacts): PaperList[] {
  return [
    ...loadLists(facts),
    ...facts.days.map((day) => dayList(facts.scene, day)),
    peopleList(facts.scene),
    ...powerLists(facts.power),
    {
      ...{ head: 'Kit', note: 'Worked out from the plan in the place of the show.', tick: true },
      columns: [
        { head: 'how many', share: 10, align: 'right' as const },
        { head: 'what', share: 40 },
        { head: 'why', share: 60 },
      ],
      rows: facts.kit.map(({ count, name, why }) => [String(count), name, why]),
    },
    valueList(facts),
    {
      ...{ head: 'Cautions', note: 'Local rules, the place and qualified people decide.', tick: false },
      columns: [
        { head: '', share: 18 },
        { head: 'found', share: 40 },
        { head: 'caution', share: 50 },
      ],
      rows: facts.cautions.map(({ about, found, caution }) => [about, found, caution]),
    },
  ].filter(({ rows }) => rows.length > 0);
}

function loadLists({ shipment, load }: ShowFacts): PaperList[] {
  const units = new Map(shipment.units.map((unit) => [unit.key, unit]));
  const trips = (load?.trips ?? []).map((trip): PaperList => ({
    head: `Load, ${tripWord(shipment, trip)}`,
    note: `In the order of putting in; what is needed first stands nearest to the door. ${formatKg(trip.grams)} in all.`,
    tick: true,
    columns: [
      { head: '', share: 6, align: 'right' },
      { head: 'what', share: 50 },
      { head: 'mass', share: 14, align: 'right' },
      { head: 'hands', share: 12, align: 'right' },
      { head: 'in it', share: 60 },
    ],
    rows: trip.placed.flatMap(({ id }, i) => {
      const unit = units.get(id);
      if (!unit) return [];
      const { name, grams, holds } = unit;
      const inside = holds.map(contentWord);
      return [[String(i + 1), name, formatKg(grams), String(handsOf(unit)), inside.join(', ').slice(0, 600)]];
    }),
  }));
  const left = [...(load?.left ?? []), ...(load?.tooLarge ?? [])];
  return left.length === 0
    ? trips
    : [
        ...trips,
        {
          ...{ head: 'Not loaded', note: '', tick: true, columns: [{ head: 'what', share: 1 }] },
          rows: left.map((key) => [units.get(key)?.name ?? key]),
        },
      ];
}

function dayList(scene: Scene, { phase, tasks, plan }: PhaseDays[number]): PaperList {
  const { from, to, isGuess } = phaseTimes(scene, phase);
  const titleOf = new Map(tasks.map(({ key, title }) => [key, title]));
  const rows = (plan?.rows ?? [])
    .filter(({ state }) => state !== 'dropped')
    .toSorted((a, b) => a.start - b.start || a.end - b.end);
  return {
    ...{ head: PHASE_WORDS[phase], tick: true },
    note: plan
      ? `From ${from}${isGuess ? ' (guess)' : ''}; ready at ${clockAfter(from, plan.ready)}, wanted by ${to}. No plan is ready before ${clockAfter(from, plan.bound)}.`
      : '',
    columns: [
      { head: 'from', share: 12 },
      { head: 'until', share: 12 },
      { head: 'task', share: 50 },
      { head: 'who', share: 50 },
    ],
    rows: rows.map(({ key, start, end, people }) => [
      clockAfter(from, start),
      clockAfter(from, end),
      titleOf.get(key) ?? key,
      people.map((id) => scene.person[id]?.name ?? id).join(', '),
    ]),
  };
}

function peopleList(scene: Scene): PaperList {
  const { from } = phaseTimes(scene, 'setup');
  const coming = new Map(helpersOf(scene, 'setup').map((one) => [one.id, one]));
  return {
    ...{ head: 'Who comes', note: 'Telephone numbers are written in by hand.', tick: true },
    columns: [
      { head: 'name', share: 40 },
      { head: 'from', share: 15 },
      { head: 'telephone', share: 40 },
    ],
    rows: listOf(scene, 'person').flatMap(({ id, name }) => {
      const one = coming.get(id);
      return one ? [[name, clockAfter(from, one.arrives), '_______________________']] : [];
    }),
  };
}

function powerLists(power: Power): PaperList[] {
  return [
    {
      ...{ head: 'Light and power: parts', note: '', tick: true },
      columns: [
        { head: 'how much', share: 14, align: 'right' },
        { head: 'what', share: 40 },
        { head: 'for', share: 50 },
      ],
      rows: powerParts(power).map(({ name, count, unit, note }) => [
        unit === 'm' ? `${figure(count, 1)} m` : String(count),
        name,
        note,
      ]),
    },
    {
      ...{ head: 'Light and power: outlets and switches', tick: false },
      note: 'Only extra-low voltage is planned; mains is for qualified people and the rules of the place.',
      columns: [
        { head: 'supply', share: 35 },
        { head: 'plugged into', share: 35 },
        { head: 'circuits, on in this order', share: 60 },
        { head: 'gives', share: 22, align: 'right' },
      ],
      rows: power.supplies.map(({ supply, circuits, milliamps, share }) => [
        supply.name,
        supply.type === 'battery'
          ? 'battery'
          : (power.leads.find(({ kind, id }) => kind === 'supply' && id === supply.id)?.outlet?.name ??
            'none within its lead'),
        inSwitchOrder(circuits)
          .map(({ circuit }) => circuit.name)
          .join(', '),
        `${Math.round(milliamps)} mA${share === null ? '' : `, ${formatPercent(share)}`}`,
      ]),
    },
  ];
}

function valueList({ scene, values }: ShowFacts): PaperList {
  const { currency } = displayOf(scene);
  const whole = values.reduce((sum, { money }) => sum + money, 0);
  const guessed = values.reduce((sum, one) => sum + one.guessed, 0);
  return {
    ...{ head: 'Values by owner', tick: false },
    note: `What the counted pieces would cost to buy again, without spares: ${formatSum(whole)} ${currency}, ${formatPercent(whole > 0 ? guessed / whole : 0)} by guessed prices.`,
    columns: [
      { head: 'owner', share: 40 },
      { head: 'sections', share: 30 },
      { head: 'pieces', share: 20, align: 'right' },
      { head: 'money', share: 25, align: 'right' },
    ],
    rows: values.map(({ name, sections, pieces, money }) => [
      name,
      sections.join(', ') || 'none',
      pieces.toLocaleString('en'),
      `${formatSum(money)} ${currency}`,
    ]),
  };
}
