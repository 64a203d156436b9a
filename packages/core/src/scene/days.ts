/** Whole days from one ISO date to another, by UTC midnights; negative when the second is earlier. */
export const daysBetween = (from: string, to: string): number =>
  Math.round(
    (Date.parse(`${to.slice(0, 10)}T00:00:00Z`) - Date.parse(`${from.slice(0, 10)}T00:00:00Z`)) / 86_400_000,
  );
