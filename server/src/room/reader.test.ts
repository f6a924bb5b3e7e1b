import type { Db } from '../db/pool';
import { RoomReader } from './reader';
import { eventRowsAfter } from './store';

jest.mock('./store', () => ({ eventRowsAfter: jest.fn() }));
const reads = eventRowsAfter as jest.MockedFunction<typeof eventRowsAfter>;
const db = {} as Db;
const said = (seq: number) => ({
  event: { type: 'rangIn', by: 'maren', seq, at: seq } as const,
  command: null,
});

test('a class that asks at once is answered by two questions; whoever asks after something happened knows of it', async () => {
  const stored: ReturnType<typeof said>[] = [said(1)];
  let asked = 0;
  reads.mockImplementation(async (_db, _session, seq) => {
    asked++;
    const found = stored.filter((r) => r.event.seq > seq);
    await new Promise((resolve) => setTimeout(resolve, 5));
    return found as never;
  });
  const reader = new RoomReader();
  const first = reader.room(db, 's');
  await new Promise((resolve) => setTimeout(resolve, 1));
  // It has happened before these ask, while the first is still answered.
  stored.push(said(2));
  const others = Array.from({ length: 300 }, () => reader.room(db, 's'));
  expect((await first).seq).toBe(1);
  expect(new Set((await Promise.all(others)).map((r) => r.seq))).toEqual(new Set([2]));
  expect(asked).toBe(2);
});

test('one that fails fails those who asked it, and nobody after', async () => {
  reads.mockRejectedValueOnce(new Error('away'));
  const reader = new RoomReader();
  await expect(reader.room(db, 's')).rejects.toThrow('away');
  reads.mockResolvedValueOnce([said(1)] as never);
  expect((await reader.room(db, 's')).seq).toBe(1);
});
