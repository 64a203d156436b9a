import { QueryClientProvider, useQuery } from '@tanstack/react-query';
import { Suspense, lazy, type ComponentType } from 'react';
import { Link, Navigate, RouterProvider, createBrowserRouter, useParams } from 'react-router';
import { ApiProblem, keys, queryClient } from './data/api.ts';
import type { User } from '@quarry/protocol/accounts';
import { rememberedMe } from './data/me.ts';
import type { PageId } from './frame/pages.ts';
import { Failure, Loading } from './ui/states.tsx';

// Each page comes when it is opened; the board and the solver are heavy.
const PAGES: Readonly<Record<PageId, () => Promise<{ default: ComponentType }>>> = {
  brief: () => import('./pages/brief/BriefPage.tsx').then((page) => ({ default: page.BriefPage })),
  survey: () => import('./pages/survey/SurveyPage.tsx').then((page) => ({ default: page.SurveyPage })),
  plan: () => import('./pages/plan/PlanPage.tsx').then((page) => ({ default: page.PlanPage })),
  cut: () => import('./pages/cut/CutPage.tsx').then((page) => ({ default: page.CutPage })),
  sight: () => import('./pages/sight/SightPage.tsx').then((page) => ({ default: page.SightPage })),
  stockpile: () =>
    import('./pages/stockpile/StockpilePage.tsx').then((page) => ({ default: page.StockpilePage })),
  progress: () =>
    import('./pages/progress/ProgressPage.tsx').then((page) => ({ default: page.ProgressPage })),
  transport: () =>
    import('./pages/transport/TransportPage.tsx').then((page) => ({ default: page.TransportPage })),
  bench: () => import('./pages/bench/BenchPage.tsx').then((page) => ({ default: page.BenchPage })),
  crew: () => import('./pages/crew/CrewPage.tsx').then((page) => ({ default: page.CrewPage })),
};
const openDisplay = () => import('./frame/OpenDisplay.tsx').then((file) => ({ default: file.OpenDisplay }));
const OpenDisplay = lazy(openDisplay);
const openList = () =>
  import('./pages/displays/DisplaysPage.tsx').then((page) => ({ default: page.DisplaysPage }));
const DisplaysPage = lazy(openList);
const Words = lazy(() => import('./frame/Words.tsx').then((file) => ({ default: file.Words })));
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
        <Later>
          <OpenDisplay id={id} user={user.id} />
        </Later>
      )}
    </SignedIn>
  );
}

/** Asks for what an address shows, with the question who is signed in: not after its answer. */
function fetchAhead(path: string): void {
  const [, page] = /^\/d\/[^/]+\/?([^/]*)/.exec(path) ?? [];
  const parts = path === '/' ? [openList] : page === undefined ? [] : [openDisplay, ...pagesAt(page)];
  // What fails here is asked for again where it is shown, and says why there.
  for (const part of parts) part().catch(() => undefined);
}
const pagesAt = (page: string) =>
  Object.entries(PAGES).flatMap(([id, load]) => (id === (page || 'plan') ? [load] : []));

const router = createBrowserRouter([
  {
    path: '/',
    element: (
      <SignedIn>
        {(user) => (
          <Later>
            <DisplaysPage user={user} />
          </Later>
        )}
      </SignedIn>
    ),
  },
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
      ...Object.entries(PAGES).map(([path, load]) => {
        const Page = lazy(load);
        return {
          path,
          element: (
            <Later>
              <Page />
            </Later>
          ),
        };
      }),
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

fetchAhead(location.pathname);

/** Everything that its builders see. */
export const app = (
  <QueryClientProvider client={queryClient}>
    <RouterProvider router={router} />
    <Suspense>
      <Words />
    </Suspense>
  </QueryClientProvider>
);
