import { QueryClientProvider } from '@tanstack/react-query';
import { act, render, waitFor } from '@testing-library/react';
import type { ReactNode } from 'react';
import { MemoryRouter } from 'react-router';
import { createStore } from 'zustand';
import type { Actor, Scene } from '@quarry/core/document';
import { DerivedContext, type DerivedState } from '../src/workers/useDerived.ts';
import { queryClient } from '../src/data/api.ts';
import { DisplayLink } from '../src/data/displayLink.ts';
import { linkOn, type Act } from './linkOn.ts';
import { DisplayProvider } from '../src/data/useDisplay.tsx';

/**
 * Mounts a part of a page on a display, for tests of components. The file that calls it mocks `displayLink.ts`.
 * @param options.derived what workers are taken to have worked out
 * @returns what was done, in order, as it happens
 */
export async function renderOn(
  scene: Scene,
  element: ReactNode,
  options: { actor?: Actor; at?: string; derived?: Partial<DerivedState> } = {},
): Promise<Act[]> {
  const acts: Act[] = [];
  const link = linkOn(scene, acts, options.actor);
  DisplayLink.open = () => Promise.resolve(link);
  // React reads each form that is sent for actions, of which there are none; Node’s own class takes no form.
  globalThis.FormData = FormWithoutFields;
  // A mouse on a wide screen.
  window.matchMedia = (media) =>
    Object.assign(new EventTarget(), {
      ...{ matches: false, media, onchange: null },
      ...{ addListener: () => undefined, removeListener: () => undefined },
    });
  // Nothing has a size or scrolls here, and no dialog has a layer of its own.
  Element.prototype.scrollIntoView = () => undefined;
  globalThis.ResizeObserver = NoSizes;
  HTMLDialogElement.prototype.showModal = function show() {
    this.open = true;
  };
  HTMLDialogElement.prototype.close = function close() {
    this.open = false;
  };
  // Nothing is drawn here: what draws on a canvas leaves it.
  HTMLCanvasElement.prototype.getContext = () => null;
  const derived = createStore<DerivedState>(() => ({
    ...{ ground: null, judgement: null, error: null, core: null, materials: null, counting: null },
    ...options.derived,
  }));
  await act(async () => {
    render(
      <QueryClientProvider client={queryClient}>
        <MemoryRouter initialEntries={[options.at ?? '/']}>
          <DisplayProvider id="d" user="u" loading="opening" failed={() => 'failed'}>
            <DerivedContext value={derived}>{element}</DerivedContext>
          </DisplayProvider>
        </MemoryRouter>
      </QueryClientProvider>,
    );
  });
  return acts;
}

/** Waits until the page says so, anywhere in its text. */
export const sees = (words: string): Promise<void> =>
  waitFor(() => expect(document.body.textContent).toContain(words));

class NoSizes implements ResizeObserver {
  observe = () => undefined;
  unobserve = () => undefined;
  disconnect = () => undefined;
}

class FormWithoutFields extends FormData {
  constructor() {
    super();
  }
}
