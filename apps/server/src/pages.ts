import { existsSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import type { NestExpressApplication } from '@nestjs/platform-express';
import express, { type Request, type Response } from 'express';
import { present } from '@quarry/core/grid';
import { z } from 'zod';

/** Addresses that controllers answer: the interface, and the page for the public. */
const MADE = ['/api/', '/s/'];

/** The page of a display whose address names none. */
const FIRST_PAGE = 'plan';

/** What the build of the pages says of its files: by source, the file made of it and the sources that it imports. */
const manifestSchema = z.record(
  z.string(),
  z.object({ file: z.string(), imports: z.array(z.string()).default([]) }),
);
type Manifest = z.infer<typeof manifestSchema>;

/** The built pages: hashed assets for ever, the page itself fresh, and the page for every address of its own. */
export function servePages(app: NestExpressApplication, folder: string): void {
  const path = join(folder, 'index.html');
  if (!existsSync(path)) return;
  const pageFor = pagesOf(readFileSync(path, 'utf8'), readManifest(folder));
  const files = express.static(folder, {
    index: false,
    setHeaders: (response, file) =>
      response.setHeader(
        'cache-control',
        file.includes('/assets/') ? 'public, max-age=31536000, immutable' : 'no-cache',
      ),
  });
  app.use((request: Request, response: Response, next: () => void) => {
    if (!['GET', 'HEAD'].includes(request.method) || MADE.some((made) => request.path.startsWith(made)))
      return next();
    files(request, response, () => {
      response.set('cache-control', 'no-cache').type('html').send(pageFor(request.path));
    });
  });
}

function readManifest(folder: string): Manifest {
  const path = join(folder, '.vite', 'manifest.json');
  return existsSync(path) ? manifestSchema.parse(JSON.parse(readFileSync(path, 'utf8'))) : {};
}

/**
 * The page by address. Where a page of a display is asked for, it names the files of that page too, so that a browser fetches
 * all of them at once and does not learn of the later ones from the earlier.
 * @param page HTML that every address gets
 */
export function pagesOf(page: string, manifest: Manifest): (path: string) => string {
  const made = new Map<string, string>();
  const sources = new Map(
    Object.keys(manifest).flatMap((source) => {
      const name = /^src\/pages\/(\w+)\/\w+Page\.tsx$/.exec(source)?.[1];
      return name === undefined ? [] : [[name, source] as const];
    }),
  );
  return (path) => {
    const [, root, , name] = path.split('/');
    const source = sources.get(name ? name : FIRST_PAGE);
    if (root !== 'd' || source === undefined) return page;
    const known = made.get(source);
    if (known !== undefined) return known;
    const links = [...filesOf(manifest, ['src/DisplayPages.tsx', source])]
      .filter((file) => !page.includes(file))
      .map((file) => `<link rel="modulepreload" crossorigin href="/${file}">`);
    const html = page.replace('</head>', () => `${links.join('\n')}\n</head>`);
    made.set(source, html);
    return html;
  };
}

/** The files of sources, with all that they import, each once. */
function filesOf(manifest: Manifest, sources: readonly string[]): Set<string> {
  const seen = new Set<string>();
  const waiting = sources.filter((source) => source in manifest);
  for (let source = waiting.pop(); source !== undefined; source = waiting.pop()) {
    if (seen.has(source)) continue;
    seen.add(source);
    waiting.push(...present(manifest[source], source).imports);
  }
  return new Set([...seen].map((source) => present(manifest[source], source).file));
}
