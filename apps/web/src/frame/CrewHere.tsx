import { useQuery } from '@tanstack/react-query';
import { useEffect, useMemo } from 'react';
import { Link } from 'react-router';
import { sectionOfEntity, unreadThreads } from '@quarry/core/document';
import { keys } from '../data/api.ts';
import { crewApi } from '../data/crewApi.ts';
import { useDisplay, useLink, useScene } from '../data/useDisplay.tsx';
import { useView } from '../data/view.ts';
import { Avatar, ringOf } from '../ui/Avatar.tsx';
import { PAGES } from './pages.ts';

/** The most rings in the bar. */
const MOST = 6;

/** Who has the display open, and on which page and section. */
export function CrewHere() {
  const scene = useScene('section', 'person');
  const here = useDisplay(({ here }) => here);
  const link = useLink();
  const others = here.filter(({ client }) => client !== link.client);
  if (others.length === 0) return null;
  const people = [...new Map(others.map((one) => [one.person ?? one.client, one])).values()];
  return (
    <Link to={`/d/${link.id}/crew`} className="hidden md:flex items-center -space-x-1.5 max-lg:h-11">
      <span className="sr-only">
        {people.length === 1 ? '1 other is here:' : `${people.length} others are here:`}
      </span>
      {people.slice(0, MOST).map(({ client, person, name, page, section }) => {
        const letter = section ? scene.section[section]?.letter : null;
        const where = [PAGES.find(({ id }) => id === page)?.word, letter && `section ${letter}`]
          .filter(Boolean)
          .join(', ');
        return (
          <Avatar
            key={client}
            name={where ? `${name}: ${where}` : name}
            initials={(person ? scene.person[person]?.initials : null) ?? name.slice(0, 2)}
            ring={ringOf(person ?? client)}
          />
        );
      })}
      {people.length > MOST && <span className="fig text-xs pl-2">+{people.length - MOST}</span>}
    </Link>
  );
}

/** Tells the others where this window is. */
export function useReportWhereabouts(page: string): void {
  const link = useLink();
  const scene = useDisplay(({ scene }) => scene);
  const picked = useView((view) => view.picked);
  const also = useView((view) => view.also);
  const section = picked ? sectionOfEntity(scene, picked.kind, picked.id) : null;
  useEffect(() => {
    link.reportWhereabouts({ page, section, picked: (picked ? [picked, ...also] : []).slice(0, 20) });
  }, [link, page, section, picked, also]);
}

/** Stamps of what this person has read, by thread; undefined until they are known. */
export function useMarks(): Readonly<Record<string, number>> | undefined {
  const link = useLink();
  return useQuery({ queryKey: keys.marks(link.id), queryFn: () => crewApi.marks(link.id) }).data;
}

/** Threads with unread messages; recomputed only when a message is added or read. */
export function useUnread(): ReadonlySet<string> {
  const thread = useDisplay(({ scene }) => scene.thread);
  const reply = useDisplay(({ scene }) => scene.reply);
  const person = useDisplay(({ actor }) => actor.person);
  const marks = useMarks();
  return useMemo(
    () => (marks ? unreadThreads({ thread, reply }, person, marks) : new Set<string>()),
    [thread, reply, marks, person],
  );
}
