import { webcrypto } from 'node:crypto';
import { TextDecoder, TextEncoder } from 'node:util';

/** What a page expects of a browser and jsdom does not have. */
Object.defineProperty(window, 'matchMedia', {
  writable: true,
  value: (query: string) => ({
    matches: false,
    media: query,
    onchange: null,
    addListener: () => {},
    removeListener: () => {},
    addEventListener: () => {},
    removeEventListener: () => {},
    dispatchEvent: () => false,
  }),
});

class NoResizeObserver {
  observe() {}
  unobserve() {}
  disconnect() {}
}
Object.assign(window, { ResizeObserver: NoResizeObserver });
Element.prototype.scrollIntoView = () => {};
Object.assign(globalThis, { TextEncoder, TextDecoder });
Object.defineProperty(globalThis, 'crypto', { value: webcrypto });

/** The router makes a request for each way it goes; jsdom has none. */
globalThis.Request ??= class {
  readonly signal: AbortSignal | undefined;
  readonly method = 'GET';
  readonly headers = new Map();
  constructor(
    readonly url: string,
    init: RequestInit = {},
  ) {
    this.signal = init.signal ?? undefined;
  }
} as unknown as typeof Request;
