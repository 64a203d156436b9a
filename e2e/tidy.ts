import { rmSync } from 'node:fs';
import { COUNTED_ENV } from './counted.ts';

/** Removes what `prepare.ts` has made. */
export default function tidy(): void {
  const folder = process.env[COUNTED_ENV];
  if (folder !== undefined) rmSync(folder, { recursive: true, force: true });
}
