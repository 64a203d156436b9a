// Figures in the sentences of findings.

/** A number to the tenth. */
export const tenth = (value: number): number => Number(value.toFixed(1));
/** A percentage to the tenth. */
export const percent = (value: number): string => `${tenth(value)} %`;
/** The place of a finding at a point of a line, whose other properties are left out. */
export const spotOf = ({ x, y }: { x: number; y: number }): { x: number; y: number } => ({ x, y });
/** Words as a sentence lists them: “a, b and c”. */
export const listed = (words: readonly string[]): string =>
  words.length < 2 ? words.join('') : `${words.slice(0, -1).join(', ')} and ${words.at(-1)}`;
