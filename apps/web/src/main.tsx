import { QueryClientProvider, useQuery } from '@tanstack/react-query';
import { StrictMode, Suspense, lazy } from 'react';
import { createRoot } from 'react-dom/client';
import { Link, Navigate, RouterProvider, createBrowserRouter, useParams } from 'react-router';
import { Toaster } from 'sonner';
import { ApiProblem, keys, queryClient } from './data/api.ts';
import type { User } from '@quarry/protocol/accounts';
import { rememberedMe } from './data/me.ts';
import { DisplayProvider } from './data/useDisplay.tsx';
import { useView } from './data/view.ts';
import { Frame } from './frame/Frame.tsx';
import { DisplaysPage } from './pages/displays/DisplaysPage.tsx';
import { Failure, Loading } from './ui/parts.tsx';
import { DerivedDataProvider } from './workers/derived.tsx';
import './styles.css';

// Each page comes when it is opened; the board and the solver are heavy.
const PAGES = {
  brief: lazy(() => import('./pages/brief/BriefPage.tsx').then((page) => ({ default: page.BriefPage }))),
  survey: lazy(() => import('./pages/survey/SurveyPage.tsx').then((page) => ({ default: page.SurveyPage }))),
  plan: lazy(() => import('./pages/plan/PlanPage.tsx').then((page) => ({ default: page.PlanPage }))),
  cut: lazy(() => import('./pages/cut/CutPage.tsx').then((page) => ({ default: page.CutPage }))),
  sight: lazy(() => import('./pages/sight/SightPage.tsx').then((page) => ({ default: page.SightPage }))),
  stockpile: lazy(() =>
    import('./pages/stockpile/StockpilePage.tsx').then((page) => ({ default: page.StockpilePage })),
  ),
  progress: lazy(() =>
    import('./pages/progress/ProgressPage.tsx').then((page) => ({ default: page.ProgressPage })),
  ),
  transport: lazy(() =>
    import('./pages/transport/TransportPage.tsx').then((page) => ({ default: page.TransportPage })),
  ),
  bench: lazy(() => import('./pages/bench/BenchPage.tsx').then((page) => ({ default: page.BenchPage }))),
  crew: lazy(() => import('./pages/crew/CrewPage.tsx').then((page) => ({ default: page.CrewPage }))),
};
const AccountPage = lazy(() =>
  import('./pages/account/AccountPage.tsx').then((page) => ({ default: page.AccountPage })),
);
const LettersPage = lazy(() =>
  import('./pages/account/LettersPage.tsx').then((page) => ({ default: page.LettersPage })),
);
const GuidePage = lazy(() =>
  import('./pages/guide/GuidePage.tsx').then((page) => ({ default: page.GuidePage })),
);
// Forms with their checks, which nobody needs who is signed in.
const welcomePage = () => import('./pages/welcome/WelcomePage.tsx');
const WelcomePage = lazy(() => welcomePage().then((page) => ({ default: page.WelcomePage })));
const SetUpPage = lazy(() => welcomePage().then((page) => ({ default: page.SetUpPage })));
const JoinPage = lazy(() =>
  import('./pages/welcome/JoinPage.tsx').then((page) => ({ default: page.JoinPage })),
);
const ResetPage = lazy(() =>
  import('./pages/welcome/ResetPage.tsx').then((page) => ({ default: page.ResetPage })),
);

/** Whoever is not signed in gets the welcome page in place of the page asked for. */
function SignedIn({ children }: { children: (user: User) => React.ReactNode }) {
  const me = useQuery({ queryKey: keys.me, queryFn: rememberedMe });
  if (me.isPending) return <Loading what="Opening" />;
  if (me.data) return children(me.data);
  if (me.error instanceof ApiProblem && me.error.status === 401)
    return (
      <Later>
        <WelcomePage />
      </Later>
    );
  return (
    <Failure
      title="Open Quarry does not answer"
      message={me.error?.message ?? ''}
      act={
        <button type="button" className="btn btn-xs" onClick={() => void me.refetch()}>
          Try again
        </button>
      }
    />
  );
}

/** A page that comes when it is opened. */
const Later = ({ children }: { children: React.ReactNode }) => (
  <Suspense fallback={<Loading what="Opening the page" />}>{children}</Suspense>
);

function DisplayPages() {
  const { id = '' } = useParams();
  return (
    <SignedIn>
      {(user) => (
        <DisplayProvider
          id={id}
          user={user.id}
          loading={<Loading what="Opening the display" />}
          failed={(error) => (
            <Failure
              title="This display does not open"
              message={error.message}
              act={
                <Link className="link" to="/">
                  All displays
                </Link>
              }
            />
          )}
        >
          <DerivedDataProvider>
            <Frame />
          </DerivedDataProvider>
        </DisplayProvider>
      )}
    </SignedIn>
  );
}

const router = createBrowserRouter([
  { path: '/', element: <SignedIn>{(user) => <DisplaysPage user={user} />}</SignedIn> },
  {
    path: '/guide',
    element: (
      <SignedIn>
        {() => (
          <Later>
            <GuidePage />
          </Later>
        )}
      </SignedIn>
    ),
  },
  {
    path: '/account',
    element: (
      <SignedIn>
        {(user) => (
          <Later>
            <AccountPage user={user} />
          </Later>
        )}
      </SignedIn>
    ),
  },
  {
    path: '/letters',
    element: (
      <SignedIn>
        {() => (
          <Later>
            <LettersPage />
          </Later>
        )}
      </SignedIn>
    ),
  },
  ...[
    { path: '/setup', Page: SetUpPage },
    { path: '/join/:token', Page: JoinPage },
    { path: '/reset', Page: ResetPage },
  ].map(({ path, Page }) => ({
    path,
    element: (
      <Later>
        <Page />
      </Later>
    ),
  })),
  {
    // The server makes it; this is what a browser that keeps these pages shows without the server.
    path: '/s/:token',
    element: (
      <Failure
        title="The page for the public is not reached"
        message="It comes from the server, which does not answer."
        act={
          <button type="button" className="btn btn-xs" onClick={() => location.reload()}>
            Try again
          </button>
        }
      />
    ),
  },
  {
    path: '/d/:id',
    element: <DisplayPages />,
    errorElement: (
      <Failure
        title="This page broke"
        message="Reload it; your changes are kept."
        act={
          <a className="link" href="/">
            All displays
          </a>
        }
      />
    ),
    children: [
      { index: true, element: <Navigate to="plan" replace /> },
      ...Object.entries(PAGES).map(([path, Page]) => ({
        path,
        element: (
          <Later>
            <Page />
          </Later>
        ),
      })),
      { path: '*', element: <Failure title="There is no such page" message="Pick one from the rail." /> },
    ],
  },
  {
    path: '*',
    element: (
      <Failure
        title="There is no such page"
        message=""
        act={
          <Link className="link" to="/">
            All displays
          </Link>
        }
      />
    ),
  },
]);

/** A word at the foot of the page, in the sheet's own paper and ink. */
const TOAST = {
  borderRadius: 3,
  boxShadow: 'none',
  fontFamily: 'inherit',
  background: 'var(--color-base-100)',
  color: 'var(--color-base-content)',
  border: '1px solid var(--color-base-content)',
};

function Words() {
  const theme = useView((view) => view.theme);
  return (
    <Toaster
      position="bottom-center"
      theme={theme === 'night' ? 'dark' : 'light'}
      toastOptions={{ style: TOAST }}
    />
  );
}

const root = document.getElementById('root');
if (root)
  createRoot(root).render(
    <StrictMode>
      <QueryClientProvider client={queryClient}>
        <RouterProvider router={router} />
        <Words />
      </QueryClientProvider>
    </StrictMode>,
  );

/** Long enough for the page to be there first, ms. */
const KEEP_AFTER = 4000;
// Kept for when there is no server; a browser that may not keep anything goes on without.
if (import.meta.env.PROD && 'serviceWorker' in navigator)
  setTimeout(() => void navigator.serviceWorker.register('/sw.js').catch(() => undefined), KEEP_AFTER);
