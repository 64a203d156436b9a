import { act, waitFor } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { parseISO } from 'date-fns';
import type { ReactNode } from 'react';
import type { Actor, Scene } from '@quarry/core/document';
import { DisplayLink } from '../src/data/displayLink.ts';
import { useView } from '../src/data/view.ts';
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
  /** Fills a field by its label, and leaves it with Enter. */
  fill(label: string, text: string): Promise<void>;
  valueOf(label: string): string;
  isDisabled(label: string): boolean;
  /** Chooses in a field by its label, by the words it begins with. */
  choose(label: string, words: string): Promise<void>;
  /** What the rows of a table say, cell by cell, once it is there. */
  rowsOf(label: string): Promise<string[][]>;
  undo(): Promise<void>;
  /** The display as it is now. */
  scene(): Scene;
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
  /** What can be reached: a dialog that is open stands before all else. */
  const reachable = (): ParentNode => document.querySelector('dialog[open]') ?? document;
  const buttonOf = (words: string | RegExp): HTMLElement => {
    const found = [...reachable().querySelectorAll<HTMLElement>('button')].find((button) => {
      const name = (button.getAttribute('aria-label') ?? button.textContent ?? '').trim();
      return (typeof words === 'string' ? name === words : words.test(name)) && !button.matches(':disabled');
    });
    if (!found)
      throw new Error(`no button “${words}” can be pressed; the page says: ${text().slice(0, 2000)}`);
    return found;
  };
  const press = async (words: string | RegExp) => user.click(await waitFor(() => buttonOf(words), LONGEST));
  // Asking the library for what a label is of takes seconds on a page of many fields.
  const fieldNow = <E extends HTMLElement>(label: string, selector: string): E => {
    const said = [...reachable().querySelectorAll('label')].find(
      ({ textContent }) => textContent?.trim() === label,
    );
    const byLabel =
      said && (document.getElementById(said.htmlFor) ?? said.querySelector<HTMLElement>(selector));
    const named = [...reachable().querySelectorAll<E>(selector)].find(
      (field) => field === byLabel || field.getAttribute('aria-label') === label,
    );
    if (!named) throw new Error(`no field “${label}”: ${text().slice(0, 4000)}`);
    return named;
  };
  const fieldOf = <E extends HTMLElement>(label: string, selector: string) =>
    waitFor(() => fieldNow<E>(label, selector), LONGEST);
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
      const field = await fieldOf(label, 'input, textarea');
      await user.clear(field);
      // At once: each letter would draw the page again.
      await user.paste(typed);
      await user.keyboard('{Enter}');
    },
    async choose(label, words) {
      const field = await fieldOf<HTMLSelectElement>(label, 'select');
      const option = [...field.options].find(({ textContent }) => textContent?.startsWith(words));
      if (!option) throw new Error(`${label} has no choice “${words}”`);
      await user.selectOptions(field, option);
    },
    async rowsOf(label) {
      const table = await waitFor(() => {
        const found = document.querySelector<HTMLTableElement>(`table[aria-label="${label}"]`);
        if (!found) throw new Error(`no table “${label}”: ${text().slice(0, 4000)}`);
        return found;
      }, LONGEST);
      return [...table.rows].map(({ cells }) =>
        [...cells].map((cell) => (cell.textContent ?? '').replace(/\s+/g, ' ').trim()),
      );
    },
    valueOf: (label) => fieldNow<HTMLInputElement>(label, 'input, textarea, select').value,
    isDisabled: (label) => fieldNow(label, 'input, textarea, select').matches(':disabled'),
    scene: () => link.getState().scene,
    undo: async () => act(async () => void link.undo()),
  };
}

/** On the plan: picks something from the outline, whatever is picked now. */
export async function pickFromOutline(page: OpenPage, name: string): Promise<void> {
  act(() => useView.getState().pick(null));
  await page.press(new RegExp(`^${name}`));
  await page.seesNo('Opening its data sheet');
}
