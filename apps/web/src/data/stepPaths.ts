import { create } from 'zustand';
import { recallJson, remember } from './remembered.ts';

// Which new displays are on the short path of first steps, and what was passed of it by hand.

const KEY = 'quarry-first-steps';
/** Displays begun in this browser whose path is not dismissed, with the pages that were passed by hand. */
type Paths = Readonly<Record<string, readonly string[]>>;

const read = (): Paths => {
  const kept = recallJson(KEY);
  if (typeof kept !== 'object' || kept === null) return {};
  return Object.fromEntries(
    Object.entries(kept).map(([id, pages]) => [id, Array.isArray(pages) ? pages.map(String) : []]),
  );
};
export const usePaths = create<{ paths: Paths }>(() => ({ paths: read() }));
const write = (paths: Paths) => {
  remember(KEY, JSON.stringify(paths));
  usePaths.setState({ paths });
};

/** Begins the path of a new display. */
export const beginSteps = (display: string) => write({ ...usePaths.getState().paths, [display]: [] });

export const dismissSteps = (display: string) => {
  const { [display]: _gone, ...paths } = usePaths.getState().paths;
  write(paths);
};

/** Passes a step that leaves nothing behind in the scene. */
export const passStep = (display: string, page: string) => {
  const { paths } = usePaths.getState();
  const passed = paths[display];
  if (passed) write({ ...paths, [display]: [...new Set([...passed, page])] });
};
