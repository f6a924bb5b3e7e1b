import { webcrypto } from 'node:crypto';
import { configure } from '@testing-library/dom';
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
/** Everything is in sight. */
class AllInSight {
  constructor(readonly tell: (entries: { isIntersecting: boolean }[]) => void) {}
  observe() {
    this.tell([{ isIntersecting: true }]);
  }
  disconnect() {}
}
Object.assign(window, {
  ResizeObserver: NoResizeObserver,
  IntersectionObserver: AllInSight,
});
Element.prototype.scrollIntoView = () => {};
Object.assign(globalThis, { TextEncoder, TextDecoder });
Object.defineProperty(globalThis, 'crypto', { value: webcrypto });

/** Parts of a page that come by themselves are compiled when they are first asked for, on a busy machine too. */
configure({ asyncUtilTimeout: 6000 });
