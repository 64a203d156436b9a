import { useMemo, useState } from 'react';
import { toast } from 'sonner';
import {
  BUILT_WAYS,
  MAX_ENLARGED,
  MAX_ENLARGED_PAGES,
  PAPERS,
  enlargedPages,
  enlargedTo,
  fileName,
  rowMm,
  type BuiltWay,
  type Enlarged,
} from '@quarry/core/formats';
import { MM_PER_STUD, PLATES_PER_BRICK, countOf, formatPlates } from '@quarry/core/grid';
import { api } from '../../data/api.ts';
import { MAX_PICTURE_PIXELS, shrunkPicture } from '../../data/pictures.ts';
import { usePaper } from '../../data/sheets.ts';
import { useLink } from '../../data/useDisplay.tsx';
import { paperOf, useView } from '../../data/view.ts';
import { NumberField, PictureField, SelectField } from '../../ui/fields.tsx';
import { DefinitionRow, Empty, Heading } from '../../ui/parts.tsx';
import { save } from '../../ui/save.ts';
import { useKept } from '../../ui/useKept.ts';
import { useMeasureFormat } from '../../ui/useMeasureFormat.ts';
import { Calculator, Sketch } from './Calculator.tsx';
import { PutButtons } from './PutButtons.tsx';
import { usePicture, type BroughtPicture } from './usePicture.ts';
import { isLike } from './values.ts';

const FIRST: { studs: number; way: string } = { studs: 48, way: 'upright' };
const isFirst = isLike(FIRST);
const WAY_WORDS: Record<BuiltWay, string> = {
  lying: 'Lying, in studs',
  upright: 'Upright, in plates',
};
/** A picture with fewer pixels a stud is blurred where pieces are chosen by it (ours, no source). */
const SHARP = 8;

interface Picture {
  name: string;
  /** As it is drawn and printed. */
  url: string;
  width: number;
  height: number;
}

/** A drawing at so many studs, with the lines of studs and plates over it, to build by; printed at 1 : 1. */
export function EnlargedPanel() {
  const [values, set] = useKept('bench enlarged', FIRST, isFirst);
  const { picture: brought, fault, bring } = usePicture();
  const picture = useMemo(() => brought && pictureOf(brought), [brought]);
  const way = BUILT_WAYS.find((one) => one === values.way) ?? 'upright';
  const drawing = picture && enlargedTo(picture, way, values.studs);
  return (
    <Calculator
      label="Enlarged drawing"
      fields={
        <>
          <PictureField label="A drawing, such as the letters of a sign" fault={fault} onFile={bring} />
          <NumberField
            label="Width"
            unit="studs"
            whole
            min={1}
            max={MAX_ENLARGED}
            value={values.studs}
            onCommit={(studs) => studs !== null && set({ ...values, studs })}
          />
          <SelectField
            label="Built"
            value={way}
            options={BUILT_WAYS.map((value) => ({ value, word: WAY_WORDS[value] }))}
            onCommit={(to) => set({ ...values, way: to })}
          />
        </>
      }
      drawing={
        picture && drawing ? (
          <EnlargedSketch picture={picture} drawing={drawing} />
        ) : (
          <Empty title="No drawing yet">Choose one: letters, a crest, a plan from a book.</Empty>
        )
      }
      basis={
        <>
          A stud is 8 mm wide, a plate 3.2 mm high, so that what stands upright has five rows of plates where
          it has two studs. The sides of the drawing stay as they are to each other; the last row is a whole
          one. Pages hold whole studs and, upright, whole bricks; print them without scaling and measure ten
          studs: 80 mm. The drawing is sent to be printed and kept nowhere.
        </>
      }
      acts={picture && drawing && <EnlargedActs picture={picture} drawing={drawing} />}
    >
      {picture && drawing && <EnlargedAnswer picture={picture} drawing={drawing} />}
    </Calculator>
  );
}

/** A picture as it is drawn and sent; null where the browser draws none. */
function pictureOf({ name, bitmap }: BroughtPicture): Picture | null {
  const canvas = shrunkPicture(bitmap, MAX_PICTURE_PIXELS)?.canvas;
  return canvas ? { name, url: onWhite(canvas), width: canvas.width, height: canvas.height } : null;
}

/** The pixels of a canvas as JPEG; what is clear is white. */
function onWhite(canvas: HTMLCanvasElement): string {
  const ctx = canvas.getContext('2d');
  if (ctx) {
    ctx.globalCompositeOperation = 'destination-over';
    ctx.fillStyle = '#ffffff';
    ctx.fillRect(0, 0, canvas.width, canvas.height);
  }
  return canvas.toDataURL('image/jpeg', 0.85);
}

const rowsWord = ({ way, rows }: Enlarged): string =>
  way === 'lying' ? countOf(rows, 'stud') : `${countOf(rows, 'plate')} (${formatPlates(rows)})`;

function EnlargedAnswer({ picture, drawing }: { picture: Picture; drawing: Enlarged }) {
  const { say } = useMeasureFormat();
  const paper = useView(paperOf);
  const { columns, lines, pages } = enlargedPages(drawing, paper);
  const fine = picture.width / drawing.studs;
  return (
    <>
      <Heading>Answer</Heading>
      <dl>
        <DefinitionRow label="Takes" note={rowsWord(drawing)}>
          {countOf(drawing.studs, 'stud')} wide
        </DefinitionRow>
        <DefinitionRow label="Is">
          {say(Math.round(drawing.wMm), 'mm')} × {say(Math.round(drawing.dMm), 'mm')}
        </DefinitionRow>
        <DefinitionRow label={`Pages of ${PAPERS[paper].word}`} note={`${columns} across, ${lines} down`}>
          <span className={pages.length > MAX_ENLARGED_PAGES ? 'text-error font-semibold' : ''}>
            {pages.length > MAX_ENLARGED_PAGES && '! '}
            {pages.length}
          </span>
        </DefinitionRow>
        <DefinitionRow
          label="Fineness"
          note={fine < SHARP ? 'blurred: a larger picture is sharper' : undefined}
        >
          <span className={fine < SHARP ? 'text-warning font-semibold' : ''}>
            {fine < SHARP && '△ '}
            {fine.toFixed(1)} px a stud
          </span>
        </DefinitionRow>
      </dl>
      {pages.length > MAX_ENLARGED_PAGES && (
        <p role="alert" className="text-error text-xs">
          {MAX_ENLARGED_PAGES} pages are printed at most: make it narrower.
        </p>
      )}
    </>
  );
}

function EnlargedActs({ picture, drawing }: { picture: Picture; drawing: Enlarged }) {
  const link = useLink();
  const print = usePaper();
  const paper = useView(paperOf);
  const [busy, setBusy] = useState(false);
  const { pages } = enlargedPages(drawing, paper);
  const title = picture.name.trim().slice(0, 60) || 'Drawing';
  const send = async () => {
    setBusy(true);
    try {
      const { way, studs } = drawing;
      save(
        await api.enlarged(link.id, { title, way, studs, picture: picture.url }, print),
        fileName([title, 'enlarged'], 'pdf'),
      );
    } catch (error) {
      toast.error(error instanceof Error ? error.message : String(error));
    } finally {
      setBusy(false);
    }
  };
  return (
    <>
      <button
        type="button"
        className="btn btn-sm btn-primary"
        disabled={busy || pages.length > MAX_ENLARGED_PAGES}
        onClick={() => void send()}
      >
        {busy ? 'Printing …' : `Print ${countOf(pages.length, 'page')}, 1 : 1`}
      </button>
      <PutButtons
        answer={{
          name: title,
          text: `${title}, enlarged: ${countOf(drawing.studs, 'stud')} wide, ${rowsWord(drawing)} ${drawing.way === 'lying' ? 'deep' : 'high'}.`,
        }}
      />
    </>
  );
}

/** The drawing under lines of studs and rows; each eighth stud and row, or brick, is stronger. */
function EnlargedSketch({ picture, drawing }: { picture: Picture; drawing: Enlarged }) {
  const { way, studs, rows, wMm, dMm } = drawing;
  const high = rows * rowMm(way);
  const each = way === 'lying' ? 8 : PLATES_PER_BRICK;
  const inner = (count: number) => Array.from({ length: count - 1 }, (_, i) => i + 1);
  const weight = (strong: boolean) => ({ strokeWidth: strong ? 1 : 0.5, opacity: strong ? 0.7 : 0.35 });
  return (
    <Sketch
      label={`${picture.name} at ${countOf(studs, 'stud')} of width, ${rowsWord(drawing)} of height`}
      box={{ x: -2, y: -2, w: wMm + 4, d: high + 4 }}
    >
      <image href={picture.url} width={wMm} height={dMm} preserveAspectRatio="none" opacity={0.7} />
      {inner(studs).map((i) => (
        <line key={`x${i}`} x1={i * MM_PER_STUD} x2={i * MM_PER_STUD} y2={high} {...weight(i % 8 === 0)} />
      ))}
      {inner(rows).map((i) => (
        <line key={`y${i}`} y1={i * rowMm(way)} y2={i * rowMm(way)} x2={wMm} {...weight(i % each === 0)} />
      ))}
      <rect width={wMm} height={high} />
    </Sketch>
  );
}
