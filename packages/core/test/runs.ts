// How long properties run: as long as a change can wait for, shorter in `npm run check`, much longer in `npm run soak`.

/** Set by `npm run soak`. */
export const isSoak = process.env.SOAK === '1';
/** Set by `npm run check`. */
const isQuick = process.env.QUICK === '1';
/** A soak runs a property so many times as often as it is written, a test a half and a check a fifth of that. */
const SOAK_FACTOR = 12;
const SHARE = isQuick ? 1 / 5 : 1 / 2;

/** Runs of a property. @param written of it beside it */
export const runs = (written: number): number => Math.ceil(written * (isSoak ? SOAK_FACTOR : SHARE));
