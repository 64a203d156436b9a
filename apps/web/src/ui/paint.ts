import { ANY_COLOUR, colourOf } from '@quarry/core/catalogue';

/** How a colour of the palette is painted in pictures in three dimensions: any colour as plain plastic. */
export const paintOf = (colour: string): string =>
  colour === ANY_COLOUR ? '#d8d2c4' : (colourOf(colour)?.hex ?? '#888888');
