import {
  Catch,
  HttpException,
  HttpStatus,
  Logger,
  type ArgumentsHost,
  type ExceptionFilter,
} from '@nestjs/common';
import type { Request, Response } from 'express';
import { present } from '@quarry/core/grid';
import { escapeMarks } from '@quarry/core/formats';
import { z } from 'zod';
import { requesterOf } from './requester.ts';

/** The body of every answer that is not a success: a code for programs, a sentence for people. */
export interface ProblemDetails {
  code: string;
  message: string;
}

/** An error with a status, a code and a sentence; extra fields travel along (a refusal's current entity). */
export class ApiError extends HttpException {
  readonly problem: ProblemDetails;

  constructor(status: HttpStatus, code: string, message: string, extra: Record<string, unknown> = {}) {
    super(message, status);
    this.problem = { ...extra, code, message };
  }
}

export const notFound = (what: string) =>
  new ApiError(HttpStatus.NOT_FOUND, 'not-found', `There is no such ${what}, or you may not see it.`);

const STATUS_CODES: Partial<Record<number, string>> = {
  400: 'bad-request',
  401: 'signed-out',
  403: 'forbidden',
  404: 'not-found',
  413: 'too-large',
  429: 'too-many',
};

/** Status codes of refusals. */
const REFUSED: readonly number[] = [401, 403, 429];

/** SQLite's messages for a full disk. */
const isDiskFull = (error: unknown) =>
  error instanceof Error &&
  /SQLITE_FULL|database or disk is full|SQLITE_IOERR/.test(
    `${'code' in error ? String(error.code) : ''} ${error.message}`,
  );

/** A problem as a page, for an address of the API opened in a browser. */
const problemPage = ({ message }: ProblemDetails) => `<!doctype html>
<html lang="en">
<meta charset="utf-8">
<meta name="viewport" content="width=device-width">
<title>Open Quarry: this was not made</title>
<body>
<main>
<h1>This was not made</h1>
<p>${escapeMarks(message)}</p>
<p>Nothing was changed. Close this tab to go back to the display, or <a href="/">open your displays</a>.</p>
</main>
</body>
</html>
`;

/** Converts any thrown value to problem details. Unexpected errors are logged and answered without internals. */
@Catch()
export class ErrorFilter implements ExceptionFilter {
  private readonly log = new Logger('errors');

  catch(error: unknown, host: ArgumentsHost): void {
    const http = host.switchToHttp();
    const response = http.getResponse<Response>();
    if (response.headersSent) {
      response.end();
      return;
    }
    const [status, body] = this.describe(error);
    const request = http.getRequest<Request>();
    if (REFUSED.includes(status)) this.noteRefusal(request, status, body);
    response.status(status);
    // A file that was opened in a tab of its own: its reader is a person.
    if (request.accepts(['json', 'html']) === 'html') response.type('html').send(problemPage(body));
    else response.json(body);
  }

  /** Logs a refusal with requester and address, for an operator who investigates probing. */
  private noteRefusal(request: Request, status: number, { code }: ProblemDetails): void {
    const named = z.object({ login: z.string().max(40) }).safeParse(request.body);
    const who =
      requesterOf(request)?.login ??
      (named.success ? `“${named.data.login}” (not signed in)` : 'nobody signed in');
    this.log.warn(
      `refused ${status} ${code}: ${request.method} ${request.path} by ${who} from ${request.ip ?? '?'}`,
    );
  }

  private describe(error: unknown): [number, ProblemDetails] {
    if (error instanceof ApiError) return [error.getStatus(), error.problem];
    if (isDiskFull(error))
      return [
        507,
        {
          code: 'disk-full',
          message: 'The server’s disk is full: nothing was saved. Make room, then send it again.',
        },
      ];
    if (error instanceof HttpException) {
      const status = error.getStatus();
      const message = status === 429 ? 'Too many attempts from here; wait a minute.' : error.message;
      return [status, { code: STATUS_CODES[status] ?? 'error', message }];
    }
    // Express's body parser throws errors with a status of their own.
    const parsed = z.object({ status: z.int().min(400).max(499), message: z.string() }).safeParse(error);
    if (parsed.success) {
      const { status, message } = parsed.data;
      return [
        status,
        {
          code: STATUS_CODES[status] ?? 'bad-request',
          message:
            status === 413
              ? 'The request is larger than this server takes.'
              : `The request cannot be read: ${message}.`,
        },
      ];
    }
    this.log.error(error instanceof Error ? error.stack : String(error));
    return [500, { code: 'error', message: 'Something went wrong on the server. Nothing was saved.' }];
  }
}

/** Checks a body against a schema. @throws ApiError 422 naming the field, its fault and the limit */
export function parseBody<S extends z.ZodType>(schema: S, body: unknown): z.output<S> {
  const read = schema.safeParse(body);
  if (read.success) return read.data;
  const issue = present(read.error.issues[0], 'the first fault');
  const field = issue.path.length > 0 ? `“${issue.path.join('.')}”: ` : '';
  throw new ApiError(HttpStatus.UNPROCESSABLE_ENTITY, 'invalid', `${field}${issue.message}.`);
}
