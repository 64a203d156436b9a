import { zodResolver } from '@hookform/resolvers/zod';
import { useMutation, useQuery } from '@tanstack/react-query';
import { useForm } from 'react-hook-form';
import { Link, Navigate, useNavigate } from 'react-router';
import { z } from 'zod';
import { api, keys } from '../../data/api.ts';
import { signedIn } from '../../data/me.ts';
import { NEW_ACCOUNT, TextInput } from '../../ui/forms.tsx';
import { Failure, Loading } from '../../ui/parts.tsx';

const signInSchema = z.object({
  login: z.string().trim().min(1, 'Type your sign-in name.'),
  password: z.string().min(1, 'Type your password.'),
});
const setUpSchema = z.object({
  code: z.string().trim().min(1, 'Type the code that the server printed.'),
  ...NEW_ACCOUNT,
});

/** Whether the first account is still to be made: never cached, since the answer changes once. */
const useWelcome = () => useQuery({ queryKey: keys.welcome, queryFn: api.welcome, staleTime: 0, gcTime: 0 });

/** The first page without a session: the demo's crew, a sign-in, or the first account of an instance. */
export function WelcomePage() {
  const welcome = useWelcome();
  if (welcome.isPending) return <Loading what="Opening" />;
  if (welcome.isError)
    return (
      <Failure
        title="Open Quarry does not answer"
        message={welcome.error.message}
        act={
          <button type="button" className="btn btn-xs" onClick={() => void welcome.refetch()}>
            Try again
          </button>
        }
      />
    );
  return (
    <main className="min-h-dvh grid place-items-center p-4">
      <div className="w-full max-w-md">
        <div className="flex items-center gap-3 pb-1">
          <img src="/mark.svg" alt="" width={32} height={32} />
          <h1 className="text-2xl font-bold">Open Quarry</h1>
        </div>
        <p className="ink-2 pb-5">
          Plans brick displays: the scene on the stud grid, the modules it comes apart in, and who builds
          what.
        </p>
        {welcome.data.setupNeeded ? <SetUp /> : welcome.data.demo ? <DemoCrew /> : <SignIn />}
      </div>
    </main>
  );
}

/** The address printed at the first start. */
export function SetUpPage() {
  const welcome = useWelcome();
  if (welcome.data && !welcome.data.setupNeeded) return <Navigate to="/" replace />;
  return <WelcomePage />;
}

function DemoCrew() {
  const crew = useQuery({ queryKey: keys.crew, queryFn: api.demoCrew });
  const signIn = useMutation({ mutationFn: api.demoSignIn, onSuccess: signedIn });
  return (
    <section aria-labelledby="crew">
      <h2 id="crew" className="font-semibold">
        Sign in to the demo as …
      </h2>
      <p className="ink-2 pb-2">People, places and the show are invented.</p>
      {crew.isPending && <Loading what="Calling the crew" />}
      {(crew.error ?? signIn.error) && (
        <Failure title="That did not work" message={(crew.error ?? signIn.error)?.message ?? ''} />
      )}
      <ul className="border-t border-base-content">
        {crew.data?.map(({ login, name, role, line }) => (
          <li key={login} className="border-b hair">
            <button
              type="button"
              className="w-full flex items-baseline gap-3 py-2 px-1 hover:bg-base-100 cursor-pointer text-left"
              disabled={signIn.isPending}
              onClick={() => signIn.mutate(login)}
            >
              <span className="font-semibold w-32">{name}</span>
              <span className="flex-1 ink-2">{line}</span>
              <span className="fig text-xs">{role}</span>
            </button>
          </li>
        ))}
      </ul>
    </section>
  );
}

function SignIn() {
  const { register, handleSubmit, formState } = useForm({
    resolver: zodResolver(signInSchema),
    defaultValues: { login: '', password: '' },
  });
  const signIn = useMutation({
    mutationFn: ({ login, password }: z.infer<typeof signInSchema>) => api.signIn(login, password),
    onSuccess: signedIn,
  });
  return (
    <form
      aria-label="Sign in"
      className="flex flex-col gap-3"
      onSubmit={(event) => void handleSubmit((values) => signIn.mutate(values))(event)}
    >
      <TextInput
        label="Sign-in name"
        autoComplete="username"
        {...register('login')}
        error={formState.errors.login}
      />
      <TextInput
        label="Password"
        type="password"
        autoComplete="current-password"
        {...register('password')}
        error={formState.errors.password}
      />
      {signIn.error && (
        <p role="alert" className="text-error">
          {signIn.error.message}
        </p>
      )}
      <button type="submit" className="btn btn-sm btn-primary" disabled={signIn.isPending}>
        Sign in
      </button>
      <Link to="/reset" className="link link-hover ink-2 text-xs">
        I have forgotten my password
      </Link>
    </form>
  );
}

function SetUp() {
  const navigate = useNavigate();
  const { register, handleSubmit, formState } = useForm({
    resolver: zodResolver(setUpSchema),
    defaultValues: { code: '', name: '', login: '', password: '' },
  });
  const setUp = useMutation({
    mutationFn: api.setUp,
    onSuccess: (user) => {
      signedIn(user);
      void navigate('/');
    },
  });
  return (
    <form
      aria-label="First account"
      className="flex flex-col gap-3"
      onSubmit={(event) => void handleSubmit((values) => setUp.mutate(values))(event)}
    >
      <h2 className="font-semibold">Make the first account</h2>
      <TextInput
        label="One-time code from the terminal"
        autoComplete="off"
        {...register('code')}
        error={formState.errors.code}
      />
      <TextInput label="Your name" autoComplete="name" {...register('name')} error={formState.errors.name} />
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
      {setUp.error && (
        <p role="alert" className="text-error">
          {setUp.error.message}
        </p>
      )}
      <button type="submit" className="btn btn-sm btn-primary" disabled={setUp.isPending}>
        Begin
      </button>
    </form>
  );
}
