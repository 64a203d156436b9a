import { useState } from 'react';

/** Values of calculators, for as long as the app is open. */
const kept = new Map<string, unknown>();

/**
 * A state that is there again when a person comes back to it. It is sent nowhere and kept in memory only.
 * @param key of the calculator and value, the same for one type only
 */
export function useKept<T>(
  key: string,
  first: T,
  read: (value: unknown) => value is T,
): [T, (value: T) => void] {
  const [value, setValue] = useState<T>(() => {
    const before = kept.get(key);
    return read(before) ? before : first;
  });
  return [
    value,
    (next) => {
      kept.set(key, next);
      setValue(next);
    },
  ];
}
