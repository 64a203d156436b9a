import { z } from 'zod';
import { MM_PER_STUD } from '../grid/index.ts';
import { sceneFrom } from './file.ts';
import type { Scene } from './scene.ts';

/** Starting points for a new display. */
export const presetSchema = z.enum(['vignette16', 'vignette8', 'shelf', 'table', 'city']);
export type Preset = z.infer<typeof presetSchema>;

/** Each is small, valid and ready to be changed; sizes in studs. `limit`: the size is a rule, not only a start. */
export const PRESETS = {
  vignette16: { word: 'Vignette 16×16', kind: 'vignette', w: 16, d: 16, limit: true },
  vignette8: { word: 'Vignette 8×8', kind: 'vignette', w: 8, d: 8, limit: true },
  shelf: { word: 'Shelf diorama 96×48', kind: 'diorama', w: 96, d: 48, limit: false },
  table: { word: 'Table diorama 192×96', kind: 'diorama', w: 192, d: 96, limit: false },
  city: { word: 'City on two tables 288×96', kind: 'city', w: 288, d: 96, limit: false },
} as const satisfies Record<Preset, object>;

/** Common base sizes with a price guess in the display's currency (common practice, no source: change them). */
const BASES = [
  { id: 'base-48-48', w: 48, d: 48, price: 14, stock: 0 },
  { id: 'base-32-32', w: 32, d: 32, price: 7.5, stock: 0 },
  { id: 'base-16-32', w: 16, d: 32, price: 5, stock: 0 },
  { id: 'base-16-16', w: 16, d: 16, price: 3, stock: 0 },
  { id: 'base-8-8', w: 8, d: 8, price: 1.2, stock: 0 },
];

/** A new display of a preset's size with one level, one pad over all of it, one section and a table under it. */
export function blankDisplay(name: string, preset: Preset, owner: { name: string; initials: string }): Scene {
  const { kind, w, d, limit } = PRESETS[preset];
  const ground = { x: 0, y: 0, w, d };
  return sceneFrom({
    display: {
      name,
      kind,
      limitW: limit ? w : null,
      limitD: limit ? d : null,
      moduleMaxW: 96,
      moduleMaxD: 48,
    },
    levels: [{ id: 'ground', name: 'Ground', height: 3 }],
    footprint: [{ id: 'footprint', name: 'Footprint', ...ground }],
    tables: [
      {
        id: 'table',
        name: kind === 'vignette' ? 'Stand' : 'Table',
        x: -40,
        y: -40,
        w: w * MM_PER_STUD + 80,
        d: d * MM_PER_STUD + 80,
      },
    ],
    pads: [{ id: 'pad', name: 'Base ground', ...ground, level: 'ground', ground: 'grass' }],
    people: [{ id: 'me', ...owner }],
    sections: [{ id: 'section-a', letter: 'A', name: 'Whole display', ...ground, owner: 'me' }],
    passages: kind === 'vignette' ? [] : [{ id: 'door', name: 'house door', width: 830, height: 2000 }],
    bases: BASES,
  });
}
