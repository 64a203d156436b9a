// Earned value and three-point guesses: textbook formulas, each named where it stands.

/** Hours (or pieces) at one moment. */
export interface EarnedValue {
  /** What should have been done by now. */
  planned: number;
  /** What is done, in what it was budgeted at. */
  earned: number;
  /** What that took. */
  actual: number;
  /** The whole, as budgeted. */
  budget: number;
}
/** Null: undefined until something is planned, done or spent. */
export interface EarnedIndices {
  /** Schedule and cost variance: earned − planned, earned − actual. */
  sv: number;
  cv: number;
  /** Schedule and cost performance: earned ÷ planned, earned ÷ actual. */
  spi: number | null;
  cpi: number | null;
  /** Estimate at completion: budget ÷ CPI. To complete: EAC − actual. */
  eac: number | null;
  etc: number | null;
  /** Variance at completion: budget − EAC. */
  vac: number | null;
}

/** The indices of earned value management (ANSI/EIA-748; PMI Practice Standard for Earned Value Management). */
export function earnedIndices({ planned, earned, actual, budget }: EarnedValue): EarnedIndices {
  const cpi = actual > 0 && earned > 0 ? earned / actual : null;
  const eac = cpi === null ? null : budget / cpi;
  return {
    sv: earned - planned,
    cv: earned - actual,
    spi: planned > 0 ? earned / planned : null,
    cpi,
    eac,
    etc: eac === null ? null : eac - actual,
    vac: eac === null ? null : budget - eac,
  };
}

/** At best, most likely, at worst; in that order. */
export interface ThreeGuesses {
  low: number;
  likely: number;
  high: number;
}

/** Mean (a + 4m + b) / 6 and variance ((b − a) / 6)² of three guesses (Malcolm, Roseboom, Clark and Fazar 1959). */
export function pert({ low, likely, high }: ThreeGuesses): { mean: number; variance: number } {
  return { mean: (low + 4 * likely + high) / 6, variance: ((high - low) / 6) ** 2 };
}
