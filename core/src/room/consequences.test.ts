import fc from 'fast-check';
import { noSettings, withValues } from '../settings/index';
import { ana, entry, maren, opening, TestRoom } from '../testing/index';
import { CLASS, consequencesOf, type RoomCommand, type RoomEvent } from './index';
import { OPEN_AT_TABLES } from '../limits/index';

/** A class that is recorded by itself, at tables too where it is said. */
function recorded(tables: boolean) {
  const course = withValues(
    noSettings(),
    'recording',
    { automatic: true, tables, keepUntil: '2027-02-11' },
    'maren',
    1,
  );
  return new TestRoom().happen(
    opening([{ name: 'course', settings: course }]),
    entry('maren', 'Maren Oduya', 'teacher'),
    entry('ana', 'Ana Lanyon'),
  );
}

const lay = {
  type: 'layTables',
  tables: ['North', 'South'].map((name, i) => ({ name, members: i ? [] : ['ana'] })),
  ...{ seconds: null, limits: OPEN_AT_TABLES },
} as const satisfies RoomCommand;

const acts = fc.constantFrom<RoomCommand | RoomEvent>(
  ...([
    { type: 'ringIn' },
    lay,
    lay,
    { type: 'endTables', now: true },
    { type: 'endTables', now: true },
  ] as const),
  ...([{ type: 'pauseRecording' }, { type: 'resumeRecording' }, { type: 'dismiss' }] as const),
  { type: 'interrupted', from: 0 },
);

test('what is recorded is open exactly where it is to be: in the class, at each table, or nowhere', () => {
  fc.assert(
    fc.property(fc.boolean(), fc.array(acts, { maxLength: 20 }), (tables, all) => {
      const room = recorded(tables);
      let open = new Map<string, number>();
      let before = room.state;
      let seen = room.events.length;
      for (const act of [{ type: 'ringIn' } as RoomCommand, ...all]) {
        if (act.type === 'interrupted') room.happen(act as RoomEvent);
        else room.do(maren, act as RoomCommand);
        for (const c of consequencesOf(before, room.events.slice(seen))) {
          if (c.do === 'closeParts') open = new Map();
          // What is open already is not opened a second time.
          if (c.do === 'openParts') for (const p of c.places) open.set(p, (open.get(p) ?? 0) + 1);
        }
        [before, seen] = [room.state, room.events.length];
        const { recording, tables: at } = room.state;
        const places = at.laid && tables ? at.laid.tables.map((t) => t.place) : [CLASS];
        const wanted = recording.state === 'on' ? places.map((p) => [p, 1]) : [];
        expect([...open]).toEqual(wanted);
        // Without the plan nothing goes on by itself while the class is at tables.
        if (at.laid?.paused) expect(tables).toBe(false);
      }
    }),
    { numRuns: 300 },
  );
});

test('students are told that their tables are recorded, and the seats say whose they are', () => {
  const room = recorded(true);
  room.do(maren, { type: 'ringIn' });
  room.do(maren, lay);
  expect(room.state.tables.laid).toMatchObject({ recorded: true, paused: false });
  expect(room.state.recording).toMatchObject({ state: 'on', tables: true });
  expect(room.refusal(ana, { type: 'pauseRecording' })?.code).toBe('teachers-only');
  const off = recorded(false);
  off.do(maren, { type: 'ringIn' });
  off.do(maren, lay);
  expect(off.state.recording.state).toBe('paused');
  off.do(maren, { type: 'endTables', now: true });
  expect(off.state.recording.state).toBe('on');
});
