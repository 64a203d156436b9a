import { MM_PER_PLATE, MM_PER_STUD } from '../grid/index.ts';

/** Height of a figure without hair, mm (from memory). */
export const FIGURE_MM = 40;
/** Width of a figure, mm (from memory). */
export const FIGURE_WIDTH_MM = 16;
/** Nominal model-rail scales 1 : n (NEM 010). */
export const NEM_010: readonly number[] = [22.5, 32, 45, 64, 87, 120, 160, 220];

/** True length, m, of so many studs at 1 : ratio. */
export const metresOf = (studs: number, ratio: number): number => (studs * MM_PER_STUD * ratio) / 1000;
/** Studs, not rounded, of a true length in m at 1 : ratio. */
export const studsFor = (metres: number, ratio: number): number => (metres * 1000) / ratio / MM_PER_STUD;
/** Plates, not rounded, of a true height in m at 1 : ratio. */
export const platesFor = (metres: number, ratio: number): number => (metres * 1000) / ratio / MM_PER_PLATE;

/** The model-rail scale nearest to a ratio, by proportion and not by difference. */
export function nearestRailScale(ratio: number): number {
  const off = (scale: number) => Math.abs(Math.log(scale / ratio));
  return NEM_010.reduce((best, scale) => (off(scale) < off(best) ? scale : best));
}
