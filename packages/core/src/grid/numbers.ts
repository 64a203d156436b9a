// Numbers as people's lists write them: which mark parts the decimals is found from a whole column.

export type Decimal = '.' | ',';

/** How the numbers of a column are written. */
export interface NumberStyle {
  decimal: Decimal;
  /** Some cell leaves no other reading; else it is a guess. */
  sure: boolean;
}

/** What may stand around a number: a currency before or after it, a word for pieces after it. */
const AROUND = /^(?:[^\d.,\s-]{0,4}\s?)(.+?)(?:\s?[^\d.,\s]{1,6}\.?)?$/u;
/** Blanks of every width and apostrophes part thousands, whatever parts the decimals. */
const GROUPING = /(?<=\d)[\s\u00a0\u2009\u202f'’](?=\d{3}(?!\d))/gu;

const bare = (text: string): string => (AROUND.exec(text.trim())?.[1] ?? text).trim().replace(GROUPING, '');

/**
 * Finds the decimal mark from all cells of a column. A cell decides it when it has both marks (the last one), one mark
 * twice (then it parts thousands), or one mark that is not followed by exactly three digits or follows a bare 0.
 * @param whole what is counted: a mark before exactly three digits then parts thousands
 * @returns the mark with the most cells for it; a point where no cell decides
 */
export function numberStyleOf(cells: Iterable<string>, whole = false): NumberStyle {
  const votes: Record<Decimal, number> = { '.': 0, ',': 0 };
  const leanings: Record<Decimal, number> = { '.': 0, ',': 0 };
  const other = (mark: Decimal): Decimal => (mark === '.' ? ',' : '.');
  for (const cell of cells) {
    const text = bare(cell);
    const marks = [...text].filter((letter): letter is Decimal => letter === '.' || letter === ',');
    const last = marks.at(-1);
    if (last === undefined || !/^\d[\d.,]*$/.test(text)) continue;
    if (marks.some((mark) => mark !== last)) votes[last]++;
    else if (marks.length > 1) votes[other(last)]++;
    else {
      const [before, after] = text.split(last);
      if (after.length !== 3 || /^0?$/.test(before) || before.length > 3) votes[last]++;
      else if (whole) leanings[other(last)]++;
    }
  }
  // What only leans to one reading decides where no cell proves one.
  const counts = votes['.'] === votes[','] ? leanings : votes;
  const decimal = counts[','] > counts['.'] ? ',' : '.';
  return { decimal, sure: votes[decimal] > 0 };
}

/**
 * Reads a number of a column; one that can only be read the other way (“0,12” among “0.10”) is read so.
 * @returns null for what is no number
 */
export function readNumber(text: string, decimal: Decimal): number | null {
  const value = readAs(text, decimal);
  if (value !== null) return value;
  const own = numberStyleOf([text]);
  return own.sure ? readAs(text, own.decimal) : null;
}

/**
 * Reads what was typed into a field of one number: a mark before exactly three digits parts thousands where whole
 * numbers are asked for; else a point parts decimals, as it does everywhere on the screen, unless only a comma can.
 * @returns null for what is no number
 */
export function numberTyped(text: string, whole = false): number | null {
  const [, sign, figures] = /^([-−+]?)\s*(.*)$/.exec(text.trim()) ?? [];
  if (figures === undefined || figures === '') return null;
  const value = /^[\d.,\s\u00a0\u2009\u202f'’]+$/u.test(figures)
    ? readNumber(figures, numberStyleOf([figures], whole).decimal)
    : Number(figures);
  if (value === null || !Number.isFinite(value)) return null;
  return sign === '' || sign === '+' ? value : -value;
}

function readAs(text: string, decimal: Decimal): number | null {
  const [mark, group] = decimal === '.' ? ['\\.', ','] : [',', '\\.'];
  const match = new RegExp(`^(\\d{1,3}(?:${group}\\d{3})+|\\d+)?(?:${mark}(\\d+))?$`).exec(bare(text));
  if (!match || (match[1] === undefined && match[2] === undefined)) return null;
  return Number(`${(match[1] ?? '0').replace(/[.,]/g, '')}.${match[2] ?? '0'}`);
}

/** “h”, “min” and the like, as people write them. */
const HOURS = 'h|hrs?|hours?';
const MINUTES = 'm|mins?|minutes?';

/**
 * Reads a time as it was typed: `90`, `90 min`, `1:30`, `1 h 30`, `1.5 h`.
 * @returns whole minutes; null for what is none
 */
export function minutesTyped(text: string): number | null {
  const given = text.trim().toLowerCase();
  const clock = /^(\d{1,3}):([0-5]\d)$/.exec(given);
  if (clock) return 60 * Number(clock[1]) + Number(clock[2]);
  const both = new RegExp(`^([\\d.,]+)\\s*(?:${HOURS})\\s*(?:(\\d{1,2})\\s*(?:${MINUTES})?)?$`).exec(given);
  const hours = both?.[1] === undefined ? null : numberTyped(both[1]);
  if (hours !== null) return Math.round(60 * hours + Number(both?.[2] ?? 0));
  const minutes = numberTyped(given.replace(new RegExp(`\\s*(?:${MINUTES})$`), ''), true);
  return minutes !== null && minutes >= 0 && Number.isInteger(minutes) ? minutes : null;
}
