/** Tables one meets: sizes in mm (common practice, no source: measure yours). */
export interface CommonTable {
  word: string;
  kind: 'table' | 'shelf' | 'floor';
  w: number;
  d: number;
  height: number;
  leaves: number;
  ratedKg: number | null;
}
export const COMMON_TABLES: readonly CommonTable[] = [
  { word: 'Folding table 6 ft', kind: 'table', w: 1830, d: 760, height: 740, leaves: 2, ratedKg: 100 },
  { word: 'Folding table 8 ft', kind: 'table', w: 2440, d: 760, height: 740, leaves: 2, ratedKg: 100 },
  { word: 'Narrow hall table', kind: 'table', w: 1800, d: 600, height: 720, leaves: 1, ratedKg: 60 },
  { word: 'School desk', kind: 'table', w: 1300, d: 500, height: 720, leaves: 1, ratedKg: 50 },
  { word: 'Trestle and board', kind: 'table', w: 2500, d: 1250, height: 750, leaves: 1, ratedKg: 120 },
  { word: 'Wall shelf', kind: 'shelf', w: 900, d: 300, height: 1200, leaves: 1, ratedKg: 25 },
  { word: 'Bookcase shelf', kind: 'shelf', w: 800, d: 280, height: 900, leaves: 1, ratedKg: 20 },
  { word: 'Floor', kind: 'floor', w: 2000, d: 1500, height: 0, leaves: 1, ratedKg: null },
];
