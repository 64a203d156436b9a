import type { Page } from '@quarry/core/findings';

/** The pages there are, in working order, each with the letter that goes to it after `g`. */
export const PAGES: readonly { id: Page; word: string; key: string; question: string }[] = [
  {
    id: 'brief',
    word: 'Brief',
    key: 'b',
    question: 'What are we showing, under which rules, at which scale, by when?',
  },
  {
    id: 'survey',
    word: 'Survey',
    key: 's',
    question: 'Where does it stand, what can be reached, what can get in',
  },
  { id: 'plan', word: 'Plan', key: 'p', question: 'What stands where, on the stud grid' },
  { id: 'cut', word: 'Cut', key: 'c', question: 'Which modules, on which bases' },
  { id: 'stockpile', word: 'Stockpile', key: 'k', question: 'What is owned, needed and short' },
  { id: 'progress', word: 'Progress', key: 'r', question: 'Where each section is' },
  {
    id: 'crew',
    word: 'Crew',
    key: 'w',
    question: 'Who is in, who holds what, what changed, what was advised and answered',
  },
];

/** How long after `g` a letter still means a page, ms. */
const GO_MS = 1500;
let armedAt = -GO_MS;
let goneAt = -1;

/** Letters of pages come after a `g`: whoever hears a letter asks here what it means. Times are those of the events, ms. */
export const goKeys = {
  arm: (at: number) => void (armedAt = at),
  /** Whether the letter of this moment goes to a page; a second one after that does not. */
  takes: (at: number): boolean => {
    if (goneAt === at) return true;
    if (at - armedAt >= GO_MS) return false;
    armedAt = -GO_MS;
    goneAt = at;
    return true;
  },
};
