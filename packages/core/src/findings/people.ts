import { centreOf, countOf, intersection, studsIn } from '../grid/index.ts';
import { STAGES, displayOf, listOf, daysBetween, promisesOf, wishesOf } from '../document/index.ts';
import { OUTSIDE, indexAt } from '../terrain/index.ts';
import { type FindingDraft, type Rule } from './finding.ts';
import { unorderedPairs } from './places.ts';

const sectionOwner: Rule = {
  id: 'section-owner',
  title: 'A section has no owner',
  basis: 'Sections whose owner is empty.',
  page: 'progress',
  severity: 'warning',
  check: ({ scene }) =>
    listOf(scene, 'section')
      .filter(({ owner }) => owner === null)
      .map((section) => ({
        sentence: `Section ${section.letter}, “${section.name}”, has no owner and stands at “${section.stage}”.`,
        remedy: 'Give it to somebody of the crew.',
        place: centreOf(section),
        things: [{ kind: 'section' as const, id: section.id }],
        numbers: { stage: STAGES.indexOf(section.stage) },
      })),
};

const sectionsOverlap: Rule = {
  id: 'sections-overlap',
  title: 'Sections overlap',
  basis: 'The studs two sections share: ground with two owners.',
  page: 'plan',
  severity: 'warning',
  check: ({ scene }) =>
    unorderedPairs(listOf(scene, 'section')).flatMap(([a, b]): FindingDraft[] => {
      const shared = intersection(a, b);
      if (!shared) return [];
      return [
        {
          sentence: `Sections ${a.letter} and ${b.letter} share ${shared.w} × ${shared.d} studs; each stud should have 1 owner.`,
          remedy: 'Draw the border where one of them ends.',
          place: centreOf(shared),
          things: [
            { kind: 'section', id: a.id },
            { kind: 'section', id: b.id },
          ],
          numbers: { w: shared.w, d: shared.d },
        },
      ];
    }),
};

const noSection: Rule = {
  id: 'no-section',
  title: 'Ground that belongs to nobody',
  basis: 'Studs of the footprint that lie in no section.',
  page: 'plan',
  severity: 'note',
  check({ scene, relief }) {
    const sections = listOf(scene, 'section');
    if (sections.length === 0) return [];
    const owned = new Uint8Array(relief.ground.length);
    for (const section of sections) {
      const on = intersection(studsIn(section), relief);
      for (let y = on?.y ?? 0; on && y < on.y + on.d; y++) {
        const from = indexAt(relief, on.x, y);
        owned.fill(1, from, from + on.w);
      }
    }
    let studs = 0;
    let first = -1;
    for (let i = 0; i < owned.length; i++) {
      if (owned[i] === 1 || relief.ground[i] === OUTSIDE) continue;
      if (studs === 0) first = i;
      studs++;
    }
    const place = {
      x: relief.x + (first % relief.w) + 0.5,
      y: relief.y + Math.trunc(first / relief.w) + 0.5,
    };
    if (studs === 0) return [];
    return [
      {
        sentence: `${countOf(studs, 'stud')} of the footprint lie in no section; 0 should be left over.`,
        remedy: 'Widen a section or draw a new one.',
        place,
        things: [],
        numbers: { studs },
      },
    ];
  },
};

const taskLate: Rule = {
  id: 'task-late',
  title: 'A task is past its day',
  basis: 'The days since a task that is not done was due.',
  page: 'progress',
  severity: 'warning',
  check: ({ scene, today }) =>
    listOf(scene, 'task').flatMap((task): FindingDraft[] => {
      const late = task.due && today && task.done === null ? daysBetween(task.due, today) : 0;
      if (late <= 0) return [];
      const owner = task.owner ?? (task.section ? (scene.section[task.section]?.owner ?? null) : null);
      return [
        {
          sentence: `Task “${task.name}”${owner ? `, ${scene.person[owner]?.name ?? owner}’s,` : ''} was due ${countOf(late, 'day')} ago; 0 may be.`,
          remedy: 'Do it, give it another day, or leave it out.',
          place: null,
          things: [{ kind: 'task', id: task.id }],
          numbers: { late },
        },
      ];
    }),
};

const milestoneMissed: Rule = {
  id: 'milestone-missed',
  title: 'What a milestone promised is not done',
  basis:
    'The promises of milestones whose day is past: sections at their stage or beyond, tasks done, small scenes placed, advice resolved.',
  page: 'brief',
  severity: 'warning',
  check: ({ scene, today }) =>
    listOf(scene, 'milestone').flatMap((milestone): FindingDraft[] => {
      const late = today === null ? 0 : daysBetween(milestone.date, today);
      if (late <= 0) return [];
      const all = promisesOf(scene, milestone);
      const open = all.filter(({ state }) => state !== 'met');
      if (open.length === 0) return [];
      const words = open.slice(0, 3).map((one) => one.words);
      return [
        {
          sentence: `“${milestone.name}” promised ${countOf(all.length, 'thing')} for ${countOf(late, 'day')} ago; ${open.length} of them ${open.length === 1 ? 'is' : 'are'} not met: ${words.join('; ')}${open.length > 3 ? ' …' : ''}. 0 may be open.`,
          remedy: 'Do it, promise it for a later milestone, or tell followers that it is left out.',
          place: null,
          things: [{ kind: 'milestone', id: milestone.id }],
          numbers: { open: open.length },
        },
      ];
    }),
};

const wishUnpromised: Rule = {
  id: 'wish-unpromised',
  title: 'A wish that was accepted is promised for no day',
  basis: 'Wishes of followers that are accepted, against the promises of all milestones.',
  page: 'crew',
  severity: 'note',
  check({ scene, today }) {
    const next = listOf(scene, 'milestone')
      .filter(({ date }) => today === null || date > today)
      .toSorted((a, b) => (a.date < b.date ? -1 : 1))[0];
    return wishesOf(scene)
      .filter(({ state }) => state === 'accepted')
      .map(({ thread }) => ({
        sentence: `“${thread.title}”, wished for by ${countOf(thread.askedBy, 'follower')}, is accepted and promised for 0 milestones.`,
        remedy: 'Promise it for a milestone on the Brief, or close it when it is done.',
        place: thread.x !== null && thread.y !== null ? { x: thread.x, y: thread.y } : null,
        things: [
          { kind: 'thread' as const, id: thread.id },
          ...(next ? [{ kind: 'milestone' as const, id: next.id }] : []),
        ],
        numbers: { followers: thread.askedBy },
      }));
  },
};

const glueForbidden: Rule = {
  id: 'glue-forbidden',
  title: 'Something is to be glued where the house rules have no glue',
  basis: 'Tasks and slots of a day that wait for glue to dry, against the glue of the house rules.',
  page: 'progress',
  severity: 'warning',
  check: ({ scene }) =>
    displayOf(scene).glue !== 'none'
      ? []
      : (['task', 'slot'] as const).flatMap((kind) =>
          listOf(scene, kind)
            .filter(({ drying }) => drying === 'glue')
            .map(({ id, name }) => ({
              sentence: `“${name}” waits for glue; the house rules allow 0 glue.`,
              remedy: 'Hold it with studs or ties, or change the house rule on the Brief.',
              place: null,
              things: [{ kind, id }],
              numbers: { glue: 0 },
            })),
        ),
};

const showNear: Rule = {
  id: 'show-near',
  title: 'The show is near and sections are not done',
  basis:
    'Stages still to go over all sections (8 stages, the last is done) against the weeks left: more than one stage a section a week is a warning.',
  page: 'progress',
  severity: 'warning',
  check({ scene, today }) {
    const { showDate, showName } = displayOf(scene);
    const sections = listOf(scene, 'section');
    if (!showDate || !today || sections.length === 0) return [];
    const days = daysBetween(today, showDate);
    const toGo = sections.reduce((sum, { stage }) => sum + STAGES.length - 1 - STAGES.indexOf(stage), 0);
    const weeks = Math.max(0, days / 7);
    const behind = Math.max(...sections.map(({ stage }) => STAGES.length - 1 - STAGES.indexOf(stage)));
    if (toGo === 0 || behind <= weeks) return [];
    const slowest = sections.filter(({ stage }) => STAGES.length - 1 - STAGES.indexOf(stage) === behind);
    const when =
      days < 0
        ? `${showName || 'The show'} was ${countOf(-days, 'day')} ago`
        : `${showName || 'The show'} is in ${countOf(days, 'day')}`;
    return [
      {
        ...(days < 0 ? { severity: 'error' as const } : {}),
        sentence: `${when} and section ${slowest.map(({ letter }) => letter).join(', ')} has ${countOf(behind, 'stage')} to go: more than one a week.`,
        remedy: 'Move a date on the Brief, share the section out, or leave stages out on purpose.',
        place: centreOf(slowest[0]),
        things: slowest.map(({ id }) => ({ kind: 'section' as const, id })),
        numbers: { stages: behind, weeks: Math.floor(weeks) },
      },
    ];
  },
};

export const PEOPLE_RULES: readonly Rule[] = [
  taskLate,
  milestoneMissed,
  wishUnpromised,
  glueForbidden,
  sectionOwner,
  sectionsOverlap,
  noSection,
  showNear,
];
