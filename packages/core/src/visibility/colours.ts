import { ANY_COLOUR, colourOf, partOf } from '../catalogue/index.ts';
import {
  GROUNDS,
  groundName,
  characterAt,
  entityOf,
  keyOf,
  labelOf,
  sectionAt,
  type Kind,
  type Plot,
  type Scene,
} from '../document/index.ts';
import { BARE, coverFromAbove, studMiddle, type Relief } from '../terrain/index.ts';
import { dressesOf } from '../masonry/index.ts';

// What colours eyes meet: those of buildings and figures, and of what lies behind them.

/** Something of a known colour. */
export interface Coloured {
  name: string;
  /** An id of the palette. */
  colour: string;
}

/** A colour of the palette; null for any. */
export const knownColour = (colour: string): string | null =>
  colour === ANY_COLOUR || colourOf(colour) === null ? null : colour;

/** The colour of a building where it stands out against what is behind: of its roof over eaves, else of its walls; null: not said. */
export const outlineColour = ({ eaves, roofColour, wallColour }: Plot): string | null =>
  knownColour(eaves === null ? wallColour : roofColour) ?? knownColour(wallColour);

/** Colours that the figures of a small scene wear, one for each spot whose figure is named and has a torso of a known colour. */
export function wornColours(scene: Scene, id: string): string[] {
  return (scene.figure[id]?.spots ?? []).flatMap((spot) => {
    const torso = characterAt(scene, spot)?.wears.find(({ part }) => partOf(part)?.family === 'torso');
    const colour = torso ? knownColour(torso.colour) : null;
    return colour === null ? [] : [colour];
  });
}

/**
 * What is uppermost on each stud of a relief, by its index, as far as its colour is known: ground and buildings.
 * @returns asked with the key of the thing that is taken away meanwhile
 */
export function colourOfStuds(scene: Scene, relief: Relief): (i: number, away: string) => Coloured | null {
  const dresses = dressesOf(scene);
  const cover = coverFromAbove(relief);
  return (i, away) => {
    const owner = relief.owner[i] > 0 ? relief.things[relief.owner[i] - 1] : undefined;
    if (owner && relief.top[i] > relief.surface[i] && away !== keyOf(owner.kind, owner.id))
      return ofThing(scene, owner);
    const section = sectionAt(scene, studMiddle(relief, i));
    const ground = cover[i] === BARE ? 'bare' : (GROUNDS[cover[i]] ?? 'bare');
    const colour = knownColour(dresses.of(ground, section, relief.surface[i]).tones[0]?.colour ?? ANY_COLOUR);
    return colour === null
      ? null
      : { name: ground === 'bare' ? 'bare ground' : groundName(scene, ground), colour };
  };
}

function ofThing(scene: Scene, { kind, id }: { kind: Kind; id: string }): Coloured | null {
  const plot = kind === 'plot' ? entityOf(scene, 'plot', id) : undefined;
  const colour = plot ? knownColour(plot.wallColour) : null;
  return colour === null ? null : { name: labelOf(scene, kind, id), colour };
}
