import { z } from 'zod';
import { idSchema, instant, mentionsField, message, reference } from '../fields.ts';
import { defineKind } from '../kind.ts';

export const replyKind = defineKind({
  schema: z.strictObject({
    thread: idSchema,
    text: message,
    by: reference,
    at: instant,
    mentions: mentionsField,
  }),
  group: 'replies',
  word: 'answer',
  label: ({ thread }, fieldOf) => {
    const title = fieldOf('thread', thread, 'title');
    return title === null ? 'answer' : `answer to “${title}”`;
  },
  refs: { thread: 'thread', by: 'person' },
});
