// How much is tested: the scripts set it, and who calls Jest by hand gets all.

/** `npm run check`, `npm test`, `npm test -- --all` and `npm run soak`. */
export type Extent = 'check' | 'test' | 'all' | 'soak';

/** Picks by how much is tested. */
export function byExtent<T>(of: Readonly<Record<Extent, T>>): T {
  const extent = process.env.QUARRY_EXTENT ?? 'all';
  const isExtent = (name: string): name is Extent => Object.hasOwn(of, name);
  if (!isExtent(extent))
    throw new Error(`QUARRY_EXTENT is “${extent}”; it may be ${Object.keys(of).join(', ')}.`);
  return of[extent];
}

/** Whether what takes long is tried too, such as the whole demo where a small display shows the same. */
export const isAll = byExtent({ check: false, test: false, all: true, soak: true });
export const isSoak = byExtent({ check: false, test: false, all: false, soak: true });
const SHARE = byExtent({ check: 1 / 5, test: 1 / 4, all: 1 / 2, soak: 12 });

/** Runs of a property. @param written of it beside it */
export const runs = (written: number): number => Math.ceil(written * SHARE);

/** A test that runs where all is tried. */
export const longTest = (...of: Parameters<jest.It>): void => (isAll ? test : test.skip)(...of);
