import { useMutation } from '@tanstack/react-query';
import { useState } from 'react';
import { Link, useNavigate } from 'react-router';
import { accountApi } from '../../data/accountApi.ts';
import { signedIn } from '../../data/me.ts';
import { MIN_PASSWORD } from '@quarry/protocol/accounts';
import { TextInput, Trouble } from '../../ui/forms.tsx';

/** A forgotten password: asking an owner for a code, and setting a new one with it. */
export function ResetPage() {
  const navigate = useNavigate();
  const [login, setLogin] = useState('');
  const [code, setCode] = useState('');
  const [password, setPassword] = useState('');
  const ask = useMutation({ mutationFn: () => accountApi.askReset(login.trim()) });
  const reset = useMutation({
    mutationFn: () => accountApi.reset(login.trim(), code, password),
    onSuccess: (user) => {
      signedIn(user);
      void navigate('/');
    },
  });
  return (
    <main className="min-h-dvh grid place-items-center p-4">
      <div className="w-full max-w-md flex flex-col gap-3">
        <h1 className="text-2xl font-bold">A new password</h1>
        <TextInput
          label="Sign-in name"
          autoComplete="username"
          value={login}
          onChange={(event) => setLogin(event.currentTarget.value)}
        />
        <p>
          <button
            type="button"
            className="btn btn-xs"
            disabled={login.trim().length < 2 || ask.isPending}
            onClick={() => ask.mutate()}
          >
            Ask an owner for a code
          </button>
        </p>
        {ask.data && (
          <p role="status" className="border-l-2 border-secondary pl-2">
            {ask.data.message}
          </p>
        )}
        <Trouble error={ask.error} />
        <form
          aria-label="New password"
          className="flex flex-col gap-3 border-t hair pt-3"
          onSubmit={(event) => {
            event.preventDefault();
            reset.mutate();
          }}
        >
          <TextInput
            label="The code you were given"
            autoComplete="off"
            required
            value={code}
            onChange={(event) => setCode(event.currentTarget.value)}
          />
          <TextInput
            label={`The new password, at least ${MIN_PASSWORD} characters`}
            type="password"
            autoComplete="new-password"
            required
            minLength={MIN_PASSWORD}
            value={password}
            onChange={(event) => setPassword(event.currentTarget.value)}
          />
          <Trouble error={reset.error} />
          <div className="flex items-baseline gap-3">
            <button type="submit" className="btn btn-sm btn-primary" disabled={reset.isPending}>
              Set it and sign in
            </button>
            <Link className="link link-hover ink-2 text-xs" to="/">
              Back
            </Link>
          </div>
        </form>
      </div>
    </main>
  );
}
