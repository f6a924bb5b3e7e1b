import type { PoolConnection } from 'mysql2/promise';
import type { Context } from '../../context';
import { pieceDue, PIECE_MS } from './due';
import { keepUp } from './keepUp';
import { makePieces } from './make';
import { partBy, piecesOf, queuePiece, type Piece } from './store';

jest.mock('../../room/store', () => ({ eventsOf: async () => [] }));
jest.mock('../store', () => ({
  recordingsWhere: async () => [{ id: 'r', sessionId: 's', plan: { leavesOut: ['screens'] } }],
}));
jest.mock('./make', () => ({ makePieces: jest.fn() }));
jest.mock('./store', () => ({
  alone: (_db: unknown, _recording: string, work: () => unknown) => work(),
  partBy: jest.fn(),
  piecesOf: jest.fn(),
  queuePiece: jest.fn(),
}));

const FROM = 1_000_000;
const db = {} as PoolConnection;
/** A part of which so many pieces are made, at so many ms after it began. */
async function at(ms: number, made: number, ended: number | null = null) {
  let count = made;
  jest.mocked(partBy).mockResolvedValue({ recording: 'r', from: FROM, until: ended && FROM + ended });
  jest.mocked(piecesOf).mockImplementation(async () => Array.from({ length: count }, () => ({}) as Piece));
  jest.mocked(makePieces).mockImplementation(async () => {
    count++;
    return [];
  });
  await keepUp({ now: () => FROM + ms } as Context, db, 'p');
}
beforeEach(() => jest.resetAllMocks());

test('a piece is made once all of it has come, and the next is asked for with it', async () => {
  await at(pieceDue(0, 0), 0);
  expect(jest.mocked(makePieces).mock.calls[0]!.slice(2)).toEqual([
    { id: 'p', recording: 'r', from: FROM, until: FROM + PIECE_MS },
    expect.objectContaining({ over: false, plan: { leavesOut: ['screens'] }, patient: true }),
  ]);
  expect(queuePiece).toHaveBeenCalledWith(db, 'p', 1, pieceDue(FROM, 1));
});

test('who is behind catches up one at a time: what is made stands', async () => {
  await at(10 * PIECE_MS, 3);
  expect(jest.mocked(makePieces).mock.calls[0]![2]).toMatchObject({ until: FROM + 4 * PIECE_MS });
  expect(queuePiece).toHaveBeenCalledWith(db, 'p', 4, pieceDue(FROM, 4));
});

test('of a part that is over all is made, and nothing is asked for after it', async () => {
  await at(10 * PIECE_MS, 2, 2.5 * PIECE_MS);
  expect(jest.mocked(makePieces).mock.calls[0]!.slice(2)).toEqual([
    expect.objectContaining({ until: FROM + 2.5 * PIECE_MS }),
    expect.objectContaining({ over: true }),
  ]);
  expect(queuePiece).not.toHaveBeenCalled();
});

test('a part that is no more is left alone', async () => {
  jest.mocked(partBy).mockResolvedValue(null);
  await keepUp({ now: () => FROM } as Context, db, 'p');
  expect(makePieces).not.toHaveBeenCalled();
});
