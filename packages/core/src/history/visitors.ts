import { MM_PER_STUD } from '../grid/index.ts';
import {
  appearances,
  castCount,
  characterAt,
  comingWith,
  displayOf,
  isInHand,
  listOf,
  pieceLength,
  type CastScene,
  type Scene,
} from '../document/index.ts';

// What visitors are told: how much there is, the story in its order, and what they may look for.

/** What the numbers are made of. */
type CountedScene = CastScene &
  Pick<Scene, 'display' | 'plot' | 'hill' | 'module' | 'person' | 'session' | 'way' | 'track'>;
/** One number that is told with pride. */
export interface Total {
  word: string;
  count: number;
  /** Of numbers that are measured. */
  unit?: 'km' | 'm' | 'h';
}

const MM_PER_M = 1000;
const M_PER_KM = 1000;

/** The length of all ways and tracks at the display's scale, m. */
function wayMetres(scene: CountedScene): number {
  const lines = listOf(scene, 'way').flatMap(({ points }) =>
    points.slice(1).map((point, i) => Math.hypot(point.x - points[i].x, point.y - points[i].y)),
  );
  const rails = listOf(scene, 'track').flatMap(({ pieces }) => pieces.map(pieceLength));
  const studs = [...lines, ...rails].reduce((sum, length) => sum + length, 0);
  return (studs * MM_PER_STUD * displayOf(scene).ratio) / MM_PER_M;
}

/**
 * The numbers of a display in the version that is shown, the largest matters first; nothing that there is none of.
 * @param pieces as counted, without spares; null: not counted
 */
export const totalsOf = (scene: CountedScene, pieces: number | null): Total[] =>
  numbersOf(scene, pieces).map((total) =>
    total.unit === 'm' && total.count >= M_PER_KM
      ? { ...total, count: Number((total.count / M_PER_KM).toFixed(1)), unit: 'km' }
      : total,
  );

/** The same, lengths in metres however long. */
function numbersOf(scene: CountedScene, pieces: number | null): Total[] {
  const cast = { figure: 0, animal: 0, vehicle: 0 };
  for (const figure of listOf(scene, 'figure')) {
    const counts = castCount(scene, figure);
    cast.figure += counts.figure;
    cast.animal += counts.animal;
    cast.vehicle += counts.vehicle;
  }
  const count = (kind: 'figure' | 'plot' | 'hill' | 'module' | 'person') => Object.keys(scene[kind]).length;
  const minutes = listOf(scene, 'session').reduce((sum, session) => sum + (session.minutes ?? 0), 0);
  const all: Total[] = [
    { word: 'pieces', count: pieces ?? 0 },
    { word: 'figures in scenes', count: cast.figure },
    { word: 'animals', count: cast.animal },
    { word: 'vehicles in scenes', count: cast.vehicle },
    { word: 'small scenes', count: count('figure') },
    { word: 'buildings', count: count('plot') },
    { word: 'hills', count: count('hill') },
    { word: 'modules', count: count('module') },
    { word: 'builders', count: count('person') },
    { word: 'hours at the table', count: Math.round(minutes / 60), unit: 'h' },
    {
      word: `of way and track at 1:${displayOf(scene).ratio}`,
      count: Math.round(wayMetres(scene)),
      unit: 'm',
    },
  ];
  return all.filter((total) => total.count > 0);
}

/** A number of two moments or versions; of a length in metres, which its word says. */
export interface TotalChange {
  word: string;
  before: number;
  after: number;
}

/** The numbers of two scenes side by side, pieces left out; 0 where there is none of it in one of them. */
export function compareTotals(before: CountedScene, after: CountedScene): TotalChange[] {
  const measured = (scene: CountedScene) =>
    new Map(
      numbersOf(scene, null).map(({ word, count, unit }) => [unit === 'm' ? `m ${word}` : word, count]),
    );
  const [was, now] = [measured(before), measured(after)];
  return [...new Set([...now.keys(), ...was.keys()])].map((word) => ({
    ...{ word, before: was.get(word) ?? 0, after: now.get(word) ?? 0 },
  }));
}

/** A small scene of the story. */
export interface StoryScene {
  order: number;
  name: string;
  /** What happens. */
  story: string;
  /** Who plays in it, of those whose names the public may read. */
  cast: string[];
}

/** What visitors may look for. */
export interface Find {
  word: string;
  count: number;
  /** The small scenes that hold them: for the crew, not for those who look. */
  where: string[];
}

/** Small scenes that are in the story, in its order. */
export const storyOf = (scene: CastScene): StoryScene[] =>
  listOf(scene, 'figure')
    .flatMap((figure) => (figure.order === null ? [] : [{ figure, order: figure.order }]))
    .toSorted((a, b) => a.order - b.order || (a.figure.name < b.figure.name ? -1 : 1))
    .map(({ figure, order }) => ({
      ...{ order, name: figure.name, story: figure.story },
      cast: figure.spots.flatMap((spot) => {
        const named = characterAt(scene, spot);
        return (named ? comingWith(scene, named) : []).filter((one) => one.named).map(({ name }) => name);
      }),
    }));

/** What visitors may look for, by its word: of characters in hand that stand in a small scene. */
export function findsOf(scene: CastScene): Find[] {
  const stands = appearances(scene);
  const finds = new Map<string, Find>();
  for (const character of listOf(scene, 'character')) {
    const places = stands.get(character.id) ?? [];
    if (character.seek === '' || places.length === 0 || !isInHand(scene, character)) continue;
    const key = character.seek.toLowerCase();
    const find = finds.get(key) ?? { word: character.seek, count: 0, where: [] };
    find.count += character.count;
    find.where = [...new Set([...find.where, ...places.map(({ figure }) => figure.name)])].sort();
    finds.set(key, find);
  }
  return [...finds.values()].toSorted((a, b) => b.count - a.count || (a.word < b.word ? -1 : 1));
}
