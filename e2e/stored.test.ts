import { readFileSync } from 'node:fs';
import { join } from 'node:path';

// What a browser stores at the first visit, for a start without the server: by the build alone.

const DIST = join(__dirname, '..', 'apps', 'web', 'dist');
interface Built {
  file: string;
  imports?: string[];
}
const manifest = JSON.parse(readFileSync(join(DIST, '.vite', 'manifest.json'), 'utf8')) as Record<
  string,
  Built
>;
const stored = new Set(
  [...readFileSync(join(DIST, 'sw.js'), 'utf8').matchAll(/url:\s*"([^"]+)"/g)].map(([, url]) => url),
);

test('every file that is stored has all that it imports', () => {
  const files = Object.values(manifest).filter(({ file }) => stored.has(file));
  // The pages of a display that people need at the table, and the frame around them.
  for (const source of [
    'src/DisplayPages.tsx',
    ...['plan/Plan', 'stockpile/Stockpile', 'progress/Progress', 'crew/Crew'].map(
      (page) => `src/pages/${page}Page.tsx`,
    ),
  ])
    expect(files).toContainEqual(expect.objectContaining({ file: manifest[source]?.file }));
  const missing = files.flatMap(({ file, imports = [] }) =>
    imports.flatMap((source) =>
      stored.has(manifest[source]?.file ?? source) ? [] : [`${file} imports ${source}`],
    ),
  );
  expect(missing).toEqual([]);
});

test('what only visitors load is not stored', () => {
  expect([...stored].filter((url) => url.includes('publicPage'))).toEqual([]);
});
