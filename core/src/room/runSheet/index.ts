import { countWords } from '../../calendar/words';
import { CAPABILITY_IDS, type Capability, type Permission } from '../../limits/capabilities';
import type { SomeLimits } from '../../limits/schema';
import { changeWords } from '../../limits/words';
import { inForce, type Layer, type Segment } from '../../settings/index';
import { concern, EVERYONE } from '../kernel/concern';
import type { RoomEvent } from '../kernel/messages';
import { refuse } from '../kernel/refusals';
import type { RoomState } from '../kernel/state';
import { afterCue } from '../limits/index';
import { classLimit } from '../may';
import { beginsWithSegment } from '../recording/index';
import { LONGEST_TIME_S } from '../timer/state';
import type { CuedSegment } from './schema';
import type { RunSheetState } from './state';

const MINUTE_MS = 60_000;

const cuedOf = ({ title, minutes, limits, recording, timed }: Segment): CuedSegment => ({
  ...{ title, minutes, limits, recording },
  ...(timed ? { timed } : {}),
});

/** The run sheet that was planned: the session's own, or its series', or its course's. */
const planned = (layers: readonly Layer[]): readonly CuedSegment[] =>
  (inForce(layers, 'runSheet', 'segments')?.value ?? []).map(cuedOf);

/** What the class may otherwise once a segment begins. */
function changesBy(room: RoomState, { limits: said }: CuedSegment): SomeLimits {
  const after = { limits: afterCue(room.limits, said, null, 0) };
  return Object.fromEntries(
    CAPABILITY_IDS.flatMap((c) => {
      const { state } = classLimit(after, c);
      return state === classLimit(room, c).state ? [] : [[c, state]];
    }),
  );
}

/** So many are told one by one; of more, how many. */
const TOLD = 2;

function cueWords({ title, minutes }: CuedSegment, changes: SomeLimits): string {
  const all = Object.entries(changes) as [Capability, Permission][];
  const told = all.length > TOLD + 1 ? all.slice(0, TOLD) : all;
  return [
    `${title}, ${countWords(minutes, 'minute')}.`,
    ...told.map(([c, state]) => changeWords(c, state)),
    ...(told.length < all.length ? [`${all.length - told.length} more limits are otherwise.`] : []),
  ].join(' ');
}

/** A segment begins, and the recording with it. */
export function cueEvents(
  room: RoomState,
  by: string | null,
  index: number,
  state = room.recording.state,
): RoomEvent[] {
  const segment = room.runSheet.segments[index];
  if (!segment) return [];
  const { recording } = segment;
  const begins = state === 'off' && beginsWithSegment(room.recording, index);
  const on = begins || state === 'on';
  return [
    { type: 'cued', by, index, segment, changes: changesBy(room, segment) },
    ...timed(segment),
    ...(begins ? [{ type: 'recordingStarted' as const, by: null }] : []),
    ...(recording === 'paused' && on ? [{ type: 'recordingPaused' as const, by }] : []),
    ...(recording === 'on' && state === 'paused' && room.recording.kept !== 'nothing'
      ? [{ type: 'recordingResumed' as const, by }]
      : []),
  ];
}

/** Its time, where everybody is to see it run out. */
const timed = ({ timed: seen, minutes, title }: CuedSegment): RoomEvent[] =>
  seen && minutes > 0
    ? [
        {
          ...{ type: 'timerStarted' as const, by: null, what: title.slice(0, 60) },
          seconds: Math.min(LONGEST_TIME_S, Math.max(5, Math.round(minutes * 60))),
        },
      ]
    : [];

/** When the segment that is on has had its minutes; null where none is on. */
export const segmentEnds = ({ segments, at, since }: RunSheetState): number | null =>
  at === null || since === null || !segments[at] ? null : since + segments[at].minutes * MINUTE_MS;

const ended = (held: RunSheetState['held'], at: number) =>
  held.map((h) => (h.until === null ? { ...h, until: at } : h));

const lines = (segments: readonly CuedSegment[]) =>
  segments.map(({ title, minutes }) => `${title} ${minutes}`).join(', ') || 'nothing more';

/** The planned course of the class: its segments, each with its limits, and which of them is on. */
export const runSheet = concern({
  name: 'runSheet',
  empty: { segments: [], at: null, since: null, byClock: false, held: [] },
  commands: {
    cue: {
      who: 'teaching',
      phase: 'live',
      decide: (room, { member: by }, { index }) => {
        if (!room.runSheet.segments[index]) return refuse('no-segment');
        return room.runSheet.at === index ? [] : cueEvents(room, by, index);
      },
    },
    goByClock: {
      who: 'teaching',
      phase: 'live',
      decide: ({ runSheet: { byClock } }, { member: by }, { on }) =>
        byClock === on ? [] : [{ type: 'clockTaken', by, on }],
    },
    planLeft: {
      who: 'teaching',
      phase: 'live',
      decide: ({ runSheet: { segments, at } }, { member: by }, { left }) => {
        const past = at ?? -1;
        const known = new Set(left.map((l) => l.index));
        if (known.size < left.length || left.some((l) => l.index <= past || !segments[l.index]))
          return refuse('no-segment');
        const next = [
          ...segments.slice(0, past + 1),
          ...left.map(({ index, minutes }) => ({ ...segments[index]!, minutes })),
        ];
        return JSON.stringify(next) === JSON.stringify(segments)
          ? []
          : [{ type: 'leftPlanned', by, segments: next }];
      },
    },
  },
  events: {
    cued: {
      version: 1,
      hears: () => EVERYONE,
      evolve: (part, { index, segment, at }) => ({
        ...part,
        at: index,
        since: at,
        held: [
          ...ended(part.held, at),
          { title: segment.title, minutes: segment.minutes, from: at, until: null },
        ],
      }),
      notice: ({ segment, changes }) => cueWords(segment, changes),
      chapter: ({ segment }) => segment.title,
      log: ({ by, segment }, nameOf) => `${by ? nameOf(by) : 'The clock'} began ${segment.title}.`,
    },
    clockTaken: {
      version: 1,
      hears: () => EVERYONE,
      evolve: (part, { on }) => ({ ...part, byClock: on }),
      log: ({ by, on }, nameOf) =>
        `${nameOf(by)}: the run sheet ${on ? 'goes by the clock' : 'waits for a teacher'}.`,
    },
    leftPlanned: {
      version: 1,
      hears: () => EVERYONE,
      evolve: (part, { segments }) => ({ ...part, segments }),
      log: ({ by, segments }, nameOf) => `${nameOf(by)} planned the class anew: ${lines(segments)}.`,
    },
  },
  heeds: {
    opened: (part, { layers }) => ({ ...part, segments: planned(layers) }),
    // Once it has begun, what is left of it is planned in class.
    settingsChanged: (part, _event, room) =>
      part.at === null ? { ...part, segments: planned(room.limits.layers) } : part,
    dismissed: (part, { at }) => ({ ...part, byClock: false, held: ended(part.held, at) }),
  },
  due: (room) => {
    const { byClock, at, segments } = room.runSheet;
    const ends = segmentEnds(room.runSheet);
    if (!byClock || room.bell.phase !== 'live' || ends === null || at! + 1 >= segments.length) return null;
    return { at: ends, events: cueEvents(room, null, at! + 1) };
  },
});
