/**
 * A value that must be there, such as the first row of a count.
 * @param what named by the error
 * @throws Error when it is not: a mistake of the program
 */
export function present<T>(value: T | null | undefined, what: string): T {
  if (value === null || value === undefined) throw new Error(`${what} is missing`);
  return value;
}
