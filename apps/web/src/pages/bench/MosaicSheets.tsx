import { useMemo, useRef } from 'react';
import { NO_PIECE, mosaicMarks, type Mosaic, type MosaicSheet } from '@quarry/core/bench';
import { colourName, colourOf } from '@quarry/core/catalogue';
import { fileName } from '@quarry/core/formats';
import { MM_PER_STUD } from '@quarry/core/grid';
import { DataTable, type Column } from '../../ui/DataTable.tsx';
import { SelectField } from '../../ui/fields.tsx';
import { Heading } from '../../ui/parts.tsx';
import { save } from '../../ui/save.ts';
import { Swatch } from '../../ui/Swatch.tsx';

/** The colour of a row, shown and named. */
export const COLOUR_COLUMN: Column<{ colour: string }> = {
  head: 'Colour',
  cell: ({ colour }) => (
    <span className="inline-flex items-center gap-1.5">
      <Swatch colour={colour} /> {colourName(colour)}
    </span>
  ),
};

/** The modules of the picture, and all of it. */
export function SheetPicker({
  sheets,
  picked,
  onPick,
}: {
  sheets: readonly MosaicSheet[];
  picked: string | null;
  onPick: (id: string | null) => void;
}) {
  return (
    <SelectField
      label="Sheet"
      value={picked ?? WHOLE}
      options={[
        { value: WHOLE, word: 'The whole picture' },
        ...sheets.map(({ id, w, d }) => ({ value: id, word: `Module ${id}, ${w} × ${d}` })),
      ]}
      onCommit={(id) => onPick(id === WHOLE ? null : id)}
    />
  );
}
const WHOLE = 'whole';

/** The pieces of one module. */
export function SheetCounts({ sheet: { id, counts } }: { sheet: MosaicSheet }) {
  return (
    <>
      <Heading>Module {id}</Heading>
      <DataTable
        label={`Pieces of module ${id}`}
        rows={counts}
        keyOf={({ colour }) => colour}
        columns={[
          { head: 'Mark', cell: ({ mark }) => <b className="fig">{mark}</b> },
          COLOUR_COLUMN,
          { head: 'Pieces', number: true, cell: ({ qty }) => qty.toLocaleString('en') },
        ]}
      />
    </>
  );
}

/** One module stud by stud with the marks of its colours, saved at its true size to be laid on. */
export function SheetDrawing({ mosaic, sheet, name }: { mosaic: Mosaic; sheet: MosaicSheet; name: string }) {
  const svg = useRef<SVGSVGElement>(null);
  const marks = useMemo(() => mosaicMarks(mosaic), [mosaic]);
  const { id, x, y, w, d } = sheet;
  const [wide, deep] = [w * MM_PER_STUD, d * MM_PER_STUD];
  return (
    <div className="m-auto w-full max-h-full flex flex-col items-center gap-2">
      <svg
        ref={svg}
        xmlns="http://www.w3.org/2000/svg"
        viewBox={`0 0 ${wide} ${deep}`}
        width={`${wide}mm`}
        height={`${deep}mm`}
        role="img"
        aria-label={`Module ${id}, ${w} × ${d} studs`}
        style={{ maxWidth: '100%', maxHeight: '64vh' }}
        fontFamily="monospace"
        fontSize={3.6}
        textAnchor="middle"
      >
        {Array.from({ length: w * d }, (_, k) => {
          const [column, row] = [k % w, Math.trunc(k / w)];
          const cell = mosaic.cells[(y + row) * mosaic.w + x + column] ?? NO_PIECE;
          const colour = cell === NO_PIECE ? null : (mosaic.colours[cell] ?? null);
          return (
            <g key={k}>
              <rect
                x={column * MM_PER_STUD}
                y={row * MM_PER_STUD}
                width={MM_PER_STUD}
                height={MM_PER_STUD}
                fill={colour === null ? 'none' : colourOf(colour)?.hex}
                stroke="#22292e"
                strokeWidth={0.15}
              />
              {colour !== null && (
                <text
                  x={(column + 0.5) * MM_PER_STUD}
                  y={(row + 0.5) * MM_PER_STUD + 1.3}
                  fill="#22292e"
                  stroke="#ffffff"
                  strokeWidth={0.9}
                  style={{ paintOrder: 'stroke' }}
                >
                  {marks.get(colour)}
                </text>
              )}
            </g>
          );
        })}
      </svg>
      <button
        type="button"
        className="btn btn-sm"
        onClick={() =>
          svg.current &&
          save(
            new Blob([new XMLSerializer().serializeToString(svg.current)], { type: 'image/svg+xml' }),
            fileName([name, 'module', id], 'svg'),
          )
        }
      >
        Save this sheet at its true size (SVG)
      </button>
    </div>
  );
}
