import { act, screen, waitFor } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { parseISO } from 'date-fns';
import type { ReactNode } from 'react';
import type { Actor, Scene } from '@quarry/core/document';
import { DisplayLink } from '../src/data/displayLink.ts';
import type { Act } from './linkOn.ts';
import { renderOn } from './renderOn.tsx';
import { DerivedDataProvider } from '../src/workers/derived.tsx';

// A whole page of a small display, worked by its words, with workers that answer in the page's own thread (comlink.ts).
// What the page does with a server, a canvas or the size of a screen is for the browser's journeys.

/** An answer may take long on a busy machine, ms. */
export const LONGEST = { timeout: 120_000 };

/** Stops the calendar at a day: computations and waits keep their clocks. */
export function stopAt(day: string): void {
  jest.useFakeTimers({
    now: parseISO(day),
    doNotFake: [
      ...(['hrtime', 'nextTick', 'performance', 'queueMicrotask', 'requestAnimationFrame'] as const),
      ...(['cancelAnimationFrame', 'requestIdleCallback', 'cancelIdleCallback', 'setImmediate'] as const),
      ...(['clearImmediate', 'setInterval', 'clearInterval', 'setTimeout', 'clearTimeout'] as const),
    ],
  });
}

/** A page as somebody has it before them. */
export interface OpenPage {
  acts: Act[];
  /** Everything it says. */
  text(): string;
  sees(words: string): Promise<void>;
  /** Waits until it does not say so any more. */
  seesNo(words: string): Promise<void>;
  /** Presses a button by its words, once it can be pressed. */
  press(words: string | RegExp): Promise<void>;
  tab(word: string): Promise<void>;
  /** Types into a field by its label, and leaves it with Enter. */
  fill(label: string, text: string): Promise<void>;
  valueOf(label: string): string;
  undo(): Promise<void>;
}

/** Opens a page of a display. @param at its address after the display's, such as `transport?sheet=day` */
export async function openPage(
  scene: Scene,
  page: ReactNode,
  at: string,
  actor: Actor = { role: 'owner', person: null },
): Promise<OpenPage> {
  const user = userEvent.setup({ pointerEventsCheck: 0 });
  const acts = await renderOn(scene, <DerivedDataProvider>{page}</DerivedDataProvider>, {
    at: `/d/d/${at}`,
    actor,
  });
  // The same as the page has.
  const link = await DisplayLink.open('d', 'u', () => undefined);
  const text = () => document.body.textContent?.replace(/\s+/g, ' ') ?? '';
  const buttonOf = (words: string | RegExp): HTMLElement => {
    const found = [...document.querySelectorAll<HTMLElement>('button')].find((button) => {
      const name = (button.getAttribute('aria-label') ?? button.textContent ?? '').trim();
      return (typeof words === 'string' ? name === words : words.test(name)) && !button.matches(':disabled');
    });
    if (!found)
      throw new Error(`no button “${words}” can be pressed; the page says: ${text().slice(0, 2000)}`);
    return found;
  };
  const press = async (words: string | RegExp) => user.click(await waitFor(() => buttonOf(words), LONGEST));
  const expectSaid = async (words: string, is: boolean) =>
    waitFor(() => {
      if (text().includes(words) !== is) throw new Error(`“${words}”: ${text().slice(0, 4000)}`);
    }, LONGEST);
  return {
    acts,
    text,
    sees: (words) => expectSaid(words, true),
    seesNo: (words) => expectSaid(words, false),
    press,
    tab: (word) => press(new RegExp(`^${word}`)),
    async fill(label, typed) {
      const field = await screen.findByLabelText(label, { selector: 'input, textarea, select' }, LONGEST);
      await user.clear(field);
      await user.type(field, `${typed}{Enter}`);
    },
    valueOf: (label) => screen.getByLabelText<HTMLInputElement>(label).value,
    undo: async () => act(async () => void link.undo()),
  };
}
