import { useQuery } from '@tanstack/react-query';
import { ErrorBoundary } from 'react-error-boundary';
import { Link, Route, Routes, useLocation } from 'react-router';
import type { User } from '@quarry/protocol/accounts';
import { ApiProblem, keys } from './data/api.ts';
import { rememberedMe } from './data/me.ts';
import { LATER_PAGES } from './laterPages.ts';
import { DisplaysPage } from './pages/displays/DisplaysPage.tsx';
import { later } from './ui/later.tsx';
import { Failure, Loading } from './ui/states.tsx';

// What is shown at which address, and to whom.

const OPENING = 'Opening the page';
// Each page comes when it is opened; a display with its document, its board and its pages most of all.
const DisplayPages = later(() => import('./DisplayPages.tsx').then((file) => file.DisplayPages), OPENING);
const AccountPage = later(
  () => import('./pages/account/AccountPage.tsx').then((file) => file.AccountPage),
  OPENING,
);
const LettersPage = later(
  () => import('./pages/account/LettersPage.tsx').then((file) => file.LettersPage),
  OPENING,
);
const GuidePage = later(() => import('./pages/guide/GuidePage.tsx').then((file) => file.GuidePage), OPENING);
// Forms with their checks, which nobody needs who is signed in.
const welcomePage = () => import('./pages/welcome/WelcomePage.tsx');
const WelcomePage = later(() => welcomePage().then((file) => file.WelcomePage), OPENING);
const SetUpPage = later(() => welcomePage().then((file) => file.SetUpPage), OPENING);
const JoinPage = later(() => import('./pages/welcome/JoinPage.tsx').then((file) => file.JoinPage), OPENING);
const ResetPage = later(
  () => import('./pages/welcome/ResetPage.tsx').then((file) => file.ResetPage),
  OPENING,
);

/** Whoever is not signed in gets the welcome page in place of the page asked for. */
function SignedIn({ children }: { children: (user: User) => React.ReactNode }) {
  const me = useQuery({ queryKey: keys.me, queryFn: rememberedMe });
  if (me.isPending) return <Loading what="Opening" />;
  if (me.data) return children(me.data);
  if (me.error instanceof ApiProblem && me.error.status === 401) return <WelcomePage />;
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

/** Every address of the pages. */
const Pages = () => (
  <Routes>
    <Route path="/" element={<SignedIn>{(user) => <DisplaysPage user={user} />}</SignedIn>} />
    <Route path="/guide" element={<SignedIn>{() => <GuidePage />}</SignedIn>} />
    <Route path="/account" element={<SignedIn>{(user) => <AccountPage user={user} />}</SignedIn>} />
    <Route path="/letters" element={<SignedIn>{() => <LettersPage />}</SignedIn>} />
    {[
      { path: '/setup', Page: SetUpPage },
      { path: '/join/:token', Page: JoinPage },
      { path: '/reset', Page: ResetPage },
    ].map(({ path, Page }) => (
      <Route key={path} path={path} element={<Page />} />
    ))}
    {/* The server makes it; this is what a browser that keeps these pages shows without the server. */}
    <Route
      path="/s/:token"
      element={
        <Failure
          title="The page for the public is not reached"
          message="It comes from the server, which does not answer."
          act={
            <button type="button" className="btn btn-xs" onClick={() => location.reload()}>
              Try again
            </button>
          }
        />
      }
    />
    <Route path="/d/:id/*" element={<SignedIn>{(user) => <DisplayPages user={user} />}</SignedIn>} />
    <Route path="*" element={<Failure title="There is no such page" message="" act={<AllDisplays />} />} />
  </Routes>
);

const AllDisplays = () => (
  <Link className="link" to="/">
    All displays
  </Link>
);

/** What is shown in place of a page that broke. It is loaded anew: what broke may have left something behind. */
const Broken = () => (
  <Failure
    title="This page broke"
    message="Reload it; your changes are kept."
    act={
      <a className="link" href="/">
        All displays
      </a>
    }
  />
);

/** The page of the address; where it broke, another address is tried again. */
export function Addresses() {
  const { pathname } = useLocation();
  return (
    <ErrorBoundary fallback={<Broken />} resetKeys={[pathname]}>
      <Pages />
    </ErrorBoundary>
  );
}

/**
 * Begins to load what an address needs, before who is signed in and what the display holds is known.
 * @param pathname of the address: `/d/<display>/<page>`
 */
export function loadAhead(pathname: string): void {
  const [, root, , page] = pathname.split('/');
  if (root !== 'd') return;
  const shown = Object.entries(LATER_PAGES).flatMap(([path, Page]) => (path === page ? [Page] : []));
  // What does not come is asked for again where it is shown, which says so.
  for (const { load } of [DisplayPages, ...shown]) load().catch(() => undefined);
}
