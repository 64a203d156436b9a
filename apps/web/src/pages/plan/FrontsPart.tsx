import { Suspense, lazy, useState } from 'react';
import { partName } from '@quarry/core/catalogue';
import { countOf, formatPlates } from '@quarry/core/grid';
import type { Entity } from '@quarry/core/document';
import { frontsOf, gableOf } from '@quarry/core/structures';
import { DefinitionRow, Heading, Quantity } from '../../ui/parts.tsx';

const ElevationDialog = lazy(() =>
  import('./elevation/ElevationDialog.tsx').then((file) => ({ default: file.ElevationDialog })),
);

/** How the fronts of a building are divided, and the way to their drawing. */
export function FrontsPart({ plot, disabled }: { plot: Entity<'plot'>; disabled: boolean }) {
  const [isOpen, setIsOpen] = useState(false);
  const bays = frontsOf(plot).flatMap((front) => front.bays);
  const letIn = bays.filter(({ opening }) => opening !== null).length;
  const out = bays.filter(({ fault }) => fault !== null).length;
  const gable = gableOf(plot);
  return (
    <>
      <Heading>Fronts and roof</Heading>
      <dl>
        <DefinitionRow label="Bays" note={out > 0 ? `△ ${countOf(out, 'part')} left out` : undefined}>
          {bays.length === 0 ? 'plain walls' : bays.length}
        </DefinitionRow>
        {bays.length > 0 && <DefinitionRow label="Windows, doors, arches">{letIn}</DefinitionRow>}
        {gable && (
          <DefinitionRow
            label="Ridge, laid"
            note={`${countOf(gable.courses, 'course')} of ${partName(gable.slope.id)} a side, ${countOf(gable.flat, 'stud')} of plates on top; planned ${formatPlates(plot.height)}`}
          >
            <Quantity value={gable.ridge} measure="plates" />
          </DefinitionRow>
        )}
      </dl>
      <button type="button" className="btn btn-xs my-1" onClick={() => setIsOpen(true)}>
        Open its fronts
      </button>
      {isOpen && (
        <Suspense fallback={null}>
          <ElevationDialog plot={plot} disabled={disabled} onClose={() => setIsOpen(false)} />
        </Suspense>
      )}
    </>
  );
}
