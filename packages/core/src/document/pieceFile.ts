import { z } from 'zod';
import { explainIssue } from './reduce.ts';
import { isCopied } from './edit.ts';
import { KINDS, kindSchema, type DataOf } from './schema.ts';
import { MAX_NESTING, nestingDepth } from './nesting.ts';

/** The file of a piece, by which displays exchange buildings, yards and scenes: JSON, its things as a display file has them. */
const PIECE_FORMAT = 'open-quarry-piece';
const PIECE_VERSION = 1;
/** The largest piece file that is read, characters. */
const MAX_PIECE_FILE = 4_000_000;

type Piece = DataOf<'piece'>;
const headSchema = z.looseObject({
  format: z.literal(PIECE_FORMAT),
  version: z.literal(PIECE_VERSION),
});

/** A piece as its file. */
export function writePieceFile({ name, w, d, things, grounds }: Piece): string {
  return `${JSON.stringify({ format: PIECE_FORMAT, version: PIECE_VERSION, name, w, d, things, grounds }, null, 2)}\n`;
}

/**
 * Reads the file of a piece. Each of its things is checked as the display would check it.
 * @returns the piece, or a sentence that names the thing and the field that is wrong
 */
export function readPieceFile(text: string): { ok: true; piece: Piece } | { ok: false; error: string } {
  const fail = (error: string) => ({ ok: false as const, error });
  const json = text.replace(/^\ufeff/, '');
  if (json.length > MAX_PIECE_FILE)
    return fail(
      `The file has ${json.length.toLocaleString('en')} characters; the most is ${MAX_PIECE_FILE.toLocaleString('en')}.`,
    );
  if (nestingDepth(json) > MAX_NESTING) return fail(`The file is nested more than ${MAX_NESTING} deep.`);
  let raw: unknown;
  try {
    raw = JSON.parse(json);
  } catch (error) {
    return fail(`This is not JSON: ${error instanceof Error ? error.message : String(error)}.`);
  }
  const head = headSchema.safeParse(raw);
  if (!head.success)
    return fail(
      `This is no piece: it must begin with "format": "${PIECE_FORMAT}" and "version": ${PIECE_VERSION}.`,
    );
  const { format: _format, version: _version, ...body } = head.data;
  const read = KINDS.piece.schema.safeParse(body);
  if (!read.success) return fail(explainIssue('piece', String(body.name ?? ''), read.error));
  for (const { kind: word, data } of read.data.things) {
    const kind = kindSchema.safeParse(word);
    if (!kind.success || !isCopied(kind.data)) return fail(`A piece holds no “${word}”.`);
    const { name } = data;
    const thing = KINDS[kind.data].schema.safeParse(data);
    if (!thing.success)
      return fail(explainIssue(KINDS[kind.data].word, typeof name === 'string' ? name : word, thing.error));
  }
  return { ok: true, piece: read.data };
}
