import { useEffect, useState, type FunctionComponent } from 'react';
import { Failure, Loading } from './states.tsx';

/**
 * A component from a file of its own that is loaded when it is first shown. In place of React's `lazy`, which keeps what it
 * shows meanwhile for at least 300 ms, however soon the file is there.
 * @param load imports the file; asked once, and again after it failed
 * @param what is done until it is there, in words; nothing is shown without them
 * Where the file does not come, the rest of the page stays, and it can be asked for again.
 */
export function later<P extends object>(
  load: () => Promise<FunctionComponent<P>>,
  what?: string,
): FunctionComponent<P> & { load: () => Promise<unknown> } {
  let loaded: FunctionComponent<P> | null = null;
  let asked: Promise<FunctionComponent<P>> | null = null;
  const ask = (): Promise<FunctionComponent<P>> => {
    asked ??= load().then(
      (component) => (loaded = component),
      (error: unknown) => {
        asked = null;
        throw error;
      },
    );
    return asked;
  };
  function Later(props: P) {
    const [Loaded, setLoaded] = useState(() => loaded);
    const [hasFailed, setFailed] = useState(false);
    useEffect(() => {
      if (Loaded || hasFailed) return;
      let shown = true;
      ask().then(
        (component) => shown && setLoaded(() => component),
        () => shown && setFailed(true),
      );
      return () => {
        shown = false;
      };
    }, [Loaded, hasFailed]);
    if (Loaded) return <Loaded {...props} />;
    if (hasFailed)
      return (
        <Failure
          title="This part of the page did not load"
          message="The server does not answer, or has a newer version: try again, or reload the page."
          act={
            <button type="button" className="btn btn-xs" onClick={() => setFailed(false)}>
              Try again
            </button>
          }
        />
      );
    return what === undefined ? null : (
      // What is there soon is not announced: nothing flickers.
      <div className="appears-late">
        <Loading what={what} />
      </div>
    );
  }
  return Object.assign(Later, { load: ask });
}
