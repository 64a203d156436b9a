import type { Reach } from '@quarry/core/reach';
import { hatchImage } from '../../board/hatchImage.ts';

/** Shades of a reach: past the arm in ochre, past the ladder line in iron. */
export const reachImage = (reach: Reach, ochre: string, iron: string): string | null =>
  hatchImage(
    reach,
    (i) => (reach.distance[i] > reach.ladder ? 2 : reach.distance[i] > reach.arm ? 1 : 0),
    ochre,
    iron,
  )?.toDataURL() ?? null;
