import fc from 'fast-check';
import type { CalendarCopy } from '@nimble-bell/core/calendar';
import { CalendarClient } from '@nimble-bell/core/testing';
import type { CoursePlan } from '../calendars/entries';
import type { SessionRow } from '../courses/store';
import { isFor, targetOf } from '@nimble-bell/core/roster';
import { deskOf, makePlan, memberRow, NOW, seriesRow, sessionRows, weekly } from '../testing/coursePlan';
import type { Context } from '../context';
import { compose, type LetterOrder } from './compose';
import { messageOf } from './send';

type Held = Map<string, CalendarCopy>;
const order = (topic: LetterOrder['topic'], about: LetterOrder['about'] = {}): LetterOrder => ({
  topic,
  about,
});
const none: Held = new Map();

/** A person who has had an invitation, and what their calendar then holds. */
function invited(plan = makePlan(), member = memberRow()) {
  const first = compose(deskOf(plan), member, order('invitation'), none);
  return { plan, member, letter: first.letter!, held: first.copies as Held };
}
const changed = (plan: CoursePlan, id: string, how: Partial<SessionRow>): CoursePlan => ({
  ...plan,
  sessions: plan.sessions.map((s) => (s.id === id ? { ...s, ...how } : s)),
});
const news = (plan: CoursePlan, held: Held, member = memberRow()) =>
  compose(deskOf(plan), member, order('update'), held);
const ahead = (plan: CoursePlan, n = 0) =>
  plan.sessions.filter((s) => s.seriesId === 'Lecture' && s.startsAt > NOW + 3_600_000)[n]!;

test('an invitation holds its own link, the series in words, and the next session in the person’s own time', () => {
  const { letter } = invited();
  expect(letter.subject).toBe('TID-101 Tides & Streams: your way in');
  expect(letter.text).toContain('Maren Oduya invites you to TID-101');
  expect(letter.text).toContain('http://127.0.0.1:8210/in/abcd2345efgh67892');
  expect(letter.text).toContain(
    'Lecture: Tue 21:30–22:50, on Tue 27 Oct 20:30–21:50, your time in Azores (Tue 18:30–19:50 in Halifax), 14 sessions',
  );
  expect(letter.text).toContain('Sessions are not recorded by themselves.');
  expect(letter.text).toMatch(/Open to you in class: .*cameras.* By a raised hand: speaking/);
  const athome = invited(makePlan(), memberRow({ zone: 'America/Halifax' })).letter;
  expect(athome.text).toContain('Lecture: Tue 18:30–19:50 (Halifax time), 14 sessions');
  expect(letter.text).toContain('The next session begins Tue 6 Oct, 21:30, Azores time.');
  expect(letter.calendars).toHaveLength(1);
  expect(letter.calendars[0]!.content).toContain('mailto:ana@saltmarsh.example');
});

test('days and hours in a letter are as its reader chose; what calendars read is the same for all', () => {
  const styles = new Map([['p1', { hours: '12', order: 'month first', weekBegins: 'sunday' }]] as const);
  const plan = makePlan();
  const letter = compose(deskOf(plan, { styles }), memberRow(), order('invitation'), none).letter!;
  expect(letter.text).toContain('The next session begins Tue Oct 6, 9:30 pm, Azores time.');
  expect(letter.text).toContain('Lecture: Tue 9:30 pm–10:50 pm, on Tue Oct 27 8:30 pm–9:50 pm');
  const others = compose(deskOf(plan, { styles }), memberRow({ personId: 'p2' }), order('invitation'), none);
  expect(others.letter!.text).toContain('The next session begins Tue 6 Oct, 21:30, Azores time.');
  expect(letter.calendars[0]!.content).toBe(others.letter!.calendars[0]!.content);
});

test('only those of a group are invited to its sessions, an entry a series', () => {
  const { letter } = invited(makePlan(), memberRow({ group: 'A' }));
  expect(letter.text).toContain('Lab A');
  expect(letter.calendars.map((c) => /^UID:(.*)/m.exec(c.content)![1]!.trim())).toEqual([
    'Lecture@nimble-bell',
    'Lab A@nimble-bell',
  ]);
  expect(invited().letter.text).not.toContain('Lab A');
});

test('what people are called cannot break the letter', () => {
  const { letter } = invited(makePlan(), memberRow({ name: '<script>x</script>' }));
  expect(letter.html).toContain('Tides &amp; Streams');
  expect(letter.html).not.toContain('<script>');
});

test('a plan that did not change for somebody is no letter', () => {
  const { plan, held } = invited();
  expect(news(plan, held).letter).toBeNull();
  const lab = plan.sessions.find((s) => s.seriesId === 'Lab A')!;
  expect(news(changed(plan, lab.id, { state: 'cancelled' }), held).letter).toBeNull();
});

test('the news are the person’s own, in their zone, as the smallest update', () => {
  const { plan, held } = invited();
  const moved = changed(plan, ahead(plan).id, { startsAt: ahead(plan).startsAt + 3_600_000 });
  const { letter, copies } = news(moved, held);
  expect(letter!.subject).toBe('TID-101 Tides & Streams: the plan has changed');
  expect(letter!.text).toContain('Lecture: Tue 20 Oct, 21:30 moves to Tue 20 Oct, 22:30');
  expect(letter!.text).toContain('All times are Azores time.');
  expect(letter!.calendars).toHaveLength(1);
  expect(letter!.calendars[0]!.content.match(/BEGIN:VEVENT/g)).toHaveLength(1);
  expect([...copies.keys()]).toEqual(['Lecture']);
  expect(news(moved, new Map([...held, ...copies])).letter).toBeNull();
});

test('many changes are counted beyond a dozen, and a series new or gone is one line', () => {
  const { plan, held } = invited();
  const all = { ...plan, sessions: plan.sessions.map((s) => ({ ...s, minutes: 60 })) };
  expect(news(all, held).letter!.text).not.toContain('more: your page shows them all');
  const twice = makePlan([seriesRow('Lecture', { pattern: weekly('monday', 'tuesday', 'thursday') })]);
  const long = news(twice, held).letter!.text;
  expect(long).toMatch(/and \d+ more: your page shows them all/);
  const joined = news(plan, held, memberRow({ group: 'A' })).letter!;
  expect(joined.text).toContain(
    'Lab A: new in your plan, Fri 21:30–22:50, on Fri 30 Oct 20:30–21:50, first on Fri 4 Sep, 14 sessions',
  );
  const gone = news({ ...plan, series: [], sessions: [] }, held).letter!;
  expect(gone.text).toContain('Lecture: no longer in your plan');
  expect(gone.calendars.map((c) => c.method)).toEqual(['CANCEL']);
});

test('an invitation to one session names it, and says that session to the calendar again', () => {
  const { plan, held } = invited();
  const { id, startsAt, date } = ahead(plan);
  const about = { session: id, startsAt };
  const invite = (p: CoursePlan, member = memberRow(), had = held) =>
    compose(deskOf(p), member, order('invitation', about), had);
  const { letter, copies } = invite(plan);
  expect(letter!.subject).toBe(
    'TID-101 Tides & Streams: your way in, Lecture, Tue 20 Oct, 21:30, Azores time',
  );
  expect(letter!.text).toContain('Lecture begins Tue 20 Oct, 21:30, Azores time.');
  expect(letter!.calendars.map((c) => c.content.match(/BEGIN:VEVENT/g)!.length)).toEqual([1]);
  expect(letter!.calendars[0]!.content).toContain(
    `RECURRENCE-ID;TZID=America/Halifax:${date.replaceAll('-', '')}`,
  );
  expect(news(plan, new Map([...held, ...copies])).letter).toBeNull();
  // Somebody's first letter holds the whole entry.
  expect(invite(plan, memberRow(), none).letter!.calendars[0]!.content).toContain('RRULE');
  expect(invite(changed(plan, id, { state: 'cancelled' })).letter).toBeNull();
  expect(invite(plan, memberRow({ scope: { series: [], sessions: [] } })).letter).toBeNull();
});

test('a course with a line has it and the PIN in letters and entries; that it has one is news', () => {
  const { plan, held } = invited();
  const calling = { ...plan, course: { ...plan.course, telephone: '+1 902 555 0140' } };
  const member = memberRow({ pin: '12345678' });
  const words = 'By telephone: +1 902 555 0140, then your PIN 1234 5678.';
  const unfolded = (content: string) => content.replaceAll('\r\n ', '');
  const { letter } = invited(calling, member);
  expect(letter.text).toContain(words);
  expect(unfolded(letter.calendars[0]!.content)).toContain(words.replaceAll(',', '\\,'));
  const told = news(calling, held, member).letter!;
  expect(told.subject).toBe('TID-101 Tides & Streams: your calendar entries');
  expect(told.text).toContain('brought up to date: TID-101 Lecture. No time has changed.');
  expect(told.text).toContain(words);
  expect(invited(plan, member).letter.text).not.toContain('telephone');
});

test('who missed a class is told that it can be watched, by their own link; not once it is theirs no more', () => {
  const plan = makePlan();
  const [session] = plan.sessions;
  const about = { recording: 'rec', session: session!.id };
  const { letter } = compose(deskOf(plan), memberRow(), order('recording', about), none);
  expect(letter!.subject).toMatch(/^TID-101 .* can be watched$/);
  expect(letter!.text).toContain('/in/abcd2345efgh67892/watch/rec');
  expect(letter!.off).toContain('/recording');
  expect(letter!.text).toContain('You were not there');
  const was = compose(deskOf(plan), memberRow(), order('recording', { ...about, there: true }), none).letter!;
  expect(was.text).toContain('What was said, shown and written is all in it');
  expect(was.text).not.toContain('not there');
  const quiet = memberRow({ quiet: ['recording'] });
  expect(compose(deskOf(plan), quiet, order('recording', about), none).letter).toBeNull();
  const gone = { recording: 'rec', session: 'planned-away' };
  expect(compose(deskOf(plan), memberRow(), order('recording', gone), none).letter).toBeNull();
});

test('whoever left has their entries taken back, once', () => {
  const { plan, held } = invited();
  const left = memberRow({ scope: { series: [], sessions: [] } });
  const { letter, copies } = compose(deskOf(plan), left, order('goodbye'), held);
  expect(letter!.calendars.map((c) => c.method)).toEqual(['CANCEL']);
  expect(letter!.text).toContain('You are no longer on the class list');
  expect(letter!.text).not.toContain('/in/');
  const again = compose(deskOf(plan), left, order('goodbye'), copies as Held);
  expect(again.letter!.calendars).toEqual([]);
});

test('a new link comes with the entries anew', () => {
  const { plan, held } = invited();
  const { letter } = compose(deskOf(plan), memberRow({ link: 'zzzz2345efgh67892' }), order('link'), held);
  expect(letter!.text).toContain('/in/zzzz2345efgh67892');
  expect(letter!.calendars[0]!.content).toContain('RRULE');
  expect(letter!.calendars[0]!.content).toContain('SEQUENCE:1');
});

test('a reminder of a session that moved, is cancelled, over, or another’s has nothing to say', () => {
  const { plan } = invited();
  const { id, startsAt } = ahead(plan);
  const remind = (p: CoursePlan, about: object, member = memberRow(), now = NOW) =>
    compose(deskOf(p, { now }), member, order('reminder', about as LetterOrder['about']), none).letter;
  const about = { session: id, startsAt };
  expect(remind(plan, about)!.subject).toBe('TID-101 Lecture: Tue 20 Oct, 21:30, Azores time');
  expect(remind(plan, { ...about, startsAt: startsAt - 1 })).toBeNull();
  expect(remind(changed(plan, id, { state: 'cancelled' }), about)).toBeNull();
  expect(remind(plan, about, memberRow(), startsAt + 90 * 60_000)).toBeNull();
  const lab = plan.sessions.find((s) => s.seriesId === 'Lab A' && s.startsAt > NOW)!;
  expect(remind(plan, { session: lab.id, startsAt: lab.startsAt })).toBeNull();
  const nudge = compose(deskOf(plan), memberRow(), order('nudge', about), none).letter!;
  expect(nudge.text).toContain('Lecture has begun and you are not there yet.');
});

test('a notice is a letter with its own title; one that is gone is none', () => {
  const { plan } = invited();
  const notices = new Map([
    ['n1', () => ({ title: 'Charts', blocks: [{ kind: 'heading' as const, text: 'Tue 6 Oct' }] })],
  ]);
  const ask = (notice: string) =>
    compose(deskOf(plan, { notices }), memberRow(), order('notice', { notice }), none);
  expect(ask('n1').letter).toMatchObject({ subject: 'TID-101: Charts', calendars: [] });
  expect(ask('n2').letter).toBeNull();
});

test('a guest is invited to their session alone, and a co-teacher to their series', () => {
  const plan = makePlan();
  const { id } = ahead(plan);
  const guest = memberRow({ role: 'guest', scope: { series: [], sessions: [id] } });
  const entry = invited(plan, guest).letter.calendars;
  expect(entry).toHaveLength(1);
  expect(entry[0]!.content).not.toContain('RRULE');
  const teacher = memberRow({ role: 'teacher', scope: { series: ['Lab A'], sessions: [] } });
  const own = invited(plan, teacher).letter.calendars;
  expect(own).toHaveLength(1);
  expect(own[0]!.content).toContain('UID:Lab A@nimble-bell');
});

test('a second session on one date is an entry of its own', () => {
  const plan = makePlan();
  const extra = { ...ahead(plan), id: 'x', take: 1, startsAt: ahead(plan).startsAt + 7_200_000 };
  const { letter } = invited({ ...plan, sessions: [...plan.sessions, extra] });
  expect(letter.calendars.map((c) => /^UID:(.*)/m.exec(c.content)![1]!.trim())).toEqual([
    'Lecture@nimble-bell',
    `Lecture.${extra.date}.1@nimble-bell`,
  ]);
});

/** One change of a course's plan or of where a person is in it. */
const anyChange = fc.record({
  what: fc.constantFrom('move', 'cancel', 'restore', 'lengthen', 'name', 'again', 'group', 'link', 'publish'),
  at: fc.nat(1000),
  by: fc.integer({ min: -2000, max: 2000 }),
});

test('a calendar fed all letters of a term with forty changes, in order and shuffled, shows the person’s plan', () => {
  fc.assert(
    fc.property(
      fc.array(anyChange, { minLength: 40, maxLength: 40 }),
      fc.integer({ min: 1, max: 5 }),
      fc.infiniteStream(fc.nat()),
      (changes, gathered, dice) => {
        let plan = makePlan();
        let member = memberRow({ group: 'A' });
        let held: Held = new Map();
        const sent: string[] = [];
        const tell = (topic: LetterOrder['topic']) => {
          const { letter, copies } = compose(deskOf(plan), member, order(topic), held);
          held = new Map([...held, ...copies]);
          sent.push(...(letter?.calendars.map((c) => c.content) ?? []));
        };
        tell('invitation');
        for (const [i, { what, at, by }] of changes.entries()) {
          const own = plan.sessions[at % plan.sessions.length]!;
          const put = (how: Partial<SessionRow>) => (plan = changed(plan, own.id, how));
          if (what === 'move') put({ startsAt: own.startsAt + by * 60_000 });
          else if (what === 'cancel') put({ state: 'cancelled' });
          else if (what === 'restore') put({ state: 'planned' });
          else if (what === 'lengthen') put({ minutes: 20 + (at % 100) });
          else if (what === 'name') put({ title: at % 3 ? `No. ${at}` : null });
          else if (what === 'again')
            plan = { ...plan, sessions: [...plan.sessions, { ...own, id: `x${i}`, take: 1 + i }] };
          else if (what === 'group') member = { ...member, group: at % 2 ? 'A' : 'B' };
          else if (what === 'link') member = { ...member, link: `link${i}` };
          else
            plan = {
              ...plan,
              series: [...plan.series, seriesRow(`Extra ${i}`, { pattern: weekly('monday') })],
              sessions: [
                ...plan.sessions,
                ...sessionRows(seriesRow(`Extra ${i}`, { pattern: weekly('monday') })),
              ],
            };
          if (i % gathered === 0) tell('update');
        }
        tell('update');
        const wanted = plan.sessions
          .filter((s) => s.state !== 'cancelled' && isFor(targetOf(s), member))
          .map((s) => `${s.startsAt} ${s.minutes} TID-101 ${s.seriesTitle}${s.title ? `: ${s.title}` : ''}`)
          .sort();
        const shuffled = sent
          .map((content) => ({ content, place: dice.next().value! }))
          .sort((a, b) => a.place - b.place)
          .map((s) => s.content);
        for (const way of [sent, shuffled]) {
          const client = new CalendarClient();
          for (const content of way) client.receive(content);
          expect(
            client
              .sessions()
              .map((s) => `${s.startsAt} ${s.minutes} ${s.summary}`)
              .sort(),
          ).toEqual(wanted);
        }
      },
    ),
    { numRuns: 15 },
  );
});

test('a reminder can be done without, an invitation cannot; programs are told how, and that nobody wrote it', () => {
  const { plan, held } = invited();
  const next = ahead(plan);
  const reminder = order('reminder', { session: next.id, startsAt: next.startsAt });
  const { letter } = compose(deskOf(plan), memberRow(), reminder, held);
  const off = 'http://127.0.0.1:8210/api/letters-off/abcd2345efgh67892/reminder';
  expect(letter).toMatchObject({ off });
  expect(letter!.text).toContain(`Do without letters like this: ${off}`);
  const quiet = memberRow({ quiet: ['reminder'] });
  expect(compose(deskOf(plan), quiet, reminder, held).letter).toBeNull();
  const invitation = compose(deskOf(plan), quiet, order('invitation'), none).letter!;
  expect(invitation.off).toBeUndefined();
  const headers = (of: typeof invitation) => {
    const ctx = { now: () => NOW, config: { organizer: 'classes@saltmarsh.example' } } as Context;
    return messageOf(
      ctx,
      { ...of, from: 'x', to: { name: 'Ana', address: 'ana@saltmarsh.example' } },
      '<a@b>',
    ).headers;
  };
  expect(headers(letter!)).toEqual({
    'Auto-Submitted': 'auto-generated',
    'List-Unsubscribe': `<${off}>`,
    'List-Unsubscribe-Post': 'List-Unsubscribe=One-Click',
  });
  expect(headers(invitation)).toEqual({ 'Auto-Submitted': 'auto-generated' });
});

test('a letter names the dates whose answers hold no more: moved or taken off, and no others', () => {
  const { plan, held } = invited();
  const [moved, named, gone] = [0, 1, 2].map((n) => ahead(plan, n));
  let now = changed(plan, moved!.id, {
    startsAt: moved!.startsAt + 3_600_000,
    endsAt: moved!.endsAt + 3_600_000,
  });
  now = changed(now, named!.id, { title: 'Harbour lights' });
  now = changed(now, gone!.id, { state: 'cancelled' });
  const { changed: dates } = news(now, held);
  expect([...dates]).toEqual([['Lecture', [moved!.date, gone!.date]]]);
  expect([...compose(deskOf(plan), memberRow(), order('invitation'), none).changed]).toEqual([
    ['Lecture', []],
  ]);
});

test('a series that moves is one line, in the reader’s own time; a session of it that moves otherwise is another', () => {
  const { plan, held } = invited();
  const lectures = plan.sessions.filter((s) => s.seriesId === 'Lecture' && s.startsAt > NOW + 3_600_000);
  const by = (s: SessionRow, hours: number) => ({
    startsAt: s.startsAt + hours * 3_600_000,
    endsAt: s.endsAt + hours * 3_600_000,
  });
  const now = lectures.reduce((p, s, i) => changed(p, s.id, by(s, i === 3 ? 2 : 24)), plan);
  const { text } = news(now, held).letter!;
  const lines = text.split('\n').filter((l) => l.startsWith('- '));
  expect(lines).toEqual([
    expect.stringMatching(
      /^- Lecture: Wed 22:30–23:50, .*on Wed 28 Oct 21:30–22:50 instead of Tue 22:30|^- Lecture: Wed 21:30–22:50/,
    ),
    expect.stringMatching(/^- Lecture: Tue .* moves to Tue /),
  ]);
  expect(lines[0]).toMatch(/instead of Tue .* on, \d+ sessions$/);
});

test('a session that is cancelled says why', () => {
  const { plan, held } = invited();
  const lost = ahead(plan);
  const { text } = news(
    changed(plan, lost.id, { state: 'cancelled', reason: 'The ferry does not run' }),
    held,
  ).letter!;
  expect(text).toMatch(/Lecture: Tue .* is cancelled: The ferry does not run/);
});

test('a question of a recording reaches those who teach as it was written, with the way to its moment', () => {
  const plan = makePlan();
  const session = plan.sessions[0]!;
  const about = {
    ...{ recording: 'rec', session: session.id, position: 754_900 },
    ...{ name: 'Ana <b>', text: 'Why 210? <img src=x> “ü”' },
  };
  const letter = compose(
    deskOf(plan),
    memberRow({ role: 'teacher' }),
    order('question', about),
    none,
  ).letter!;
  expect(letter.subject).toMatch(/^TID-101 .*: a question$/);
  expect(letter.text).toContain('Ana <b> asks, at 12:34 of Lecture');
  expect(letter.text).toContain('Why 210? <img src=x> “ü”');
  expect(letter.html).not.toContain('<img');
  expect(letter.text).toContain('/watch/rec?at=754');
  expect(letter.calendars).toEqual([]);
  const gone = { ...about, session: 'none' };
  expect(compose(deskOf(plan), memberRow(), order('question', gone), none).letter).toBeNull();
});

test('those who teach are told of recordings that go, how many and on which day', () => {
  const told = (count: number) =>
    compose(
      deskOf(makePlan()),
      memberRow({ role: 'teacher' }),
      order('leaving', { day: '2026-10-20', count }),
      none,
    ).letter!;
  expect(told(3).subject).toBe('TID-101: recordings that go on Tue 20 Oct 2026');
  expect(told(3).text).toContain('3 recordings of TID-101 Tides & Streams are kept until Tue 20 Oct 2026');
  expect(told(1).text).toMatch(/1 recording .* is kept until .* keeps it longer/s);
  expect(told(1).text).toMatch(/\/course\/\w+\/recording/);
  const { letter } = compose(
    deskOf(makePlan()),
    memberRow({ role: 'teacher' }),
    order('space', { day: '2026-11-10' }),
    none,
  );
  expect(letter!.subject).toBe('TID-101: the space for recordings ends on Tue 10 Nov 2026');
  expect(letter!.text).toMatch(/ends on Tue 10 Nov 2026\. Keep fewer.*\/course\/\w+\/recording/s);
});
