import { useMemo, useState } from 'react';
import { toast } from 'sonner';
import { countGrid, gridRect, terrainParts, type HeightsAs } from '@quarry/core/formats';
import { MM_PER_STUD, formatPlates, present, type Rect } from '@quarry/core/grid';
import { footprintBounds } from '@quarry/core/terrain';
import type { Change, Scene } from '@quarry/core/document';
import { freshId, useDisplay, useEdit } from '../../data/useDisplay.tsx';
import { useView } from '../../data/view.ts';
import { QuantityField, SelectField } from '../../ui/fields.tsx';
import { Dialog, DefinitionRow } from '../../ui/parts.tsx';
import { defaultLevel } from '../../board/kinds/make.ts';
import type { ReadHeights } from './imports.ts';

/** The highest and deepest ground of a display, plates. */
const MAX_PLATES = 3000;
const range = { measure: 'plates', min: -MAX_PLATES, max: MAX_PLATES } as const;
/** Samples that are sent at once, characters. */
const MAX_SENT = 3_000_000;

type Where = 'file' | 'corner' | 'display';

/** What a height file holds, where it is laid and how high: asked before it becomes ground. */
export function HeightsDialog({ heights, onDone }: { heights: ReadHeights; onDone: () => void }) {
  const scene = useDisplay(({ scene }) => scene);
  const edit = useEdit();
  const pickAll = useView((view) => view.pickAll);
  const { grid } = heights;
  const count = useMemo(() => countGrid(grid), [grid]);
  const places = useMemo(() => placesOf(scene, heights), [scene, heights]);
  const asPlates = Math.abs(count.lowest) <= MAX_PLATES && Math.abs(count.highest) <= MAX_PLATES;
  const [where, setWhere] = useState<Where | null>(null);
  // A grid with a cell size holds heights in plates; a grey map has only shares of the whole.
  const [as, setAs] = useState<HeightsAs['as']>(grid.cell !== null && asPlates ? 'plates' : 'spread');
  const [low, setLow] = useState(0);
  const [high, setHigh] = useState(30);
  const place = present(places.find(({ value }) => value === where) ?? places[0], 'a place for the heights');
  const level = defaultLevel(scene);
  const levelName = scene.level[level.id]?.name ?? 'Ground';
  const fault =
    as === 'spread' && low >= high
      ? `The lowest, ${formatPlates(low)}, must be below the highest, ${formatPlates(high)}.`
      : null;

  const lay = () => {
    const parts = terrainParts(grid, place.rect, as === 'plates' ? { as } : { as, low, high });
    if (parts.length === 0) {
      toast.error(`“${heights.file}” has no height at any stud of ${studsOf(place.rect)}.`);
      return;
    }
    const base = scene.level[level.id]?.height ?? 3;
    const adds = parts.map((part, i): Change => {
      const name = parts.length === 1 ? heights.name : `${heights.name} ${i + 1}`;
      const offset = as === 'plates' ? -base : 0;
      const notes = `From ${heights.file}: ${grid.columns} × ${grid.rows} cells, ${count.lowest} to ${count.highest}.`;
      const data = { ...part, name, level: level.id, offset, notes: notes.slice(0, 2000) };
      return { op: 'add', kind: 'terrain', id: freshId('terrain'), data };
    });
    let batch: Change[] = [...level.before];
    let size = 0;
    let laid = true;
    const send = () => {
      if (batch.length > 0) laid = edit.change(`laid the ground ${heights.name}`, batch) && laid;
      [batch, size] = [[], 0];
    };
    adds.forEach((add, i) => {
      const length = parts[i]?.samples.length ?? 0;
      if (size + length > MAX_SENT) send();
      batch.push(add);
      size += length;
    });
    send();
    if (laid) {
      pickAll(adds.map(({ id }) => ({ kind: 'terrain', id })));
      toast.success(
        `“${heights.file}” lies over ${studsOf(place.rect)}${parts.length > 1 ? `, in ${parts.length} parts` : ''}.`,
      );
    }
    onDone();
  };

  const n = (value: number) => value.toLocaleString('en');
  return (
    <Dialog title={`Heights of ${heights.file}`} open onClose={onDone}>
      <dl>
        <DefinitionRow label="Cells">
          {n(grid.columns)} × {n(grid.rows)}
          {grid.cell !== null && `, ${n(grid.cell)} mm each (a stud is ${MM_PER_STUD} mm)`}
        </DefinitionRow>
        <DefinitionRow label="Values">
          {n(count.lowest)} to {n(count.highest)}
        </DefinitionRow>
        <DefinitionRow
          label="Without a value"
          note={count.gaps > 0 ? 'their studs stay as they are' : undefined}
        >
          {count.gaps === 0 ? 'none' : `${n(count.gaps)} cells`}
        </DefinitionRow>
        {as === 'plates' && count.broken > 0 && (
          <DefinitionRow label="Not whole plates" note="rounded to the nearest">
            {n(count.broken)} cells
          </DefinitionRow>
        )}
      </dl>
      <div className="py-2">
        <SelectField
          label="Where"
          value={place.value}
          options={places.map(({ value, word }) => ({ value, word }))}
          onCommit={setWhere}
        />
        <p className="ink-2 text-xs">
          Over {studsOf(place.rect)}
          {sticksOut(scene, place.rect) && '; what lies beyond the edge of the display does not show'}
        </p>
        <SelectField
          label="A value is"
          value={as}
          options={[
            ...(asPlates ? [{ value: 'plates' as const, word: 'plates above the datum' }] : []),
            { value: 'spread' as const, word: 'a share of a height' },
          ]}
          onCommit={setAs}
        />
        {as === 'spread' && (
          <>
            <QuantityField label="Lowest" value={low} {...range} onCommit={setLow} />
            <QuantityField label="Highest" value={high} {...range} onCommit={setHigh} />
          </>
        )}
        <p className="ink-2 text-xs">
          {as === 'plates'
            ? `From ${formatPlates(Math.floor(count.lowest))} to ${formatPlates(Math.ceil(count.highest))} above the datum`
            : `From ${formatPlates(low)} to ${formatPlates(high)} above the level ${levelName}`}
        </p>
        {fault && (
          <p role="alert" className="text-error text-xs">
            {fault}
          </p>
        )}
      </div>
      <button type="button" className="btn btn-sm btn-primary" disabled={fault !== null} onClick={lay}>
        Lay as ground
      </button>
    </Dialog>
  );
}

/** Where a grid can be laid, the likeliest first. */
function placesOf(
  scene: Scene,
  { grid }: ReadHeights,
): readonly { value: Where; word: string; rect: Rect }[] {
  const whole = footprintBounds(scene) ?? { x: 0, y: 0, w: 96, d: 96 };
  const own = gridRect(grid);
  const stud = (grid.cell ?? MM_PER_STUD) / MM_PER_STUD;
  const corner = { x: whole.x, y: whole.y, w: grid.columns * stud, d: grid.rows * stud };
  const sized = { value: 'corner' as const, word: 'in its own size, from the corner', rect: corner };
  return [
    ...(own ? [{ value: 'file' as const, word: 'as the file says', rect: own }] : []),
    ...(grid.cell === null ? [] : [sized]),
    { value: 'display' as const, word: 'over the whole display', rect: whole },
    ...(grid.cell === null ? [sized] : []),
  ];
}

const round = (value: number) => Number(value.toFixed(2)).toLocaleString('en');
const studsOf = ({ x, y, w, d }: Rect) =>
  `studs ${round(x)} to ${round(x + w)} east, ${round(y)} to ${round(y + d)} south`;

function sticksOut(scene: Scene, { x, y, w, d }: Rect): boolean {
  const whole = footprintBounds(scene);
  if (!whole) return false;
  return x < whole.x || y < whole.y || x + w > whole.x + whole.w || y + d > whole.y + whole.d;
}
