import { countWords } from '../../calendar/words';
import { concern, EVERYONE } from '../kernel/concern';
import { refuse } from '../kernel/refusals';
import { LONGEST_TIME_S, type Timer, type TimerState } from './state';

/** How long it has run, ms. */
export const ranFor = ({ from, heldAt }: Timer, now: number): number => Math.max(0, (heldAt ?? now) - from);

/** What it shows, ms: what is left of it, or how long it has run. */
export const shownOf = (timer: Timer, now: number): number =>
  timer.length === null ? ranFor(timer, now) : Math.max(0, timer.length - ranFor(timer, now));

/** When its bell rings, an instant; null where it is held, or counts up. */
const ringsAt = ({ on }: TimerState): number | null =>
  on === null || on.length === null || on.heldAt !== null ? null : on.from + on.length;

/** "90 seconds" is "1 minute 30 seconds"; "5 minutes", "45 seconds". */
function secondsWords(seconds: number): string {
  const m = Math.floor(seconds / 60);
  const s = seconds % 60;
  return [m ? countWords(m, 'minute') : '', s || !m ? countWords(s, 'second') : ''].filter(Boolean).join(' ');
}

const toWhom = (what: string) => (what ? `: ${what}` : '');
const lengthWords = (seconds: number | null) =>
  seconds === null ? 'The stopwatch runs' : `${secondsWords(seconds)} from now`;

/** Time that everybody sees: counted down to a bell, or up. */
export const timer = concern({
  name: 'timer',
  empty: { on: null, rangAt: null },
  commands: {
    startTimer: {
      who: 'teaching',
      phase: 'live',
      decide: (_room, { member: by }, { seconds, what = '' }) => [
        { type: 'timerStarted', by, seconds, what },
      ],
    },
    holdTimer: {
      who: 'teaching',
      phase: 'live',
      decide: ({ timer: { on } }, { member: by }, { hold }) => {
        if (!on) return refuse('no-timer');
        return (on.heldAt !== null) === hold ? [] : [{ type: 'timerHeld', by, hold }];
      },
    },
    moreTime: {
      who: 'teaching',
      phase: 'live',
      decide: ({ timer: { on } }, { member: by }, { seconds }) => {
        if (!on || on.length === null) return refuse('no-timer');
        if (on.length + seconds * 1000 > LONGEST_TIME_S * 1000) return refuse('no-longer');
        return [{ type: 'timeAdded', by, seconds }];
      },
    },
    stopTimer: {
      who: 'teaching',
      phase: 'live',
      decide: ({ timer: { on } }, { member: by }) => (on ? [{ type: 'timerStopped', by }] : []),
    },
  },
  events: {
    timerStarted: {
      version: 1,
      hears: () => EVERYONE,
      evolve: (part, { by, seconds, what, at }) => ({
        ...part,
        on: {
          what,
          from: at,
          length: seconds === null ? null : seconds * 1000,
          heldAt: null,
          bySheet: by === null,
        },
      }),
      notice: ({ seconds, what }) => `${lengthWords(seconds)}${toWhom(what)}.`,
      log: ({ by, seconds, what }, nameOf) =>
        `${by ? nameOf(by) : 'The run sheet'} began ${
          seconds === null ? 'a stopwatch' : `a timer, ${secondsWords(seconds)}`
        }${toWhom(what)}.`,
    },
    timerHeld: {
      version: 1,
      hears: () => EVERYONE,
      evolve: (part, { hold, at }) => ({ ...part, on: part.on && held(part.on, hold, at) }),
      notice: ({ hold }) => (hold ? 'The time stands still for a moment.' : 'The time goes on.'),
      log: ({ by, hold }, nameOf) => `${nameOf(by)} ${hold ? 'held the timer' : 'let the timer go on'}.`,
    },
    timeAdded: {
      version: 1,
      hears: () => EVERYONE,
      evolve: ({ rangAt, on }, { seconds }) => ({
        rangAt,
        on: on && { ...on, length: (on.length ?? 0) + seconds * 1000 },
      }),
      notice: ({ seconds }) => `${secondsWords(seconds)} more.`,
      log: ({ by, seconds }, nameOf) => `${nameOf(by)} gave ${secondsWords(seconds)} more.`,
    },
    timerStopped: {
      version: 1,
      hears: () => EVERYONE,
      evolve: (part) => ({ ...part, on: null }),
      log: ({ by }, nameOf) => `${nameOf(by)} took the timer away.`,
    },
    timerRang: {
      version: 1,
      hears: () => EVERYONE,
      evolve: (_part, { at }) => ({ on: null, rangAt: at }),
      notice: ({ what }) => `The time is over${toWhom(what)}.`,
      log: ({ what }) => `The timer rang${toWhom(what)}.`,
    },
  },
  heeds: {
    cued: (part) => (part.on?.bySheet ? { ...part, on: null } : part),
    dismissed: (part) => ({ ...part, on: null }),
  },
  due: ({ timer: part }) => {
    const at = ringsAt(part);
    return at === null ? null : { at, events: [{ type: 'timerRang', what: part.on!.what }] };
  },
});

/** What was held runs as much later. */
const held = (on: Timer, hold: boolean, at: number): Timer =>
  hold ? { ...on, heldAt: at } : { ...on, heldAt: null, from: on.from + at - (on.heldAt ?? at) };
