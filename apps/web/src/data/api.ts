import { QueryClient } from '@tanstack/react-query';
import { z } from 'zod';
import {
  changeSchema,
  PRESETS,
  ROLES,
  presetSchema,
  batchSchema,
  kindSchema,
  rowSchema,
  type Batch,
  type Preset,
} from '@quarry/core/document';
import { ApiProblem, call, callForFile, queryOf, type PaperQuery } from './call.ts';

export { ApiProblem } from './call.ts';

export const userSchema = z.object({ id: z.string(), login: z.string(), name: z.string() });
export type User = z.infer<typeof userSchema>;
export const roleSchema = z.enum(ROLES);
const lineSchema = z.object({
  id: z.string(),
  name: z.string(),
  kind: z.string(),
  role: roleSchema,
  changedAt: z.number(),
});
export const displaysSchema = z.array(lineSchema);
const crewSchema = z.array(
  z.object({ login: z.string(), name: z.string(), role: roleSchema, line: z.string() }),
);
const documentSchema = z.object({
  id: z.string(),
  epoch: z.int(),
  seq: z.int(),
  actor: z.object({ role: roleSchema, person: z.string().nullable() }),
  rows: z.array(rowSchema),
});
export const committedBatchSchema = batchSchema.extend({ seq: z.int(), author: z.string(), at: z.number() });
export type CommittedBatch = z.infer<typeof committedBatchSchema>;
const nothing = z.unknown();
const whereSchema = z.object({
  page: z.string(),
  section: z.string().nullable(),
  picked: z.array(z.object({ kind: kindSchema, id: z.string() })),
});
/** Where a window is. */
export type Whereabouts = z.infer<typeof whereSchema>;
export const presentSchema = whereSchema.extend({
  client: z.string(),
  name: z.string(),
  person: z.string().nullable(),
});
/** Windows that came or moved, and those that have gone. */
export const movedSchema = z.object({ here: presentSchema.array(), gone: z.array(z.string()) });
export type Present = z.infer<typeof presentSchema>;

export const api = {
  welcome: () => call('GET', '/welcome', z.object({ setupNeeded: z.boolean(), demo: z.boolean() })),
  me: () => call('GET', '/me', userSchema),
  signIn: (login: string, password: string) => call('POST', '/session', userSchema, { login, password }),
  signOut: () => call('DELETE', '/session', nothing),
  setUp: (body: { code: string; login: string; name: string; password: string }) =>
    call('POST', '/setup', userSchema, body),
  demoCrew: () => call('GET', '/demo/crew', crewSchema),
  demoSignIn: (login: string) => call('POST', '/demo/session', userSchema, { login }),
  displays: () => call('GET', '/displays', displaysSchema),
  createDisplay: (name: string, preset: Preset) => call('POST', '/displays', lineSchema, { name, preset }),
  importDisplay: (text: string) => call('POST', '/displays/import', lineSchema, text, true),
  removeDisplay: (id: string) => call('DELETE', `/displays/${id}`, nothing),
  display: (id: string) => call('GET', `/displays/${id}`, documentSchema),
  pickList: (id: string, lines: readonly object[], paper: PaperQuery) =>
    callForFile(`/displays/${id}/sheets/pick.pdf?${queryOf(paper)}`, { lines }),
  here: (id: string, client: string, where: Whereabouts) =>
    call('POST', `/displays/${id}/here`, nothing, { client, ...where }),
  land: (id: string, batch: Batch) =>
    call(
      'POST',
      `/displays/${id}/batches`,
      z.object({ seq: z.int(), changes: changeSchema.array().optional() }),
      batch,
    ),
};

export const archiveUrl = (id: string) => `/api/displays/${id}/photos`;
export const fileUrl = (id: string) => `/api/displays/${id}/file`;
export const streamUrl = (id: string, epoch: number, after: number, client: string) =>
  `/api/displays/${id}/stream?epoch=${epoch}&after=${after}&client=${client}`;

export const PRESET_LIST = presetSchema.options.map((id) => ({ id, word: PRESETS[id].word }));

/** What was asked and not found or not allowed is not asked again by itself. */
export const queryClient = new QueryClient({
  defaultOptions: {
    queries: {
      staleTime: 30_000,
      retry: (count, error) =>
        count < 2 && !(error instanceof ApiProblem && error.status >= 400 && error.status < 500),
    },
  },
});
export const keys = {
  welcome: ['welcome'],
  me: ['me'],
  crew: ['demo-crew'],
  displays: ['displays'],
  display: (id: string) => ['display', id],
  members: (id: string) => ['display', id, 'members'],
  invitations: (id: string) => ['display', id, 'invitations'],
  share: (id: string) => ['display', id, 'share'],
  marks: (id: string) => ['display', id, 'marks'],
  history: (id: string) => ['display', id, 'history'],
  past: (id: string, seq: number) => ['display', id, 'past', seq],
  sessions: ['sessions'],
  letters: ['letters'],
};
