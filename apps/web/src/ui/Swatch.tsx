import { ANY_COLOUR, colourName, colourOf, partName } from '@quarry/core/catalogue';

/** A colour as a small square: “any” as a diagonal, clear ones with a light corner. Its name stands beside it. */
export function Swatch({ colour, size = 12 }: { colour: string; size?: number }) {
  const known = colourOf(colour);
  const paint =
    colour === ANY_COLOUR || !known
      ? 'linear-gradient(135deg, transparent 46%, currentColor 46%, currentColor 54%, transparent 54%)'
      : known.finish === 'clear'
        ? `linear-gradient(135deg, #ffffff 40%, ${known.hex} 40%)`
        : known.hex;
  return (
    <span
      aria-hidden
      className="inline-block border border-base-content/50 align-[-1px] shrink-0"
      style={{ width: size, height: size, background: paint }}
    />
  );
}

/** “brick 2×4 in Slate” with its swatch. */
export function PartColour({ part, colour }: { part: string; colour: string }) {
  return (
    <span className="whitespace-nowrap">
      <Swatch colour={colour} /> {partName(part)} <span className="ink-2">in {colourName(colour)}</span>
    </span>
  );
}
