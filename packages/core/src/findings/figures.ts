// Figures in the sentences of findings.

/** A number to the tenth. */
export const tenth = (value: number): number => Number(value.toFixed(1));
/** A percentage to the tenth. */
export const percent = (value: number): string => `${tenth(value)} %`;
/** The place of a finding at a point of a line, whose other properties are left out. */
export const spotOf = ({ x, y }: { x: number; y: number }): { x: number; y: number } => ({ x, y });
