import { MM_PER_STUD, boundsOfPoints } from '../grid/index.ts';
import { KINDS, MAX_STUDS, type Area, type DataOf } from '../document/index.ts';
import type { RoomPoint } from '../venue/index.ts';
import { outlineOf } from './planDrawing.ts';

/** The most outlines read from one drawing, and the most corners of one. */
const MAX_OUTLINES = 5000;
const MAX_CORNERS = 400;
const MAX_CHARACTERS = 20_000_000;
/** A corner that was written lies no further from where it was, mm. */
const ROUNDING = 0.006;

/** An outline as the fields of a pad: its place in studs, its corners as shares of it. */
export interface Outline extends Area {
  name: string;
  /** All that the pad was when it was written; null when it was drawn or moved in another program. */
  pad: DataOf<'pad'> | null;
}

/**
 * Reads the pads of a plan that this program wrote as SVG: the closed outlines of its layer PADS, in millimetres.
 * A pad that lies as it was written is that pad; of what was moved the corners are put on half studs. Drawings of other
 * programs are not understood, and say so.
 * @returns the outlines, or the sentence that says what is wrong and where
 */
export function readOutlines(svg: string): { ok: true; outlines: Outline[] } | { ok: false; error: string } {
  if (svg.length > MAX_CHARACTERS)
    return fail(
      `The drawing has ${svg.length.toLocaleString('en')} characters; the most is ${MAX_CHARACTERS.toLocaleString('en')}.`,
    );
  const start = svg.indexOf('<g id="PADS">');
  if (start < 0)
    return fail('The drawing has no layer PADS: only plans that were exported here as SVG can be read.');
  const layer = svg.slice(start, svg.indexOf('</g>', start));
  const outlines: Outline[] = [];
  for (const [tag, body] of [...layer.matchAll(/<polygon ([^>]*)\/>/g)].map((match, i) => [
    `outline ${i + 1}`,
    match[1],
  ])) {
    if (outlines.length >= MAX_OUTLINES) return fail(`The drawing has more than ${MAX_OUTLINES} outlines.`);
    const points = /points="([^"]*)"/.exec(body)?.[1] ?? '';
    const corners = points
      .trim()
      .split(/\s+/)
      .map((pair) => pair.split(',').map(Number));
    if (corners.length < 3 || corners.length > MAX_CORNERS)
      return fail(`The ${tag} has ${corners.length} corners; 3 to ${MAX_CORNERS} are read.`);
    const wrong = corners.find((corner) => corner.length !== 2 || !corner.every(Number.isFinite));
    if (wrong) return fail(`The ${tag} has a corner “${wrong.join(',')}”, which is no pair of numbers.`);
    const pad = padOf(body, corners);
    if (pad) {
      const { name, x, y, w, d, shape, outline } = pad;
      outlines.push({ name, x, y, w, d, shape, outline, pad });
      continue;
    }
    const studs = corners.map(([x, y]) => ({ x: half(x / MM_PER_STUD), y: half(y / MM_PER_STUD) }));
    const { x, y, w, d } = boundsOfPoints(studs);
    if (w < 0.5 || d < 0.5) return fail(`The ${tag} is ${w} × ${d} studs; the least is half a stud.`);
    if ([x, y, x + w, y + d].some((value) => Math.abs(value) > MAX_STUDS))
      return fail(`The ${tag} lies beyond ${MAX_STUDS} studs.`);
    const name = unescape(/data-name="([^"]*)"/.exec(body)?.[1] ?? '')
      .slice(0, 80)
      .trim();
    const isRect =
      studs.length === 4 &&
      studs.every((at) => (at.x === x || at.x === x + w) && (at.y === y || at.y === y + d));
    outlines.push({
      name: name === '' ? `Outline ${outlines.length + 1}` : name,
      ...{ x, y, w, d },
      shape: isRect ? 'rect' : 'outline',
      pad: null,
      outline: isRect ? [] : studs.map((at) => ({ x: (at.x - x) / w, y: (at.y - y) / d })),
    });
  }
  return outlines.length > 0 ? { ok: true, outlines } : fail('The layer PADS holds no closed outline.');
}

/** The pad that an outline was written of, if it still lies where that pad lies. */
function padOf(body: string, corners: readonly number[][]): DataOf<'pad'> | null {
  const text = /data-thing="([^"]*)"/.exec(body)?.[1];
  if (text === undefined) return null;
  let thing: unknown;
  try {
    thing = JSON.parse(unescape(text));
  } catch {
    return null;
  }
  const read = KINDS.pad.schema.safeParse(thing);
  if (!read.success) return null;
  const own: RoomPoint[] = outlineOf(read.data);
  const lies =
    own.length === corners.length &&
    own.every(
      ({ x, y }, i) =>
        Math.abs(x * MM_PER_STUD - corners[i][0]) < ROUNDING &&
        Math.abs(y * MM_PER_STUD - corners[i][1]) < ROUNDING,
    );
  return lies ? read.data : null;
}

const half = (value: number) => Math.round(value * 2) / 2 + 0;
const fail = (error: string) => ({ ok: false as const, error });
const unescape = (text: string) =>
  text.replaceAll('&lt;', '<').replaceAll('&gt;', '>').replaceAll('&quot;', '"').replaceAll('&amp;', '&');
