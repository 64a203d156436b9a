/** Whether a kept value has the fields of another, of the same types; numbers are finite. */
export const isLike =
  <T extends Record<string, string | number | boolean | null>>(first: T) =>
  (value: unknown): value is T =>
    typeof value === 'object' &&
    value !== null &&
    Object.entries(first).every(([key, own]) => {
      const kept: unknown = Reflect.get(value, key);
      if (own === null) return kept === null || Number.isFinite(kept);
      return typeof kept === typeof own && (typeof kept !== 'number' || Number.isFinite(kept));
    });
