import type { Context } from '../context';
import { Elsewhere, Leases } from './lease';

const leases = new Map<string, { owner: string; epoch: number }>();
const servers = new Map<string, { address: string; silentMs: number | null }>();
let upMs = 60_000;

jest.mock('./store', () => ({
  LeaseLost: class extends Error {},
  databaseUpMs: async () => upMs,
  heartbeat: async (_db: unknown, id: string, address: string) =>
    void servers.set(id, { address, silentMs: 0 }),
  farewell: async (_db: unknown, id: string) => void servers.delete(id),
  holderOf: async (_db: unknown, session: string) => {
    const lease = leases.get(session);
    const server = lease && servers.get(lease.owner);
    return lease
      ? { session, ...lease, address: server?.address ?? null, silentMs: server?.silentMs ?? null }
      : null;
  },
  takeFirst: async (_db: unknown, session: string, owner: string) => {
    if (leases.has(session)) return false;
    leases.set(session, { owner, epoch: 1 });
    return true;
  },
  takeOver: async (_db: unknown, from: { session: string; owner: string; epoch: number }, owner: string) => {
    const now = leases.get(from.session);
    if (now?.owner !== from.owner || now.epoch !== from.epoch) return false;
    leases.set(from.session, { owner, epoch: from.epoch + 1 });
    return true;
  },
}));

const ctx = { db: {}, now: () => 100_000, log: { warn: () => {} } } as unknown as Context;
const started: Leases[] = [];
async function server(address: string): Promise<Leases> {
  const made = new Leases(ctx, address);
  started.push(made);
  await made.start();
  return made;
}
beforeEach(() => {
  leases.clear();
  servers.clear();
  upMs = 60_000;
});
afterEach(async () => {
  for (const s of started.splice(0)) await s.stop();
});

test('a room goes to whoever asks first, and to no other while that one lives', async () => {
  const [one, two] = [await server('127.0.0.1:1'), await server('127.0.0.1:2')];
  const outcomes = await Promise.allSettled([one.take('s'), two.take('s')]);
  expect(outcomes.map((o) => o.status).sort()).toEqual(['fulfilled', 'rejected']);
  await expect(two.take('s')).rejects.toBeInstanceOf(Elsewhere);
  expect(await two.elsewhere('s')).toBe('127.0.0.1:1');
  expect(await one.elsewhere('s')).toBeNull();
});

test("a silent server's rooms are taken under the next epoch, by one of those who try", async () => {
  const [one, two, three] = [await server('h:1'), await server('h:2'), await server('h:3')];
  await one.take('s');
  servers.set(one.id, { address: 'h:1', silentMs: 3500 });
  const outcomes = await Promise.allSettled([two.take('s'), three.take('s')]);
  const won = outcomes.flatMap((o) => (o.status === 'fulfilled' ? [o.value] : []));
  expect(won).toHaveLength(1);
  expect(won[0]).toMatchObject({ lease: { epoch: 2 }, silentSince: 96_500 });
});

test('a server that comes back at its address takes its own rooms again at once', async () => {
  const before = await server('h:1');
  await before.take('s');
  const again = new Leases(ctx, 'h:1');
  expect(await again.take('s')).toMatchObject({ lease: { owner: before.id, epoch: 2 } });
});

test('what a database forgot by being restarted is no silence', async () => {
  const [one, two] = [await server('h:1'), await server('h:2')];
  await one.take('s');
  servers.delete(one.id);
  upMs = 2000;
  await expect(two.take('s')).rejects.toBeInstanceOf(Elsewhere);
  upMs = 10_000;
  expect(await two.take('s')).toMatchObject({ lease: { epoch: 2 }, silentSince: null });
});
