import type { LetterAhead, Told } from '@nimble-bell/core/api';
import { spokenPin } from '@nimble-bell/core/mail';
import type { PoolConnection } from 'mysql2/promise';
import type { Context } from '../context';
import { json, rehearse, type Db } from '../db/pool';
import { compose } from './compose';
import { desksFor } from './desk';
import { readersOf, type Reader } from './readers';
import { lettersWaiting } from './store';

/** The letters that a change of one course would cause: it is rehearsed, and says who is told. */
export const lettersOf = (
  ctx: Context,
  courseId: string,
  change: (db: PoolConnection) => Promise<readonly Told[]>,
): Promise<LetterAhead[]> => rehearse(ctx.db, async (db) => lettersTo(ctx, db, [courseId], await change(db)));

/**
 * The letters that wait for these people of these courses, composed as they would leave now: asked within a rehearsed change, what will
 * be sent to whom. People whose letters differ by name and link alone are one entry, the most first.
 */
export async function lettersTo(
  ctx: Context,
  db: Db,
  courses: readonly string[],
  people: readonly Told[],
): Promise<LetterAhead[]> {
  if (!people.length) return [];
  const waiting = await lettersWaiting(
    db,
    people.map((p) => p.member),
  );
  const desks = await desksFor(ctx, db, courses);
  const readers = await readersOf(
    db,
    waiting.map((w) => w.member),
  );
  const alike = new Map<string, LetterAhead | null>();
  for (const { topic, course, member, payload, dueAt } of waiting) {
    const reader = readers.get(member);
    const desk = desks.get(course);
    if (!reader || !desk) continue;
    const key = `${course} ${topic} ${dueAt} ${JSON.stringify(json(payload))} ${likeness(reader)}`;
    if (!alike.has(key)) {
      const order = { topic, about: json<Record<string, unknown>>(payload) };
      const { letter, entries } = compose(desk, reader.member, order, reader.held);
      const { zone } = reader.member;
      alike.set(
        key,
        letter && {
          topic,
          subject: letter.subject,
          text: letter.text,
          html: letter.html,
          entries,
          dueAt,
          names: [],
          zone,
        },
      );
    }
    alike.get(key)?.names.push(reader.member.name);
  }
  return [...alike.values()].filter((l) => l !== null).sort((a, b) => b.names.length - a.names.length);
}

/** What two people's letters depend on beside their names and links. */
function likeness({ member, held }: Reader): string {
  const { role, group, scope, zone } = member;
  const plain = (text: string) =>
    text.replaceAll(member.link, '').replaceAll(member.pin ? spokenPin(member.pin) : member.link, '');
  const copies = [...held].map(([key, { url, description, uid, sequence, sessions, ...copy }]) => [
    key,
    { ...copy, url: plain(url), description: plain(description ?? '') },
    sessions.map(({ since, ...s }) => s),
  ]);
  return JSON.stringify([role, group, scope, zone, copies]);
}
