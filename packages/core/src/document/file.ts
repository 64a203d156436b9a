import { z } from 'zod';
import { explainIssue, reduce } from './reduce.ts';
import type { Change } from './change.ts';
import { DISPLAY_ID, KINDS, KIND_NAMES, idSchema, maxCount, type Kind } from './schema.ts';
import { MAX_NESTING, nestingDepth } from './nesting.ts';
import { emptyScene, listOf, type Scene } from './scene.ts';

/** The display file: JSON, one group of entities a kind. Its JSON Schema is published in docs/schema. */
export const FILE_FORMAT = 'open-quarry-display';
export const FILE_VERSION = 1;
/** The largest file that is read, bytes. */
export const MAX_FILE_BYTES = 20_000_000;

type GroupOf<K extends Kind> = (typeof KINDS)[K]['group'];
type EntityKind = Exclude<Kind, 'display'>;
type FileShape = {
  format: typeof FILE_FORMAT;
  version: typeof FILE_VERSION;
  display: z.input<(typeof KINDS)['display']['schema']>;
} & {
  [K in EntityKind as GroupOf<K>]?: (z.input<(typeof KINDS)[K]['schema']> & { id: string })[];
};

const ENTITY_KINDS = KIND_NAMES.filter((kind): kind is EntityKind => kind !== 'display');

const fileSchema = z.strictObject({
  format: z.literal(FILE_FORMAT),
  version: z.literal(FILE_VERSION),
  display: KINDS.display.schema,
  ...Object.fromEntries(
    ENTITY_KINDS.map((kind) => [
      KINDS[kind].group,
      z
        .array(KINDS[kind].schema.extend({ id: idSchema }))
        .max(maxCount(kind))
        .default([]),
    ]),
  ),
});

/** The JSON Schema of a display file, as published in docs/schema/display.schema.json. */
export function publishedSchema(): Record<string, unknown> {
  return { title: 'Open Quarry display file', ...z.toJSONSchema(fileSchema, { io: 'input' }) };
}

/** A scene, or a sentence about what is wrong with a file and where. */
export type Reading = { ok: true; scene: Scene } | { ok: false; error: string };

type Migration = (raw: Record<string, unknown>) => Record<string, unknown>;
/** One step from an older version of the file to the next, on the raw JSON object. None is needed yet. */
const MIGRATIONS: Readonly<Record<number, Migration>> = {};

/**
 * Carries a raw file from its version to another, one step after the other; each step sets the version it leads to.
 * @throws Error when a step is missing, which is a fault of this program and not of the file
 */
export function migrate(
  raw: Record<string, unknown>,
  from: number,
  to: number,
  steps = MIGRATIONS,
): Record<string, unknown> {
  let body = raw;
  for (let version = from; version < to; version++) {
    const step = steps[version];
    if (!step) throw new Error(`there is no step from file version ${version} to ${version + 1}`);
    body = { ...step(body), version: version + 1 };
  }
  return body;
}

/**
 * Reads a display file. Nothing is taken on trust: size, nesting, types, ranges, unknown keys, ids and references
 * are checked, and an older version is carried forward step by step.
 * @param text the file's text
 */
export function readFile(text: string): Reading {
  // Some editors begin a file with a mark that is no part of its text.
  const json = text.replace(/^\ufeff/, '');
  if (json.length > MAX_FILE_BYTES)
    return fail(
      `The file has ${json.length.toLocaleString('en')} characters; the most is ${MAX_FILE_BYTES.toLocaleString('en')}.`,
    );
  if (nestingDepth(json) > MAX_NESTING)
    return fail(`The file is nested more than ${MAX_NESTING} deep; a display file needs 4.`);
  let raw: unknown;
  try {
    raw = JSON.parse(json);
  } catch (error) {
    return fail(`This is not JSON: ${error instanceof Error ? error.message : String(error)}.`);
  }
  return readDocument(raw);
}

/** Reads a display file that has been parsed already (a request body). */
export function readDocument(raw: unknown): Reading {
  const head = z.looseObject({ format: z.literal(FILE_FORMAT), version: z.int().min(1) }).safeParse(raw);
  if (!head.success)
    return fail(
      `This is not a display file: it must begin with "format": "${FILE_FORMAT}" and a whole "version".`,
    );
  if (head.data.version > FILE_VERSION)
    return fail(
      `The file has version ${head.data.version}; this program reads up to version ${FILE_VERSION}. Update the program to open it.`,
    );
  const body = migrate(head.data, head.data.version, FILE_VERSION);

  const groups: readonly string[] = KIND_NAMES.map((kind) => KINDS[kind].group);
  const stranger = Object.keys(body).find((key) => !['format', 'version', ...groups].includes(key));
  if (stranger) return fail(`The file has an unknown key “${stranger.slice(0, 60)}”.`);
  const changes: Change[] = [];
  const record = z.record(z.string(), z.unknown());
  const display = record.safeParse(body.display);
  if (!display.success) return fail('The file has no “display”.');
  changes.push({ op: 'add', kind: 'display', id: DISPLAY_ID, data: display.data });
  // Whatever is referred to comes with the same batch, so the order of kinds does not matter.
  for (const kind of ENTITY_KINDS) {
    const { group, word } = KINDS[kind];
    const list = z.array(record).safeParse(body[group] ?? []);
    if (!list.success) return fail(`“${group}” must be a list of objects.`);
    if (list.data.length > maxCount(kind))
      return fail(`“${group}” has ${list.data.length} entries; the most is ${maxCount(kind)}.`);
    for (const [index, { id, ...data }] of list.data.entries()) {
      const read = idSchema.safeParse(id);
      if (!read.success) return fail(explainIssue(word, `${group}[${index}]`, read.error));
      changes.push({ op: 'add', kind, id: read.data, data });
    }
  }
  const reduction = reduce(emptyScene(), changes);
  return reduction.ok ? { ok: true, scene: reduction.scene } : fail(reduction.refusal.sentence);
}

/** Writes a scene as a display file: stable order, two-space indent, so that files can be compared line by line. */
export function writeFile(scene: Scene): string {
  const bare = (kind: Kind) => listOf(scene, kind).map(({ v: _v, ...rest }) => rest);
  const [display] = bare('display').map(({ id: _id, ...rest }) => rest);
  const file: Record<string, unknown> = { format: FILE_FORMAT, version: FILE_VERSION, display };
  for (const kind of ENTITY_KINDS) file[KINDS[kind].group] = bare(kind);
  return `${JSON.stringify(file, null, 2)}\n`;
}

/** Builds a scene from data in code. @throws with the reason when the data is not a valid display. */
export function sceneFrom(file: Omit<FileShape, 'format' | 'version'>): Scene {
  const reading = readDocument({ format: FILE_FORMAT, version: FILE_VERSION, ...file });
  if (!reading.ok) throw new Error(reading.error);
  return reading.scene;
}

const fail = (error: string): Reading => ({ ok: false, error });
