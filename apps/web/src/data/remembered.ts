// Choices of one person, kept in this browser: never sent anywhere.

/** Keeps a choice. A browser that keeps nothing still works; it only forgets the choice. */
export const remember = (key: string, value: string): void => {
  try {
    localStorage.setItem(key, value);
  } catch {
    // Forgotten.
  }
};

/** A choice as it was kept last; null where there is none. */
export const recall = (key: string): string | null => {
  try {
    return localStorage.getItem(key);
  } catch {
    return null;
  }
};

/** The same, as JSON that anyone may have written; null where it is none. */
export const recallJson = (key: string): unknown => {
  try {
    return JSON.parse(recall(key) ?? 'null');
  } catch {
    return null;
  }
};
