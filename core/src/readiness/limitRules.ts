import { countWords, dateIn, dateWords } from '../calendar/words';
import { rowOf, CAPABILITY_IDS, type Capability, type Permission } from '../limits/capabilities';
import { deviations, type RuleSheet } from '../limits/sheets';
import { noSettings } from '../settings/index';
import type { Finding, Found, Rule, Setup, SetupException, SetupPlace } from './finding';

const LARGE_CLASS = 40;
/** Less than this is no part of a class. */
const SHORT_MINUTES = 2;
/** So much of a session that nothing is planned for is worth a word. */
const SPARE_MINUTES = 10;

const go = (label: string, to: string): Finding['fix'] => ({ label, fix: { do: 'go', to } });
const sheetOf = ({ id }: SetupPlace) => go('Open the run sheet', `limits/run-sheets?of=${id}`);
const TERM = go('Look at the term', 'limits/term');
const PEOPLE = go('Look at the exceptions', 'limits/exceptions');

const about = ({ layer, id }: SetupPlace) =>
  layer === 'series' ? { series: id } : layer === 'session' ? { session: id } : {};

/** What one press sets at a place. */
const setting = (
  { layer, id }: SetupPlace,
  label: string,
  limits: Partial<Record<Capability, Permission>>,
): Finding['fix'] => ({
  label,
  fix: {
    do: 'rules',
    input: { at: layer === 'course' ? { layer } : { layer, ids: [id] }, limits },
  },
});

interface PlaceFound {
  text: string;
  fix: Finding['fix'];
}

/** A rule that looks at each place that says something of its own. */
const each = (
  id: string,
  level: Rule['level'],
  look: (place: SetupPlace, setup: Setup) => PlaceFound | false | null | undefined,
): Rule => ({
  id,
  level,
  stage: 'limits',
  find: (setup) =>
    (setup.rules?.places ?? []).flatMap((place): Found[] => {
      const found = look(place, setup);
      return found ? [{ key: place.id, ...found, ...about(place) }] : [];
    }),
});

const segmentsOf = (place: SetupPlace) => place.segments ?? [];
const wholeOf = (place: SetupPlace) => segmentsOf(place).reduce((sum, s) => sum + s.minutes, 0);

/** A capability in a part of the class: as it says, or as its place has it. */
const inPart = (
  place: SetupPlace,
  segment: { limits: Partial<Record<Capability, Permission>> },
  c: Capability,
) => segment.limits[c] ?? place.limits[c];

const MUTE: Capability[] = ['speak', 'writeToClass', 'writeToTeachers'];

const sheetTooLong = each('run-sheet-too-long', 'warns', (place) => {
  const over = wholeOf(place) - (place.minutes ?? Infinity);
  return (
    over > 0 && {
      text: `The run sheet of ${place.title} takes ${countWords(wholeOf(place), 'minute')}, the session has ${place.minutes}.`,
      fix: sheetOf(place),
    }
  );
});

const sheetTooShort = each('run-sheet-too-short', 'advises', (place) => {
  const spare = (place.minutes ?? 0) - wholeOf(place);
  return (
    segmentsOf(place).length > 0 &&
    spare >= SPARE_MINUTES && {
      text: `The run sheet of ${place.title} leaves ${countWords(spare, 'minute')} of ${place.minutes} unplanned.`,
      fix: sheetOf(place),
    }
  );
});

const partTooShort = each('part-too-short', 'advises', (place) => {
  const short = segmentsOf(place).find((s) => s.minutes < SHORT_MINUTES);
  return (
    short && {
      text: `${short.title} of ${place.title} has ${countWords(short.minutes, 'minute')}: its limits change before anybody has read them.`,
      fix: sheetOf(place),
    }
  );
});

const muteInPart = each('mute-in-part', 'warns', (place) => {
  const mute = segmentsOf(place).find((s) => MUTE.every((c) => inPart(place, s, c) === 'closed'));
  return (
    mute && {
      text: `In ${mute.title} of ${place.title} students can neither speak nor write: nobody could say that they hear nothing.`,
      fix: sheetOf(place),
    }
  );
});

const muteInPlace = each(
  'mute-in-place',
  'warns',
  (place) =>
    place.layer !== 'course' &&
    MUTE.every((c) => place.limits[c] === 'closed') && {
      text: `In ${place.title} students can neither speak nor write to anybody.`,
      fix: setting(place, 'Let them write to a teacher', { writeToTeachers: 'open' }),
    },
);

const pausedForGood = each('paused-for-good', 'warns', (place, { recording }) => {
  const segments = segmentsOf(place);
  const paused = segments.findLastIndex((s) => s.recording === 'paused');
  const after = segments.slice(paused + 1);
  return (
    recording?.automatic &&
    paused >= 0 &&
    after.length > 0 &&
    !after.some((s) => s.recording === 'on') && {
      text: `The recording of ${place.title} is paused with ${segments[paused]!.title} and does not go on after it.`,
      fix: sheetOf(place),
    }
  );
});

const partsUnrecorded = each(
  'parts-unrecorded',
  'advises',
  (place, { recording }) =>
    recording !== undefined &&
    !recording?.automatic &&
    segmentsOf(place).some((s) => s.recording === 'on') && {
      text: `The run sheet of ${place.title} has parts recorded, but no session is recorded by itself.`,
      fix: go('Decide about recording', 'recording'),
    },
);

const EXAMINATION = 'examination';
const leaks = (state: Permission) => state !== 'closed';

const openExamination = each(
  'open-examination',
  'warns',
  (place) =>
    place.sheet?.id === EXAMINATION &&
    leaks(place.limits.writeToStudents) && {
      text: `${place.title} is an examination in which students may write to one another.`,
      fix: setting(place, 'Close it', { writeToStudents: 'closed' }),
    },
);

const openExaminationPart = each('open-examination-part', 'warns', (place) => {
  const part = segmentsOf(place).find(
    (s) => s.sheet === EXAMINATION && leaks(inPart(place, s, 'writeToStudents')),
  );
  return (
    part && {
      text: `In ${part.title} of ${place.title}, an examination, students may write to one another.`,
      fix: sheetOf(place),
    }
  );
});

const hardlyTheSheet = each('hardly-the-sheet', 'advises', (place) => {
  const { sheet } = place;
  if (!sheet) return null;
  const differ = differing(place, sheet);
  return (
    differ * 2 > CAPABILITY_IDS.length && {
      text: `${place.title} goes by the sheet ${sheet.name}, and ${differ} of its ${CAPABILITY_IDS.length} values differ.`,
      fix: TERM,
    }
  );
});

const differing = ({ said }: SetupPlace, sheet: RuleSheet) =>
  deviations({ ...noSettings(), limits: said }, { limits: sheet.limits }).length;

const pupils = (setup: Setup) => (setup.people ?? []).filter((p) => p.role === 'student').length;

const microphonesOpenThere = each(
  'microphones-open-there',
  'advises',
  (place, setup) =>
    place.layer !== 'course' &&
    place.limits.speak === 'open' &&
    pupils(setup) > LARGE_CLASS && {
      text: `In ${place.title} ${pupils(setup)} students may speak at any time: open microphones feed back on one another.`,
      fix: setting(place, 'Let them speak by hand', { speak: 'byHand' }),
    },
);

const youngWriting = each('young-private-writing', 'warns', (place, { youngPupils }) => {
  if (!youngPupils || place.layer === 'course') return null;
  const there = place.said.writeToStudents?.value === 'open';
  const part = segmentsOf(place).find((s) => s.limits.writeToStudents === 'open');
  if (there)
    return {
      text: `In ${place.title} younger pupils may write to one another where no teacher reads it.`,
      fix: setting(place, 'Close it', { writeToStudents: 'closed' }),
    };
  return (
    part && {
      text: `In ${part.title} of ${place.title} younger pupils may write to one another where no teacher reads it.`,
      fix: sheetOf(place),
    }
  );
});

/** A rule that looks at each exception. */
const eachException = (
  id: string,
  look: (one: SetupException, setup: Setup) => string | false | null | undefined,
): Rule => ({
  id,
  level: 'advises',
  stage: 'limits',
  find: (setup) =>
    (setup.rules?.exceptions ?? []).flatMap((one): Found[] => {
      const text = look(one, setup);
      return text ? [{ key: one.id, text, fix: PEOPLE }] : [];
    }),
});

const what = ({ capability }: SetupException) => rowOf(capability).label.toLowerCase();

const exceptionWithoutEnd = eachException(
  'exception-without-end',
  (one) => one.until === null && `The exception of ${one.name} (${what(one)}) has no end.`,
);

const exceptionBeyondTerm = eachException(
  'exception-beyond-term',
  (one, { term }) =>
    one.until !== null &&
    dateIn(term.zone, one.until - 1) > term.lastDay &&
    `The exception of ${one.name} (${what(one)}) runs to ${dateWords(dateIn(term.zone, one.until - 1))}, after the term.`,
);

const exceptionForNothing = eachException('exception-for-nothing', (one, { rules, limits }) => {
  const all = [limits?.[one.capability], ...(rules?.places ?? []).map((p) => p.limits[one.capability])];
  const parts = (rules?.places ?? []).flatMap((p) => segmentsOf(p).map((s) => inPart(p, s, one.capability)));
  return (
    [...all, ...parts].every((state) => state === undefined || state === one.state) &&
    `The exception of ${one.name} (${what(one)}) changes nothing: the whole class has the same.`
  );
});

const twoDoors: Rule = {
  id: 'two-doors-one-teacher',
  level: 'warns',
  stage: 'limits',
  find: ({ door, clashes }) =>
    !door?.teacherFirst
      ? []
      : clashes
          .filter((c) => c.people.some((p) => p.teaches))
          .slice(0, 1)
          .map((c) => ({
            key: c.session ?? c.series,
            series: c.series,
            text: `Nobody enters before a teacher is there, and ${c.people.find((p) => p.teaches)!.name} has ${c.other} at the same time.`,
            fix: go('Look at the plan', 'plan'),
          })),
};

const doorOverClass: Rule = {
  id: 'door-over-class',
  level: 'advises',
  stage: 'limits',
  find: ({ door, series }) => {
    if (!door) return [];
    const all = series
      .flatMap((s) => s.sessions.map((x) => ({ ...x, series: s })))
      .filter((s) => s.state === 'planned' || s.state === 'moved')
      .sort((a, b) => a.startsAt - b.startsAt);
    const at = all.findIndex((s, i) => {
      const before = all[i - 1];
      if (!before || before.endsAt > s.startsAt) return false;
      const sameClass = !before.series.group || !s.series.group || before.series.group === s.series.group;
      return sameClass && before.endsAt > s.startsAt - door.opensMinutesBefore * 60_000;
    });
    const found = all[at];
    return found
      ? [
          {
            series: found.series.id,
            text: `The door of ${found.series.title} on ${dateWords(found.date)} opens while ${all[at - 1]!.series.title} is still on.`,
            fix: go('Look at the door', 'limits/door'),
          },
        ]
      : [];
  },
};

/** What rule sheets, run sheets and exceptions come to when they are read together. */
export const LIMIT_RULES: readonly Rule[] = [
  ...[sheetTooLong, sheetTooShort, partTooShort, muteInPart, muteInPlace, pausedForGood, partsUnrecorded],
  ...[openExamination, openExaminationPart, hardlyTheSheet, microphonesOpenThere, youngWriting],
  ...[exceptionWithoutEnd, exceptionBeyondTerm, exceptionForNothing, twoDoors, doorOverClass],
];
