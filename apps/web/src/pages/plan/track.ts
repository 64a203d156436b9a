import type { DataOf, Track } from '@quarry/core/document';

/** A track with one piece more, like its last of that sort. */
export function extendTrack(
  { pieces }: Track,
  go: 'straight' | 'left' | 'right',
): Pick<DataOf<'track'>, 'pieces'> {
  const like = pieces.findLast((piece) => (piece.go === 'straight') === (go === 'straight'));
  return { pieces: [...pieces, { length: 16, radius: 40, ...like, go, rise: 0 }] };
}
