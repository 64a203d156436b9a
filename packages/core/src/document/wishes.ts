import { countOf } from '../grid/index.ts';
import type { Thread } from './schema.ts';
import { listOf, type Scene } from './scene.ts';

// What followers wish for, and what became of it.

export const WISH_STATES = ['granted', 'promised', 'accepted', 'open', 'declined'] as const;

/** A wish of followers. */
export interface Wish {
  thread: Thread;
  /** Granted: settled without being declined. Promised: accepted, and for a milestone. */
  state: (typeof WISH_STATES)[number];
  /** The first milestone that promises it. */
  promisedFor: { id: string; name: string; date: string } | null;
}

/** What became of a wish. */
export function wishOf(scene: Pick<Scene, 'milestone'>, thread: Thread): Wish {
  const [first] = listOf(scene, 'milestone')
    .filter(({ promises }) => promises.some(({ of, thing }) => of === 'thread' && thing === thread.id))
    .toSorted((a, b) => (a.date < b.date ? -1 : 1));
  const promisedFor = first ? { id: first.id, name: first.name, date: first.date } : null;
  if (thread.state === 'resolved') return { thread, state: 'granted', promisedFor };
  return {
    thread,
    state: thread.state === 'accepted' && promisedFor ? 'promised' : thread.state,
    promisedFor,
  };
}

/** All wishes, those that most followers have first. */
export const wishesOf = (scene: Pick<Scene, 'thread' | 'milestone'>): Wish[] =>
  listOf(scene, 'thread')
    .filter(({ use }) => use === 'wish')
    .toSorted((a, b) => b.askedBy - a.askedBy || (a.id < b.id ? -1 : 1))
    .map((thread) => wishOf(scene, thread));

/** “3 wishes of 61 followers: 1 granted, 2 open”; null without a wish. A follower with two wishes counts twice. */
export function wishesWord(wishes: readonly Wish[]): string | null {
  if (wishes.length === 0) return null;
  const asked = wishes.reduce((sum, { thread }) => sum + thread.askedBy, 0);
  const states = WISH_STATES.flatMap((state) => {
    const such = wishes.filter((one) => one.state === state).length;
    return such > 0 ? [`${such} ${state}`] : [];
  });
  const many = `${wishes.length.toLocaleString('en')} ${wishes.length === 1 ? 'wish' : 'wishes'}`;
  return `${many} of ${countOf(asked, 'follower')}: ${states.join(', ')}`;
}

/** “A lamp on the dam”, 38 followers, promised for Letter no. 3, 2031-09-05. */
export const wishWord = ({ thread, state, promisedFor }: Wish): string =>
  `${thread.title}: ${countOf(thread.askedBy, 'follower')}, ${state}${state === 'promised' && promisedFor ? ` for ${promisedFor.name}, ${promisedFor.date}` : ''}`;
