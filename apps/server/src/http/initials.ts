/** The first letters of a name's words, at most two. */
export function initialsOf(name: string): string {
  const letters = name.split(/\s+/).map((word) => word.charAt(0).toUpperCase());
  return letters.join('').slice(0, 2) || 'ME';
}
