import { countOf, formatStuds, STUD } from '../grid/index.ts';
import {
  appearances,
  characterAt,
  comingWith,
  daysBetween,
  displayOf,
  listOf,
  vehicleOf,
  wantedAt,
  type Character,
  type Entity,
  type Scene,
  type SceneSpot,
} from '../document/index.ts';
import { OUTSIDE, indexAt, type Relief } from '../terrain/index.ts';
import { publicEyes } from '../visibility/index.ts';
import type { FindingDraft, Rule } from './finding.ts';

// Who plays in small scenes: nobody twice, nobody who is not there, and faces towards those who look.

type SmallScene = Entity<'figure'>;

const quoted = (names: readonly string[]) =>
  [...new Set(names)]
    .slice(0, 4)
    .map((name) => `“${name}”`)
    .join(', ');

const castTwice: Rule = {
  id: 'cast-twice',
  title: 'A character is in two places at once',
  basis:
    'The spots of small scenes that name a character, or the vehicle that it rides in, in the version that is shown.',
  page: 'brief',
  severity: 'error',
  check({ scene }) {
    const stands = appearances(scene);
    return listOf(scene, 'character').flatMap((character): FindingDraft[] => {
      const all = stands.get(character.id) ?? [];
      const vehicle = vehicleOf(scene, character);
      // A vehicle in two places is told of the vehicle, not of all who ride in it.
      const byVehicle = vehicle ? (stands.get(vehicle.id)?.length ?? 0) : 0;
      if (all.length < 2 || all.length === byVehicle) return [];
      const last = all[all.length - 1].figure;
      return [
        {
          sentence: `“${character.name}” is in ${countOf(all.length, 'spot')} at once, in ${quoted(all.map(({ figure }) => figure.name))}; 1 may be.`,
          remedy: 'Let a stand-in take the other spots, or leave them open.',
          place: { x: last.x, y: last.y },
          things: [
            { kind: 'character', id: character.id },
            ...[...new Set(all.map(({ figure }) => figure.id))].map((id) => ({
              kind: 'figure' as const,
              id,
            })),
          ],
          numbers: { spots: all.length },
        },
      ];
    });
  },
};

/** So many days before the show every small scene should have its cast. */
const CAST_DAYS = 21;
const STATE_WORDS: Record<Character['state'], string> = {
  ready: 'ready',
  wanted: 'not there yet',
  broken: 'broken',
  lost: 'lost',
};

const castMissing: Rule = {
  id: 'cast-missing',
  title: 'A small scene lacks one of its cast',
  basis: `Characters that are named in a small scene and are wanted, broken or lost, or whose crew is: in scenes that are built or placed, and in all of them from ${CAST_DAYS} days before the show.`,
  page: 'brief',
  severity: 'warning',
  check({ scene, today }) {
    const { showDate } = displayOf(scene);
    const days = showDate && today ? daysBetween(today, showDate) : null;
    const isSoon = days !== null && days >= 0 && days <= CAST_DAYS;
    return listOf(scene, 'figure').flatMap((figure): FindingDraft[] => {
      if (!isSoon && figure.state !== 'built' && figure.state !== 'placed') return [];
      const missing = namedIn(scene, figure)
        .flatMap((character) => comingWith(scene, character))
        .filter(({ state }) => state !== 'ready');
      if (missing.length === 0) return [];
      const who = missing.slice(0, 4).map(({ name, state, owner }) => {
        const whose = owner === null ? undefined : scene.person[owner]?.name;
        return `“${name}”${whose === undefined ? '' : `, ${whose}’s,`} is ${STATE_WORDS[state]}`;
      });
      return [
        {
          sentence: `“${figure.name}” lacks ${missing.length} of its cast of ${countOf(figure.spots.length, 'spot')}: ${who.join(', ')}${missing.length > 4 ? ' …' : ''}.`,
          remedy: 'Find or mend them, or let stand-ins of the same role play.',
          place: { x: figure.x, y: figure.y },
          things: [
            { kind: 'figure', id: figure.id },
            ...[...new Set(missing.map(({ id }) => id))].map((id) => ({ kind: 'character' as const, id })),
          ],
          numbers: { missing: missing.length },
        },
      ];
    });
  },
};

const namedIn = (scene: Scene, { spots }: SmallScene): Character[] =>
  spots.flatMap((spot) => characterAt(scene, spot) ?? []);

const castSeason: Rule = {
  id: 'cast-season',
  title: 'Clothes of another season',
  basis:
    'The season that the clothes of a named character suit against the season of the house rules or the version; clothes of any season agree with all.',
  page: 'brief',
  severity: 'warning',
  check({ scene }) {
    const { season } = displayOf(scene);
    if (season === null) return [];
    return listOf(scene, 'figure').flatMap((figure): FindingDraft[] => {
      const wrong = namedIn(scene, figure)
        .flatMap((character) => comingWith(scene, character))
        .filter((one) => one.season !== 'any' && one.season !== season);
      if (wrong.length === 0) return [];
      return [
        {
          sentence: `${quoted(wrong.map(({ name }) => name))} in “${figure.name}” ${wrong.length === 1 ? 'wears' : 'wear'} clothes of ${[...new Set(wrong.map((one) => one.season))].join(' and ')}; the season is ${season} and 0 should differ.`,
          remedy: 'Dress them for the season, or let others play.',
          place: { x: figure.x, y: figure.y },
          things: [
            { kind: 'figure', id: figure.id },
            ...[...new Set(wrong.map(({ id }) => id))].map((id) => ({ kind: 'character' as const, id })),
          ],
          numbers: { characters: wrong.length },
        },
      ];
    });
  },
};

const placeOf = ({ x, y }: SmallScene, { dx, dy }: SceneSpot) => ({ x: x + dx, y: y + dy });

const isOn = (relief: Relief, { x, y }: { x: number; y: number }): boolean => {
  const [column, row] = [Math.floor(x), Math.floor(y)];
  const isInside =
    column >= relief.x && row >= relief.y && column < relief.x + relief.w && row < relief.y + relief.d;
  return isInside && relief.ground[indexAt(relief, column, row)] !== OUTSIDE;
};

const spotOff: Rule = {
  id: 'spot-off',
  title: 'A spot of a small scene is off the display',
  basis: 'The middle of each spot against the studs of the footprint.',
  page: 'plan',
  severity: 'error',
  check: ({ scene, relief }) =>
    listOf(scene, 'figure').flatMap((figure) =>
      figure.spots.flatMap((spot, i): FindingDraft[] => {
        const at = placeOf(figure, spot);
        if (isOn(relief, at)) return [];
        const { dx, dy } = spot;
        return [
          {
            part: `spot ${i + 1}`,
            sentence: `Spot ${i + 1} of “${figure.name}”, ${formatStuds(Math.abs(dx) * STUD)} ${dx < 0 ? 'west' : 'east'} and ${formatStuds(Math.abs(dy) * STUD)} ${dy < 0 ? 'north' : 'south'} of it, is off the footprint; 0 spots may be.`,
            remedy: 'Bring it nearer, or move the scene.',
            place: at,
            things: [{ kind: 'figure', id: figure.id }],
            numbers: { spot: i + 1, dx, dy },
          },
        ];
      }),
    ),
};

const spotBack: Rule = {
  id: 'spot-back',
  title: 'A figure turns its back on all visitors',
  basis:
    'Where each figure looks against the directions to the eyes along the sides the display is looked at from: a face is seen within 90° of where it looks.',
  page: 'plan',
  severity: 'note',
  check({ scene, relief }) {
    const eyes = publicEyes(scene, relief)?.places ?? [];
    if (eyes.length === 0) return [];
    return listOf(scene, 'figure').flatMap((figure): FindingDraft[] => {
      const turned = figure.spots.flatMap((spot, i) =>
        wantedAt(scene, spot).form === 'figure' && !eyes.some((eye) => isFaced(relief, figure, spot, eye))
          ? [i]
          : [],
      );
      if (turned.length === 0) return [];
      const first = figure.spots[turned[0]];
      const who = characterAt(scene, first)?.name ?? `spot ${turned[0] + 1}`;
      return [
        {
          sentence: `${turned.length} of ${countOf(figure.spots.length, 'spot')} of “${figure.name}” ${turned.length === 1 ? 'turns its back' : 'turn their backs'} on all visitors, the first “${who}”, who looks to ${first.facing}°; ${eyes.length} places see 0 of ${turned.length === 1 ? 'its face' : 'their faces'}.`,
          remedy: 'Turn them towards a side that visitors stand at, or leave it so on purpose.',
          place: placeOf(figure, first),
          things: [{ kind: 'figure', id: figure.id }],
          numbers: { turned: turned.length, facing: first.facing },
        },
      ];
    });
  },
};

type At = { x: number; y: number };

/** From a spot to an eye, studs east and north: eyes are told from the south-west corner of the relief. */
function towards(relief: Relief, figure: SmallScene, spot: SceneSpot, eye: At): At {
  const at = placeOf(figure, spot);
  return { x: eye.x - (at.x - relief.x), y: eye.y - (relief.y + relief.d - at.y) };
}

function isFaced(relief: Relief, figure: SmallScene, spot: SceneSpot, eye: At): boolean {
  const to = towards(relief, figure, spot, eye);
  const angle = (spot.facing * Math.PI) / 180;
  return to.x * Math.sin(angle) + to.y * Math.cos(angle) > 1e-9;
}

export const CAST_RULES: readonly Rule[] = [castTwice, castMissing, castSeason, spotOff, spotBack];
