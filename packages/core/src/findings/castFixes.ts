import {
  SIDE_WORDS,
  appearances,
  characterAt,
  displayOf,
  isInHand,
  listOf,
  vehicleOf,
  wantedAt,
  type Change,
  type Character,
  type Entity,
  type Scene,
  type Side,
  type SceneSpot,
} from '../document/index.ts';
import { mayPlay } from '../cast/index.ts';
import { namedThing, patch, type Fix, type FixesOf } from './fix.ts';

// Remedies for the casts of small scenes (stand-ins, open spots, faces that are turned), and for what followers are promised.

type SmallScene = Entity<'figure'>;

/** Where one looks who looks to a side, degrees clockwise from north. */
const FACING: Record<Side, number> = { n: 0, e: 90, s: 180, w: 270 };

/** So many stand-ins are tried for a spot. */
const MAX_TRIED = 3;

/** A small scene with another spot in place of one. */
const withSpot = (figure: SmallScene, spot: number, set: Partial<SceneSpot>): Change =>
  patch('figure', figure, { spots: figure.spots.map((one, i) => (i === spot ? { ...one, ...set } : one)) });

/** Characters in hand and in no small scene that may play a spot in place of the one who is named. */
function standIns(scene: Scene, spot: SceneSpot): Character[] {
  const busy = appearances(scene);
  return listOf(scene, 'character')
    .filter(
      (one) =>
        !busy.has(one.id) &&
        // Who rides in a vehicle comes with it only.
        vehicleOf(scene, one) === null &&
        isInHand(scene, one) &&
        mayPlay(scene, one, spot),
    )
    .slice(0, MAX_TRIED);
}

function replaced(scene: Scene, figure: SmallScene, spot: number): Fix[] {
  return standIns(scene, figure.spots[spot]).map(({ id, name, form }) => ({
    words: `Let “${name}” play in “${figure.name}”`,
    changes: [withSpot(figure, spot, { character: id, form })],
  }));
}

export const CAST_FIXES: Readonly<Record<string, FixesOf>> = {
  'cast-twice': (scene, finding) => {
    const character = namedThing(scene, finding, 'character');
    const [, ...others] = character ? (appearances(scene).get(character.id) ?? []) : [];
    return others.toReversed().flatMap(({ figure, spot }): Fix[] => {
      const { form, role } = wantedAt(scene, figure.spots[spot]);
      return [
        ...replaced(scene, figure, spot),
        {
          words: `Leave its spot in “${figure.name}” open`,
          changes: [withSpot(figure, spot, { character: null, form, role, isFixed: false })],
        },
      ];
    });
  },
  'cast-missing': (scene, finding) => {
    const figure = namedThing(scene, finding, 'figure');
    return (figure?.spots ?? []).flatMap((spot, i) => {
      const named = characterAt(scene, spot);
      return figure && named && !isInHand(scene, named) ? replaced(scene, figure, i) : [];
    });
  },
  'spot-back': (scene, finding) => {
    const figure = namedThing(scene, finding, 'figure');
    const sides = displayOf(scene).viewedSides;
    if (!figure) return [];
    const isTurned = ({ facing }: SceneSpot) =>
      sides.every((side) => Math.cos(((facing - FACING[side]) * Math.PI) / 180) <= 1e-9);
    return sides.map((side) => ({
      words: `Turn those of “${figure.name}” who look away to the ${SIDE_WORDS[side]}`,
      changes: [
        patch('figure', figure, {
          spots: figure.spots.map((spot) => (isTurned(spot) ? { ...spot, facing: FACING[side] } : spot)),
        }),
      ],
    }));
  },
  'wish-unpromised': (scene, finding) => {
    const wish = namedThing(scene, finding, 'thread');
    const milestone = namedThing(scene, finding, 'milestone');
    if (!wish || !milestone) return [];
    const promises = [
      ...milestone.promises,
      { of: 'thread' as const, thing: wish.id, stage: 'done' as const },
    ];
    return [
      {
        words: `Promise “${wish.title}” for ${milestone.name}, ${milestone.date}`,
        changes: [patch('milestone', milestone, { promises })],
      },
    ];
  },
};
