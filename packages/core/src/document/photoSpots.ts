import type { Entity, Photo } from './schema.ts';
import { listOf, type Scene } from './scene.ts';

// Photos from the same spot, one after the other in time.

/** How near to each other photos are one spot: studs, and degrees of their direction (ours, no source). */
const NEAR_STUDS = 8;
const NEAR_DEGREES = 25;

export interface PhotoSpot {
  /** The first of them in time, then the rest. */
  photos: [Photo, ...Photo[]];
}

type Standpoint = Pick<Photo, 'x' | 'y' | 'bearing' | 'section'>;
/** Whether two photos look the same way from the same place; those without a place are alike in their section. */
export function sameSpot(a: Standpoint, b: Standpoint): boolean {
  if (a.x === null || a.y === null || b.x === null || b.y === null)
    return a.x === b.x && a.y === b.y && a.section !== null && a.section === b.section;
  if (Math.hypot(a.x - b.x, a.y - b.y) > NEAR_STUDS) return false;
  if (a.bearing === null || b.bearing === null) return a.bearing === b.bearing;
  const turn = Math.abs(a.bearing - b.bearing) % 360;
  return Math.min(turn, 360 - turn) <= NEAR_DEGREES;
}

/** The chosen spot that a photo is from: the one of that place and direction; null: of none. */
export const chosenSpotOf = (
  scene: Pick<Scene, 'photoSpot'>,
  photo: Pick<Photo, 'x' | 'y' | 'bearing'> | undefined,
): Entity<'photoSpot'> | null =>
  listOf(scene, 'photoSpot').find(
    (spot) => photo !== undefined && sameSpot({ ...photo, section: null }, { ...spot, section: null }),
  ) ?? null;

/** All photos by spot, each spot by the first photo taken there; the spots with the newest photo first. */
export function photoSpotsOf(scene: Scene): PhotoSpot[] {
  const photos = listOf(scene, 'photo').toSorted((a, b) =>
    a.taken < b.taken ? -1 : a.taken > b.taken ? 1 : a.id < b.id ? -1 : 1,
  );
  const spots: PhotoSpot[] = [];
  for (const photo of photos) {
    const spot = spots.find(({ photos: [first] }) => sameSpot(first, photo));
    if (spot) spot.photos.push(photo);
    else spots.push({ photos: [photo] });
  }
  const newest = ({ photos: list }: PhotoSpot) => list.at(-1)?.taken ?? '';
  return spots.sort((a, b) => (newest(a) > newest(b) ? -1 : 1));
}
