import { useEffect, useMemo, useRef, useState } from 'react';
import { NO_PIECE, mosaicRuns, mosaicSheets, type Mosaic, type MosaicOptions } from '@quarry/core/bench';
import { PALETTE, colourName, colourOf, partName } from '@quarry/core/catalogue';
import { writeCsv } from '@quarry/core/formats';
import { MM_PER_STUD, formatSum } from '@quarry/core/grid';
import { priceOfLines } from '@quarry/core/masonry';
import { suppliesOf } from '@quarry/core/materials';
import { canvasOf } from '../../data/pictures.ts';
import { useDisplay, useScene } from '../../data/useDisplay.tsx';
import { DataTable } from '../../ui/DataTable.tsx';
import { CheckField, NumberField, PictureField, SelectField } from '../../ui/fields.tsx';
import { DefinitionRow, Empty, Heading, Loading } from '../../ui/parts.tsx';
import { save } from '../../ui/save.ts';
import { useKept } from '../../ui/useKept.ts';
import { useMosaic, type MosaicAsked } from '../../workers/useMosaic.ts';
import { Calculator } from './Calculator.tsx';
import { PutButtons } from './PutButtons.tsx';
import { COLOUR_COLUMN, SheetCounts, SheetDrawing, SheetPicker } from './MosaicSheets.tsx';
import { usePicture } from './usePicture.ts';
import { isLike } from './values.ts';

const FIRST = { width: 48, piece: 'tile-1x1', colours: 'grey', stock: false, diffuse: true, side: 16 };
const isFirst = isLike(FIRST);
const [MIN_WIDTH, MAX_WIDTH] = [4, 96];
/** A picture deeper than this, studs, is laid narrower. */
const MAX_DEPTH = 192;

const PIECES = ['tile-1x1', 'plate-1x1', 'round-1x1x1p', 'brick-1x1'];
const SETS = [
  { value: 'grey', word: 'Greys' },
  { value: 'solid', word: 'All solid colours' },
  { value: 'stock', word: 'Colours in stock' },
] as const;
const GREYS = ['chalk', 'mist', 'pebble', 'slate', 'basalt', 'soot'];

/** A picture's size in studs at a width, its sides as they are to each other. */
function sizeOf({ width, height }: ImageBitmap, studs: number): { w: number; d: number } {
  const w = Math.max(1, Math.min(studs, Math.floor((MAX_DEPTH * width) / height)));
  return { w, d: Math.max(1, Math.round((w * height) / width)) };
}

/** The greatest width for which what is in stock suffices; null: none does. */
function widestInStock(image: ImageBitmap, { colours, stock }: MosaicOptions): number | null {
  const there = colours.reduce((sum, colour) => sum + (stock?.get(colour) ?? 0), 0);
  for (let width = MAX_WIDTH; width >= MIN_WIDTH; width--) {
    const { w, d } = sizeOf(image, width);
    if (w * d <= there) return width;
  }
  return null;
}

/** What is here of one part, by colour. */
function useStockOf(part: string): ReadonlyMap<string, number> {
  const scene = useDisplay(({ scene }) => scene);
  return useMemo(() => {
    const stock = new Map<string, number>();
    for (const { part: own, colour, qty, kind, from } of suppliesOf(scene))
      if (own === part && kind !== 'order' && from === null)
        stock.set(colour, (stock.get(colour) ?? 0) + qty);
    return stock;
  }, [scene, part]);
}

/** A picture in studs: its size, colours and stock, laid by error diffusion, with its list and its rows. */
export function MosaicPanel() {
  const [values, set] = useKept('bench mosaic', FIRST, isFirst);
  const { width, piece, diffuse } = values;
  const { picture: image, fault, bring } = usePicture();
  const stock = useStockOf(piece);
  const limited = values.stock || values.colours === 'stock';
  const asked = useMemo((): MosaicAsked | null => {
    if (!image) return null;
    const { w, d } = sizeOf(image.bitmap, width);
    const ctx = canvasOf(image.bitmap, w, d);
    const inStock = PALETTE.filter(({ id }) => (stock.get(id) ?? 0) > 0).map(({ id }) => id);
    const solid = PALETTE.filter(({ finish }) => finish === 'solid').map(({ id }) => id);
    const colours = { grey: GREYS, solid, stock: inStock }[values.colours] ?? GREYS;
    if (!ctx || colours.length === 0) return null;
    return {
      picture: { w, d, rgba: ctx.getImageData(0, 0, w, d).data },
      options: { colours, diffuse, ...(limited ? { stock } : {}) },
    };
  }, [image, width, diffuse, limited, stock, values.colours]);
  const answer = useMosaic(asked);
  const [picked, setPicked] = useState<string | null>(null);
  const sheets = useMemo(
    () => (answer?.ok ? mosaicSheets(answer.mosaic, values.side) : []),
    [answer, values.side],
  );
  const sheet = sheets.find(({ id }) => id === picked) ?? null;
  const widest = asked && image ? widestInStock(image.bitmap, asked.options) : null;
  return (
    <Calculator
      label="Picture in studs"
      fields={
        <>
          <PictureField label="A picture: it stays in this browser" fault={fault} onFile={bring} />
          <NumberField
            label="Width"
            unit="studs"
            whole
            min={MIN_WIDTH}
            max={MAX_WIDTH}
            value={width}
            onCommit={(to) => to !== null && set({ ...values, width: to })}
          />
          <SelectField
            label="Piece"
            value={piece}
            options={PIECES.map((value) => ({ value, word: partName(value) }))}
            onCommit={(to) => set({ ...values, piece: to })}
          />
          <SelectField
            label="Colours"
            value={values.colours}
            options={SETS}
            onCommit={(to) => set({ ...values, colours: to })}
          />
          <NumberField
            label="Modules of"
            unit="studs a side"
            whole
            min={4}
            max={MAX_WIDTH}
            value={values.side}
            onCommit={(side) => side !== null && set({ ...values, side })}
          />
          <CheckField
            label="Only as many as are in stock"
            value={limited}
            disabled={values.colours === 'stock'}
            onCommit={(to) => set({ ...values, stock: to })}
          />
          <CheckField
            label="Mix tones (error diffusion)"
            value={diffuse}
            onCommit={(to) => set({ ...values, diffuse: to })}
          />
        </>
      }
      drawing={
        !answer?.ok ? (
          <span />
        ) : sheet ? (
          <SheetDrawing mosaic={answer.mosaic} sheet={sheet} name={image?.name ?? 'Picture'} />
        ) : (
          <MosaicDrawing mosaic={answer.mosaic} />
        )
      }
      basis={
        <>
          The picture is shrunk to a pixel a stud; in linear light each stud gets the nearest colour (distance
          in Oklab), and what is off goes to its neighbours by sixteenths (Floyd and Steinberg 1976). Where
          stock is short, scarce colours get a price that rises until they suffice, so that the whole picture
          gives way alike. What is in stock is what the drawers, kits and loans of this display hold, whatever
          else needs it.
        </>
      }
      acts={answer?.ok && image && <MosaicActs name={image.name} piece={piece} mosaic={answer.mosaic} />}
    >
      {!image && <Empty title="No picture yet">Choose one above; it is laid at once.</Empty>}
      {image && !asked && (
        <Empty title={`No ${partName(piece)} in stock`}>
          Count them on Stockpile, or choose other colours: then they limit nothing.
        </Empty>
      )}
      {asked && !answer && <Loading what="Laying the picture" />}
      {answer && !answer.ok && (
        <div role="alert" className="py-2">
          <p className="text-error">{answer.error}</p>
          {widest !== null && (
            <button
              type="button"
              className="btn btn-sm mt-2"
              onClick={() => set({ ...values, width: widest })}
            >
              Make it {widest} studs wide
            </button>
          )}
        </div>
      )}
      {answer?.ok && <SheetPicker sheets={sheets} picked={sheet?.id ?? null} onPick={setPicked} />}
      {answer?.ok && !sheet && <MosaicAnswer piece={piece} stock={stock} mosaic={answer.mosaic} />}
      {answer?.ok && sheet && <SheetCounts sheet={sheet} />}
    </Calculator>
  );
}

const piecesOf = ({ counts }: Mosaic): number => counts.reduce((sum, { qty }) => sum + qty, 0);

function MosaicAnswer({
  piece,
  stock,
  mosaic,
}: {
  piece: string;
  stock: ReadonlyMap<string, number>;
  mosaic: Mosaic;
}) {
  const known = useScene('partType').partType;
  const pieces = piecesOf(mosaic);
  const price = priceOfLines([{ part: piece, qty: pieces }], known);
  return (
    <>
      <Heading>Answer</Heading>
      <dl>
        <DefinitionRow label="Size" note={`${mosaic.w * MM_PER_STUD} × ${mosaic.d * MM_PER_STUD} mm`}>
          {mosaic.w} × {mosaic.d} studs
        </DefinitionRow>
        <DefinitionRow label="Pieces">{pieces.toLocaleString('en')}</DefinitionRow>
        <DefinitionRow label="Price (guess)">{formatSum(price)}</DefinitionRow>
      </dl>
      <Heading aside={`${mosaic.counts.length}`}>Colours</Heading>
      <DataTable
        label="Pieces by colour"
        rows={mosaic.counts}
        keyOf={({ colour }) => colour}
        columns={[
          COLOUR_COLUMN,
          { head: 'Pieces', number: true, cell: ({ qty }) => qty.toLocaleString('en') },
          {
            head: 'In stock',
            number: true,
            cell: ({ colour }) => (stock.get(colour) ?? 0).toLocaleString('en'),
          },
          {
            head: 'Short',
            number: true,
            cell: ({ colour, qty }) => Math.max(0, qty - (stock.get(colour) ?? 0)).toLocaleString('en'),
            tone: ({ colour, qty }) => (qty > (stock.get(colour) ?? 0) ? 'warning' : null),
          },
        ]}
      />
    </>
  );
}

function MosaicActs({ name, piece, mosaic }: { name: string; piece: string; mosaic: Mosaic }) {
  const sheet = () =>
    writeCsv([
      ['row', 'column', 'count', 'colour'],
      ...mosaicRuns(mosaic).map(({ row, column, count, colour }) => [row, column, count, colourName(colour)]),
    ]);
  return (
    <>
      <PutButtons
        answer={{
          name: `Picture ${name}`.slice(0, 60),
          text: `A picture of ${mosaic.w} × ${mosaic.d} studs in ${piecesOf(mosaic)} × ${partName(piece)}.`,
          lines: mosaic.counts.map(({ colour, qty }) => ({ part: piece, colour, qty })),
        }}
      />
      <button
        type="button"
        className="btn btn-sm"
        onClick={() => save(new Blob([sheet()], { type: 'text/csv' }), `${name}, rows.csv`)}
      >
        Rows to lay (CSV)
      </button>
    </>
  );
}

/** The picture as it is laid: a pixel a stud, enlarged. */
function MosaicDrawing({ mosaic: { w, d, colours, cells } }: { mosaic: Mosaic }) {
  const canvas = useRef<HTMLCanvasElement>(null);
  useEffect(() => {
    const ctx = canvas.current?.getContext('2d');
    if (!ctx) return;
    ctx.clearRect(0, 0, w, d);
    cells.forEach((cell, i) => {
      if (cell === NO_PIECE) return;
      ctx.fillStyle = colourOf(colours[cell] ?? '')?.hex ?? 'transparent';
      ctx.fillRect(i % w, Math.trunc(i / w), 1, 1);
    });
  }, [w, d, colours, cells]);
  return (
    <canvas
      ref={canvas}
      width={w}
      height={d}
      role="img"
      aria-label={`The picture in ${w} × ${d} studs`}
      className="m-auto max-h-[60vh] lg:max-h-full w-full object-contain [image-rendering:pixelated]"
    />
  );
}
