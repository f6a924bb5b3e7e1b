import type { Told } from '@nimble-bell/core/api';
import type { PoolConnection } from 'mysql2/promise';
import { newId } from '../context';
import { takeTurn } from '../courses/turn';
import { givePins } from '../roster/pins';
import { queueNews } from './queue';
import { invitedPeople, writeTelephone } from './store';

/**
 * Gives a course a telephone line, another one, or none, in the caller's transaction. Its people get a PIN each, and
 * those invited are told with the entries of their calendars. Gives who.
 */
export async function setTelephone(
  db: PoolConnection,
  courseId: string,
  number: string | null,
  tellAt: number,
): Promise<Told[]> {
  await takeTurn(db, courseId);
  const { changedRows } = await writeTelephone(db, number, courseId);
  await givePins(db, courseId);
  if (!changedRows) return [];
  const told = (await invitedPeople(db, courseId)).map(({ member, name }) => ({ member, name }));
  await queueNews(db, [{ courseId, changeId: newId(), members: told.map((t) => t.member) }], tellAt);
  return told;
}
