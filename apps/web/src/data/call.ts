import { z } from 'zod';

/** The one fetch layer: every request of the pages goes through `call`, every answer through its schema. */

const problemSchema = z.looseObject({ code: z.string(), message: z.string() });
/** What the server sends with a refusal: the entity as it stands, when that is why. */
const refusalSchema = problemSchema.extend({
  current: z.looseObject({ id: z.string(), v: z.int() }).nullable().optional(),
});
type Refused = z.infer<typeof refusalSchema>;

/** An answer that is not a success. `status` 0: the server was not reached. */
export class ApiProblem extends Error {
  constructor(
    readonly status: number,
    readonly body: Refused,
  ) {
    super(body.message);
  }
}

/** Asks the server. @throws ApiProblem with status 0 when it is not reached */
async function reach(method: string, path: string, body?: unknown, raw = false): Promise<Response> {
  const sent =
    body === undefined
      ? {}
      : body instanceof Blob
        ? { headers: { 'content-type': body.type }, body }
        : {
            headers: { 'content-type': 'application/json' },
            body: raw ? String(body) : JSON.stringify(body),
          };
  try {
    return await fetch(`/api${path}`, { method, ...sent });
  } catch {
    throw new ApiProblem(0, { code: 'offline', message: 'The server cannot be reached.' });
  }
}

function problemOf(status: number, answer: unknown): ApiProblem {
  const problem = refusalSchema.safeParse(answer);
  return new ApiProblem(
    status,
    problem.success ? problem.data : { code: 'error', message: `The server answered ${status}.` },
  );
}

/** An answer in JSON, read by its schema. @param body a file is sent as it is @param raw so is a text @throws ApiProblem */
export async function call<T>(
  method: string,
  path: string,
  schema: z.ZodType<T>,
  body?: unknown,
  raw = false,
): Promise<T> {
  const response = await reach(method, path, body, raw);
  const answer = readJson(await response.text(), response.status);
  if (response.ok) return schema.parse(answer);
  throw problemOf(response.status, answer);
}

/** A sheet to print, made by the server from what is sent: the one kind of answer that is no JSON. @throws ApiProblem */
/** Units and paper that a sheet is asked for with. */
export type PaperQuery = Readonly<Record<string, string>>;
export const queryOf = (query: PaperQuery): string => new URLSearchParams(query).toString();

export async function callForFile(path: string, body: unknown): Promise<Blob> {
  const response = await reach('POST', path, body);
  if (response.ok) return response.blob();
  throw problemOf(response.status, readJson(await response.text(), response.status));
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
