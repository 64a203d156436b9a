import { z } from 'zod';
import { MAX_STUDS, reference, text } from '../fields.ts';
import { defineKind } from '../kind.ts';

/** A place and a direction from which the display is photographed again and again. */
export const photoKind = defineKind({
  schema: z.strictObject({
    /** The picture among the display's files: the SHA-256 of what is kept. */
    file: z.string().regex(/^[0-9a-f]{64}$/, 'a photo is told by the digest of its file'),
    /** Of the kept picture, px. */
    width: z.int().min(1).max(4096),
    height: z.int().min(1).max(4096),
    section: reference.default(null),
    /** Where the camera stood, or what it looks at from nearby: studs. */
    x: z.number().min(-MAX_STUDS).max(MAX_STUDS).nullable().default(null),
    y: z.number().min(-MAX_STUDS).max(MAX_STUDS).nullable().default(null),
    /** Viewing direction, degrees clockwise from north; null: unknown. */
    bearing: z.int().min(0).max(359).nullable().default(null),
    taken: z.iso.datetime(),
    by: reference.default(null),
    /** It may be on the public page; set only by the person who took it. */
    published: z.boolean().default(false),
    note: text.default(''),
  }),
  group: 'photos',
  word: 'photo',
  label: ({ section }, fieldOf) => {
    const letter = fieldOf('section', section, 'letter');
    return letter === null ? 'photo' : `photo of section ${letter}`;
  },
  refs: { section: 'section', by: 'person' },
  ownBy: ['by'],
});
