import { useMutation, useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { Link, useNavigate } from 'react-router';
import { api, keys, queryClient } from '../../data/api.ts';
import type { User } from '@quarry/protocol/accounts';
import type { DisplayLine } from '@quarry/protocol/displays';
import { accountApi } from '../../data/accountApi.ts';
import { rememberedDisplays } from '../../data/me.ts';
import { signOut } from '../../data/signOut.ts';
import { Trouble } from '../../ui/forms.tsx';
import { Dialog, Empty, Failure, Loading } from '../../ui/parts.tsx';
import { BeginDisplay } from './BeginDisplay.tsx';
import { DisplayItem } from './DisplayItem.tsx';

/** From so many displays on they are searched and sorted. */
const MANY = 6;
const ORDERS = [
  { id: 'changed', word: 'Last changed' },
  { id: 'name', word: 'Name' },
  { id: 'show', word: 'Show first' },
  { id: 'done', word: 'Least done' },
] as const;
type Order = (typeof ORDERS)[number]['id'];

/** @returns the displays whose name or kind has the words, in an order */
function arranged(list: readonly DisplayLine[], words: string, order: Order): DisplayLine[] {
  const found = list.filter(({ name, kind }) =>
    `${name} ${kind}`.toLowerCase().includes(words.trim().toLowerCase()),
  );
  const by: Record<Order, (a: DisplayLine, b: DisplayLine) => number> = {
    changed: (a, b) => b.changedAt - a.changedAt,
    name: (a, b) => a.name.localeCompare(b.name),
    // Those without a show come last.
    show: (a, b) => (a.showDate ?? '9999').localeCompare(b.showDate ?? '9999'),
    done: (a, b) => a.done - b.done,
  };
  return found.sort(by[order]);
}

/** Every display that a user is on, and the ways to begin another. */
export function DisplaysPage({ user }: { user: User }) {
  const displays = useQuery({ queryKey: keys.displays, queryFn: rememberedDisplays, staleTime: 0 });
  const navigate = useNavigate();
  const [leaving, setLeaving] = useState<{ id: string; name: string } | null>(null);
  const [words, setWords] = useState('');
  const [order, setOrder] = useState<Order>('changed');
  const leave = useMutation({
    mutationFn: signOut,
    onSettled: () => void navigate('/'),
  });
  const letters = useQuery({ queryKey: keys.letters, queryFn: accountApi.letters, staleTime: 0 });
  const unread = letters.data?.filter(({ readAt }) => readAt === null).length ?? 0;
  const remove = useMutation({
    mutationFn: api.removeDisplay,
    onSuccess: () => {
      setLeaving(null);
      return queryClient.invalidateQueries({ queryKey: keys.displays });
    },
  });
  const list = displays.data ?? [];
  const shown = arranged(list, words, order);
  return (
    <main className="max-w-6xl mx-auto p-4 sm:p-8">
      <div className="flex flex-wrap items-center gap-3 pb-3 border-b border-base-content">
        <img src="/mark.svg" alt="" width={24} height={24} />
        <h1 className="text-lg font-bold flex-1">Displays</h1>
        <Link to="/guide" className="act link link-hover">
          Guide
        </Link>
        <Link to="/letters" className="act link link-hover">
          Messages{unread > 0 && <span className="fig text-secondary"> {unread} new</span>}
        </Link>
        <Link to="/account" className="act link link-hover">
          {user.name}
        </Link>
        <button type="button" className="btn btn-xs" onClick={() => leave.mutate()}>
          Sign out
        </button>
      </div>
      <div className="grid grid-cols-1 lg:grid-cols-[minmax(0,1fr)_21rem] gap-x-10 gap-y-6">
        <div>
          {displays.isPending && <Loading what="Fetching the displays" />}
          {displays.isError && (
            <Failure
              title="The displays cannot be listed"
              message={displays.error.message}
              act={
                <button type="button" className="btn btn-xs" onClick={() => void displays.refetch()}>
                  Try again
                </button>
              }
            />
          )}
          {displays.data?.length === 0 && (
            <Empty title="No display yet">
              Give the new one a name and a size: “42 × 55 cm” will do. Or open a display file.
            </Empty>
          )}
          {list.length >= MANY && (
            <div className="flex flex-wrap gap-2 pt-3">
              <input
                type="search"
                className="input input-sm flex-1 min-w-40"
                aria-label="Search the displays"
                placeholder="Search by name or kind"
                value={words}
                onChange={(event) => setWords(event.currentTarget.value)}
              />
              <select
                className="select select-sm w-40"
                aria-label="Order of the displays"
                value={order}
                onChange={(event) =>
                  setOrder(ORDERS.find(({ id }) => id === event.currentTarget.value)?.id ?? order)
                }
              >
                {ORDERS.map(({ id, word }) => (
                  <option key={id} value={id}>
                    {word}
                  </option>
                ))}
              </select>
              <span role="status" className="fig ink-2 text-xs self-center">
                {shown.length} of {list.length}
              </span>
            </div>
          )}
          <ul>
            {shown.map((line) => (
              <DisplayItem key={line.id} line={line} onRemove={() => setLeaving(line)} />
            ))}
          </ul>
          {list.length > 0 && shown.length === 0 && (
            <p className="ink-2 py-3">No display has “{words}” in its name or kind.</p>
          )}
        </div>
        <div className="pt-4">
          <BeginDisplay />
          <p className="pt-4 ink-2">
            New here?{' '}
            <Link to="/guide" className="link text-secondary">
              Three worked examples
            </Link>{' '}
            go from an idea to a show.
          </p>
        </div>
      </div>
      <Dialog
        title={`Delete ${leaving?.name ?? ''}?`}
        open={leaving !== null}
        onClose={() => setLeaving(null)}
      >
        <p className="pb-3">
          The display and its whole history are deleted, for everybody on it. This is the one act that cannot
          be undone: save it as a file first if in doubt.
        </p>
        <Trouble error={remove.error} />
        <button
          type="button"
          className="btn btn-sm btn-error"
          disabled={remove.isPending}
          onClick={() => leaving && remove.mutate(leaving.id)}
        >
          Delete for everybody
        </button>
      </Dialog>
    </main>
  );
}
