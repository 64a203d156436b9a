import { useState } from 'react';
import { recallJson, remember } from '../data/remembered.ts';

/**
 * A value of a calculator that is there again when a person comes back to it, kept in this browser and sent nowhere.
 * @param key of the calculator and value, the same for one type only
 * @param read whether what was kept is such a value
 */
export function useKept<T>(
  key: string,
  first: T,
  read: (value: unknown) => value is T,
): [T, (value: T) => void] {
  const place = `quarry-kept-${key}`;
  const [value, setValue] = useState<T>(() => {
    const before = recallJson(place);
    return read(before) ? before : first;
  });
  return [
    value,
    (next) => {
      remember(place, JSON.stringify(next));
      setValue(next);
    },
  ];
}
