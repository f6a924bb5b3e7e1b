import { countWords, dayWords, instantWords, zoneWords } from '@nimble-bell/core/calendar';
import { paragraph, type Block } from '@nimble-bell/core/mail';
import type { Composed, Writing } from './compose';
import { NONE, sessionOf, titleOf } from './parts';

/** To those who teach, of a session that nobody has begun. */
export function nobodyThere(w: Writing): Composed {
  const session = sessionOf(w.desk, w.member, w.order);
  if (!session || session.state === 'live' || session.state === 'held') return NONE;
  const title = titleOf(session);
  const words = `${title} was to begin ${instantWords(session.startsAt, w.member.zone)}, ${zoneWords(w.member.zone)} time, and nobody has rung in. Students may be waiting: whoever of you can, come in and ring in.`;
  const button: Block = {
    kind: 'button',
    label: 'Go to the room',
    url: `${w.desk.origin}/room/${session.id}`,
  };
  return w.finish(`${w.course.code} ${title}: nobody has rung in`, [w.dear, paragraph(words), button]);
}

/** To those who teach: recordings that go before long, and the way to keep them. */
export function leaving(w: Writing): Composed {
  const { day, count } = w.order.about;
  const words = `${countWords(Number(count), 'recording')} of ${w.course.code} ${w.course.title} ${Number(count) === 1 ? 'is' : 'are'} kept until ${dayWords(String(day))}, and gone for everyone afterwards. One press keeps ${Number(count) === 1 ? 'it' : 'them'} longer.`;
  const button: Block = {
    kind: 'button',
    label: 'Go to the recordings',
    url: `${w.desk.origin}/course/${w.course.id}/recording`,
  };
  return w.finish(`${w.course.code}: recordings that go on ${dayWords(String(day))}`, [
    w.dear,
    paragraph(words),
    button,
  ]);
}

/** To those who teach: the space for recordings ends before the term does. */
export function space(w: Writing): Composed {
  const day = dayWords(String(w.order.about.day));
  const words = `By what the recordings of ${w.course.code} ${w.course.title} took so far, the space for them ends on ${day}. Keep fewer, or for a shorter time, or ask whoever runs the server for more: a class for which there is no room is recorded without pictures, and at last not at all.`;
  const button: Block = {
    kind: 'button',
    label: 'Go to the recordings',
    url: `${w.desk.origin}/course/${w.course.id}/recording`,
  };
  return w.finish(`${w.course.code}: the space for recordings ends on ${day}`, [
    w.dear,
    paragraph(words),
    button,
  ]);
}

/** To those who teach: what somebody asks of a moment of a recording, and the way to it. */
export function asked(w: Writing): Composed {
  const { recording, session: id, position, text, name } = w.order.about;
  const session = w.desk.plan.sessions.find((s) => s.id === id);
  if (!session) return NONE;
  const second = Math.floor(Number(position) / 1000);
  const title = titleOf(session);
  const words = `${String(name)} asks, at ${Math.floor(second / 60)}:${String(second % 60).padStart(2, '0')} of ${title} of ${instantWords(session.startsAt, w.member.zone)}:`;
  const button: Block = {
    kind: 'button',
    label: 'Go to that moment',
    url: `${w.desk.origin}/course/${session.courseId}/watch/${String(recording)}?at=${second}`,
  };
  return w.finish(`${w.course.code} ${title}: a question`, [
    w.dear,
    paragraph(words),
    paragraph(String(text)),
    button,
  ]);
}
