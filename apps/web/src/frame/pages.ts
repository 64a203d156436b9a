import type { Page } from '@quarry/core/findings';
import type { Tool } from '../data/view.ts';

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

/** The plan's tools with their letters; those that are taken up less often stand under «More». */
export const TOOL_LIST: readonly { id: Tool; word: string; key: string; more?: boolean }[] = [
  { id: 'pick', word: 'Pick', key: 's' },
  { id: 'pad', word: 'Pad', key: 'p' },
  { id: 'hill', word: 'Hill', key: 'h' },
  { id: 'water', word: 'Water', key: 'w' },
  { id: 'way', word: 'Way', key: 'y' },
  { id: 'track', word: 'Track', key: 't' },
  { id: 'plot', word: 'Plot', key: 'b' },
  { id: 'repeat', word: 'Repeat', key: 'r' },
  { id: 'planting', word: 'Planting', key: 'j' },
  { id: 'marker', word: 'Marker', key: 'k' },
  { id: 'footprint', word: 'Footprint', key: 'f', more: true },
  { id: 'section', word: 'Section', key: 'c', more: true },
  { id: 'table', word: 'Table', key: 'l', more: true },
  { id: 'hollow', word: 'Hollow', key: 'o', more: true },
  { id: 'stream', word: 'Stream', key: 'v', more: true },
  { id: 'run', word: 'Wall or fence', key: 'a', more: true },
  { id: 'tree', word: 'Tree', key: 'e', more: true },
  { id: 'figure', word: 'Small scene', key: 'i', more: true },
  { id: 'flag', word: 'Flag', key: 'n', more: true },
  { id: 'reserved', word: 'Reserved ground', key: 'q', more: true },
  { id: 'note', word: 'Note', key: 'u', more: true },
  { id: 'measure', word: 'Measure', key: 'm' },
  { id: 'profile', word: 'Section cut', key: 'd' },
];

/** The keys of the whole program, as `?` lists them. */
export const KEY_LIST: readonly { group: string; keys: readonly [string, string][] }[] = [
  {
    group: 'Everywhere',
    keys: [
      ['Ctrl K', 'find or do anything'],
      ...PAGES.map(({ word, key }): [string, string] => [`g ${key}`, `go to ${word}`]),
      ['g f', 'open the findings'],
      ['Ctrl Z', 'undo your last change'],
      ['Ctrl Shift Z', 'redo it'],
      ['?', 'this list'],
    ],
  },
  {
    group: 'On the plan',
    keys: [
      ...TOOL_LIST.map(({ id, word, key }): [string, string] => [
        key,
        ['pick', 'measure', 'profile'].includes(id) ? word.toLowerCase() : `draw: ${word.toLowerCase()}`,
      ]),
      ['Enter', 'with a drawing tool: place one in the middle of the view; end a line'],
      ['Backspace', 'while drawing a line: take back its last point'],
      ['Shift drag', 'pick all in a box'],
      ['Shift click', 'pick one more'],
      ['x', 'flip between what was kept and now'],
      ['Ctrl D', 'duplicate what is picked'],
      [', . /', 'with a track picked: go on left, straight, right'],
      ['arrows', 'move what is picked by 1 stud'],
      ['Shift arrows', 'by 8 studs'],
      ['Alt arrows', 'by half a stud'],
      ['Delete', 'remove what is picked'],
      ['Escape', 'let go'],
      ['+ and −', 'zoom'],
      ['0', 'fit the whole display'],
    ],
  },
  {
    group: 'On the survey',
    keys: [
      ['Tab', 'from thing to thing in the room'],
      ['arrows', 'move it by 1 cm, or half an inch'],
      ['Shift arrows', 'by 10 cm, or 5 inches'],
      ['Alt arrows', 'by 1 mm, or 1/20 inch'],
      ['Alt drag', 'without snapping'],
      ['Delete', 'remove what is picked'],
      ['Escape', 'let go'],
    ],
  },
];
