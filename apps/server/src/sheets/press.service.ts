import { pathToFileURL } from 'node:url';
import { HttpStatus, Inject, Injectable, type OnModuleDestroy } from '@nestjs/common';
import { Piscina } from 'piscina';
import { toRows, type Scene } from '@quarry/core/document';
import type { z } from 'zod';
import { CONFIG, type Config } from '../config.ts';
import { ApiError, type ProblemDetails } from '../http/errors.ts';
import type { PageSetting } from '../share/pageView.tsx';
import type { enlargedSchema } from './enlargedSheet.ts';
import type { listsSchema } from './listSheet.ts';
import type { pickSchema } from './pickSheet.ts';
import type { Print } from './paper.ts';
import type { reportBodySchema } from './reportSheet.ts';
import type { RenderedDocument, DocumentRequest } from './sheet.ts';

/** What a worker is to make; scenes as the text of their rows. */
export type Job = { rows: string } & (
  | { what: 'sheet'; ask: DocumentRequest }
  | { what: 'pick'; pick: z.infer<typeof pickSchema>; print: Print }
  | { what: 'lists'; lists: z.infer<typeof listsSchema>; print: Print }
  | { what: 'report'; before: string; report: z.infer<typeof reportBodySchema>; print: Print }
  | { what: 'enlarged'; enlarged: z.infer<typeof enlargedSchema>; print: Print }
  | { what: 'page'; at: number; names: boolean; setting: PageSetting }
  | { what: 'picture' }
);
export type Outcome =
  | { ok: true; made: RenderedDocument }
  | { ok: false; status: HttpStatus; problem: ProblemDetails };

/** Sheets that are made at the same time; what else the server does keeps a core of its own. */
const AT_ONCE = 2;
/** Sheets that may wait in all, and of one person: made or waiting. */
const MAX_WAITING = 60;
const MAX_OF_ONE = 4;
/** A sheet that takes longer is given up, ms. */
const LONGEST_MS = 120_000;
/** A worker that has nothing to do is let go after this long, ms. */
const IDLE_MS = 60_000;
/** Memory of one worker, MB. */
const MEMORY_MB = 768;

/** Makes sheets and other drawings in worker threads, in turn, so many at a time, a few for each person. */
@Injectable()
export class PressService implements OnModuleDestroy {
  private pool: Piscina<Job, Outcome> | null = null;
  private readonly mine = new Map<string, number>();
  private readonly rows = new WeakMap<Scene, string>();

  constructor(@Inject(CONFIG) private readonly config: Config) {}

  /** The text of a scene's rows, written once for each scene. */
  textOf(scene: Scene): string {
    const known = this.rows.get(scene);
    if (known !== undefined) return known;
    const text = JSON.stringify(toRows(scene));
    this.rows.set(scene, text);
    return text;
  }

  /**
   * Makes a sheet.
   * @param who whose turn it takes: an account, or the name of a public page
   * @param signal aborts the job when the client is gone
   * @throws ApiError as the sheet itself does; 429 when too many wait; 503 when it takes too long
   */
  async make(who: string, job: Job, signal?: AbortSignal): Promise<RenderedDocument> {
    const pool = (this.pool ??= this.open());
    const of = this.mine.get(who) ?? 0;
    if (of >= MAX_OF_ONE)
      throw tooMany(`You have ${of} sheets under way; the most is ${MAX_OF_ONE}. Wait for one of them.`);
    if (pool.queueSize >= MAX_WAITING)
      throw tooMany(`${pool.queueSize} sheets are waiting to be made; try again in a minute.`);
    this.mine.set(who, of + 1);
    const late = AbortSignal.timeout(LONGEST_MS);
    try {
      const outcome: Outcome = await pool.run(job, {
        signal: signal ? AbortSignal.any([signal, late]) : late,
      });
      if (outcome.ok) return outcome.made;
      const { code, message, ...extra } = outcome.problem;
      throw new ApiError(outcome.status, code, message, extra);
    } catch (error) {
      if (isOutOfMemory(error))
        throw new ApiError(
          HttpStatus.SERVICE_UNAVAILABLE,
          'too-large',
          `This sheet takes more than ${MEMORY_MB} MB to make; print less of it at once.`,
        );
      if (!late.aborted) throw error;
      throw new ApiError(
        HttpStatus.SERVICE_UNAVAILABLE,
        'too-slow',
        `This sheet was not made within ${LONGEST_MS / 1000} s; print less of it at once.`,
      );
    } finally {
      const left = (this.mine.get(who) ?? 1) - 1;
      if (left > 0) this.mine.set(who, left);
      else this.mine.delete(who);
    }
  }

  async onModuleDestroy(): Promise<void> {
    await this.pool?.destroy();
  }

  private open(): Piscina<Job, Outcome> {
    return new Piscina<Job, Outcome>({
      filename: pathToFileURL(this.config.worker).href,
      ...{ minThreads: 0, maxThreads: AT_ONCE, idleTimeout: IDLE_MS },
      resourceLimits: { maxOldGenerationSizeMb: MEMORY_MB },
    });
  }
}

const isOutOfMemory = (error: unknown) =>
  error instanceof Error && 'code' in error && error.code === 'ERR_WORKER_OUT_OF_MEMORY';

const tooMany = (message: string) => new ApiError(HttpStatus.TOO_MANY_REQUESTS, 'too-many', message);
