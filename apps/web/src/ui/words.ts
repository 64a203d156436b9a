/** A phrase with its first letter large. */
export const capital = (words: string) => words.charAt(0).toUpperCase() + words.slice(1);
