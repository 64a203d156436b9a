import { TOOLS } from '../board/kinds/index.ts';
import { PAGES } from './pages.ts';

/** The keys of the whole program, as `?` lists them. */
const KEY_LIST: readonly { group: string; keys: readonly [string, string][] }[] = [
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
      ...TOOLS.map(({ id, word, key }): [string, string] => [
        key,
        ['pick', 'measure', 'profile'].includes(id) ? word.toLowerCase() : `draw: ${word.toLowerCase()}`,
      ]),
      ['Enter', 'with a drawing tool: place one in the middle of the view; end a line'],
      ['Backspace', 'while drawing a line: take back its last point'],
      ['Shift drag', 'pick all in a box'],
      ['Shift click', 'pick one more'],
      ['x', 'flip between both sides of a comparison'],
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

/** Every key, by where it works. */
export function KeyList() {
  return (
    <div className="grid sm:grid-cols-2 gap-6">
      {KEY_LIST.map(({ group, keys }) => (
        <dl key={group}>
          <dt className="font-semibold pb-1">{group}</dt>
          {keys.map(([key, does]) => (
            <dd key={key} className="flex gap-3 border-b hair py-0.5">
              <kbd className="fig w-28 shrink-0">{key}</kbd>
              <span>{does}</span>
            </dd>
          ))}
        </dl>
      ))}
    </div>
  );
}
