import { useState } from 'react';
import { partName } from '@quarry/core/catalogue';
import { countOf, formatPlates } from '@quarry/core/grid';
import type { Entity } from '@quarry/core/document';
import { frontsOf } from '@quarry/core/structures';
import { ringRoofOf, slopedRoofOf, type SlopedRoof } from '@quarry/core/terrain';
import { DefinitionRow, Heading, Quantity } from '../../ui/parts.tsx';
import { later } from '../../ui/later.tsx';

const ElevationDialog = later(() =>
  import('./elevation/ElevationDialog.tsx').then((file) => file.ElevationDialog),
);

const FloorsDialog = later(() => import('./floors/FloorsDialog.tsx').then((file) => file.FloorsDialog));

/** The courses of a roof from the eaves up. */
function pitchWords({ pitches }: SlopedRoof, { lowerSlope, lowerCourses }: Entity<'plot'>): string {
  const [lower] = pitches;
  if (!lower) return 'no room for a course of slopes on';
  const missing = lower.slope.id === lowerSlope && lower.courses < lowerCourses;
  return pitches
    .map(({ slope, courses }) => `${countOf(courses, 'course')} of ${partName(slope.id)}`)
    .map((words, i) => (i === 0 && missing ? `${words} (no room for ${lowerCourses})` : words))
    .join(', then ');
}

/** How the fronts of a building are divided, and the way to the drawings of its fronts and floors. */
export function FrontsPart({ plot, disabled }: { plot: Entity<'plot'>; disabled: boolean }) {
  const [open, setOpen] = useState<'fronts' | 'floors' | null>(null);
  const close = () => setOpen(null);
  const bays = frontsOf(plot).flatMap((front) => front.bays);
  const letIn = bays.filter(({ opening }) => opening !== null).length;
  const out = bays.filter(({ fault }) => fault !== null).length;
  const roof = slopedRoofOf(plot);
  const round = ringRoofOf(plot);
  return (
    <>
      <Heading>Fronts, floors and roof</Heading>
      <dl>
        <DefinitionRow label="Bays" note={out > 0 ? `△ ${countOf(out, 'part')} left out` : undefined}>
          {bays.length === 0 ? 'plain walls' : bays.length}
        </DefinitionRow>
        {bays.length > 0 && <DefinitionRow label="Windows, doors, arches">{letIn}</DefinitionRow>}
        {roof && (
          <DefinitionRow
            label="Ridge, laid"
            note={`${pitchWords(roof, plot)} a side, ${countOf(roof.flat, 'stud')} of plates on top; planned ${formatPlates(plot.height)}`}
          >
            <Quantity value={roof.ridge} measure="plates" />
          </DefinitionRow>
        )}
        {round && (
          <DefinitionRow
            label="Top, laid"
            note={`${countOf(round.rings.length, 'ring')} of bricks, each drawn in${round.hasFloor ? ', on a floor: too flat to close over the room' : ''}; planned ${formatPlates(plot.height)}`}
          >
            <Quantity value={round.top} measure="plates" />
          </DefinitionRow>
        )}
      </dl>
      <p className="flex gap-1 py-1">
        <button type="button" className="btn btn-xs" onClick={() => setOpen('fronts')}>
          Open its fronts
        </button>
        <button type="button" className="btn btn-xs" onClick={() => setOpen('floors')}>
          Open its floors
        </button>
      </p>
      {open === 'fronts' && <ElevationDialog plot={plot} disabled={disabled} onClose={close} />}
      {open === 'floors' && <FloorsDialog plot={plot} disabled={disabled} onClose={close} />}
    </>
  );
}
