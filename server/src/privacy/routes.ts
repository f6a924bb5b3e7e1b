import { Router, type Request } from 'express';
import { strToU8, zipSync } from 'fflate';
import { principalOf, requireRight, type MemberRow } from '../accounts/principal';
import { newLinkCode, type Context } from '../context';
import { one, rows, run, transaction, type Db } from '../db/pool';
import { AppError } from '../errors';

/** What the college holds of a person: to take along, and to have forgotten. */
export function privacyRoutes(ctx: Context): Router {
  const router = Router();

  const about = async (req: Request) => {
    const me = await requireRight(
      ctx,
      await principalOf(ctx, req.headers),
      req.params.course as string,
      'plan',
    );
    const person = await one<{ id: string; personId: string; name: string; account: number }>(
      ctx.db,
      `SELECT m.id, m.person_id AS personId, p.name, p.password_hash IS NOT NULL AS account
         FROM enrolments m JOIN people p ON p.id = m.person_id WHERE m.id = ? AND m.course_id = ?`,
      [req.params.member as string, me.courseId],
    );
    if (!person) throw new AppError('not-found', 'There is no such person on the class list.');
    return { me, person };
  };

  router.get('/courses/:course/members/:member/data', async (req, res) => {
    const { person } = await about(req);
    await send(res, person.personId, person.name);
  });

  /** The same for oneself, by one's own link. */
  router.get('/my-course/data', async (req, res) => {
    const principal = await principalOf(ctx, req.headers);
    if (principal.kind !== 'link') throw new AppError('forbidden');
    await send(res, principal.member.personId, principal.member.name);
  });

  const send = async (res: import('express').Response, personId: string, name: string) => {
    const files = await dataOf(ctx.db, personId);
    const zip = zipSync(
      Object.fromEntries(
        Object.entries(files).map(([file, value]) => [file, strToU8(JSON.stringify(value, null, 2))]),
      ),
    );
    res.attachment(`${name}.zip`).type('application/zip').send(Buffer.from(zip));
  };

  /** Forgets a person: name, address, letters and answers go; the roll stays, of somebody without a name. */
  router.delete('/courses/:course/members/:member/data', async (req, res) => {
    const { me, person } = await about(req);
    if (person.account)
      throw new AppError('in-use', 'Somebody with an account is not forgotten from a class list.');
    await transaction(ctx.db, (db) => forget(db, person.personId, me, ctx.now()));
    res.json({});
  });
  return router;
}

async function dataOf(db: Db, personId: string): Promise<Record<string, unknown>> {
  const ask = (sql: string) => rows<Record<string, unknown>>(db, sql, [personId]);
  const OWN = 'SELECT id FROM enrolments WHERE person_id = ?';
  const [person, courses, letters, replies, presence] = await Promise.all([
    ask('SELECT name, preferred_name, email, zone FROM people WHERE id = ?'),
    ask(
      `SELECT c.code, c.title, m.id AS member, m.role, m.group_name, m.extra, m.left_at, m.last_seen
         FROM enrolments m JOIN courses c ON c.id = m.course_id WHERE m.person_id = ?`,
    ),
    ask(
      `SELECT topic, subject, state, due_at, done_at, bounced_at, JSON_VALUE(letter, '$.text') AS text
         FROM jobs WHERE kind = 'mail' AND member_id IN (${OWN}) ORDER BY id`,
    ),
    ask(`SELECT member_id, series_id, local_date, answer, at FROM replies WHERE member_id IN (${OWN})`),
    ask(
      `SELECT e.session_id, e.seq, e.at, e.body FROM room_events e JOIN sessions s ON s.id = e.session_id
         JOIN enrolments m ON m.course_id = s.course_id
        WHERE m.person_id = ? AND m.id IN (JSON_VALUE(e.body, '$.member'), JSON_VALUE(e.body, '$.from')) ORDER BY e.at`,
    ),
  ]);
  return {
    'person.json': person[0],
    'courses.json': courses,
    'letters.json': letters,
    'replies.json': replies,
    'in-class.json': presence,
  };
}

const NOBODY = 'Somebody who left';

async function forget(db: Db, personId: string, by: MemberRow, now: number) {
  const members = await rows<{ id: string; courseId: string }>(
    db,
    'SELECT id, course_id AS courseId FROM enrolments WHERE person_id = ? FOR UPDATE',
    [personId],
  );
  const ids = members.map((m) => m.id);
  await run(db, "UPDATE people SET name = ?, preferred_name = NULL, email = ?, zone = 'UTC' WHERE id = ?", [
    NOBODY,
    `forgotten-${personId}@nimble-bell.invalid`,
    personId,
  ]);
  for (const id of ids)
    await run(
      db,
      "UPDATE enrolments SET left_at = COALESCE(left_at, ?), link_code = ?, extra = '{}', last_seen = NULL WHERE id = ?",
      [now, newLinkCode(), id],
    );
  await run(db, 'DELETE FROM replies WHERE member_id IN (?)', [ids]);
  await run(db, 'DELETE FROM calendar_copies WHERE member_id IN (?)', [ids]);
  await run(db, "DELETE FROM jobs WHERE kind = 'mail' AND member_id IN (?)", [ids]);
  await run(db, 'DELETE FROM feeds WHERE person_id = ?', [personId]);
  await run(
    db,
    `UPDATE room_events SET body = JSON_SET(body, '$.name', ?) WHERE JSON_VALUE(body, '$.type') = 'entered' AND JSON_VALUE(body, '$.member') IN (?)`,
    [NOBODY, ids],
  );
  await run(
    db,
    `UPDATE room_events SET body = JSON_SET(body, '$.text', '(taken away)') WHERE JSON_VALUE(body, '$.type') = 'said' AND JSON_VALUE(body, '$.from') IN (?)`,
    [ids],
  );
  // The history of the list holds names and addresses too: of this person they go.
  const changes = await rows<{ id: string; body: unknown }>(
    db,
    'SELECT id, body FROM list_changes WHERE course_id IN (?)',
    [members.map((m) => m.courseId)],
  );
  for (const change of changes) {
    const body = (typeof change.body === 'string' ? JSON.parse(change.body) : change.body) as {
      after: { id: string };
    }[];
    const rest = body.filter((row) => !ids.includes(row.after.id));
    if (rest.length < body.length)
      await run(db, 'UPDATE list_changes SET body = ?, words = ? WHERE id = ?', [
        JSON.stringify(rest),
        `A change of the list (${by.name} had somebody forgotten since)`,
        change.id,
      ]);
  }
}
