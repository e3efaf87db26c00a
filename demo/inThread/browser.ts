// What the application's services find in a browser, as far as the making of a demo project needs it, for Node.js.
import 'fake-indexeddb/auto';

class Kept {
  private readonly map = new Map<string, string>();
  getItem = (key: string) => this.map.get(key) ?? null;
  setItem = (key: string, value: string) => void this.map.set(key, value);
  removeItem = (key: string) => void this.map.delete(key);
}

/** Its address is all that is known of a worker here: `lane` finds its jobs by it. */
class NamedWorker {
  constructor(readonly url: URL) {}
}

Object.assign(globalThis, {
  localStorage: new Kept(),
  sessionStorage: new Kept(),
  Worker: NamedWorker,
  addEventListener: () => {},
  removeEventListener: () => {},
  dispatchEvent: () => true,
});
Object.defineProperty(globalThis, 'navigator', {
  configurable: true,
  value: {
    userAgent: 'Node.js',
    locks: {
      request: async (_: string, options: unknown, run?: (lock: object) => unknown) =>
        (run ?? (options as (lock: object) => unknown))({}),
    },
  },
});
