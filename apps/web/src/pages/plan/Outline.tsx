import { ChevronRight } from 'lucide-react';
import { useState } from 'react';
import { MM_PER_STUD } from '@quarry/core/lattice';
import { metresOf } from '@quarry/core/scale';
import { footprintBounds } from '@quarry/core/relief';
import { KINDS, displayOf, labelOf, listOf, type Kind, type Scene } from '@quarry/core/scene';
import { hereOf } from '@quarry/core/site';
import { PLACED, placeOf } from '../../board/pick.ts';
import { useDisplay } from '../../data/useDisplay.tsx';
import { useView, type Picked } from '../../data/view.ts';
import { Empty, Heading, Line } from '../../ui/parts.tsx';
import { capital } from '../../ui/words.ts';

/** Everything there is, by kind: the board for those who do not use a pointer. */
export function Outline() {
  const { scene } = useDisplay();
  const display = displayOf(scene);
  const bounds = footprintBounds(scene);
  return (
    <>
      <h2 className="font-bold text-base">Whole display</h2>
      <dl>
        {bounds && (
          <Line
            label="Scene"
            note={`${(bounds.w * MM_PER_STUD).toLocaleString('en')} × ${(bounds.d * MM_PER_STUD).toLocaleString('en')} mm`}
          >
            {bounds.w} × {bounds.d} st
          </Line>
        )}
        {bounds && (
          <Line label={`Shows, at 1:${display.ratio}`}>
            {metresOf(bounds.w, display.ratio).toFixed(0)} × {metresOf(bounds.d, display.ratio).toFixed(0)} m
          </Line>
        )}
      </dl>
      {!bounds && (
        <Empty title="Begin with the footprint">
          Press F and draw the ground the scene stands on; then a table under it, levels on the Brief, and
          pads.
        </Empty>
      )}
      <Heading>Outline</Heading>
      {PLACED.map((kind) => (
        <Group key={kind} kind={kind} startsOpen={kind === 'plot' || kind === 'section'} />
      ))}
    </>
  );
}

/** How many of a kind the outline lists; the finder reaches the rest. */
const MOST_LISTED = 120;

function Group({ kind, startsOpen }: { kind: (typeof PLACED)[number]; startsOpen: boolean }) {
  const { scene } = useDisplay();
  const show = useView((view) => view.show);
  const [open, setOpen] = useState(startsOpen);
  const things = kind === 'table' ? hereOf(scene, kind) : listOf(scene, kind);
  return (
    <details
      open={open}
      onToggle={(event) => setOpen(event.currentTarget.open)}
      className="border-b hair py-1"
    >
      <summary className="cursor-pointer flex items-center gap-1">
        <ChevronRight size={12} aria-hidden className="[details[open]_&]:rotate-90" />
        <span className="flex-1">{capital(KINDS[kind].word)}s</span>
        <span className="fig ink-2">{things.length}</span>
      </summary>
      {open && (
        <ul>
          {things.slice(0, MOST_LISTED).map(({ id }) => (
            <li key={id}>
              <button
                type="button"
                className="link link-hover text-left pl-4 w-full truncate"
                onClick={() => show(middle(scene, kind, id), { kind, id })}
              >
                {capital(labelOf(scene, kind, id))}{' '}
                <span className="ink-2 text-xs">{detail(scene, { kind, id })}</span>
              </button>
            </li>
          ))}
          {things.length > MOST_LISTED && (
            <li className="ink-2 text-xs pl-4">
              and {things.length - MOST_LISTED} more: find them with Ctrl K
            </li>
          )}
        </ul>
      )}
    </details>
  );
}

function middle(scene: Scene, kind: Kind, id: string): { x: number; y: number } | null {
  const place = placeOf(scene, { kind, id });
  return place && { x: place.x + place.w / 2, y: place.y + place.d / 2 };
}

function detail(scene: Scene, picked: Picked): string {
  const place = placeOf(scene, picked);
  if (!place) return '';
  return picked.kind === 'table'
    ? `${Math.round(place.w * MM_PER_STUD)} × ${Math.round(place.d * MM_PER_STUD)} mm`
    : `${place.w} × ${place.d} studs`;
}
