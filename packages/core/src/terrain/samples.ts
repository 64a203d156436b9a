import { rememberFor } from '../grid/index.ts';
import type { Terrain } from '../document/index.ts';

// Samples of imported ground, packed as base64 text: 16 bits each, the lower byte first.

/** The highest sample: 16 bits. */
export const MAX_SAMPLE = 65_535;
const LETTERS = 'ABCDEFGHIJKLMNOPQRSTUVWXYZabcdefghijklmnopqrstuvwxyz0123456789+/';
const VALUES = new Uint8Array(128);
for (let i = 0; i < 64; i++) VALUES[LETTERS.charCodeAt(i)] = i;

/** Packs samples as text. */
export function packSamples(samples: Uint16Array): string {
  const bytes = new Uint8Array(samples.length * 2);
  samples.forEach((sample, i) => {
    bytes[2 * i] = sample & 255;
    bytes[2 * i + 1] = sample >> 8;
  });
  const parts: string[] = [];
  for (let i = 0; i < bytes.length; i += 3) {
    const three = (bytes[i] << 16) | ((bytes[i + 1] ?? 0) << 8) | (bytes[i + 2] ?? 0);
    parts.push(
      LETTERS[three >> 18] +
        LETTERS[(three >> 12) & 63] +
        (i + 1 < bytes.length ? LETTERS[(three >> 6) & 63] : '=') +
        (i + 2 < bytes.length ? LETTERS[three & 63] : '='),
    );
  }
  return parts.join('');
}

/** The samples of an imported ground; missing ones are 0. Unpacked once for each entity: entities never change. */
export const readSamples = rememberFor(
  (terrain: Pick<Terrain, 'columns' | 'rows' | 'samples'>): Uint16Array => {
    const text = terrain.samples.replace(/=+$/, '');
    const bytes = new Uint8Array(terrain.columns * terrain.rows * 2);
    let at = 0;
    for (let i = 0; i < text.length && at < bytes.length; i += 4) {
      const four = [0, 1, 2, 3].reduce((sum, k) => (sum << 6) | (VALUES[text.charCodeAt(i + k)] ?? 0), 0);
      for (let k = 0; k < 3 && at < bytes.length; k++) bytes[at++] = (four >> (16 - 8 * k)) & 255;
    }
    const samples = new Uint16Array(bytes.length / 2);
    for (let i = 0; i < samples.length; i++) samples[i] = bytes[2 * i] | (bytes[2 * i + 1] << 8);
    return samples;
  },
);
