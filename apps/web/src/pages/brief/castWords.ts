import type { Character, CharacterForm, SceneSpot } from '@quarry/core/document';

// Words for casts that several parts of the sheet use.

export const FORM_WORDS: Record<CharacterForm, string> = {
  figure: 'Figure',
  animal: 'Animal',
  vehicle: 'Vehicle',
};
export const SOURCE_WORDS: Record<Character['source'], string> = {
  own: 'Owned',
  lent: 'Lent',
  buy: 'To buy',
  assemble: 'To assemble from parts',
};
export const CHARACTER_STATE_WORDS: Record<Character['state'], string> = {
  ready: 'Ready',
  wanted: 'Not there yet',
  broken: 'Broken',
  lost: 'Lost',
};
export const POSE_WORDS: Record<SceneSpot['pose'], string> = {
  standing: 'Stands',
  walking: 'Walks',
  climbing: 'Climbs',
  sitting: 'Sits',
  lying: 'Lies',
};
/** Where one looks, by degrees clockwise from north. */
const DIRECTIONS = ['north', 'north-east', 'east', 'south-east', 'south', 'south-west', 'west', 'north-west'];
export const FACINGS = DIRECTIONS.map((word, i) => ({ value: String(45 * i), word: `to the ${word}` }));

/** “baker”, or what takes the place of a role. */
export const roleWord = ({ form, role }: { form: CharacterForm; role: string }): string =>
  role === '' ? `any ${form}` : role;
