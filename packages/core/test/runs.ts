// How long properties run: as long as a change can wait for, shorter in `npm run check`, much longer in `npm run soak`.

/** Set by `npm run soak`. */
export const isSoak = process.env.SOAK === '1';
/** Set by `npm run check`. */
const isQuick = process.env.QUICK === '1';
/** Runs of a soak for each run of a test, and of a test for each run of a check. */
const FACTOR = 12;
const QUICK_FACTOR = 5;

/** Runs of a property. @param usual in `npm test` */
export const runs = (usual: number): number =>
  isSoak ? usual * FACTOR : isQuick ? Math.ceil(usual / QUICK_FACTOR) : usual;
