import { MAX_PICTURE_PIXELS, decodePicture, encodePicture, shrunkPicture } from '../../data/pictures.ts';
import { readAsc, readOutlines, readPgm, type HeightGrid, type HeightReading } from '@quarry/core/formats';
import { footprintBounds } from '@quarry/core/terrain';
import {
  newPadOrder,
  MAX_PICTURE,
  MAX_SAMPLES,
  readPieceFile,
  type Change,
  type Scene,
} from '@quarry/core/document';
import { freshId } from '../../data/useDisplay.tsx';
import type { Picked } from '../../data/view.ts';
import { defaultLevel } from '../../board/kinds/make.ts';

/**
 * What a chosen file becomes: changes to make, and what to pick then; heights, which a dialog asks more about; or the
 * sentence that says why it cannot be used.
 */
export type Import =
  | { ok: true; as: 'changes'; label: string; changes: Change[]; picks: Picked[] }
  | { ok: true; as: 'heights'; heights: ReadHeights }
  | { ok: false; error: string };
export interface ReadHeights {
  /** What the ground is called, and the file it came from. */
  name: string;
  file: string;
  grid: HeightGrid;
}

const MAX_BYTES = 40_000_000;

/**
 * Reads a file by its ending: height grids (.asc, .pgm) and grey pictures as ground, other pictures to draw after,
 * plans exported here (.svg) as pads, and pieces of other displays (.json).
 * @param as what a picture file is meant as
 */
export async function importFile(scene: Scene, file: File, as: 'picture' | 'ground'): Promise<Import> {
  const fail = (why: string): Import => ({ ok: false, error: `“${file.name}”: ${why}` });
  if (file.size > MAX_BYTES)
    return fail(`${file.size.toLocaleString('en')} bytes; the most is ${MAX_BYTES.toLocaleString('en')}.`);
  const ending = file.name.toLowerCase().split('.').at(-1) ?? '';
  if (ending === 'json') {
    const reading = readPieceFile(await file.text());
    if (!reading.ok) return fail(reading.error);
    return {
      ...{ ok: true, as: 'changes', label: `read the piece ${reading.piece.name}`, picks: [] },
      changes: [{ op: 'add', kind: 'piece', id: freshId('piece'), data: reading.piece }],
    };
  }
  const name = file.name.replace(/\.[^.]*$/, '').slice(0, 80) || 'Imported';
  if (ending === 'svg') {
    const reading = readOutlines(await file.text());
    if (!reading.ok) return fail(reading.error);
    const level = defaultLevel(scene);
    const pads = reading.outlines.map(({ pad, ...outline }, i) => ({
      id: freshId('pad'),
      // Ground, height and sides as they were written; on the usual level where the display has not that one.
      data: pad
        ? { ...pad, level: Object.hasOwn(scene.level, pad.level) ? pad.level : level.id }
        : { ...outline, level: level.id, ground: 'grass', order: newPadOrder(scene, i) },
    }));
    return {
      ...{ ok: true, as: 'changes' },
      label: `imported ${pads.length} outlines from ${name}`,
      changes: [
        ...level.before,
        ...pads.map(({ id, data }): Change => ({ op: 'add', kind: 'pad', id, data })),
      ],
      picks: pads.map(({ id }) => ({ kind: 'pad', id })),
    };
  }
  if (ending === 'asc' || ending === 'pgm' || as === 'ground') {
    const reading: HeightReading =
      ending === 'asc'
        ? readAsc(await file.text())
        : ending === 'pgm'
          ? readPgm(new Uint8Array(await file.arrayBuffer()))
          : await readGrey(file);
    if (!reading.ok) return fail(reading.error);
    return { ok: true, as: 'heights', heights: { name, file: file.name, grid: reading.grid } };
  }
  const image = await decodePicture(file);
  if (!image) return fail('this is no picture that the browser can read.');
  const encoded = encodePicture(image, MAX_PICTURE_PIXELS);
  if (!encoded)
    return fail(
      `the picture is larger than ${MAX_PICTURE.toLocaleString('en')} characters even when made smaller.`,
    );
  const whole = footprintBounds(scene) ?? { x: 0, y: 0, w: 96, d: 96 };
  const id = freshId('picture');
  const w = whole.w;
  const d = Math.max(0.5, Number(((whole.w * image.height) / image.width).toFixed(3)));
  return {
    ...{ ok: true, as: 'changes' },
    label: `laid the picture ${name} under the plan`,
    changes: [
      { op: 'add', kind: 'picture', id, data: { name, x: whole.x, y: whole.y, w, d, image: encoded } },
    ],
    picks: [{ kind: 'picture', id }],
  };
}

/** A picture as heights: light is high. */
async function readGrey(file: File): Promise<HeightReading> {
  const image = await decodePicture(file);
  const ctx = image && shrunkPicture(image, MAX_SAMPLES);
  if (!ctx) return { ok: false, error: 'this is no picture that the browser can read.' };
  const { width: columns, height: rows } = ctx.canvas;
  const { data } = ctx.getImageData(0, 0, columns, rows);
  // Luma of sRGB (ITU-R BT.709); grey pictures have all three alike.
  const values = Float64Array.from({ length: columns * rows }, (_, i) => {
    const [red = 0, green = 0, blue = 0] = data.subarray(4 * i, 4 * i + 3);
    return 0.2126 * red + 0.7152 * green + 0.0722 * blue;
  });
  return { ok: true, grid: { columns, rows, values, cell: null, corner: null } };
}
