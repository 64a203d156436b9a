import { zodResolver } from '@hookform/resolvers/zod';
import { useMutation, useQuery } from '@tanstack/react-query';
import { useForm } from 'react-hook-form';
import { Navigate, useNavigate } from 'react-router';
import { z } from 'zod';
import { api, keys, queryClient, type User } from '../../data/api.ts';
import { Failure, Loading } from '../../ui/parts.tsx';

const signInSchema = z.object({
  login: z.string().trim().min(1, 'Type your sign-in name.'),
  password: z.string().min(1, 'Type your password.'),
});
const setUpSchema = z.object({
  code: z.string().trim().min(1, 'Type the code that the server printed.'),
  name: z.string().trim().min(1, 'Type your name.').max(80, 'A name has at most 80 characters.'),
  login: z
    .string()
    .trim()
    .toLowerCase()
    .regex(
      /^[a-z0-9._-]{2,40}$/,
      'A sign-in name has 2 to 40 letters, digits, dots, hyphens or underscores.',
    ),
  password: z.string().min(10, 'A password has at least 10 characters.'),
});

/** Whether the first account is still to be made: asked anew each time, since the answer changes once. */
const useWelcome = () => useQuery({ queryKey: keys.welcome, queryFn: api.welcome, staleTime: 0, gcTime: 0 });

function signedIn(user: User): void {
  queryClient.removeQueries({ queryKey: keys.displays });
  queryClient.setQueryData(keys.me, user);
}

/** The first page for whoever is not signed in: the demo's crew, a sign-in, or the first account of an instance. */
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
      <Field label="Sign-in name" error={formState.errors.login?.message}>
        <input {...register('login')} className="input input-sm w-full" autoComplete="username" autoFocus />
      </Field>
      <Field label="Password" error={formState.errors.password?.message}>
        <input
          {...register('password')}
          type="password"
          className="input input-sm w-full"
          autoComplete="current-password"
        />
      </Field>
      {signIn.error && (
        <p role="alert" className="text-error">
          {signIn.error.message}
        </p>
      )}
      <button type="submit" className="btn btn-sm btn-primary" disabled={signIn.isPending}>
        Sign in
      </button>
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
  const fields = [
    ['code', 'One-time code from the terminal', 'text', 'off'],
    ['name', 'Your name', 'text', 'name'],
    ['login', 'Sign-in name', 'text', 'username'],
    ['password', 'Password', 'password', 'new-password'],
  ] as const;
  return (
    <form
      aria-label="First account"
      className="flex flex-col gap-3"
      onSubmit={(event) => void handleSubmit((values) => setUp.mutate(values))(event)}
    >
      <h2 className="font-semibold">Make the first account</h2>
      {fields.map(([name, label, type, autoComplete]) => (
        <Field key={name} label={label} error={formState.errors[name]?.message}>
          <input
            {...register(name)}
            type={type}
            className="input input-sm w-full"
            autoComplete={autoComplete}
          />
        </Field>
      ))}
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

function Field({ label, error, children }: { label: string; error?: string; children: React.ReactNode }) {
  return (
    <label className="block">
      <span className="block pb-0.5">{label}</span>
      {children}
      {error && (
        <span role="alert" className="block text-error text-xs pt-0.5">
          {error}
        </span>
      )}
    </label>
  );
}
