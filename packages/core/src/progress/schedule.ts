import { listOf, type Scene, daysBetween } from '../document/index.ts';
import { dateIn } from './days.ts';
import { evenPace, workDone } from './steps.ts';

// Late and idle sections.

/** A section is late when it is more days behind an even pace than this, and idle after so many without a session. */
export const LATE_DAYS = 7;
export const IDLE_DAYS = 14;

export interface SectionSchedule {
  id: string;
  /** Shares of its work, 0 to 1: what is done, and what an even pace from the first day to the show would have done. */
  done: number;
  planned: number | null;
  /** Days behind that pace, negative: ahead; null: no days are set. */
  behind: number | null;
  late: boolean;
  /** Days since its last session; null: none was logged. */
  rested: number | null;
  idle: boolean;
}

/**
 * How each section stands against an even pace, by its letter.
 * @param today ISO date @param zone IANA name, in which sessions have their days
 */
export function sectionSchedules(scene: Scene, today: string, zone: string): SectionSchedule[] {
  const pace = evenPace(scene, today);
  const planned = pace && pace.gone;
  const sessions = listOf(scene, 'session');
  const last = new Map<string, string>();
  for (const { section, start } of sessions)
    if (section !== null && start > (last.get(section) ?? '')) last.set(section, start);
  return listOf(scene, 'section')
    .toSorted((a, b) => (a.letter < b.letter ? -1 : a.letter > b.letter ? 1 : a.id < b.id ? -1 : 1))
    .map((section) => {
      const done = workDone(scene, section);
      const over = section.stage === 'done';
      // Shares of days are not exact: a week behind is seven days.
      const behind = pace && Math.round((pace.gone - done) * pace.days * 1e6) / 1e6;
      const start = last.get(section.id);
      const rested = start === undefined ? null : Math.max(0, daysBetween(dateIn(start, zone), today));
      return {
        ...{ id: section.id, done, planned, behind, rested },
        late: !over && behind !== null && behind > LATE_DAYS,
        // Without logged sessions idleness is unknown.
        idle: !over && sessions.length > 0 && (rested === null || rested > IDLE_DAYS),
      };
    });
}
