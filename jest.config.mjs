/** One Jest for all: core, server, pages and components beside their code, the browser's journeys in e2e. */
const optionsOf = (tsx) => ({
  jsc: {
    target: 'es2022',
    parser: { syntax: 'typescript', tsx, decorators: true },
    transform: { legacyDecorator: true, decoratorMetadata: false, react: { runtime: 'automatic' } },
  },
  module: { type: 'commonjs' },
});
const transformBy = (transformer) => ({
  '^.+\\.tsx$': [transformer, optionsOf(true)],
  '^.+\\.ts$': [transformer, optionsOf(false)],
});
/**
 * Handed to each module as parameters: looking a global up in Jest's sandbox costs many times more, and hot loops look
 * them up at each step.
 */
const GLOBALS = [
  ...['Array', 'BigInt', 'Boolean', 'Error', 'Infinity', 'JSON', 'Map', 'Math', 'Number', 'Object'],
  ...['Promise', 'RangeError', 'Set', 'String', 'Symbol', 'WeakMap', 'WeakSet'],
  ...['Float32Array', 'Float64Array', 'Int16Array', 'Int32Array', 'Int8Array'],
  ...['Uint16Array', 'Uint32Array', 'Uint8Array'],
];
const SEED = '<rootDir>/packages/core/test/seed.ts';
const project = (displayName, roots, moreNames = {}) => ({
  displayName,
  rootDir: '.',
  roots,
  transform: transformBy('@swc/jest'),
  testEnvironment: 'node',
  sandboxInjectedGlobals: GLOBALS,
  moduleNameMapper: {
    ...moreNames,
    '^@quarry/core/(.*)$': '<rootDir>/packages/core/src/$1/index.ts',
    '^@quarry/protocol/(.*)$': '<rootDir>/packages/protocol/src/$1.ts',
    // Its own build for programs without modules.
    '^rbush$': '<rootDir>/node_modules/rbush/rbush.js',
  },
});

export default {
  // A browser's journey takes ten times as long on a busy machine: time limits end what hangs, not what is slow.
  testTimeout: 300_000,
  // Journeys wait more than they work: as many at once as there are cores.
  maxWorkers: '100%',
  testSequencer: '<rootDir>/scripts/longest-first.mjs',
  projects: [
    {
      // In plain Node, and what a file loads is there for the next: no sandbox to build and to look through for each of them.
      // It knows neither mocks of modules nor time limits (`npm test` has one of its own). Threads, not processes: there a worker
      // that starts late waits for ever for its settings.
      displayName: 'core',
      rootDir: '.',
      roots: ['<rootDir>/packages', '<rootDir>/apps/cli'],
      runner: 'jest-light-runner',
      setupFiles: ['<rootDir>/packages/core/test/typescript.mjs', SEED],
    },
    {
      ...project('server', ['<rootDir>/apps/server']),
      globalSetup: '<rootDir>/apps/server/test/buildWorker.mjs',
    },
    { ...project('web', ['<rootDir>/apps/web']), setupFiles: [SEED] },
    {
      ...project('components', ['<rootDir>/apps/web'], {
        '^comlink$': '<rootDir>/apps/web/test/comlink.ts',
        '^highs/runtime\\?url$': '<rootDir>/apps/web/test/highsRuntime.ts',
      }),
      transform: {
        ...transformBy('<rootDir>/apps/web/test/transform.mjs'),
        '\\.js$': ['@swc/jest', optionsOf(false)],
      },
      // A library that has no other form than modules.
      transformIgnorePatterns: ['/node_modules/(?!react-hotkeys-hook/)'],
      // Icons are called Map and Infinity.
      sandboxInjectedGlobals: GLOBALS.filter((name) => !['Map', 'Infinity'].includes(name)),
      globals: { CORE_DIGEST: 'of a test' },
      testEnvironment: 'jest-fixed-jsdom',
      testMatch: ['**/*.test.tsx'],
    },
    {
      ...project('browser', ['<rootDir>/e2e']),
      testPathIgnorePatterns: process.env.QUARRY_EXTENT === 'test' ? ['/e2e/further/'] : [],
      globalSetup: '<rootDir>/e2e/prepare.ts',
      globalTeardown: '<rootDir>/e2e/tidy.ts',
    },
  ].map((entry) => ({ testMatch: ['**/*.test.ts'], ...entry, modulePathIgnorePatterns: ['/dist/'] })),
};
