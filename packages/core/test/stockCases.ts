// For each rule of stock and colour: one thing that spoils the quiet display of the checks (it is 2031-06-01 there).

const add = (more: object) => (f: object) => Object.assign(f, more);
const line = { part: 'brick-2x4', colour: 'slate', qty: 40, price: 0.2, came: 10, section: 's' };
const order = { id: 'o', name: 'Greys', state: 'mail', lines: [line] };

export const stockCases: [string, (f: object) => unknown, string[]][] = [
  [
    'parcel-late',
    add({ orders: [{ ...order, expected: '2031-05-28' }] }),
    ['“Greys” is 4 days late with 30 pieces', 'section A waits'],
  ],
  [
    'parcel-after-need',
    (f) => {
      add({ orders: [{ ...order, expected: '2031-07-04' }] })(f);
      if ('sections' in f && Array.isArray(f.sections))
        Object.assign(f.sections[0], { partsBy: '2031-07-01' });
    },
    ['“Greys” is expected 3 days after section A needs its parts (2031-07-01)'],
  ],
  [
    'loan-overdue',
    add({
      loans: [
        { id: 'l', part: 'brick-2x4', colour: 'slate', qty: 6, from: 'ada', to: null, due: '2031-05-30' },
      ],
    }),
    ['somebody was to give 6 × brick 2×4 in Slate back to Ada Fenn 2 days ago'],
  ],
  [
    'placeholder-forbidden',
    (f) => {
      add({
        placeholders: [{ id: 'p', part: 'tile-2x2', colour: 'slate', stands: 'rust', qty: 3, x: 4, y: 4 }],
      })(f);
      if ('display' in f) Object.assign(f.display ?? {}, { placeholders: 'none' });
    },
    ['3 × tile 2×2 stand in Rust instead of Slate', 'allow 0'],
  ],
  [
    'substitute-colour',
    (f) => {
      add({
        substitutes: [
          {
            ...{ id: 'u', part: 'brick-2x4', colour: 'slate', section: 's' },
            use: [{ part: 'brick-2x2', colour: 'pebble', qty: 2 }],
          },
        ],
      })(f);
      if ('display' in f) Object.assign(f.display ?? {}, { colourSeen: 'aged' });
    },
    ['brick 2×2 in Pebble stands in for brick 2×4 in Slate, 18.1 off', 'in section A allows 10'],
  ],
  [
    'accent-lost',
    add({
      recipes: [
        {
          id: 'r',
          name: 'Heath',
          ground: 'grass',
          tones: [{ colour: 'rowan' }],
          accents: [
            { colour: 'loam', percent: 2 },
            { colour: 'elder', percent: 2 },
            { colour: 'pine', percent: 2 },
            { colour: 'brick', percent: 2 },
            { colour: 'peat', percent: 2 },
          ],
        },
      ],
    }),
    ['in “Heath” differs by', 'at least 5'],
  ],
  [
    'source-beyond',
    add({
      partLists: [
        {
          id: 'k',
          name: 'Big box',
          use: 'kit',
          copies: 4,
          lines: [{ part: 'plate-2x4', colour: 'moss', qty: 10 }],
        },
        { id: 'h', name: 'Hall', kitsOnly: true, lines: [{ part: 'plate-2x4', colour: 'moss', qty: 50 }] },
      ],
    }),
    ['“Hall”, only from kits, needs 50 pieces', 'lack 10 of them: 10 × plate 2×4 in Moss', 'not bought'],
  ],
  [
    'task-late',
    add({ tasks: [{ id: 't', name: 'Roofs', owner: 'ada', due: '2031-05-30' }] }),
    ['“Roofs”, Ada Fenn’s, was due 2 days ago', '0 may be'],
  ],
  [
    'glue-forbidden',
    add({ tasks: [{ id: 't', name: 'Flag poles', drying: 'glue', rests: 12 }] }),
    ['“Flag poles” waits for glue', '0 glue'],
  ],
];
