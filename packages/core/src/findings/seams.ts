import { centreOf, countOf, formatKg, formatPlates, intersection } from '../grid/index.ts';
import { displayOf, listOf, type Seam } from '../document/index.ts';
import {
  crossingsOf,
  inWords,
  liftOff,
  seamRemedies,
  neighboursOf,
  seamState,
  slantsOver,
  stripsOf,
  tippingOf,
  type Bulk,
  type ModuleLoad,
  type Neighbours,
} from '../cut/index.ts';
import type { FindingDraft, Rule } from './finding.ts';

/** Modules that lean less than this tip easily, degrees (a default of ours, no source). */
const EASILY_TIPS = 20;
/** Lifting index from which a lift is a risk for more and more people (NIOSH 94-110). */
const RISKY = 1;

const middleOf = ({ line: { x, y, upright, length } }: Neighbours) =>
  upright ? { x, y: y + length / 2 } : { x: x + length / 2, y };

const thingsOf = ({ a, b }: Neighbours, seam?: Seam) => [
  ...(seam ? [{ kind: 'seam' as const, id: seam.id }] : []),
  { kind: 'module' as const, id: a.id },
  { kind: 'module' as const, id: b.id },
];

const seamReopened: Rule = {
  id: 'seam-reopened',
  title: 'A seam is not as it was signed',
  basis:
    'Height and ground of each stud on both sides against what was signed. Streets, ways and tracks may not differ, rough ground by the seam’s tolerance.',
  page: 'cut',
  severity: 'warning',
  check: ({ seams }) =>
    seams().flatMap(({ pair, seam, sheet }): FindingDraft[] => {
      const state = seamState(seam, sheet);
      if (state.state !== 'reopened') return [];
      const signers = seam.signs.map(({ by }) => by).join(' and ');
      const what = state.moved
        ? 'it lies elsewhere or is of another length'
        : `${countOf(state.differences.length, 'stud')} differ: ${inWords(pair, state.differences)}`;
      return [
        {
          sentence: `The seam ${pair.a.name}–${pair.b.name}, signed by ${signers}, is no longer so: ${what}; 0 may differ by more than ${countOf(seam.tolerance, 'plate')}.`,
          remedy: 'Change the ground back, or let both sides sign again.',
          place: middleOf(pair),
          things: thingsOf(pair, seam),
          numbers: {
            studs: state.moved ? pair.line.length : state.differences.length,
            tolerance: seam.tolerance,
          },
        },
      ];
    }),
};

const seamHalf: Rule = {
  id: 'seam-half',
  title: 'A seam waits for the other side',
  basis: 'The sides that signed the seam as it is now.',
  page: 'cut',
  severity: 'note',
  check: ({ seams }) =>
    seams().flatMap(({ pair, seam, sheet }): FindingDraft[] => {
      const state = seamState(seam, sheet);
      if (state.state !== 'half') return [];
      const other = state.side === 'a' ? pair.b : pair.a;
      return [
        {
          sentence: `The seam ${pair.a.name}–${pair.b.name} has 1 signature of 2: the side of ${other.name} has not signed.`,
          remedy: `Ask the builder of ${other.name} to look at the seam sheet and sign.`,
          place: middleOf(pair),
          things: thingsOf(pair, seam),
          numbers: { signatures: 1 },
        },
      ];
    }),
};

const seamBuilt: Rule = {
  id: 'seam-built',
  title: 'What stands at a seam is not what was agreed',
  basis:
    'Heights read at the table against those signed, or planned where nothing is signed; within the tolerance on rough ground.',
  page: 'cut',
  severity: 'warning',
  check: ({ seams }) =>
    seams().flatMap(({ pair, seam, sheet }): FindingDraft[] => {
      const mends = seamRemedies(seam, sheet);
      if (mends.length === 0) return [];
      const studs = mends.reduce((sum, { from, to }) => sum + to - from, 0);
      const worst = Math.max(...mends.map(({ by }) => Math.abs(by)));
      return [
        {
          sentence: `At the seam ${pair.a.name}–${pair.b.name} ${countOf(studs, 'stud')} stand wrong by up to ${formatPlates(worst)}; ${mends
            .slice(0, 2)
            .map(({ words }) => words)
            .join('; ')}${mends.length > 2 ? ` and ${mends.length - 2} more` : ''}.`,
          remedy: 'Mend it by the list on its seam sheet.',
          place: middleOf(pair),
          things: thingsOf(pair, seam),
          numbers: { studs, worst },
        },
      ];
    }),
};

const seamTrack: Rule = {
  id: 'seam-track',
  title: 'A seam parts a track aslant',
  basis: 'The angle at which the middle of a track crosses a seam: 0° is square.',
  page: 'cut',
  severity: 'error',
  check({ scene, relief }) {
    const strips = stripsOf(scene, relief).filter(({ kind }) => kind === 'track');
    return neighboursOf(scene).flatMap((pair) =>
      crossingsOf(strips, pair.line)
        .filter(slantsOver)
        .map(({ id, name, angle, centre }): FindingDraft => ({
          sentence: `The seam ${pair.a.name}–${pair.b.name} parts “${name}” at ${angle.toFixed(0)}° from square; a track is parted at 0°.`,
          remedy: 'Move the seam to where the track is square to it, or lay the track otherwise.',
          place: pair.line.upright
            ? { x: pair.line.x, y: pair.line.y + centre }
            : { x: pair.line.x + centre, y: pair.line.y },
          things: [{ kind: 'track', id }, ...thingsOf(pair)],
          numbers: { angle: Math.round(angle) },
        })),
    );
  },
};

/** The pinned buildings that would have to lift off to mend a module, as part of a remedy; empty where that mends nothing. */
function liftingHelps(load: ModuleLoad, mends: (bulk: Bulk) => boolean): string {
  const off = liftOff(load, mends);
  return off.length > 0 ? `, let ${off.map(({ name }) => `“${name}”`).join(', ')} lift off` : '';
}

const moduleHeavy: Rule = {
  id: 'module-heavy',
  title: 'A module is heavy to lift, even for two',
  basis:
    'Mass of the ground as counted (by area until it is) and of pinned buildings by their lists or plain shells, over the weight the revised NIOSH equation recommends to each of two people, from the table to knuckle height. A caution, not advice: local rules and qualified people decide.',
  page: 'cut',
  severity: 'warning',
  check: ({ modules }) =>
    modules().flatMap((load): FindingDraft[] => {
      const { id, name, bulk, lift } = load;
      if (lift.two.index <= RISKY) return [];
      return [
        {
          sentence: `Module ${name} weighs about ${formatKg(1000 * bulk.kg)}: for each of two people that is ${lift.two.index.toFixed(1)} times the ${lift.two.limit.toFixed(1)} kg of the lifting equation; the most is 1.`,
          remedy: `Cut it smaller${liftingHelps(load, ({ kg }) => kg / 2 <= lift.two.limit)}, or take more people or a trolley.`,
          place: { x: bulk.x, y: bulk.y },
          things: [{ kind: 'module', id }],
          numbers: { kg: bulk.kg, limit: lift.two.limit },
        },
      ];
    }),
};

const moduleMass: Rule = {
  id: 'module-mass',
  title: 'A module is heavier than agreed',
  basis:
    'Mass of the ground as counted (by area until it is) and of pinned buildings by their lists or plain shells, against the most a module may weigh.',
  page: 'cut',
  severity: 'warning',
  check({ scene, modules }) {
    const { moduleMaxKg } = displayOf(scene);
    if (moduleMaxKg === null) return [];
    return modules().flatMap((load): FindingDraft[] => {
      const { id, name, bulk } = load;
      return bulk.kg <= moduleMaxKg
        ? []
        : [
            {
              sentence: `Module ${name} weighs about ${formatKg(1000 * bulk.kg)}; the most agreed is ${moduleMaxKg} kg.`,
              remedy: `Cut again with this limit${liftingHelps(load, ({ kg }) => kg <= moduleMaxKg)}.`,
              place: { x: bulk.x, y: bulk.y },
              things: [{ kind: 'module', id }],
              numbers: { kg: bulk.kg, most: moduleMaxKg },
            },
          ];
    });
  },
};

const moduleTips: Rule = {
  id: 'module-tips',
  title: 'A module tips easily',
  basis:
    'The angle at which the centre of mass stands over the nearest edge: atan(distance to the edge ÷ height of the centre). Masses as counted, by area until they are.',
  page: 'cut',
  severity: 'warning',
  check: ({ scene, modules }) =>
    modules().flatMap((load): FindingDraft[] => {
      const { id, name, bulk, tips } = load;
      return tips >= EASILY_TIPS
        ? []
        : [
            {
              sentence: `Module ${name} tips over at ${tips.toFixed(0)}°: its centre of mass is ${bulk.z.toFixed(0)} mm up; at least ${EASILY_TIPS}° are wanted where visitors pass, children above all.`,
              remedy: `Make it wider${liftingHelps(load, (left) => tippingOf(scene.module[id], left) >= EASILY_TIPS)}, or pin it to its neighbours before anything else.`,
              place: { x: bulk.x, y: bulk.y },
              things: [{ kind: 'module', id }],
              numbers: { tips, least: EASILY_TIPS },
            },
          ];
    }),
};

const moduleSections: Rule = {
  id: 'module-sections',
  title: 'A module lies in several sections',
  basis: 'The studs a module shares with each section; a module is built by one owner unless told otherwise.',
  page: 'cut',
  severity: 'note',
  check({ scene }) {
    if (!displayOf(scene).cutAtSections) return [];
    return listOf(scene, 'module').flatMap((module): FindingDraft[] => {
      const shares = listOf(scene, 'section').flatMap((section) => {
        const shared = intersection(section, module);
        return shared ? [{ section, studs: shared.w * shared.d }] : [];
      });
      const owners = new Set(shares.map(({ section }) => section.owner));
      if (shares.length < 2 || owners.size < 2) return [];
      const words = shares.map(({ section, studs }) => `${section.letter} ${studs.toLocaleString('en')}`);
      return [
        {
          sentence: `Module ${module.name} lies in ${shares.length} sections of ${owners.size} builders (studs in ${words.join(', ')}); a module has 1 builder.`,
          remedy:
            'Cut again, move the border onto the bases’ steps, or agree who builds it and keep this finding.',
          place: centreOf(module),
          things: [
            { kind: 'module', id: module.id },
            ...shares.map(({ section }) => ({ kind: 'section' as const, id: section.id })),
          ],
          numbers: { sections: shares.length },
        },
      ];
    });
  },
};

export const SEAM_RULES: readonly Rule[] = [
  seamReopened,
  seamBuilt,
  seamTrack,
  moduleHeavy,
  moduleMass,
  moduleTips,
  moduleSections,
  seamHalf,
];
