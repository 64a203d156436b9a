// How long properties run: as long as a change can wait for, or much longer when `npm run soak` asks for it.

/** Set by `npm run soak`. */
const isSoak = process.env.SOAK === '1';
/** Runs of a soak for each run of a test. */
const FACTOR = 12;

/** Runs of a property. @param usual in `npm test` */
export const runs = (usual: number): number => (isSoak ? usual * FACTOR : usual);
