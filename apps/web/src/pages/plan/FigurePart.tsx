import { Link } from 'react-router';
import { countOf } from '@quarry/core/grid';
import { castCount, castWords, type Entity } from '@quarry/core/document';
import { useLink, useScene } from '../../data/useDisplay.tsx';

/** Who plays in a small scene, and the way to where its spots are set. */
export function FigurePart({ figure }: { figure: Entity<'figure'> }) {
  const scene = useScene('character');
  const { id } = useLink();
  return (
    <p className="py-1 ink-2">
      {figure.spots.length > 0
        ? `${castWords(castCount(scene, figure))} in ${countOf(figure.spots.length, 'spot')}. `
        : 'No spots yet. '}
      <Link className="act link inline-flex min-h-6 items-center" to={`/d/${id}/brief?sheet=cast`}>
        {figure.spots.length > 0 ? 'Spots and who takes them' : 'Give it spots and a cast'}
      </Link>
    </p>
  );
}
