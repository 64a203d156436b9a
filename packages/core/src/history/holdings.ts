import { countOf, containsPoint, intersection } from '../grid/index.ts';
import type { EvaluatedFinding } from '../findings/index.ts';
import { neighboursOf } from '../cut/index.ts';
import { workDone } from '../progress/index.ts';
import { listOf, stageWord, type Scene, type Section } from '../document/index.ts';

// Who holds what, how far it is and what it waits for.

export interface Wait {
  why: 'owner' | 'finding' | 'parts' | 'seam' | 'advice' | 'placeholder';
  sentence: string;
  /** The page where it is settled. */
  page: 'crew' | 'plan' | 'cut' | 'stockpile';
  count: number;
}
export interface Holding {
  section: Section;
  /** Share of its work behind it, 0 to 1. */
  done: number;
  waits: Wait[];
}

/** What other rooms know of a scene; null: not known yet. */
export interface KnownResults {
  findings: readonly EvaluatedFinding[] | null;
  netted: readonly { demand: { section: string | null }; short: number; late: number }[] | null;
}

/** Every section by its letter, with what it waits for; done ones wait for nothing. */
export function holdingsOf(scene: Scene, known: KnownResults): Holding[] {
  const seams = neighboursOf(scene);
  return listOf(scene, 'section')
    .toSorted((a, b) => (a.letter < b.letter ? -1 : a.letter > b.letter ? 1 : a.id < b.id ? -1 : 1))
    .map((section) => ({
      section,
      done: workDone(scene, section),
      waits: section.stage === 'done' ? [] : waitsOf(scene, section, known, seams),
    }));
}

/** The open matters of a section, those that stop it first. */
function waitsOf(
  scene: Scene,
  section: Section,
  { findings, netted }: KnownResults,
  seams: ReturnType<typeof neighboursOf>,
): Wait[] {
  const waits: Wait[] = [];
  const wait = (why: Wait['why'], page: Wait['page'], count: number, sentence: string) => {
    if (count > 0) waits.push({ why, page, count, sentence });
  };
  wait('owner', 'crew', section.owner === null ? 1 : 0, 'nobody holds it');
  const grave = (findings ?? []).filter(
    ({ severity, accepted, place, things }) =>
      severity === 'error' &&
      !accepted &&
      (things.some(({ kind, id }) => kind === 'section' && id === section.id) ||
        (place !== null && containsPoint(section, place.x, place.y))),
  ).length;
  wait('finding', 'plan', grave, countOf(grave, 'error'));
  let [short, late] = [0, 0];
  for (const row of netted ?? [])
    if (row.demand.section === section.id) {
      short += row.short;
      late += row.late;
    }
  wait('parts', 'stockpile', short, `${countOf(short, 'piece')} short`);
  wait('parts', 'stockpile', late, `${countOf(late, 'piece')} coming too late`);
  const unsigned = seams.flatMap(({ id, a, b }) => {
    const mine = [a, b].map((module) => intersection(section, module) !== null);
    // A seam within one section is its builder's own affair.
    if (mine[0] === mine[1] || (scene.seam[id]?.signs.length ?? 0) >= 2) return [];
    return [`${a.name}–${b.name}`];
  });
  wait(
    'seam',
    'cut',
    unsigned.length,
    `${countOf(unsigned.length, 'seam')} not signed by both: ${unsigned.slice(0, 3).join(', ')}${unsigned.length > 3 ? ' …' : ''}`,
  );
  const advice = listOf(scene, 'thread').filter(
    (thread) => thread.state === 'open' && thread.section === section.id,
  ).length;
  wait('advice', 'crew', advice, `${advice} advice to answer`);
  const stands = listOf(scene, 'placeholder').filter(
    (one) => one.section === section.id && one.built !== null && one.swapped === null,
  );
  const swaps = stands.reduce((sum, { qty }) => sum + qty, 0);
  wait('placeholder', 'stockpile', swaps, `${countOf(swaps, 'placeholder')} to swap`);
  return waits;
}

/** What goes with a section when it is handed over, as the words of the hand-over; one line a matter. */
export function handoverWords(scene: Scene, holding: Holding, to: string, from: string | null): string {
  const { section, waits } = holding;
  const stage = stageWord(scene, section.stage);
  const stands =
    section.stage === 'done' || section.stageDone === 0
      ? `It stands at “${stage}”.`
      : `It stands at “${stage}”, ${section.stageDone} % of it done.`;
  const matters = waits.filter(({ why }) => why !== 'owner').map(({ sentence }) => `– ${sentence}`);
  return [
    `Section ${section.letter}, ${section.name}, goes ${from ? `from ${from} ` : ''}to ${to}.`,
    stands,
    ...(matters.length > 0 ? ['Open with it:', ...matters] : ['Nothing is open with it.']),
    ...(section.notes ? ['Notes:', section.notes] : []),
  ].join('\n');
}
