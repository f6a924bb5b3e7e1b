import { createHash, randomBytes } from 'node:crypto';
import { one, rows, run, type Db } from '../db/pool';

export interface Person {
  id: string;
  name: string;
  email: string;
  zone: string;
  staff: number;
}

const SESSION_MS = 14 * 86_400_000;
export const hashed = (token: string) => createHash('sha256').update(token).digest('hex');

export const personByEmail = (db: Db, email: string) =>
  one<Person & { password_hash: string | null }>(
    db,
    'SELECT id, name, email, zone, staff, password_hash FROM people WHERE email = ?',
    [email],
  );

export async function openSession(db: Db, person: string, now: number): Promise<string> {
  const token = randomBytes(32).toString('base64url');
  await run(db, 'INSERT INTO auth_sessions (token_hash, person_id, expires_at) VALUES (?, ?, ?)', [
    hashed(token),
    person,
    now + SESSION_MS,
  ]);
  return token;
}

export const closeSession = (db: Db, token: string) =>
  run(db, 'DELETE FROM auth_sessions WHERE token_hash = ?', [hashed(token)]);

export const personByToken = (db: Db, token: string, now: number) =>
  one<Person>(
    db,
    `SELECT p.id, p.name, p.email, p.zone, p.staff
       FROM auth_sessions s JOIN people p ON p.id = s.person_id
      WHERE s.token_hash = ? AND s.expires_at > ?`,
    [hashed(token), now],
  );

/** Those of these sign-ins that are still good, by the hash of their token. */
export const liveTokens = async (db: Db, hashes: readonly string[], now: number): Promise<Set<string>> =>
  new Set(
    (
      await rows<{ hash: string }>(
        db,
        'SELECT token_hash AS hash FROM auth_sessions WHERE token_hash IN (?) AND expires_at > ?',
        [hashes, now],
      )
    ).map((row) => row.hash),
  );
