/**
 * The stair: each room of the core imports only rooms above it (and `grid` from anywhere).
 * The order here is the order of the stair; a new room is added at its step.
 */
const STAIR = [
  'grid',
  'scale',
  'catalogue',
  'document',
  'terrain',
  'masonry',
  'structures',
  'stability',
  'bench',
  'venue',
  'cut',
  'reach',
  'visibility',
  'materials',
  'assembly',
  'transport',
  'power',
  'kit',
  'cast',
  'findings',
  'progress',
  'history',
  'formats',
];
const room = (name) => `^packages/core/src/${name}/`;

module.exports = {
  forbidden: [
    ...STAIR.map((name, step) => ({
      name: `stair-${name}`,
      comment: `${name} may import only the rooms above it: ${STAIR.slice(0, step).join(', ') || 'none'}`,
      severity: 'error',
      from: { path: room(name), pathNot: '\\.test\\.ts$' },
      to: { path: '^packages/core/src/', pathNot: STAIR.slice(0, step + 1).map(room) },
    })),
    {
      name: 'rooms-by-their-door',
      comment: 'another room is entered by its index.ts',
      severity: 'error',
      from: { path: '^packages/core/src/([^/]+)/' },
      to: { path: '^packages/core/src/([^/]+)/', pathNot: ['^packages/core/src/$1/', '/index\\.ts$'] },
    },
    {
      name: 'core-stands-alone',
      comment: 'the core imports no interface code, nothing of Node and only its own libraries',
      severity: 'error',
      from: { path: '^packages/core/src/', pathNot: '\\.test\\.ts$' },
      to: {
        pathNot: [
          '^packages/core/',
          'node_modules/(zod|highs|dxf-writer|culori|@types/culori|ical-generator|@date-fns/tz|rbush|@types/rbush|@noble/hashes|dequal)/',
        ],
      },
    },
    {
      name: 'apps-stand-apart',
      comment: 'one app never imports another',
      severity: 'error',
      from: { path: '^apps/([^/]+)/' },
      to: { path: '^apps/', pathNot: '^apps/$1/' },
    },
    {
      name: 'pages-stand-apart',
      comment: 'a page shares through data, ui, board and frame, not with another page',
      severity: 'error',
      from: { path: '^apps/web/src/pages/([^/]+)/' },
      to: { path: '^apps/web/src/pages/', pathNot: '^apps/web/src/pages/$1/' },
    },
    {
      name: 'protocol-stands-alone',
      comment: 'requests, answers and events know the core and Zod, nothing of the server or the pages',
      severity: 'error',
      from: { path: '^packages/protocol/' },
      to: { pathNot: ['^packages/(protocol|core)/', 'node_modules/zod/'] },
    },
    // Inside the web app: data and ui are below workers, then board, frame, pages; main.tsx and publicPage.ts are above all.
    ...[
      ['ui', ['workers', 'board', 'frame', 'pages']],
      ['data', ['workers', 'board', 'frame', 'pages']],
      ['workers', ['board', 'frame', 'pages']],
      ['board', ['frame', 'pages']],
      ['frame', ['pages']],
    ].map(([from, above]) => ({
      name: `web-${from}`,
      comment: `${from} is below ${above.join(', ')}`,
      severity: 'error',
      from: { path: `^apps/web/src/${from}/` },
      to: { path: `^apps/web/src/(${above.join('|')})/` },
    })),
    { name: 'no-circles', severity: 'error', from: {}, to: { circular: true } },
    {
      name: 'resolvable',
      severity: 'error',
      from: {},
      to: { couldNotResolve: true, pathNot: ['^bun:', '\\?url$'] },
    },
  ],
  options: {
    doNotFollow: { path: 'node_modules' },
    exclude: { path: ['(^|/)dist/', 'node_modules/\\.'] },
    tsPreCompilationDeps: true,
    enhancedResolveOptions: {
      extensions: ['.ts', '.tsx', '.js', '.mjs'],
      exportsFields: ['exports'],
      conditionNames: ['import', 'types', 'default'],
    },
  },
};
