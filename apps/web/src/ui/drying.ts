import { DRYINGS, type Drying } from '@quarry/core/document';
import { capital } from './words.ts';

/** What is to be minded while something dries. */
const DRYING_CAUTIONS: Readonly<Record<Drying, string>> = {
  glue: 'Glue: an open window, off the skin, out of the reach of children.',
  sealant:
    'Sealant and lacquer: outdoors or at an open window, a mask against vapours if sprayed, no flame near.',
  decals: 'Decal fluids: an open window, off the skin.',
  paint: 'Paint: outdoors or at an open window, a mask against vapours if sprayed, no flame near.',
};

/** The caution for what dries, with its drying time. */
export const dryingCaution = (what: Drying, long: string): string =>
  `${DRYING_CAUTIONS[what]} Nobody is needed for ${long}; what the maker says of the time, local rules and qualified people decide.`;

/** What may dry, to choose from. */
export const DRYING_OPTIONS: readonly { value: Drying | ''; word: string }[] = [
  { value: '', word: 'nothing dries' },
  ...DRYINGS.map((value) => ({ value, word: capital(value) })),
];
