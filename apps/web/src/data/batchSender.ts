import type { Batch } from '@quarry/core/document';
import type { Acknowledged } from '@quarry/protocol/changes';
import { ApiProblem } from './api.ts';

// The transport of own batches: one at a time, tried again until the server has answered.

/** Time without an answer after which the server is reported as slow, ms; the request goes on. */
const ANSWER_MS = 5000;
const FIRST_RETRY_MS = 1000;
const LAST_RETRY_MS = 15_000;

export interface BatchSenderOptions {
  /** The batch to send next; undefined: none waits. */
  next: () => Batch | undefined;
  commit: (batch: Batch) => Promise<Acknowledged>;
  /** The server committed a batch. */
  onCommitted: (batch: Batch, answer: Acknowledged) => Promise<void>;
  /** The server refused a batch for good. */
  onRefused: (batch: Batch, problem: ApiProblem) => Promise<void>;
  /** The server does not answer, or answers late: what is shown is worth keeping. */
  onStalled: () => void;
  /** Something that a page shows has changed. */
  onChange: () => void;
}

export class BatchSender {
  /** Why batches wait; null: nothing is wrong. */
  trouble: string | null = null;
  private sending = false;
  private retryMs = FIRST_RETRY_MS;
  private timer: ReturnType<typeof setTimeout> | undefined;

  constructor(private readonly options: BatchSenderOptions) {}

  /** Sends what waits, unless that is under way. */
  send = (): void => {
    void this.run();
  };

  close(): void {
    clearTimeout(this.timer);
  }

  private async run(): Promise<void> {
    if (this.sending) return;
    this.sending = true;
    clearTimeout(this.timer);
    const { next, onChange } = this.options;
    try {
      for (let batch = next(); batch; batch = next()) {
        onChange();
        if (!(await this.sendOne(batch))) break;
      }
    } finally {
      this.sending = false;
      onChange();
    }
  }

  /** @returns whether the server has answered, so that the next one can go */
  private async sendOne(batch: Batch): Promise<boolean> {
    const { commit, onCommitted, onRefused, onStalled, onChange } = this.options;
    const late = setTimeout(() => {
      this.trouble = 'The server has not answered yet.';
      onStalled();
      onChange();
    }, ANSWER_MS);
    try {
      const answer = await commit(batch).finally(() => clearTimeout(late));
      this.trouble = null;
      this.retryMs = FIRST_RETRY_MS;
      await onCommitted(batch, answer);
      return true;
    } catch (error) {
      if (isRefusal(error)) {
        await onRefused(batch, error);
        return true;
      }
      if (this.trouble === null) onStalled();
      this.trouble = error instanceof Error ? error.message : String(error);
      this.timer = setTimeout(this.send, this.retryMs);
      this.retryMs = Math.min(this.retryMs * 2, LAST_RETRY_MS);
      return false;
    }
  }
}

/** Whether sending the same again is of no use. A lost session and too many requests pass. */
const isRefusal = (error: unknown): error is ApiProblem =>
  error instanceof ApiProblem &&
  error.status >= 400 &&
  error.status < 500 &&
  error.status !== 429 &&
  error.status !== 401;
