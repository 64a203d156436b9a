import { useEffect, useState, type FunctionComponent } from 'react';
import { Loading } from './states.tsx';

/**
 * A component from a file of its own that is loaded when it is first shown. In place of React's `lazy`, which keeps what it
 * shows meanwhile for at least 300 ms, however soon the file is there.
 * @param load imports the file; asked once, and again after it failed
 * @param what is done until it is there, in words; nothing is shown without them
 * @throws while rendering, the error of a file that does not come
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
    const [failed, setFailed] = useState<{ error: unknown } | null>(null);
    useEffect(() => {
      if (Loaded) return;
      let shown = true;
      ask().then(
        (component) => shown && setLoaded(() => component),
        (error: unknown) => shown && setFailed({ error }),
      );
      return () => {
        shown = false;
      };
    }, [Loaded]);
    if (failed) throw failed.error;
    if (Loaded) return <Loaded {...props} />;
    return what === undefined ? null : (
      // What is there soon is not announced: nothing flickers.
      <div className="appears-late">
        <Loading what={what} />
      </div>
    );
  }
  return Object.assign(Later, { load: ask });
}
