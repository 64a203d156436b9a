import { countOf } from '../grid/index.ts';
import { CHARACTER_FORMS, type CharacterForm } from './kinds/character.ts';
import type { SceneSpot } from './kinds/figure.ts';
import type { Entity } from './schema.ts';
import { listOf, type Scene } from './scene.ts';

// Who plays in small scenes: how many there are, and who is at hand.

export type Character = Entity<'character'>;
type SmallScene = Entity<'figure'>;
type Peopled = Pick<Scene, 'character'>;
/** What casts are made of. */
export type CastScene = Pick<Scene, 'character' | 'figure'>;

/** How many of each form. */
export type CastCount = Record<CharacterForm, number>;

/** The character that is named for a spot; null where nobody is, or one that is gone. */
export const characterAt = (scene: Peopled, { character }: Pick<SceneSpot, 'character'>): Character | null =>
  // No reference is checked here: the name may be any, such as that of a function of all objects.
  character !== null && Object.hasOwn(scene.character, character) ? scene.character[character] : null;

/** The vehicle that a character rides in; null where it goes by itself. Vehicles ride in none. */
export function vehicleOf(scene: Peopled, { form, crewOf }: Character): Character | null {
  const vehicle = crewOf === null || form === 'vehicle' ? undefined : scene.character[crewOf];
  return vehicle?.form === 'vehicle' ? vehicle : null;
}

/** Those who ride in a vehicle. */
export function crewOf(scene: Peopled, vehicle: string): readonly Character[] {
  let crews = crewsOf.get(scene.character);
  if (!crews) {
    crews = new Map();
    for (const one of listOf(scene, 'character')) {
      const rides = vehicleOf(scene, one);
      if (rides) crews.set(rides.id, [...(crews.get(rides.id) ?? []), one]);
    }
    crewsOf.set(scene.character, crews);
  }
  return crews.get(vehicle) ?? [];
}
/** Groups of a scene are never written to, so that crews are found once for each. */
const crewsOf = new WeakMap<Scene['character'], Map<string, Character[]>>();

/** What comes with a character: itself, and the crew of a vehicle. */
export const comingWith = (scene: Peopled, character: Character): Character[] => [
  character,
  ...(character.form === 'vehicle' ? crewOf(scene, character.id) : []),
];

/** Whether a character can be set down today, with its crew. */
export const isInHand = (scene: Peopled, character: Character): boolean =>
  comingWith(scene, character).every(({ state }) => state === 'ready');

/** What a spot asks for: a form, a role (empty: any), and how many stand there. */
export function wantedAt(
  scene: Peopled,
  spot: Pick<SceneSpot, 'character' | 'form' | 'role'>,
): { form: CharacterForm; role: string; count: number } {
  const named = characterAt(scene, spot);
  return named
    ? { form: named.form, role: spot.role || named.role, count: named.count }
    : { form: spot.form, role: spot.role, count: 1 };
}

/** Who and what plays in a small scene: its spots with crews, or the number that is typed while it has none. */
export function castCount(scene: Peopled, { cast, spots }: Pick<SmallScene, 'cast' | 'spots'>): CastCount {
  const counts: CastCount = { figure: 0, animal: 0, vehicle: 0 };
  if (spots.length === 0) counts.figure = cast;
  for (const spot of spots) {
    const named = characterAt(scene, spot);
    if (!named) counts[spot.form] += 1;
    for (const { form, count } of named ? comingWith(scene, named) : []) counts[form] += count;
  }
  return counts;
}

/** “9 figures and 1 vehicle”. */
export const castWords = (counts: CastCount): string => {
  const words = CHARACTER_FORMS.filter((form) => counts[form] > 0).map((form) => countOf(counts[form], form));
  return words.length > 0 ? new Intl.ListFormat('en').format(words) : 'nobody';
};

/** Figures, animals and vehicles together. */
export const castSize = (scene: Peopled, of: Pick<SmallScene, 'cast' | 'spots'>): number => {
  const { figure, animal, vehicle } = castCount(scene, of);
  return figure + animal + vehicle;
};

/** Where each character stands in a scene: the small scenes it is named in, once for each spot, its vehicle's too. */
export function appearances(scene: CastScene): Map<string, { figure: SmallScene; spot: number }[]> {
  const found = new Map<string, { figure: SmallScene; spot: number }[]>();
  for (const figure of listOf(scene, 'figure'))
    figure.spots.forEach((spot, i) => {
      const named = characterAt(scene, spot);
      for (const { id } of named ? comingWith(scene, named) : []) {
        const places = found.get(id);
        if (places) places.push({ figure, spot: i });
        else found.set(id, [{ figure, spot: i }]);
      }
    });
  return found;
}
