/** Few faces are drawn while one moves, all of them when one has stood still for so long, ms. */
const STILL_MS = 250;

/** Whether one moves: what draws the display listens, what moves the eye tells. */
export class Detail {
  readonly #listeners = new Set<(isMoving: boolean) => void>();
  #isMoving = false;
  #timer: ReturnType<typeof setTimeout> | undefined;

  /** @returns ends it */
  listen(listener: (isMoving: boolean) => void): () => void {
    this.#listeners.add(listener);
    return () => this.#listeners.delete(listener);
  }

  /** A step was taken. */
  move(): void {
    clearTimeout(this.#timer);
    this.#timer = setTimeout(() => this.rest(), STILL_MS);
    this.#set(true);
  }

  /** One stands still. */
  rest(): void {
    clearTimeout(this.#timer);
    this.#set(false);
  }

  #set(isMoving: boolean): void {
    if (this.#isMoving === isMoving) return;
    this.#isMoving = isMoving;
    for (const listener of this.#listeners) listener(isMoving);
  }
}
