import { QueryClient } from '@tanstack/react-query';
import { z } from 'zod';
import {
  PRESETS,
  ROLES,
  presetSchema,
  batchSchema,
  rowSchema,
  type Batch,
  type Preset,
} from '@quarry/core/scene';

/** The one fetch layer: every request of the pages goes through `call`, every answer through its schema. */

const problemSchema = z.looseObject({ code: z.string(), message: z.string() });
/** What the server sends with a refusal: the entity as it stands, when that is why. */
const refusalSchema = problemSchema.extend({
  current: z.looseObject({ id: z.string(), v: z.int() }).nullable().optional(),
});
export type Refused = z.infer<typeof refusalSchema>;

/** An answer that is not a success. `status` 0: the server was not reached. */
export class ApiProblem extends Error {
  constructor(
    readonly status: number,
    readonly body: Refused,
  ) {
    super(body.message);
  }
}

async function call<T>(
  method: string,
  path: string,
  schema: z.ZodType<T>,
  body?: unknown,
  raw = false,
): Promise<T> {
  let response: Response;
  try {
    response = await fetch(`/api${path}`, {
      method,
      ...(body === undefined
        ? {}
        : {
            headers: { 'content-type': 'application/json' },
            body: raw ? String(body) : JSON.stringify(body),
          }),
    });
  } catch {
    throw new ApiProblem(0, { code: 'offline', message: 'The server cannot be reached.' });
  }
  const answer = readJson(await response.text(), response.status);
  if (response.ok) return schema.parse(answer);
  const problem = refusalSchema.safeParse(answer);
  throw new ApiProblem(
    response.status,
    problem.success ? problem.data : { code: 'error', message: `The server answered ${response.status}.` },
  );
}

function readJson(text: string, status: number): unknown {
  try {
    return text === '' ? null : JSON.parse(text);
  } catch {
    throw new ApiProblem(status, {
      code: 'unreadable',
      message: `The server answered ${status} with something that is not JSON.`,
    });
  }
}

const userSchema = z.object({ id: z.string(), login: z.string(), name: z.string() });
export type User = z.infer<typeof userSchema>;
const roleSchema = z.enum(ROLES);
const lineSchema = z.object({
  id: z.string(),
  name: z.string(),
  kind: z.string(),
  role: roleSchema,
  changedAt: z.number(),
});
const crewSchema = z.array(
  z.object({ login: z.string(), name: z.string(), role: roleSchema, line: z.string() }),
);
const documentSchema = z.object({
  id: z.string(),
  seq: z.int(),
  actor: z.object({ role: roleSchema, person: z.string().nullable() }),
  rows: z.array(rowSchema),
});
export const landedSchema = batchSchema.extend({ seq: z.int(), author: z.string(), at: z.number() });
export type Landed = z.infer<typeof landedSchema>;
const nothing = z.unknown();

export const api = {
  welcome: () => call('GET', '/welcome', z.object({ setupNeeded: z.boolean(), demo: z.boolean() })),
  me: () => call('GET', '/me', userSchema),
  signIn: (login: string, password: string) => call('POST', '/session', userSchema, { login, password }),
  signOut: () => call('DELETE', '/session', nothing),
  setUp: (body: { code: string; login: string; name: string; password: string }) =>
    call('POST', '/setup', userSchema, body),
  demoCrew: () => call('GET', '/demo/crew', crewSchema),
  demoSignIn: (login: string) => call('POST', '/demo/session', userSchema, { login }),
  displays: () => call('GET', '/displays', z.array(lineSchema)),
  createDisplay: (name: string, preset: Preset) => call('POST', '/displays', lineSchema, { name, preset }),
  importDisplay: (text: string) => call('POST', '/displays/import', lineSchema, text, true),
  removeDisplay: (id: string) => call('DELETE', `/displays/${id}`, nothing),
  display: (id: string) => call('GET', `/displays/${id}`, documentSchema),
  /** A list to print, made by the server: the one answer that is no JSON. */
  async pickList(id: string, lines: readonly object[]): Promise<Blob> {
    const response = await fetch(`/api/displays/${id}/sheets/pick.pdf`, {
      method: 'POST',
      headers: { 'content-type': 'application/json' },
      body: JSON.stringify({ lines }),
    }).catch(() => null);
    if (!response?.ok)
      throw new Error(`The pick list could not be printed (${response?.status ?? 'no answer'}).`);
    return response.blob();
  },
  land: (id: string, batch: Batch) =>
    call('POST', `/displays/${id}/batches`, z.object({ seq: z.int() }), batch),
};

export const fileUrl = (id: string) => `/api/displays/${id}/file`;
export const streamUrl = (id: string, after: number) => `/api/displays/${id}/stream?after=${after}`;

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
};
