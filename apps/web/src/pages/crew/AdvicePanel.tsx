import { useEffect, useMemo, useState } from 'react';
import { useSearchParams } from 'react-router';
import { countOf } from '@quarry/core/grid';
import {
  listOf,
  repliesOf,
  stampOf,
  wishesOf,
  wishesWord,
  type Scene,
  type Thread,
} from '@quarry/core/document';
import { keys, queryClient } from '../../data/api.ts';
import { crewApi } from '../../data/crewApi.ts';
import { useDisplay, useLink } from '../../data/useDisplay.tsx';
import { useMarks, useUnread } from '../../frame/CrewHere.tsx';
import { Empty } from '../../ui/parts.tsx';
import { capital } from '../../ui/words.ts';
import { NewAdvice } from './NewAdvice.tsx';
import { StateWord } from './threadText.tsx';
import { ThreadView } from './ThreadView.tsx';

const SHOWN = ['open', 'mine', 'wishes', 'all'] as const;

/** What was advised, by thing, place or finding, and what became of it. */
export function AdvicePanel() {
  const scene = useDisplay(({ scene }) => scene);
  const { person } = useDisplay(({ actor }) => actor);
  const link = useLink();
  const [query, setQuery] = useSearchParams();
  const [shown, setShown] = useState<(typeof SHOWN)[number]>('open');
  const section = query.get('section') ?? '';
  const marks = useMarks();
  const unread = useUnread();
  const threads = useMemo(
    () =>
      listOf(scene, 'thread')
        .filter(
          (thread) =>
            (section === '' || thread.section === section) &&
            (shown === 'all' ||
              (shown === 'open' && thread.state === 'open') ||
              (shown === 'wishes' && thread.use === 'wish') ||
              (shown === 'mine' && concerns(scene, thread, person))),
        )
        .toSorted(
          (a, b) =>
            (shown === 'wishes' ? b.askedBy - a.askedBy : 0) ||
            lastAt(scene, b).localeCompare(lastAt(scene, a)) ||
            (a.id < b.id ? -1 : 1),
        ),
    [scene, section, shown, person],
  );
  const asked = query.get('thread');
  const picked = (asked && scene.thread[asked]) || (query.get('new') === null ? threads[0] : undefined);
  const go = (set: Record<string, string | null>) =>
    setQuery((before) => {
      const next = new URLSearchParams(before);
      for (const [key, value] of Object.entries(set))
        if (value === null) next.delete(key);
        else next.set(key, value);
      return next;
    });
  const { id: pickedId } = picked ?? { id: null };
  const stamp = picked ? stampOf(scene, picked) : 0;
  // What is looked at is read.
  useEffect(() => {
    if (pickedId === null || (marks?.[pickedId] ?? 0) >= stamp || !marks) return;
    void crewApi
      .mark(link.id, pickedId, stamp)
      .then(() => queryClient.invalidateQueries({ queryKey: keys.marks(link.id) }))
      .catch(() => undefined);
  }, [link, pickedId, stamp, marks]);
  return (
    <div className="h-full grid grid-rows-[auto_minmax(0,1fr)] md:grid-rows-1 md:grid-cols-[320px_minmax(0,1fr)] min-h-0">
      <div className="border-b md:border-b-0 md:border-r hair flex flex-col min-h-0 max-h-[40vh] md:max-h-none">
        <div className="flex flex-wrap items-center gap-1 p-2 border-b hair">
          <div role="group" aria-label="Which advice" className="flex gap-1">
            {SHOWN.map((one) => (
              <button
                key={one}
                type="button"
                aria-pressed={shown === one}
                className={`btn btn-xs ${shown === one ? 'btn-neutral' : 'btn-ghost border hair'}`}
                onClick={() => setShown(one)}
              >
                {capital(one)}
              </button>
            ))}
          </div>
          <select
            aria-label="Section"
            className="select select-xs w-28"
            value={section}
            onChange={(event) => go({ section: event.currentTarget.value || null, thread: null })}
          >
            <option value="">any section</option>
            {listOf(scene, 'section').map(({ id, letter, name }) => (
              <option key={id} value={id}>
                {letter}, {name}
              </option>
            ))}
          </select>
          <button
            type="button"
            className="btn btn-xs btn-primary"
            onClick={() => go({ new: '', thread: null })}
          >
            Advise
          </button>
        </div>
        {shown === 'wishes' && (
          <p className="px-3 py-1.5 border-b hair text-xs" role="status">
            {wishesWord(wishesOf(scene)) ?? 'No wish of followers yet: write one down with “Advise”.'}
          </p>
        )}
        <ul className="overflow-auto flex-1" aria-label="Advice">
          {threads.map((thread) => {
            const fresh = unread.has(thread.id);
            const answers = repliesOf(scene, thread.id).length;
            return (
              <li key={thread.id}>
                <button
                  type="button"
                  aria-current={picked?.id === thread.id}
                  className={`w-full text-left px-3 py-1.5 border-b hair cursor-pointer border-l-3 ${picked?.id === thread.id ? 'bg-base-200 border-l-primary' : 'border-l-transparent hover:bg-base-200'}`}
                  onClick={() => go({ thread: thread.id, new: null })}
                >
                  <span className={`block ${fresh ? 'font-semibold' : ''}`}>
                    {fresh && (
                      <span className="text-secondary" title="to read">
                        ●<span className="sr-only"> to read: </span>{' '}
                      </span>
                    )}
                    {thread.title}
                  </span>
                  <span className="ink-2 text-xs flex gap-2">
                    <span className="flex-1 truncate">
                      {thread.by ? (scene.person[thread.by]?.name ?? '') : 'someone'}
                      {thread.section && `, section ${scene.section[thread.section]?.letter ?? ''}`}
                    </span>
                    <span>
                      {thread.use === 'wish' && `${countOf(thread.askedBy, 'follower')}, `}
                      {thread.proposal.length > 0 && 'proposal, '}
                      {answers > 0 && `${answers} ${answers === 1 ? 'answer' : 'answers'}, `}
                      <StateWord thread={thread} />
                    </span>
                  </span>
                </button>
              </li>
            );
          })}
          {threads.length === 0 && (
            <li className="p-2">
              <Empty title="No advice here">
                Advice is pinned to a thing, a place or a finding. Whoever holds the section answers it.
              </Empty>
            </li>
          )}
        </ul>
      </div>
      <div className="overflow-auto min-h-0">
        {query.get('new') !== null ? (
          <NewAdvice
            about={query.get('about')}
            finding={query.get('finding')}
            onDone={(id) => go({ new: null, about: null, finding: null, thread: id })}
          />
        ) : picked ? (
          <ThreadView key={picked.id} thread={picked} />
        ) : (
          <p className="ink-2 p-4">Pick a piece of advice at the left, or give some.</p>
        )}
      </div>
    </div>
  );
}

/** Whether a person wrote in a thread, is named in it, or holds its section. */
function concerns(scene: Scene, thread: Thread, person: string | null): boolean {
  if (person === null) return false;
  const section = thread.section ? scene.section[thread.section] : undefined;
  return (
    thread.by === person ||
    thread.mentions.includes(person) ||
    section?.owner === person ||
    (section?.helpers.includes(person) ?? false) ||
    repliesOf(scene, thread.id).some(({ by, mentions }) => by === person || mentions.includes(person))
  );
}

const lastAt = (scene: Scene, thread: Thread): string =>
  repliesOf(scene, thread.id).at(-1)?.at ?? thread.at ?? '';
