import { isFor, targetOf } from '@nimble-bell/core/roster';
import type { MemberRow } from '../accounts/store';
import type { SessionRow } from '../courses/store';
import type { Composed, Desk, LetterOrder } from './compose';

/** There is nothing to say. */
export const NONE: Composed = { letter: null, copies: new Map(), entries: [], changed: new Map() };

export const titleOf = (s: SessionRow) => (s.title ? `${s.seriesTitle}: ${s.title}` : s.seriesTitle);

/** The session that a letter is about, where it still stands as it did when the letter was asked for. */
export function sessionOf(desk: Desk, member: MemberRow, { about }: LetterOrder): SessionRow | null {
  const session = desk.plan.sessions.find((s) => s.id === about.session);
  if (!session || session.state === 'cancelled' || session.endsAt <= desk.now) return null;
  return session.startsAt === about.startsAt && isFor(targetOf(session), member) ? session : null;
}
