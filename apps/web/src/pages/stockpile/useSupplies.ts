import { useMemo } from 'react';
import { SUPPLY_KINDS, suppliesOf, type Supply } from '@quarry/core/materials';
import { useScene } from '../../data/useDisplay.tsx';

/** What is there and what comes: known before anything is counted. */
export function useSupplies(): readonly Supply[] {
  const scene = useScene(...SUPPLY_KINDS);
  return useMemo(() => suppliesOf(scene), [scene]);
}
