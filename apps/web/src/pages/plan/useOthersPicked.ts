import { useMemo } from 'react';
import type { Scene } from '@quarry/core/document';
import type { OtherPick } from '../../board/overlays.tsx';
import { placeOf } from '../../board/place.ts';
import { useDisplay, useLink } from '../../data/useDisplay.tsx';
import { ringOf } from '../../ui/Avatar.tsx';

/** What the others on the display have picked, where it stands. */
export function useOthersPicked(scene: Scene): OtherPick[] {
  const here = useDisplay(({ here }) => here);
  const link = useLink();
  return useMemo(
    () =>
      here
        .filter(({ client }) => client !== link.client)
        .flatMap(({ client, person, name, picked }) =>
          picked.flatMap((one) => {
            const place = placeOf(scene, one);
            if (!place) return [];
            const initials = (person ? scene.person[person]?.initials : null) ?? name.slice(0, 2);
            return [
              { key: `${client} ${one.kind}/${one.id}`, place, initials, ring: ringOf(person ?? client) },
            ];
          }),
        ),
    [here, scene, link],
  );
}
