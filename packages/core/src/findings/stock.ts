import {
  DISTINCT_DELTA_E,
  ANY_COLOUR,
  colourName,
  colourOf,
  colourDeltaE,
  deltaESeen,
  partName,
} from '../catalogue/index.ts';
import { countOf } from '../grid/index.ts';
import { displayOf, isComing, listOf, type Order, daysBetween } from '../document/index.ts';
import { colourPolicyOf, mayStandIn, type Netted } from '../materials/index.ts';
import type { FindingDraft, Rule } from './finding.ts';

// Parcels, loans, placeholders and colours.

const outstanding = ({ lines }: Order) =>
  lines.reduce((sum, { qty, came }) => sum + Math.max(0, qty - came), 0);

/** The sections whose pieces of an order did not come yet. */
const waitingFor = ({ lines }: Order): string[] => [
  ...new Set(lines.flatMap(({ section, qty, came }) => (section !== null && came < qty ? [section] : []))),
];

const parcelLate: Rule = {
  id: 'parcel-late',
  title: 'A parcel is late',
  basis: 'The days since an order that is not put away was expected, and the pieces of it that did not come.',
  page: 'stockpile',
  severity: 'warning',
  check: ({ scene, today }) =>
    listOf(scene, 'order').flatMap((order): FindingDraft[] => {
      const late = order.expected && today ? daysBetween(order.expected, today) : 0;
      const pieces = outstanding(order);
      if (!isComing(order) || late <= 0 || pieces === 0) return [];
      const waiting = waitingFor(order);
      const letters = waiting.flatMap((id) => scene.section[id]?.letter ?? []).sort();
      return [
        {
          sentence: `“${order.name}” is ${countOf(late, 'day')} late with ${countOf(pieces, 'piece')}${letters.length > 0 ? `; section ${letters.join(', ')} waits for it` : ''}.`,
          remedy: 'Ask the seller, set another day, or borrow the pieces.',
          place: null,
          things: [
            { kind: 'order', id: order.id },
            ...waiting.map((id) => ({ kind: 'section' as const, id })),
          ],
          numbers: { late, pieces },
        },
      ];
    }),
};

const sourceBeyond: Rule = {
  id: 'source-beyond',
  title: 'More is needed than its source has',
  basis:
    'What lists that may only be built from kits need of the kits together, list by list in their order; and where the card lets in one kit or own stock only, all that is counted, set out and listed. What is beyond is not bought.',
  page: 'stockpile',
  severity: 'warning',
  check({ scene, bound }) {
    const { sourceRule } = displayOf(scene);
    if (sourceRule === 'any' && !listOf(scene, 'partList').some(({ kitsOnly }) => kitsOnly)) return [];
    const groups = new Map<string, Netted[]>();
    for (const row of bound())
      groups.set(row.demand.list ?? '', [...(groups.get(row.demand.list ?? '') ?? []), row]);
    return [...groups].flatMap(([id, rows]): FindingDraft[] => {
      const lacking = rows.filter(({ short }) => short > 0).toSorted((a, b) => b.short - a.short);
      const short = lacking.reduce((sum, row) => sum + row.short, 0);
      const needed = rows.reduce((sum, { demand }) => sum + demand.qty, 0);
      if (short === 0) return [];
      const list = id === '' ? null : scene.partList[id];
      const most = lacking
        .slice(0, 3)
        .map(({ demand, short: qty }) => `${qty} × ${partName(demand.part)} in ${colourName(demand.colour)}`);
      return [
        {
          sentence: `${list ? `“${list.name}”, only from kits,` : 'The display'} needs ${countOf(needed, 'piece')}; ${sourceRule === 'own' && !list ? 'own stock' : 'the kits'} lack${sourceRule === 'own' && !list ? 's' : ''} ${short.toLocaleString('en')} of them: ${most.join(', ')}${lacking.length > most.length ? ` and ${lacking.length - most.length} lines more` : ''}.`,
          remedy:
            'Build it with other parts, add copies of a kit, or let it come from elsewhere: what is beyond is not bought.',
          place: null,
          things: list ? [{ kind: 'partList', id: list.id }] : [],
          numbers: { needed, short },
        },
      ];
    });
  },
};

const parcelAfterNeed: Rule = {
  id: 'parcel-after-need',
  title: 'A parcel comes after its parts are needed',
  basis: 'The day an order is expected against the day its section needs parts, or else the show.',
  page: 'stockpile',
  severity: 'warning',
  check: ({ scene }) =>
    listOf(scene, 'order').flatMap((order): FindingDraft[] => {
      const { expected } = order;
      if (!isComing(order) || expected === null) return [];
      return waitingFor(order).flatMap((id): FindingDraft[] => {
        const section = scene.section[id];
        const by = section?.partsBy ?? displayOf(scene).showDate;
        const days = by ? daysBetween(by, expected) : 0;
        if (!section || days <= 0) return [];
        return [
          {
            sentence: `“${order.name}” is expected ${countOf(days, 'day')} after section ${section.letter} needs its parts (${by}).`,
            remedy: 'Order it elsewhere, or build that section later.',
            place: null,
            things: [
              { kind: 'order', id: order.id },
              { kind: 'section', id },
            ],
            numbers: { days },
          },
        ];
      });
    }),
};

const loanOverdue: Rule = {
  id: 'loan-overdue',
  title: 'A loan is overdue',
  basis: 'The days since lent pieces that are not back were due.',
  page: 'stockpile',
  severity: 'note',
  check: ({ scene, today }) =>
    listOf(scene, 'loan').flatMap((loan): FindingDraft[] => {
      const late = loan.due && today ? daysBetween(loan.due, today) : 0;
      if (loan.back !== null || late <= 0) return [];
      const name = (id: string | null) => (id === null ? 'somebody' : (scene.person[id]?.name ?? id));
      return [
        {
          sentence: `${name(loan.to)} was to give ${loan.qty} × ${partName(loan.part)} in ${colourName(loan.colour)} back to ${name(loan.from)} ${countOf(late, 'day')} ago.`,
          remedy: 'Bring them to the next meeting, or agree on another day.',
          place: null,
          things: [{ kind: 'loan', id: loan.id }],
          numbers: { late, qty: loan.qty },
        },
      ];
    }),
};

const placeholderRule: Rule = {
  id: 'placeholder-forbidden',
  title: 'A placeholder stands where the house rules allow none',
  basis: 'Placeholders that are not swapped, while the house rules say that none may be built in.',
  page: 'stockpile',
  severity: 'warning',
  check: ({ scene }) =>
    displayOf(scene).placeholders !== 'none'
      ? []
      : listOf(scene, 'placeholder')
          .filter(({ swapped }) => swapped === null)
          .map((one) => ({
            sentence: `${one.qty} × ${partName(one.part)} stand in ${colourName(one.stands)} instead of ${colourName(one.colour)}; the house rules allow 0 placeholders.`,
            remedy: 'Swap them, or allow placeholders in the house rules.',
            place: { x: one.x, y: one.y },
            things: [{ kind: 'placeholder' as const, id: one.id }],
            numbers: { qty: one.qty },
          })),
};

const substituteColour: Rule = {
  id: 'substitute-colour',
  title: 'A substitute is of a colour that the house rules keep out',
  basis:
    'Accepted substitutes against the rule for colours where they are seen: strict takes the colour that was asked for; old and new mixed takes what differs by at most 10 (CIEDE2000, above which it is another colour: common practice, no source); free takes any.',
  page: 'stockpile',
  severity: 'warning',
  check: ({ scene }) =>
    listOf(scene, 'substitute').flatMap(({ id, part, colour, use, section }): FindingDraft[] => {
      const policy = colourPolicyOf(scene, section);
      const wrong = use.find((line) => !mayStandIn(policy, colour, line.colour));
      if (!wrong) return [];
      const difference = colourDeltaE(colour, wrong.colour);
      const where = section === null ? 'somewhere' : `in section ${scene.section[section]?.letter ?? ''}`;
      return [
        {
          sentence: `${partName(wrong.part)} in ${colourName(wrong.colour)} stands in for ${partName(part)} in ${colourName(colour)}${Number.isFinite(difference) ? `, ${difference.toFixed(1)} off` : ''}; the rule for colours ${where} allows ${policy === 'strict' ? 0 : DISTINCT_DELTA_E}.`,
          remedy:
            'Use another substitute, or loosen the rule for colours of the section or of the house rules.',
          place: null,
          things: [
            { kind: 'substitute', id },
            ...(section === null ? [] : [{ kind: 'section' as const, id: section }]),
          ],
          numbers: { difference: Number.isFinite(difference) ? difference : DISTINCT_DELTA_E },
        },
      ];
    }),
};

/** Accents nearer to their ground than this are not seen by some (CIEDE2000). */
const LOST = 5;

const accentLost: Rule = {
  id: 'accent-lost',
  title: 'An accent is lost on its ground to some visitors',
  basis:
    'The CIEDE2000 difference between an accent and the base of its recipe as red-blind and green-blind visitors see them (simulated); below 5 it is lost.',
  page: 'stockpile',
  severity: 'note',
  check: ({ scene }) =>
    listOf(scene, 'recipe').flatMap((recipe) => {
      const base = colourOf(recipe.tones[0].colour);
      return recipe.accents.flatMap(({ colour: id }): FindingDraft[] => {
        const colour = id === ANY_COLOUR ? null : colourOf(id);
        if (!base || !colour) return [];
        const difference = Math.min(
          ...(['protan', 'deutan'] as const).map((sight) => deltaESeen(base, colour, sight)),
        );
        if (difference >= LOST) return [];
        return [
          {
            sentence: `${colour.name} on ${base.name} in “${recipe.name}” differs by ${difference.toFixed(1)} to colour-blind visitors; at least ${LOST} is seen.`,
            remedy: 'Take a lighter or a darker accent.',
            place: null,
            things: [{ kind: 'recipe', id: recipe.id }],
            numbers: { difference },
          },
        ];
      });
    }),
};

export const STOCK_RULES: readonly Rule[] = [
  sourceBeyond,
  parcelLate,
  parcelAfterNeed,
  loanOverdue,
  placeholderRule,
  substituteColour,
  accentLost,
];
