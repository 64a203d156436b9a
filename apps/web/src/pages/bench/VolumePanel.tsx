import { useMemo } from 'react';
import { volumePieces } from '@quarry/core/bench';
import { gramsOfLines, partName } from '@quarry/core/catalogue';
import { MM_PER_PLATE, MM_PER_STUD, formatPlates, formatSum } from '@quarry/core/grid';
import { priceOfLines } from '@quarry/core/masonry';
import { useScene } from '../../data/useDisplay.tsx';
import { DataTable } from '../../ui/DataTable.tsx';
import { CheckField, NumberField, QuantityField } from '../../ui/fields.tsx';
import { DefinitionRow, Heading } from '../../ui/parts.tsx';
import { useKept } from '../../ui/useKept.ts';
import { Calculator, Sketch, SketchText } from './Calculator.tsx';
import { PutButtons } from './PutButtons.tsx';
import { isLike } from './values.ts';

const FIRST = { w: 32, d: 32, h: 18, wall: 2, isHollow: false };
const isFirst = isLike(FIRST);
const MAX_SIDE = 96;

/** A block of a size in pieces, grams and money: solid, or walls closed by plates. */
export function VolumePanel() {
  const [values, set] = useKept('bench volume', FIRST, isFirst);
  const { w, d, h, wall, isHollow } = values;
  const known = useScene('partType').partType;
  const lines = useMemo(
    () => volumePieces({ w, d, h, wall: isHollow ? wall : null }),
    [w, d, h, wall, isHollow],
  );
  const pieces = lines.reduce((sum, { qty }) => sum + qty, 0);
  const grams = gramsOfLines(lines, known);
  const price = priceOfLines(lines, known);
  const name = `${isHollow ? 'Hollow' : 'Solid'} block ${w} × ${d} × ${formatPlates(h)}`;
  const side = (key: 'w' | 'd' | 'wall', label: string, most: number) => (
    <NumberField
      label={label}
      unit="studs"
      whole
      min={1}
      max={most}
      value={values[key]}
      onCommit={(to) => to !== null && set({ ...values, [key]: to })}
    />
  );
  return (
    <Calculator
      label="Block in pieces"
      fields={
        <>
          {side('w', 'Wide', MAX_SIDE)}
          {side('d', 'Deep', MAX_SIDE)}
          <QuantityField
            label="High"
            measure="plates"
            min={1}
            max={600}
            value={h}
            onCommit={(to) => set({ ...values, h: Math.round(to) })}
          />
          <CheckField
            label="Hollow, closed by plates"
            value={isHollow}
            onCommit={(to) => set({ ...values, isHollow: to })}
          />
          {isHollow && side('wall', 'Walls', 16)}
        </>
      }
      drawing={<BlockDrawing w={w} d={d} h={h} wall={isHollow ? wall : null} />}
      basis={
        <>
          Layers of bricks of at most 2×4 that lie over each other’s joints, plates for what is left of the
          height; a hollow one is closed by a layer of plates, which wants pillars under it where it is wider
          than a plate. 32 × 32 × 6 bricks solid are 768 bricks 2×4. Hills and decks of the plan are counted
          by their own methods on Stockpile.
        </>
      }
      acts={
        <PutButtons answer={{ name, text: `${name}: ${pieces} pieces, ${Math.round(grams)} g.`, lines }} />
      }
    >
      <Heading>Answer</Heading>
      <dl>
        <DefinitionRow
          label="Size"
          note={`${w * MM_PER_STUD} × ${d * MM_PER_STUD} × ${(h * MM_PER_PLATE).toFixed(1)} mm`}
        >
          {w} × {d} × {formatPlates(h)}
        </DefinitionRow>
        <DefinitionRow label="Pieces">{pieces.toLocaleString('en')}</DefinitionRow>
        <DefinitionRow label="Mass">
          {grams >= 1000 ? `${(grams / 1000).toFixed(2)} kg` : `${Math.round(grams)} g`}
        </DefinitionRow>
        <DefinitionRow label="Price (guess)">{formatSum(price)}</DefinitionRow>
      </dl>
      <DataTable
        label="Pieces of the block"
        rows={lines}
        keyOf={({ part }) => part}
        columns={[
          { head: 'Piece', cell: ({ part }) => partName(part) },
          { head: 'Pieces', number: true, cell: ({ qty }) => qty.toLocaleString('en') },
        ]}
      />
    </Calculator>
  );
}

/** The block from the front-left, its walls seen from above where it is hollow. */
function BlockDrawing({ w, d, h, wall }: { w: number; d: number; h: number; wall: number | null }) {
  const high = (h * MM_PER_PLATE) / MM_PER_STUD;
  const [sx, sy] = [d * 0.5, d * 0.35];
  const size = Math.max(w + sx, high + sy) / 34;
  const top = (by: number) =>
    [
      [by * 1.5, sy - by * 0.35],
      [w - by * 0.5, sy - by * 0.35],
      [w + sx - by * 1.5, by * 0.35],
      [sx + by * 0.5, by * 0.35],
    ]
      .map((point) => point.join(','))
      .join(' ');
  return (
    <Sketch
      label={`A block of ${w} × ${d} studs, ${formatPlates(h)} high`}
      box={{ x: -3 * size, y: -3 * size, w: w + sx + 6 * size, d: high + sy + 6 * size }}
    >
      <polygon points={top(0)} className="fill-base-100" />
      {wall !== null && 2 * wall < Math.min(w, d) && (
        <polygon points={top(wall)} strokeDasharray="4 3" className="fill-base-200" />
      )}
      <rect x={0} y={sy} width={w} height={high} className="fill-base-200" />
      <polygon
        points={`${w},${sy} ${w + sx},0 ${w + sx},${high} ${w},${sy + high}`}
        className="fill-base-300"
      />
      <SketchText x={w / 2} y={sy + high + 2 * size} size={size}>
        {w} studs
      </SketchText>
    </Sketch>
  );
}
