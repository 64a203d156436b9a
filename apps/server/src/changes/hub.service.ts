import { Injectable, type OnModuleDestroy } from '@nestjs/common';
import type { Batch } from '@quarry/core/scene';

/** An accepted batch as it stands in the log and goes down the stream. */
export interface Landed extends Batch {
  seq: number;
  author: string;
  at: number;
}

type Listener = { deliver(landed: Landed): void; end(): void };

/** Who listens to which display. */
@Injectable()
export class HubService implements OnModuleDestroy {
  private readonly listeners = new Map<string, Set<Listener>>();

  subscribe(displayId: string, listener: Listener): () => void {
    const set = this.listeners.get(displayId) ?? new Set();
    this.listeners.set(displayId, set.add(listener));
    return () => {
      set.delete(listener);
      if (set.size === 0) this.listeners.delete(displayId);
    };
  }

  publish(displayId: string, landed: Landed): void {
    for (const listener of this.listeners.get(displayId) ?? []) listener.deliver(landed);
  }

  onModuleDestroy(): void {
    for (const set of this.listeners.values()) for (const listener of set) listener.end();
  }
}
