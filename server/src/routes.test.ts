import { ROUTES } from '../../e2e/support/authorisation';
import { createApp } from './app';
import type { Context } from './context';
import { noRelay } from './media/relay';

interface Layer {
  route?: { path: string; methods: Record<string, boolean> };
  handle: { stack?: Layer[] };
}

/** The routes of a router, its mounted ones included. */
function routesOf(stack: Layer[], prefix: string): string[] {
  return stack.flatMap(({ route, handle }) => {
    if (route)
      return Object.keys(route.methods).map(
        (m) => `${m.toUpperCase()} ${(prefix + route.path).replace(/\/$/, '')}`,
      );
    return handle.stack
      ? routesOf(handle.stack, handle.stack.some((l) => l.route?.path === '/') ? '/api/mailbox' : '/api')
      : [];
  });
}

test('every route of the server stands in the authorisation table, and no other', () => {
  const config = { webDir: '.', dataDir: '.', demo: true } as Context['config'];
  const app = createApp({ config } as Context, noRelay, {
    says: () => null,
    tried: async () => [],
    prompt: () => false,
  });
  const stack = (app as unknown as { router: { stack: Layer[] } }).router.stack;
  const routes = routesOf(stack, '').filter((r) => r.includes('/api/'));
  expect(routes.sort()).toEqual(Object.keys(ROUTES).sort());
});
