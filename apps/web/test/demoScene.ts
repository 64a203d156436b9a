import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { readFile, type Scene } from '@quarry/core/document';

/** A small display of the demo, as its file says. */
export function demoScene(name: 'heron-weir' | 'larch-lane'): Scene {
  const path = join(import.meta.dirname, `../../../demo/${name}.quarry.json`);
  const reading = readFile(readFileSync(path, 'utf8'));
  if (!reading.ok) throw new Error(reading.error);
  return reading.scene;
}
