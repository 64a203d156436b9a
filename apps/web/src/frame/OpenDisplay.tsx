import { Link } from 'react-router';
import { DisplayProvider } from '../data/useDisplay.tsx';
import { Failure, Loading } from '../ui/parts.tsx';
import { DerivedDataProvider } from '../workers/derived.tsx';
import { Frame } from './Frame.tsx';

/** A display with what is worked out of it, and the frame round its pages. */
export const OpenDisplay = ({ id, user }: { id: string; user: string }) => (
  <DisplayProvider
    id={id}
    user={user}
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
);
