import { zodResolver } from '@hookform/resolvers/zod';
import { useMutation, useQuery } from '@tanstack/react-query';
import { useForm } from 'react-hook-form';
import { Link, useNavigate, useParams } from 'react-router';
import { z } from 'zod';
import { api, keys, queryClient } from '../../data/api.ts';
import { crewApi } from '../../data/crewApi.ts';
import { NEW_ACCOUNT, TextInput, Trouble } from '../../ui/forms.tsx';
import { Loading } from '../../ui/parts.tsx';
import { SmallPage } from '../../ui/SmallPage.tsx';
import { dayWord } from '../../ui/words.ts';

const schema = z.object(NEW_ACCOUNT);

/** Where a link of invitation leads: what one is asked onto, and joining it. */
export function JoinPage() {
  const { token = '' } = useParams();
  const invited = useQuery({
    queryKey: ['invited', token],
    queryFn: () => crewApi.invited(token),
    retry: false,
  });
  const me = useQuery({ queryKey: keys.me, queryFn: api.me, retry: false });
  const navigate = useNavigate();
  const { register, handleSubmit, formState } = useForm({
    resolver: zodResolver(schema),
    defaultValues: { name: '', login: '', password: '' },
  });
  const join = useMutation({
    mutationFn: (account: z.infer<typeof schema> | null) => crewApi.join(token, account),
    onSuccess: ({ display }) => {
      void queryClient.resetQueries({ queryKey: keys.me });
      queryClient.removeQueries({ queryKey: keys.displays });
      void navigate(`/d/${display}/plan`);
    },
  });
  if (invited.isPending || me.isPending) return <Loading what="Opening the invitation" />;
  if (invited.isError)
    return (
      <SmallPage title="This invitation opens nothing">
        <p role="alert">{invited.error.message}</p>
      </SmallPage>
    );
  const { display, role, by, note, expiresAt } = invited.data;
  return (
    <main className="min-h-dvh grid place-items-center p-4">
      <div className="w-full max-w-md">
        <h1 className="text-2xl font-bold">{display}</h1>
        <p className="pb-1">
          {by} asks you to join as <strong>{role}</strong>.
        </p>
        {note && <p className="border-l-2 hair pl-2 my-1">{note}</p>}
        <p className="ink-2 pb-3">
          This link is good once, until {dayWord(new Date(expiresAt).toISOString())}.
        </p>
        {me.data ? (
          <>
            <button
              type="button"
              className="btn btn-sm btn-primary"
              disabled={join.isPending}
              onClick={() => join.mutate(null)}
            >
              Join as {me.data.name}
            </button>
            <Trouble error={join.error} />
          </>
        ) : (
          <form
            aria-label="Join"
            className="flex flex-col gap-3"
            onSubmit={(event) => void handleSubmit((values) => join.mutate(values))(event)}
          >
            <p>
              Make an account, or{' '}
              <Link className="link" to="/">
                sign in
              </Link>{' '}
              first if you have one and open the link again.
            </p>
            <TextInput
              label="Your name"
              autoComplete="name"
              {...register('name')}
              error={formState.errors.name}
            />
            <TextInput
              label="Sign-in name"
              autoComplete="username"
              {...register('login')}
              error={formState.errors.login}
            />
            <TextInput
              label="Password"
              type="password"
              autoComplete="new-password"
              {...register('password')}
              error={formState.errors.password}
            />
            <Trouble error={join.error} />
            <button type="submit" className="btn btn-sm btn-primary" disabled={join.isPending}>
              Join
            </button>
          </form>
        )}
      </div>
    </main>
  );
}
