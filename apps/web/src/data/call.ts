import { z } from 'zod';

// The one fetch layer: every request of the pages goes through `call`, every answer through its schema.

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
    const response = await fetch(`/api${path}`, { method, ...sent });
    // A proxy that does not reach the server answers for it, in words of its own.
    const isJson = response.headers.get('content-type')?.includes('json') === true;
    if (GATEWAY_ERRORS.includes(response.status) && !isJson) throw unreached();
    return response;
  } catch {
    throw unreached();
  }
}
const GATEWAY_ERRORS: readonly number[] = [502, 503, 504];
const unreached = () => new ApiProblem(0, { code: 'offline', message: 'The server cannot be reached.' });

/** How long what is kept in the browser waits for a network that hangs, and where it has just been seen to, ms. */
const PATIENCE_MS = 3000;
const SHORT_PATIENCE_MS = 500;
let hangs = false;

/**
 * An answer for which there is something to go on with where it does not come.
 * @throws ApiProblem with status 0 after some seconds without an answer; else as the request does
 */
export function patient<T>(answer: Promise<T>): Promise<T> {
  return new Promise((resolve, reject) => {
    const late = setTimeout(
      () => {
        hangs = true;
        reject(unreached());
      },
      hangs ? SHORT_PATIENCE_MS : PATIENCE_MS,
    );
    void answer.then(
      (value) => {
        hangs = false;
        clearTimeout(late);
        resolve(value);
      },
      (error: unknown) => {
        clearTimeout(late);
        reject(error instanceof Error ? error : new Error(String(error)));
      },
    );
  });
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

// A sheet to print, made by the server from what is sent: the one kind of answer that is no JSON. @throws ApiProblem
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
