import {
  displayOf,
  listOf,
  sectionOfEntity,
  shellName,
  type DataOf,
  type Entity,
  type Scene,
} from '../document/index.ts';
import { isSharedWith } from '../terrain/index.ts';
import { shellPieces } from './shell.ts';

// Which list counts the pieces of a building, and the list that its plain shell makes.

/** A list that counts a building: its own, or one that names no building and is shared by all of its section. */
export interface BuildingList {
  list: Entity<'partList'>;
  isOwn: boolean;
}
type Listed = Pick<Scene, 'partList' | 'section'>;

/** The list of needs that counts a building: its own before a shared one; null: none does. */
export const listOfBuilding = (scene: Listed, plot: Entity<'plot'>): BuildingList | null =>
  countingList(scene, buildingLists(scene), plot);

const buildingLists = (scene: Listed) =>
  listOf(scene, 'partList').filter(({ use, purpose }) => use === 'need' && purpose === 'building');

function countingList(
  scene: Listed,
  lists: readonly Entity<'partList'>[],
  plot: Entity<'plot'>,
): BuildingList | null {
  const own = lists.find((list) => list.plot === plot.id);
  if (own) return { list: own, isOwn: true };
  const shared = lists.find((list) => list.plot === null && isSharedWith(scene, list, plot));
  return shared ? { list: shared, isOwn: false } : null;
}

/** The list of a building's pieces, in its colours. */
export function shellList(
  scene: Scene,
  plot: Entity<'plot'>,
): Partial<DataOf<'partList'>> & {
  name: string;
  lines: DataOf<'partList'>['lines'];
} {
  return {
    ...{ name: shellName(plot), use: 'need', purpose: 'building', plot: plot.id },
    section: sectionOfEntity(scene, 'plot', plot.id),
    lines: shellPieces(plot, displayOf(scene)),
    notes: 'Its walls with what is let into them, floors and roof: a guess.',
  };
}

/** Whether a building's own list is the one that its pieces make now, in whatever colours. */
export function isCountedByPieces(scene: Scene, plot: Entity<'plot'>): boolean {
  const counting = listOfBuilding(scene, plot);
  if (!counting?.isOwn || counting.list.copies !== 1) return false;
  const left = new Map<string, number>();
  for (const { part, qty } of shellPieces(plot, displayOf(scene)))
    left.set(part, (left.get(part) ?? 0) + qty);
  for (const { part, qty } of counting.list.lines) left.set(part, (left.get(part) ?? 0) - qty);
  return [...left.values()].every((qty) => qty === 0);
}

/** The buildings that no list counts, by id. */
export function unlistedBuildings(scene: Listed & Pick<Scene, 'plot'>): Entity<'plot'>[] {
  const lists = buildingLists(scene);
  return listOf(scene, 'plot').filter((plot) => countingList(scene, lists, plot) === null);
}
