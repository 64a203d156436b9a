/**
 * True sizes of what scenes are made of, in metres. Each names where it comes from: a published standard, or memory.
 * `length` runs along the thing (or the opening's width), `width` across it.
 */
export interface TrueSize {
  id: string;
  name: string;
  length: number;
  width: number;
  height: number;
  source: string;
}

/** Stature that a figure stands for, m (from memory: an adult of middling height). */
export const STATURE = 1.75;
/** Breadth over the shoulders and arms that a figure's width stands for, m (from memory). */
export const BREADTH = 0.48;

export const TRUE_SIZES: readonly TrueSize[] = [
  { id: 'figure', name: 'Adult', length: BREADTH, width: 0.28, height: STATURE, source: 'from memory' },
  {
    id: 'door',
    name: 'Door',
    length: 0.86,
    width: 0.04,
    height: 1.985,
    source: 'door leaf 860 × 1985 mm, DIN 18101 (recalled, not looked up)',
  },
  {
    id: 'storey',
    name: 'Storey',
    length: 4,
    width: 4,
    height: 2.75,
    source: 'from memory: floor to floor; a room is at least 7 ft (2.13 m) high, IRC R305.1',
  },
  { id: 'car', name: 'Car', length: 4.3, width: 1.8, height: 1.5, source: 'from memory' },
  {
    id: 'bus',
    name: 'Bus',
    length: 12,
    width: 2.55,
    height: 3.2,
    source: 'width of Directive 96/53/EC (at most 13.5 × 4.0 m there); the rest from memory',
  },
  {
    id: 'locomotive',
    name: 'Locomotive',
    length: 18,
    width: 3.15,
    height: 4.28,
    source: 'width and height of the UIC 505-1 gauge; length from memory',
  },
  {
    id: 'track',
    name: 'Track gauge',
    length: 1.435,
    width: 0.15,
    height: 0.18,
    source: 'standard gauge 1435 mm, EN 13848-1',
  },
  { id: 'tree', name: 'Tree', length: 8, width: 8, height: 12, source: 'from memory' },
];
