import { Link, Navigate, Route, Routes, useParams } from 'react-router';
import type { User } from '@quarry/protocol/accounts';
import { LATER_PAGES } from './laterPages.ts';
import { DisplayProvider } from './data/useDisplay.tsx';
import { Frame } from './frame/Frame.tsx';
import { Failure, Loading } from './ui/states.tsx';
import { DerivedDataProvider } from './workers/derived.tsx';

// The pages of one display, by their addresses. Each comes when it is opened; the board and the solver are heavy.

/** Loads a page that is about to be opened. What does not come is asked for again when it is. */
const loadNear = (page: keyof typeof LATER_PAGES): void =>
  void LATER_PAGES[page].load().catch(() => undefined);

/** A display with the frame around its pages. */
export function DisplayPages({ user }: { user: User }) {
  const { id = '' } = useParams();
  return (
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
        <Routes>
          <Route element={<Frame onNear={loadNear} />}>
            <Route index element={<Navigate to="plan" replace />} />
            {Object.entries(LATER_PAGES).map(([path, Page]) => (
              <Route key={path} path={path} element={<Page />} />
            ))}
            <Route
              path="*"
              element={<Failure title="There is no such page" message="Pick one from the rail." />}
            />
          </Route>
        </Routes>
      </DerivedDataProvider>
    </DisplayProvider>
  );
}
