import { listOf, type Scene } from '../document/index.ts';
import { priceOfPart } from '../masonry/index.ts';
import type { Need } from '../materials/index.ts';

// What the display is worth, by who owns it: for an insurance.

export interface OwnedValue {
  /** Person; null: nobody’s section, or no section. */
  owner: string | null;
  name: string;
  /** Letters of the sections. */
  sections: string[];
  pieces: number;
  /** To buy the pieces again, money of the display. */
  money: number;
  /** Of it by guessed prices. */
  guessed: number;
}

/** Pieces and money by owner of the section they are for, the most first. @param needs without spares */
export function valuesByOwner(scene: Scene, needs: readonly Need[]): OwnedValue[] {
  const rows = new Map<string | null, OwnedValue>();
  const rowOf = (owner: string | null): OwnedValue => {
    const known = rows.get(owner);
    if (known) return known;
    const name = owner === null ? 'nobody’s' : (scene.person[owner]?.name ?? owner);
    const fresh = { owner, name, sections: [], pieces: 0, money: 0, guessed: 0 };
    rows.set(owner, fresh);
    return fresh;
  };
  for (const { owner, letter } of listOf(scene, 'section')) rowOf(owner).sections.push(letter);
  for (const { section, part, qty } of needs) {
    const row = rowOf(section === null ? null : (scene.section[section]?.owner ?? null));
    const { price, guess } = priceOfPart(part, scene.partType);
    row.pieces += qty;
    row.money += qty * price;
    if (guess) row.guessed += qty * price;
  }
  return [...rows.values()]
    .filter(({ pieces }) => pieces > 0)
    .map((row) => ({ ...row, sections: row.sections.sort() }))
    .sort((a, b) => b.money - a.money || (a.name < b.name ? -1 : 1));
}
