/** Writes docs/schema/display.schema.json from the core's schemas: `npm run schema`. */
import { writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { publishedSchema } from '@quarry/core/document';

const target = join(
  fileURLToPath(new URL('.', import.meta.url)),
  '..',
  'docs',
  'schema',
  'display.schema.json',
);
writeFileSync(target, `${JSON.stringify(publishedSchema(), null, 2)}\n`);
