import ical from 'ical-generator';
import { concerns, dayLine, daysAhead, sittings } from '../progress/index.ts';
import { displayOf, sectionsOf, type Scene } from '../document/index.ts';

/**
 * Somebody's agenda of a display as iCalendar (RFC 5545): their sittings with start and end in UTC, so that every
 * reader shows them right whatever the summer time; shows, milestones, parcels and wanted parts as whole days.
 * @param person whose; null: no sittings, only the days
 * @param options.from and @param options.to ISO dates, both within
 * @param options.id of the display: part of each event's identity, so that a later file replaces an earlier one
 * @param options.stamp when it is written, ms since the epoch
 */
export function writeAgenda(
  scene: Scene,
  person: string | null,
  { id, from, to, stamp }: { id: string; from: string; to: string; stamp: number },
): string {
  const { name } = displayOf(scene);
  const calendar = ical({ name, prodId: { company: 'Open Quarry', product: 'Open Quarry', language: 'EN' } });
  const own = sectionsOf(scene, person).filter(({ stage }) => stage !== 'done');
  const letters = own.map(({ letter }) => letter).sort();
  for (const one of sittings(scene, from, to))
    if (one.person === person)
      calendar.createEvent({
        id: `${id}-sitting-${person}-${one.date}@open-quarry`,
        stamp: new Date(stamp),
        start: new Date(one.start),
        end: new Date(one.end),
        summary: `${name}: at the table`,
        description: letters.length > 0 ? `Sections ${letters.join(', ')}` : null,
      });
  for (const day of daysAhead(scene, from, to)) {
    if (!concerns(scene, day, person)) continue;
    calendar.createEvent({
      id: `${id}-${day.what}-${day.id}@open-quarry`,
      stamp: new Date(stamp),
      // Whole days are written by their date in UTC.
      start: new Date(`${day.date}T00:00:00Z`),
      allDay: true,
      summary: dayLine(day),
    });
  }
  return calendar.toString();
}
