import { dateIn, workDone } from '../progress/index.ts';
import {
  DISPLAY_ID,
  STAGES,
  displayOf,
  listOf,
  type Change,
  type Scene,
  type Section,
} from '../document/index.ts';
import type { Entry } from './sentences.ts';

/** How far each section was at the end of a day. */
export interface SharesOfDay {
  /** ISO date. */
  date: string;
  /** Share of its work behind it, 0 to 1, by section id; sections that were not there are left out. */
  done: Record<string, number>;
}

/**
 * How far the sections were at the end of every day on which one of them moved, read off the log: only changes of
 * stages, and of their weights, is followed. The weights are those of the time.
 * @param from the scene where the log begins
 * @param at when that was, ms since the epoch
 * @param zone IANA name, in which days end; empty: UTC
 */
export function sharesByDay(
  from: Scene,
  at: number,
  entries: readonly Pick<Entry, 'at' | 'changes'>[],
  zone: string,
): SharesOfDay[] {
  const display = { ...displayOf(from) };
  const sections = new Map<string, Pick<Section, 'stage' | 'stageDone'>>();
  for (const { id, stage, stageDone } of listOf(from, 'section')) sections.set(id, { stage, stageDone });
  const days = new Map<string, SharesOfDay>();
  const note = (moment: number) => {
    const date = dateIn(moment, zone);
    const weighed: Scene = { ...from, display: { [DISPLAY_ID]: display } };
    days.set(date, {
      date,
      done: Object.fromEntries([...sections].map(([id, section]) => [id, workDone(weighed, section)])),
    });
  };
  note(at);
  for (const entry of entries)
    if (entry.changes.filter((change) => follow(display, sections, change)).length > 0) note(entry.at);
  return [...days.values()].sort((a, b) => (a.date < b.date ? -1 : 1));
}

/** Applies a change of stages. @returns whether the change touches stages */
function follow(
  display: { stageWeights: number[] },
  sections: Map<string, Pick<Section, 'stage' | 'stageDone'>>,
  change: Change,
): boolean {
  if (change.kind === 'display') {
    if (change.op !== 'patch' || !isNumbers(change.set.stageWeights)) return false;
    display.stageWeights = change.set.stageWeights;
    return true;
  }
  if (change.kind !== 'section') return false;
  if (change.op === 'remove') return sections.delete(change.id);
  const fields = change.op === 'add' ? change.data : change.set;
  if (change.op === 'patch' && !('stage' in fields) && !('stageDone' in fields)) return false;
  const was = sections.get(change.id) ?? { stage: 'planned', stageDone: 0 };
  const stage = STAGES.find((one) => one === fields.stage) ?? was.stage;
  sections.set(change.id, {
    stage,
    stageDone: typeof fields.stageDone === 'number' ? fields.stageDone : was.stageDone,
  });
  return true;
}

const isNumbers = (value: unknown): value is number[] =>
  Array.isArray(value) && value.every((one) => typeof one === 'number');
