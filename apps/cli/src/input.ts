import { readFileSync, statSync } from 'node:fs';

/** Bad input: the file, the place and the reason; exit code 2. */
export class BadInput extends Error {}

/** Reads a text file no larger than `most` bytes. @throws BadInput naming the file and the reason */
export function readText(path: string, most: number): string {
  try {
    const { size } = statSync(path);
    if (size > most)
      throw new BadInput(
        `${path}: ${size.toLocaleString('en')} bytes; the most is ${most.toLocaleString('en')}.`,
      );
    return readFileSync(path, 'utf8');
  } catch (error) {
    if (error instanceof BadInput) throw error;
    throw new BadInput(
      `${path}: cannot be read (${error instanceof Error ? error.message : String(error)}).`,
    );
  }
}

/** Prints the reasons why there is no answer. @returns the exit code */
export function complain(reasons: readonly string[]): number {
  process.stderr.write(`${reasons.join('\n')}\n`);
  return 1;
}
