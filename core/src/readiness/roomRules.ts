import { countWords, dateWords, dayWords, listWords } from '../calendar/words';
import { toEpochDay, toLocalDate } from '../calendar/localDate';
import type { Found, Rule, Setup } from './finding';

const LARGE_CLASS = 40;
const DAYS_AFTER_TERM = 30;

const one = (found: Found | false | null | undefined): Found[] => (found ? [found] : []);
const pupils = (setup: Setup) => (setup.people ?? []).filter((p) => p.role === 'student').length;

const noWayToTeacher: Rule = {
  id: 'no-way-to-teacher',
  level: 'warns',
  stage: 'limits',
  find: ({ limits }) =>
    one(
      limits &&
        limits.writeToTeachers === 'closed' &&
        limits.speak === 'closed' &&
        limits.writeToClass === 'closed' && {
          text: 'Students can neither speak nor write: nobody could tell you that they hear nothing.',
          fix: {
            label: 'Let them write to a teacher',
            fix: { do: 'limits', capability: 'writeToTeachers', permission: 'open' },
          },
        },
    ),
};

const microphonesOpen: Rule = {
  id: 'microphones-open',
  level: 'advises',
  stage: 'limits',
  find: (setup) =>
    one(
      setup.limits?.speak === 'open' &&
        pupils(setup) > LARGE_CLASS && {
          text: `${pupils(setup)} students may speak at any time: open microphones feed back on one another.`,
          fix: {
            label: 'Let them speak by hand',
            fix: { do: 'limits', capability: 'speak', permission: 'byHand' },
          },
        },
    ),
};

const anyonePresents: Rule = {
  id: 'anyone-presents',
  level: 'advises',
  stage: 'limits',
  find: ({ limits }) =>
    one(
      limits?.present === 'open' && {
        text: 'Any student may present a screen without asking.',
        fix: {
          label: 'Let them present by hand',
          fix: { do: 'limits', capability: 'present', permission: 'byHand' },
        },
      },
    ),
};

const privateWriting: Rule = {
  id: 'private-writing',
  level: 'warns',
  stage: 'limits',
  find: (setup) =>
    one(
      setup.youngPupils &&
        setup.limits?.writeToStudents === 'open' && {
          text: 'Younger pupils may write to one another where no teacher reads it.',
          fix: {
            label: 'Close it',
            fix: { do: 'limits', capability: 'writeToStudents', permission: 'closed' },
          },
        },
    ),
};

const unattendedDoor: Rule = {
  id: 'unattended-door',
  level: 'warns',
  stage: 'limits',
  find: ({ door }) =>
    one(
      door &&
        !door.teacherFirst && {
          text: `The door opens to anyone with a link ${countWords(door.opensMinutesBefore, 'minute')} before the start, with no teacher there.`,
          fix: { label: 'A teacher goes first', fix: { do: 'door', rules: { teacherFirst: true } } },
        },
    ),
};

const lateDoor: Rule = {
  id: 'late-door',
  level: 'advises',
  stage: 'limits',
  find: ({ door }) =>
    one(
      door &&
        door.opensMinutesBefore < 5 && {
          text: 'The door opens as class begins: nobody has time to try a microphone.',
          fix: { label: 'Open it 10 minutes before', fix: { do: 'door', rules: { opensMinutesBefore: 10 } } },
        },
    ),
};

/** More than a teacher lets in one by one. */
const CROWD = 60;

const crowdKnocks: Rule = {
  id: 'crowd-knocks',
  level: 'warns',
  stage: 'limits',
  find: ({ door, people }) => {
    const comers = (people ?? []).filter((p) => p.role === 'student').length;
    return one(
      door?.classList === 'knocks' &&
        comers >= CROWD && {
          text: `${countWords(comers, 'student')} knock, and somebody has to let them in while class begins.`,
          fix: {
            label: 'They walk straight in',
            fix: { do: 'door', rules: { classList: 'straight' } },
          },
        },
    );
  },
};

const nobodyLetsIn: Rule = {
  id: 'nobody-lets-in',
  level: 'warns',
  stage: 'limits',
  find: ({ door }) =>
    one(
      door?.classList === 'knocks' &&
        !door.teacherFirst && {
          text: 'Students knock before a teacher is there: nobody lets them in.',
          fix: { label: 'A teacher goes first', fix: { do: 'door', rules: { teacherFirst: true } } },
        },
    ),
};

const shutToLate: Rule = {
  id: 'shut-to-late',
  level: 'advises',
  stage: 'limits',
  find: ({ door }) =>
    one(
      door?.late === 'not' &&
        door.lateMinutes < 5 && {
          text: `Who comes ${door.lateMinutes ? `${countWords(door.lateMinutes, 'minute')} after the start` : 'a moment late'} is not let in at all.`,
          fix: { label: 'They knock', fix: { do: 'door', rules: { late: 'knocks' } } },
        },
    ),
};

const closesAtOnce: Rule = {
  id: 'closes-at-once',
  level: 'advises',
  stage: 'limits',
  find: ({ door }) =>
    one(
      door !== null &&
        door !== undefined &&
        door.aloneMinutes < 3 && {
          text: `A teacher whose line is lost for ${countWords(door.aloneMinutes, 'minute')} finds the room closed.`,
          fix: { label: 'Ten minutes', fix: { do: 'door', rules: { aloneMinutes: 10 } } },
        },
    ),
};

const noRecordingPlan: Rule = {
  id: 'no-recording-plan',
  level: 'advises',
  stage: 'recording',
  find: ({ recording }) =>
    one(
      recording === null && {
        text: 'Nothing is said about recording: no session will be recorded by itself.',
        fix: { label: 'Decide it', fix: { do: 'go', to: 'recording' } },
      },
    ),
};

const recordingOffInSome: Rule = {
  id: 'recording-off-in-some',
  level: 'warns',
  stage: 'recording',
  find: (setup) => {
    const ahead = setup.series.flatMap((s) => s.sessions.map((session) => ({ session, series: s })));
    const off = ahead.filter(
      ({ session: s }) => s.record === false && (s.state === 'planned' || s.state === 'moved'),
    );
    if (!setup.recording?.automatic || !off.length) return [];
    const dates = off
      .slice(0, 3)
      .map(({ session, series }) => `${series.title} on ${dateWords(session.date)}`);
    const more = off.length > 3 ? [`${off.length - 3} more`] : [];
    return off.slice(0, 1).map(({ session }) => ({
      session: session.id,
      text: `Sessions are recorded by themselves, but not ${listWords([...dates, ...more])}.`,
      fix: {
        label: off.length === 1 ? 'Record it as well' : 'Record the first of them as well',
        fix: {
          do: 'edit' as const,
          edit: {
            edit: 'change-session' as const,
            id: session.id,
            scope: 'one' as const,
            change: { do: 'record' as const, automatic: null },
          },
        },
      },
    }));
  },
};

const keptTooShort: Rule = {
  id: 'kept-too-short',
  level: 'warns',
  stage: 'recording',
  find: ({ recording, term }) => {
    if (!recording || recording.keepUntil >= term.lastDay) return [];
    const after = toLocalDate(toEpochDay(term.lastDay) + DAYS_AFTER_TERM);
    return [
      {
        text: `Recordings are kept until ${dayWords(recording.keepUntil)}, but the term runs to ${dayWords(term.lastDay)}.`,
        fix: {
          label: `Keep them until ${dateWords(after)}`,
          fix: { do: 'recording', plan: { keepUntil: after } },
        },
      },
    ];
  },
};

const downloadWithoutWatching: Rule = {
  id: 'download-without-watching',
  level: 'warns',
  stage: 'recording',
  find: ({ recording }) =>
    one(
      recording?.studentsDownload &&
        !recording.studentsWatch && {
          text: 'Students may download recordings that they may not watch.',
          fix: { label: 'Let them watch', fix: { do: 'recording', plan: { studentsWatch: true } } },
        },
    ),
};

const recordedForNobody: Rule = {
  id: 'recorded-for-nobody',
  level: 'advises',
  stage: 'recording',
  find: ({ recording }) =>
    one(
      recording?.automatic &&
        !recording.studentsWatch &&
        !recording.studentsDownload && {
          text: 'Every session is recorded, but students may not watch any.',
          fix: { label: 'Let them watch', fix: { do: 'recording', plan: { studentsWatch: true } } },
        },
    ),
};

const storageShort: Rule = {
  id: 'storage-short',
  level: 'warns',
  stage: 'recording',
  find: ({ storage, recording }) =>
    one(
      storage &&
        recording?.automatic &&
        storage.forecast > storage.free && {
          text: `The term's recordings will take about ${(storage.forecast / 1e9).toFixed(1)} GB; ${(storage.free / 1e9).toFixed(1)} GB are free.`,
        },
    ),
};

export const ROOM_RULES: readonly Rule[] = [
  noWayToTeacher,
  microphonesOpen,
  anyonePresents,
  privateWriting,
  unattendedDoor,
  crowdKnocks,
  nobodyLetsIn,
  shutToLate,
  closesAtOnce,
  lateDoor,
  noRecordingPlan,
  recordingOffInSome,
  keptTooShort,
  downloadWithoutWatching,
  recordedForNobody,
  storageShort,
];
