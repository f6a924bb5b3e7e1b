import fc from 'fast-check';
import { ana, ben, entry, lecture, maren, opening, TestRoom } from '../../testing/index';
import { audience, snapshotFor } from '../kernel/audience';
import { dueBy, nextDue } from '../kernel/decide';
import { RoomCommand } from '../kernel/messages';
import { CLASS, placeOf } from '../kernel/place';
import { may, sends } from '../may';
import { entering } from '../presence/index';
import { repeatedIn, seatedByLot } from './seating';
import { OPEN_AT_TABLES } from '../../limits/index';

const TWO = [
  { name: 'North', members: ['ana'] },
  { name: 'South', members: ['ben'] },
];
const lay = (more: Partial<Extract<RoomCommand, { type: 'layTables' }>> = {}) =>
  ({ type: 'layTables', tables: TWO, seconds: 600, limits: OPEN_AT_TABLES, ...more }) as const;
const at = (room: TestRoom, member: string) => placeOf(room.state, member);
const ids = Array.from({ length: 30 }, (_, i) => `m${i}`);

test('what is to be done is told with its files', () => {
  const room = lecture();
  const files = [{ material: 'chart', name: 'Chart.pdf' }];
  room.do(maren, lay({ task: 'Read it', files }));
  expect(snapshotFor(room.state, ana).tables.laid).toMatchObject({ task: 'Read it', files });
});

test('all go to their tables, whoever was forgotten where fewest sit, and all come back with half a minute’s notice', () => {
  const room = lecture().happen(entry('cleo', 'Cleo'));
  room.do(maren, lay({ task: 'Read the tide table' }));
  const { laid } = room.state.tables;
  const [north, south] = laid!.tables.map((t) => t.place) as [string, string];
  expect([at(room, 'ana'), at(room, 'ben'), at(room, 'cleo'), at(room, 'maren')]).toEqual([
    ...[north, south, north],
    CLASS,
  ]);
  expect(room.refusal(maren, lay())?.code).toBe('tables-laid');

  const until = laid!.until!;
  expect(nextDue(room.state)?.at).toBe(until - 30_000);
  room.happen(...dueBy(room.state, until - 30_000));
  expect(room.state.notice?.text).toMatch(/^Everybody is back in the class in \d+ seconds\.$/);
  room.happen(...dueBy(room.state, until));
  expect(room.state.tables.laid).toBeNull();
  expect(['ana', 'ben', 'cleo'].map((m) => at(room, m))).toEqual([CLASS, CLASS, CLASS]);
  expect(room.state.tables.were.map((t) => t.name)).toEqual(['North', 'South']);
});

test('what is open at tables is closed again in the class, and switches with it; hush closes both', () => {
  const room = lecture({ speak: 'closed', draw: 'closed' });
  room.do(maren, lay());
  expect(may(room.state, ana, 'speak')).toMatchObject({ allowed: true, because: { layer: 'table' } });
  room.do(ana, { type: 'microphone', on: true });
  expect(sends(room.state, 'ana', 'sound')).toBe(true);
  room.do(maren, { type: 'hush' });
  expect(sends(room.state, 'ana', 'sound')).toBe(false);
  room.do(maren, { type: 'lift' });
  room.do(maren, { type: 'seatAt', member: 'ben', place: CLASS });
  expect(may(room.state, ben, 'draw').allowed).toBe(false);
  room.do(maren, { type: 'endTables', now: true });
  expect(sends(room.state, 'ana', 'sound')).toBe(false);
  expect(room.state.desk.microphone).toEqual({});

  const shut = lecture({ speak: 'closed' });
  shut.do(maren, lay({ limits: {} }));
  expect(may(shut.state, ana, 'speak').allowed).toBe(false);
});

test('limits at tables come by a name that can be seen whole, and in states that make sense', () => {
  const said = (more: object) => RoomCommand.safeParse({ type: 'limitTables', limits: {}, ...more }).success;
  expect([said({}), said({ sheet: 'Quiet work' }), said({ limits: { speak: 'byHand' } })]).toEqual([
    ...[true, true, true],
  ]);
  for (const odd of [
    { sheet: '' },
    { sheet: 'a\u202eb' },
    { sheet: 'a\nb' },
    { limits: { react: 'byHand' } },
  ])
    expect([odd, said(odd)]).toEqual([odd, false]);
});

test('what holds at tables is said of all of them or, by who is at one, of that one; what closes there turns switches off', () => {
  const room = lecture({ speak: 'closed', draw: 'open', seeMarks: 'open' });
  expect(room.refusal(maren, { type: 'limitTables', limits: {} })?.code).toBe('no-tables');
  room.do(maren, lay());
  for (const who of [ana, ben]) room.do(who, { type: 'microphone', on: true });
  room.do(maren, { type: 'goTo', place: at(room, 'ana') });
  room.do(maren, {
    ...{ type: 'limitTables', limits: { speak: 'closed', draw: 'closed', seeMarks: 'closed' } },
    sheet: 'Examination',
  });
  expect(room.state.notice).toMatchObject({
    text: 'At this table it is now as in Examination.',
    place: at(room, 'ana'),
  });
  expect([sends(room.state, 'ana', 'sound'), sends(room.state, 'ben', 'sound')]).toEqual([false, true]);
  expect([ana, ben].map((w) => may(room.state, w, 'draw').allowed)).toEqual([false, true]);
  // What is seen of one another is the class's own.
  expect(may(room.state, ana, 'seeMarks').allowed).toBe(true);
  // Whoever is moved there goes by it; who comes away does not.
  room.do(maren, { type: 'seatAt', member: 'ben', place: at(room, 'ana') });
  expect(sends(room.state, 'ben', 'sound')).toBe(false);
  room.do(maren, { type: 'goTo', place: CLASS });
  room.do(maren, { type: 'limitTables', limits: { draw: 'closed' } });
  expect(room.state.notice?.text).toBe('At the tables now closed: drawing.');
  expect(room.do(maren, { type: 'limitTables', limits: { draw: 'closed' } })).toMatchObject({ events: [] });
  expect(may(room.state, ana, 'draw')).toMatchObject({ allowed: false, because: { layer: 'table' } });
  expect(may(room.state, ana, 'speak')).toMatchObject({ allowed: false, because: { layer: 'course' } });
  room.do(maren, { type: 'limitTables', limits: {} });
  expect(room.state.notice?.text).toBe('At the tables it is now as in the class.');
  expect(may(room.state, ana, 'draw').allowed).toBe(true);
  room.do(maren, { type: 'endTables', now: true });
  expect(room.refusal(maren, { type: 'limitTables', limits: {} })?.code).toBe('no-tables');
});

test('what is at a table is for who is there and for those who teach, also for whoever comes to it later', () => {
  const room = lecture({ draw: 'closed', writeToClass: 'open' });
  room.do(ana, { type: 'say', addressee: { to: 'class' }, text: 'In class' });
  room.do(maren, lay());
  room.do(ana, { type: 'draw', stroke: { points: [0, 0, 1, 1], colour: 'ink' } });
  const drawn = room.events.at(-1)!;
  room.do(ana, { type: 'say', addressee: { to: 'class' }, text: 'Only us' });
  const said = room.events.at(-1)!;
  for (const event of [drawn, said])
    expect([ana, ben, maren].map((v) => audience(event, v, room.state) !== null)).toEqual([
      true,
      false,
      true,
    ]);
  expect(JSON.stringify(snapshotFor(room.state, ben))).not.toContain('Only us');
  expect(snapshotFor(room.state, ben).board.marks).toEqual([]);
  const texts = (member: typeof ana) => snapshotFor(room.state, member).talk.messages.map((m) => m.text);
  expect(texts(ana)).toEqual(['Only us']);
  // What changed at a table stands over no other stage.
  room.do(maren, { type: 'goTo', place: at(room, 'ana') });
  room.do(maren, { type: 'clearBoard' });
  expect(room.state.notice?.text).toBe('The board has been cleared.');
  expect(snapshotFor(room.state, ben).notice).toBeNull();
  expect(snapshotFor(room.state, ana).notice).not.toBeNull();
  room.do(maren, { type: 'endTables', now: true });
  expect(texts(ben)).toEqual(['In class']);
});

test('who comes late, or again, is at a table at once; who was called aside stays in the class', () => {
  const room = lecture().happen(entry('cleo', 'Cleo'));
  room.do(maren, lay());
  const cleo = { member: 'cleo', name: 'Cleo', role: 'student' as const };
  room.happen({ type: 'left', member: 'ben' }, { type: 'left', member: 'cleo' });
  const dora = { member: 'dora', name: 'Dora', role: 'student' as const };
  room.happen(...entering(room.state, dora));
  expect(at(room, 'dora')).toBe(at(room, 'ben'));
  room.happen(...entering(room.state, cleo));
  expect(at(room, 'cleo')).toBe(at(room, 'ana'));
  room.happen(...entering(room.state, { member: 'teo', name: 'Teo', role: 'assistant' }));
  expect(at(room, 'teo')).toBe(CLASS);
  room.do(maren, { type: 'seatAt', member: 'cleo', place: CLASS });
  room.happen({ type: 'left', member: 'cleo' }, ...entering(room.state, cleo));
  expect(at(room, 'cleo')).toBe(CLASS);
});

test('a table calls for a teacher, keeps its place in the queue, and the call ends when one comes', () => {
  const room = lecture();
  expect(room.refusal(ana, { type: 'callHelp', on: true })?.code).toBe('at-no-table');
  room.do(maren, lay());
  room.do(ben, { type: 'callHelp', on: true });
  room.do(ana, { type: 'callHelp', on: true });
  const calls = () => room.state.tables.laid!.calls.map((c) => c.place);
  expect(calls()).toEqual([at(room, 'ben'), at(room, 'ana')]);
  room.do(maren, { type: 'goTo', place: at(room, 'ben') });
  expect(calls()).toEqual([at(room, 'ana')]);
  room.do(ana, { type: 'callHelp', on: false });
  expect(calls()).toEqual([]);
});

test('students stay where they are put, and choose where they may', () => {
  const room = lecture();
  expect(room.refusal(ana, { type: 'goTo', place: 'table-1-1' })?.code).toBe('no-tables');
  room.do(maren, lay());
  expect(room.refusal(ana, { type: 'goTo', place: at(room, 'ben') })?.code).toBe('stays');
  expect(room.refusal(maren, { type: 'goTo', place: 'table-9-9' })?.code).toBe('no-table');
  expect(room.refusal(ana, { type: 'seatAt', member: 'ben', place: CLASS })?.code).toBe('teachers-only');
  room.do(maren, { type: 'endTables', now: true });
  room.do(maren, lay({ choose: true, tables: TWO.map((t) => ({ ...t, members: [] })), seconds: null }));
  expect(at(room, 'ana')).toBe(CLASS);
  expect(room.refusal(ana, { type: 'goTo', place: CLASS })?.code).toBe('stays');
  room.do(ana, { type: 'goTo', place: room.state.tables.laid!.tables[1]!.place });
  expect(room.state.tables.laid!.tables[1]!.members).toEqual(['ana']);
  room.do(maren, { type: 'moreTableTime', seconds: 60 });
  expect(room.state.tables.laid!.until).not.toBeNull();
  expect(room.refusal(maren, lay({ tables: [...TWO, { name: 'West', members: ['ana'] }] }))?.code).toBe(
    'tables-laid',
  );
  room.do(maren, { type: 'endTables' });
  expect(room.state.tables.laid!.soon).toBe(true);
});

test('the recording is paused for the tables, and goes on after them where nobody ended it meanwhile', () => {
  const room = lecture().happen({ type: 'recordingStarted', by: null });
  room.do(maren, lay());
  expect(room.state.recording.state).toBe('paused');
  room.do(maren, { type: 'endTables', now: true });
  expect(room.state.recording.state).toBe('on');
  room.do(maren, { type: 'pauseRecording' });
  room.do(maren, lay());
  room.do(maren, { type: 'endTables', now: true });
  expect(room.state.recording.state).toBe('paused');
});

test('a class that is dismissed at its tables has none', () => {
  const room = lecture();
  room.do(maren, lay());
  room.do(maren, { type: 'dismiss' });
  expect(room.state.tables.laid).toBeNull();
  expect(at(room, 'ana')).toBe(CLASS);
  expect(nextDue(room.state)).toBeNull();
});

const members = fc.constantFrom('ana', 'ben', 'cleo', 'dora');
const anyPlace = fc.constantFrom(CLASS, ...[1, 2, 3].flatMap((n) => [`table-${n}-1`, `table-${n}-2`]));
const step = fc.oneof(
  fc.record({ do: fc.constant('lay' as const), all: fc.uniqueArray(members), choose: fc.boolean() }),
  fc.record({ do: fc.constant('seat' as const), member: members, place: anyPlace }),
  fc.record({
    do: fc.constant('go' as const),
    member: fc.oneof(members, fc.constant('maren')),
    place: anyPlace,
  }),
  fc.record({ do: fc.constant('comes' as const), member: members }),
  fc.record({ do: fc.constant('leaves' as const), member: members }),
  fc.record({ do: fc.constant('ends' as const), now: fc.boolean() }),
);

test('nobody is ever lost or at two tables, whatever is done in whatever order', () => {
  fc.assert(
    fc.property(fc.array(step, { maxLength: 40 }), (steps) => {
      const room = new TestRoom().happen(opening(), entry('maren', 'Maren Oduya', 'teacher'), {
        type: 'rangIn',
        by: 'maren',
      });
      for (const s of steps) {
        if (s.do === 'lay') {
          const half = Math.ceil(s.all.length / 2);
          const tables = [s.all.slice(0, half), s.all.slice(half)].map((m, i) => ({
            name: `${i}`,
            members: m,
          }));
          room.do(maren, lay({ tables, ...(s.choose ? { choose: true } : {}) }));
        } else if (s.do === 'seat') room.do(maren, { type: 'seatAt', member: s.member, place: s.place });
        else if (s.do === 'go') {
          const role = s.member === 'maren' ? 'teacher' : 'student';
          room.do({ member: s.member, role }, { type: 'goTo', place: s.place });
        } else if (s.do === 'comes')
          room.happen(...entering(room.state, { member: s.member, name: s.member, role: 'student' }));
        else if (s.do === 'leaves') room.happen({ type: 'left', member: s.member });
        else room.do(maren, { type: 'endTables', ...(s.now ? { now: true } : {}) });

        const { tables, presence } = room.state;
        if (!tables.laid) expect(Object.values(presence.people).every((o) => o.place === CLASS)).toBe(true);
        const seats = tables.laid?.tables.flatMap((t) => t.members) ?? [];
        expect(new Set(seats).size).toBe(seats.length);
        const places = [CLASS, ...(tables.laid?.tables.map((t) => t.place) ?? [])];
        for (const o of Object.values(presence.people).filter((p) => p.present)) {
          expect(places).toContain(o.place);
          const table = tables.laid?.tables.find((t) => t.place === o.place);
          if (o.role === 'student' && table) expect(table.members).toContain(o.member);
        }
      }
    }),
    { numRuns: 300 },
  );
});

test('a seed repeats its seating, tables are as equal as can be, and nobody is left out', () => {
  fc.assert(
    fc.property(fc.nat(40), fc.integer({ min: 1, max: 12 }), fc.integer(), (n, tables, seed) => {
      const some = ids.concat(ids.map((m) => `${m}x`)).slice(0, n);
      const seating = seatedByLot(some, tables, seed);
      expect(seatedByLot([...some].reverse(), tables, seed)).toEqual(seating);
      expect(seating.flat().sort()).toEqual([...some].sort());
      const sizes = seating.map((t) => t.length);
      expect(Math.max(...sizes) - Math.min(...sizes)).toBeLessThanOrEqual(1);
    }),
  );
});

test('nobody sits twice with the same where that can be', () => {
  const room = lecture().happen(...ids.map((m) => entry(m, m)));
  for (let round = 0; round < 4; round++) {
    const seating = seatedByLot(ids, 6, 7 + round, room.state.tables.met);
    expect(repeatedIn(seating, room.state.tables.met)).toBe(0);
    room.do(maren, lay({ tables: seating.map((m, i) => ({ name: `${i + 1}`, members: m })) }));
    room.do(maren, { type: 'endTables', now: true });
  }
  expect(snapshotFor(room.state, ana).tables.met).toEqual({});
});
