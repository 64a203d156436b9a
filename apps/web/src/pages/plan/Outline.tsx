import { ChevronRight } from 'lucide-react';
import { useMemo, useState } from 'react';
import { toast } from 'sonner';
import { countOf, MM_PER_STUD } from '@quarry/core/grid';
import { fileName } from '@quarry/core/formats';
import { metresOf } from '@quarry/core/scale';
import { footprintBounds } from '@quarry/core/terrain';
import {
  KINDS,
  displayOf,
  labelOf,
  listOf,
  setOut,
  writePieceFile,
  type Kind,
  type Scene,
} from '@quarry/core/document';
import { currentContents } from '@quarry/core/venue';
import { PLACED } from '../../board/kinds/index.ts';
import { placeOf } from '../../board/place.ts';
import { freshId, useDisplay, useEdit, useDenialReason, useScene } from '../../data/useDisplay.tsx';
import { useView, type Picked } from '../../data/view.ts';
import { Empty, Heading, DefinitionRow } from '../../ui/parts.tsx';
import { RemoveButton } from '../../ui/rows.tsx';
import { defaultLevel } from '../../board/kinds/make.ts';
import { OtherPieces } from './OtherPieces.tsx';
import { save } from '../../ui/save.ts';
import { capital } from '../../ui/words.ts';
import { later } from '../../ui/later.tsx';

const ResizeDialog = later(() => import('../../ui/ResizeDialog.tsx').then((file) => file.ResizeDialog));
const SkylineDialog = later(() => import('./elevation/SkylineDialog.tsx').then((file) => file.SkylineDialog));

/** Everything there is, by kind: the board for those who do not use a pointer. */
export function EntityList() {
  const scene = useScene('display', 'footprint');
  const display = displayOf(scene);
  const bounds = footprintBounds(scene);
  const [search, setSearch] = useState('');
  const [looking, setLooking] = useState(false);
  const { resizing, setResizing } = useView();
  const hasPlots = useDisplay(({ scene: { plot } }) => Object.keys(plot).length > 0);
  return (
    <>
      <div className="flex items-baseline justify-between gap-2">
        <h2 className="font-bold text-base">Whole display</h2>
        {bounds && (
          <button
            type="button"
            className="link link-hover text-secondary text-xs"
            onClick={() => setResizing(true)}
          >
            Resize …
          </button>
        )}
      </div>
      {hasPlots && (
        <button type="button" className="btn btn-xs my-1" onClick={() => setLooking(true)}>
          Street elevation
        </button>
      )}
      {looking && <SkylineDialog onClose={() => setLooking(false)} />}
      {resizing && <ResizeDialog open onClose={() => setResizing(false)} />}
      <dl>
        {bounds && (
          <DefinitionRow
            label="Scene"
            note={`${(bounds.w * MM_PER_STUD).toLocaleString('en')} × ${(bounds.d * MM_PER_STUD).toLocaleString('en')} mm`}
          >
            {bounds.w} × {bounds.d} st
          </DefinitionRow>
        )}
        {bounds && (
          <DefinitionRow label={`Shows, at 1:${display.ratio}`}>
            {metresOf(bounds.w, display.ratio).toFixed(0)} × {metresOf(bounds.d, display.ratio).toFixed(0)} m
          </DefinitionRow>
        )}
      </dl>
      {!bounds && (
        <Empty title="Begin with the footprint">
          Press F and draw the ground the scene stands on; then pads, hills and water on it, ways across, and
          plots.
        </Empty>
      )}
      <Heading>Outline</Heading>
      <input
        type="search"
        className="input input-xs w-full mb-1"
        placeholder="Search by name or kind"
        aria-label="Search the outline"
        value={search}
        onChange={(event) => setSearch(event.currentTarget.value)}
      />
      {PLACED.map((kind) => (
        <Group
          key={kind}
          kind={kind}
          search={search.trim().toLowerCase()}
          startsOpen={kind === 'plot' || kind === 'section'}
        />
      ))}
      <Pieces />
      <OtherPieces />
    </>
  );
}

const PLURALS: Partial<Record<Kind, string>> = {
  terrain: 'imported ground',
  water: 'still water',
  cavity: 'cavities',
  run: 'walls and fences',
  reserved: 'reserved ground',
  supply: 'power supplies',
  device: 'lights and motors',
};

/** Kept pieces, to be placed in the middle of the scene. */
function Pieces() {
  const scene = useDisplay(({ scene }) => scene);
  const edit = useEdit();
  const may = useDenialReason();
  const pickAll = useView((view) => view.pickAll);
  const bounds = footprintBounds(scene);
  const pieces = listOf(scene, 'piece');
  if (pieces.length === 0 || !bounds) return null;
  return (
    <>
      <Heading aside={String(pieces.length)}>Pieces</Heading>
      {pieces.map(({ id, v, name, w, d, things, grounds }) => (
        <div key={id} className="border-b hair py-1">
          <div className="flex items-center gap-1">
            <span className="flex-1 truncate">
              {name}{' '}
              <span className="ink-2 text-xs">
                {w} × {d} studs, {countOf(things.length, 'thing')}
              </span>
            </span>
            <button
              type="button"
              className="btn btn-xs"
              disabled={may({ op: 'add', kind: 'pad', id: 'x', data: { ...bounds } }) !== null}
              onClick={() => {
                const at = {
                  x: Math.round(bounds.x + (bounds.w - w) / 2),
                  y: Math.round(bounds.y + (bounds.d - d) / 2),
                };
                const out = setOut(scene, id, at, defaultLevel(scene).id, freshId);
                if (!out.ok) toast.error(out.error);
                else if (edit.change(`set out ${name}`, out.changes)) pickAll(out.picks);
              }}
            >
              Set out
            </button>
            <button
              type="button"
              className="btn btn-xs"
              aria-label={`Save ${name} as a file`}
              title="A file that other displays read"
              onClick={() =>
                save(
                  new Blob([writePieceFile({ name, w, d, things, grounds })], { type: 'application/json' }),
                  fileName([name], 'piece.json'),
                )
              }
            >
              Save
            </button>
            <RemoveButton
              what={name}
              disabled={may({ op: 'remove', kind: 'piece', id, v }) !== null}
              onClick={() => edit.remove(`removed the piece ${name}`, 'piece', id, v)}
            />
          </div>
        </div>
      ))}
    </>
  );
}

const collator = new Intl.Collator('en', { numeric: true });

/** How many of a kind the outline lists; the finder reaches the rest. */
const MAX_LISTED = 120;

function Group({
  kind,
  search,
  startsOpen,
}: {
  kind: (typeof PLACED)[number];
  search: string;
  startsOpen: boolean;
}) {
  const scene = useDisplay(({ scene }) => scene);
  const show = useView((view) => view.show);
  const [open, setOpen] = useState(startsOpen);
  const all = useMemo(() => {
    const list = kind === 'table' ? currentContents(scene, kind) : listOf(scene, kind);
    // “House 9” before “House 10”.
    return list
      .map(({ id }) => ({ id, label: capital(labelOf(scene, kind, id)) }))
      .sort((a, b) => collator.compare(a.label, b.label));
  }, [scene, kind]);
  const things =
    search === ''
      ? all
      : all.filter(({ label }) => `${KINDS[kind].word} ${label}`.toLowerCase().includes(search));
  const isOpen = open || (search !== '' && things.length > 0);
  // What there is none of is left out, except for what a display begins with.
  if (
    things.length === 0 &&
    (search !== '' || !['table', 'footprint', 'section', 'plot', 'pad'].includes(kind))
  )
    return null;
  return (
    <details
      open={isOpen}
      onToggle={(event) => setOpen(event.currentTarget.open)}
      className="border-b hair py-1"
    >
      <summary className="cursor-pointer flex items-center gap-1">
        <ChevronRight size={12} aria-hidden className="[details[open]_&]:rotate-90" />
        <span className="flex-1">{capital(PLURALS[kind] ?? `${KINDS[kind].word}s`)}</span>
        <span className="fig ink-2">{things.length}</span>
      </summary>
      {isOpen && (
        <ul>
          {things.slice(0, MAX_LISTED).map(({ id, label }) => (
            <li key={id}>
              <button
                type="button"
                className="link link-hover text-left pl-4 w-full truncate"
                onClick={() => show(middle(scene, kind, id), { kind, id })}
              >
                {label} <span className="ink-2 text-xs">{detail(scene, { kind, id })}</span>
              </button>
            </li>
          ))}
          {things.length > MAX_LISTED && (
            <li className="ink-2 text-xs pl-4">
              and {things.length - MAX_LISTED} more: find them with Ctrl K
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
    : `${[place.w, place.d].filter((side) => side > 0).join(' × ')} studs`;
}
