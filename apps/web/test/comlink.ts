// Workers that answer in the page's own thread, in place of comlink: for tests of whole pages.
import { fileURLToPath } from 'node:url';

/** What each file of a worker exposes. */
const exposed = new Map<string, object>();
let last: object = {};

/** One worker: what it exposes, of its own where that is of a class. */
class InThreadWorker extends EventTarget {
  readonly api: object;

  constructor(url: URL) {
    super();
    const path = fileURLToPath(url);
    if (!exposed.has(path)) {
      jest.requireActual(path);
      exposed.set(path, last);
    }
    const api = exposed.get(path) ?? {};
    this.api = api.constructor === Object ? api : Reflect.construct(api.constructor, []);
  }

  terminate(): void {}
}
Object.assign(globalThis, { Worker: InThreadWorker });

export const expose = (api: object): void => {
  last = api;
};
export const proxy = <T>(value: T): T => value;
export const transfer = proxy;
/** Its methods answer by promises, a moment later. */
export const wrap = ({ api }: InThreadWorker): object =>
  new Proxy(api, {
    get: (of, name) => {
      const method: unknown = Reflect.get(of, name);
      return typeof method === 'function'
        ? (...args: unknown[]) => Promise.resolve().then(() => Reflect.apply(method, of, args))
        : undefined;
    },
  });
