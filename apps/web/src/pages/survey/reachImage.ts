import type { Reach } from '@quarry/core/reach';
import { hatchImage } from '../../board/hatchImage.ts';

/** Shades of a reach: past the arm in ochre, past the ladder line in iron. */
export const reachImage = (reach: Reach, ochre: string, iron: string): string | null =>
  hatchImage(
    reach,
    (i) => {
      const far = reach.distance[i] ?? 0;
      return far > reach.ladder ? 2 : far > reach.arm ? 1 : 0;
    },
    ochre,
    iron,
  )?.toDataURL() ?? null;
