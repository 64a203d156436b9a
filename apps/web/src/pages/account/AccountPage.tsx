import { useMutation, useQuery } from '@tanstack/react-query';
import { formatDistanceToNow } from 'date-fns';
import { useState } from 'react';
import { useNavigate } from 'react-router';
import { toast } from 'sonner';
import { MIN_PASSWORD, type User } from '@quarry/protocol/accounts';
import { keys, queryClient } from '../../data/api.ts';
import { accountApi, exportUrl } from '../../data/accountApi.ts';
import { signOut, signedOut } from '../../data/signOut.ts';
import { TextInput, Trouble } from '../../ui/forms.tsx';
import { Dialog, Heading, Loading } from '../../ui/parts.tsx';
import { SmallPage } from '../../ui/SmallPage.tsx';

/** One's own account: password, where one is signed in, everything to take along, and the way out. */
export function AccountPage({ user }: { user: User }) {
  return (
    <SmallPage
      title={user.name}
      aside={
        <span className="ink-2">
          signs in as <span className="fig">{user.login}</span>
        </span>
      }
    >
      <Password />
      <Sessions />
      <section aria-labelledby="take">
        <Heading id="take">Everything you may see here</Heading>
        <p className="ink-2 pb-1">
          Your account, your messages, and every display you are on with its whole log and its photos, in one
          ZIP archive.
        </p>
        <a className="btn btn-xs" href={exportUrl} download>
          Save it all
        </a>
      </section>
      <Leave user={user} />
    </SmallPage>
  );
}

function Password() {
  const [old, setOld] = useState('');
  const [password, setPassword] = useState('');
  const set = useMutation({
    mutationFn: () => accountApi.setPassword(old, password),
    onSuccess: () => {
      setOld('');
      setPassword('');
      toast('The password is changed; every other session has ended.');
      return queryClient.invalidateQueries({ queryKey: keys.sessions });
    },
  });
  return (
    <section aria-labelledby="password">
      <Heading id="password">Password</Heading>
      <form
        className="grid sm:grid-cols-2 gap-3 items-end"
        aria-label="Change the password"
        onSubmit={(event) => {
          event.preventDefault();
          set.mutate();
        }}
      >
        <TextInput
          label="The one you have"
          type="password"
          autoComplete="current-password"
          required
          value={old}
          onChange={(event) => setOld(event.currentTarget.value)}
        />
        <TextInput
          label={`The new one, at least ${MIN_PASSWORD} characters`}
          type="password"
          autoComplete="new-password"
          required
          minLength={MIN_PASSWORD}
          value={password}
          onChange={(event) => setPassword(event.currentTarget.value)}
        />
        <button type="submit" className="btn btn-xs justify-self-start" disabled={set.isPending}>
          Change it
        </button>
      </form>
      <Trouble error={set.error} />
    </section>
  );
}

/** The browser and system of an agent string, as far as it is recognised. */
function agentWords(agent: string): string {
  const browser = /(Firefox|Edg|Chrome|Safari)/.exec(agent)?.[1];
  const system = /(Android|iPhone|iPad|Windows|Mac OS|Linux)/.exec(agent)?.[1];
  return (
    [browser, system].filter(Boolean).join(' on ') || agent.slice(0, 40) || 'a browser that says nothing'
  );
}

function Sessions() {
  const navigate = useNavigate();
  const sessions = useQuery({ queryKey: keys.sessions, queryFn: accountApi.sessions, staleTime: 0 });
  const end = useMutation({
    mutationFn: ({ id, here }: { id: string; here: boolean }) =>
      here ? signOut() : accountApi.endSession(id),
    onSuccess: (_, { here }) => {
      if (here) void navigate('/');
      else return queryClient.invalidateQueries({ queryKey: keys.sessions });
    },
  });
  return (
    <section aria-labelledby="sessions">
      <Heading id="sessions" aside={sessions.data ? `${sessions.data.length}` : undefined}>
        Where you are signed in
      </Heading>
      {sessions.isPending && <Loading what="Looking" />}
      <ul>
        {sessions.data?.map(({ id, agent, seenAt, here }) => (
          <li key={id} className="flex items-baseline gap-3 border-b hair py-1">
            <span className="flex-1">
              {agentWords(agent)}
              {here && <span className="text-secondary font-semibold"> this one</span>}
            </span>
            <span className="ink-2">seen {formatDistanceToNow(seenAt)} ago</span>
            <button
              type="button"
              className="btn btn-xs btn-ghost"
              disabled={end.isPending}
              onClick={() => end.mutate({ id, here })}
            >
              End<span className="sr-only"> the session of {agentWords(agent)}</span>
            </button>
          </li>
        ))}
      </ul>
      <Trouble error={sessions.error ?? end.error} />
    </section>
  );
}

function Leave({ user }: { user: User }) {
  const navigate = useNavigate();
  const [asking, setAsking] = useState(false);
  const [password, setPassword] = useState('');
  const remove = useMutation({
    mutationFn: () => accountApi.removeAccount(password),
    onSuccess: async () => {
      await signedOut();
      void navigate('/');
    },
  });
  return (
    <section aria-labelledby="leave">
      <Heading id="leave">Leave for good</Heading>
      <p className="ink-2 pb-1">
        Your account, your messages and your sessions go. What you built and said stays on the displays, under
        your name, so that nobody’s plan loses its history.
      </p>
      <button type="button" className="btn btn-xs" onClick={() => setAsking(true)}>
        Delete my account …
      </button>
      <Dialog title={`Delete the account of ${user.name}?`} open={asking} onClose={() => setAsking(false)}>
        <form
          className="flex flex-col gap-2"
          aria-label="Delete my account"
          onSubmit={(event) => {
            event.preventDefault();
            remove.mutate();
          }}
        >
          <p>This cannot be undone. Save everything first if you want to keep it.</p>
          <TextInput
            label="Your password"
            type="password"
            autoComplete="current-password"
            required
            value={password}
            onChange={(event) => setPassword(event.currentTarget.value)}
          />
          <Trouble error={remove.error} />
          <button type="submit" className="btn btn-sm btn-error self-start" disabled={remove.isPending}>
            Delete it
          </button>
        </form>
      </Dialog>
    </section>
  );
}
