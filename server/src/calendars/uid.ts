/** An entry is known by its series, or, where it is one session of several on a date, by date and place too. */
export const entryKey = (seriesId: string, session: { date: string; take: number } | null): string =>
  session && session.take > 0 ? `${seriesId}.${session.date}.${session.take}` : seriesId;

/** What a key says. */
export function entryOfKey(key: string): Pick<NamedEntry, 'seriesId' | 'session'> {
  const [seriesId = '', date, take] = key.split('.');
  return { seriesId, session: date ? { date, take: Number(take) || 0 } : null };
}

const AT = '@nimble-bell';

/**
 * The UID of an entry (RFC 5545 §3.8.4.7): its key, and what only its owner's letters and feeds tell. Who was on a class
 * list before there were such secrets has none.
 */
export const uidOf = (key: string, secret: string | null): string =>
  secret ? `${key}~${secret}${AT}` : `${key}${AT}`;

export interface NamedEntry {
  seriesId: string;
  /** Of an entry that is one session. */
  session: { date: string; take: number } | null;
  secret: string | null;
}

/** What a UID says; null where it is none of ours. */
export function entryOfUid(uid: string): NamedEntry | null {
  if (!uid.endsWith(AT)) return null;
  const [key = '', secret] = uid.slice(0, -AT.length).split('~');
  return key ? { ...entryOfKey(key), secret: secret || null } : null;
}
