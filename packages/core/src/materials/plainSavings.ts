import { ANY_COLOUR } from '../catalogue/index.ts';
import { listOf, reduce, type Change, type Entity, type Scene } from '../document/index.ts';
import { priceOfPart, type CountCache } from '../masonry/index.ts';
import { recompile, type Compiled } from '../terrain/index.ts';
import { materialsOf, type MaterialsCount } from './materials.ts';

// What it saves when ground that nobody sees is laid in any colour.

/** What changes in the needs of a section. */
export interface FreedPart {
  /** null: ground of no section. */
  section: string | null;
  /** Pieces that may be of any colour then, and what they cost to buy, money of the display. */
  pieces: number;
  worth: number;
}

export interface PlainSavings {
  /** The most first; those where nothing changes are left out. */
  parts: FreedPart[];
  /** Pieces that are needed more, for the borders of plain ground; below 0 fewer. */
  more: number;
  /** Pieces that are short no more, with spares, and what they cost; below 0 more are. */
  short: number;
  money: number;
}

/** Ground of which nobody sees the cover, and faces that nobody sees. */
export type HiddenGround = Pick<Entity<'plain'>, 'areas' | 'faces'>;

/** Changes after which some ground is plain, and nothing else is. */
export const plainChanges = (scene: Scene, ground: HiddenGround, id: string): Change[] => [
  ...noPlainChanges(scene),
  ...(ground.areas.length + ground.faces.length > 0
    ? [
        {
          op: 'add' as const,
          kind: 'plain' as const,
          id,
          data: { name: 'Ground that nobody sees', ...ground },
        },
      ]
    : []),
];

/** Changes after which there is no plain ground. */
export const noPlainChanges = (scene: Scene): Change[] =>
  listOf(scene, 'plain').map(({ id, v }) => ({ op: 'remove', kind: 'plain', id, v }));

/**
 * What it saves to lay some ground plain, against none.
 * @param book keeps the counts of blocks: both counts share those without plain ground
 * @returns null where the scene cannot be counted
 */
export function plainSavings(
  compiled: Compiled,
  ground: HiddenGround,
  book: CountCache,
): PlainSavings | null {
  const countWith = (changes: readonly Change[]): MaterialsCount | null => {
    const done = reduce(compiled.scene, changes);
    if (!done.ok) throw new Error(done.refusal.sentence);
    return materialsOf(done.scene, recompile(compiled, done.scene).compiled, book);
  };
  const before = countWith(noPlainChanges(compiled.scene));
  const after = countWith(plainChanges(compiled.scene, ground, 'plain-tried'));
  if (!before || !after) return null;
  const known = compiled.scene.partType;
  const parts = new Map<string | null, FreedPart>();
  for (const [sign, { needs }] of [
    [-1, before],
    [1, after],
  ] as const)
    for (const { section, part, colour, qty } of needs) {
      if (colour !== ANY_COLOUR) continue;
      const freed = parts.get(section) ?? { section, pieces: 0, worth: 0 };
      freed.pieces += sign * qty;
      freed.worth += sign * qty * priceOfPart(part, known).price;
      parts.set(section, freed);
    }
  const pieces = ({ needs }: MaterialsCount) => needs.reduce((sum, { qty }) => sum + qty, 0);
  const short = ({ rows }: MaterialsCount) => rows.reduce((sum, row) => sum + row.short, 0);
  const money = ({ rows }: MaterialsCount) =>
    rows.reduce((sum, row) => sum + row.short * priceOfPart(row.demand.part, known).price, 0);
  return {
    parts: [...parts.values()]
      .filter((part) => part.pieces !== 0)
      .toSorted((a, b) => b.pieces - a.pieces || ((a.section ?? '') < (b.section ?? '') ? -1 : 1)),
    more: pieces(after) - pieces(before),
    short: short(before) - short(after),
    money: money(before) - money(after),
  };
}
