import { useMemo } from 'react';
import { listOf, type Handling } from '@quarry/core/document';
import { handlingId, type Shipment } from '@quarry/core/transport';
import { useDenialReason, useEdit, useLink, useScene } from '../../data/useDisplay.tsx';

/** A shipment with the ticks of this moment: what is loaded is worked out a while later. */
export function useTicked(shipment: Shipment | null): Shipment | null {
  const scene = useScene('handling');
  return useMemo(() => {
    if (!shipment) return null;
    const known = new Map(listOf(scene, 'handling').map((one) => [one.piece, one]));
    return {
      ...shipment,
      units: shipment.units.map((unit) => ({ ...unit, handling: known.get(unit.key) ?? null })),
    };
  }, [shipment, scene]);
}

/** Writes what is known of how a thing travels, whether anything was known before or not. */
export function useHandle(): {
  set: (words: string, key: string, fields: Partial<Handling>) => void;
  isForbidden: boolean;
} {
  const edit = useEdit();
  const link = useLink();
  const may = useDenialReason();
  return {
    set: (words, key, fields) => {
      // As it is now: two ticks may follow at once.
      const known = listOf(link.getState().scene, 'handling').find(({ piece }) => piece === key);
      if (known) edit.patch(words, 'handling', known, fields);
      else edit.add(words, 'handling', handlingId(key), { piece: key, ...fields });
    },
    isForbidden: may({ op: 'add', kind: 'handling', id: 'x', data: { piece: 'x' } }) !== null,
  };
}
