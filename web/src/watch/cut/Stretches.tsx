import { Button, NativeSelect, TextInput } from '@mantine/core';
import { useState } from 'react';
import {
  FATES,
  joinNext,
  SHORTEST_MS,
  stretchAt,
  stretchesBy,
  withFate,
  type Fate,
  type Mark,
} from '@nimble-bell/core/recording';
import { lengthRead, lengthWords, momentWords } from '../words';
import { FATE_WORDS } from './words';
import classes from './cut.module.css';

interface StretchesProps {
  marks: readonly Mark[];
  lengthMs: number;
  position: number;
  goTo: (ms: number) => void;
  change: (marks: Mark[]) => void;
}

/** All stretches as lengths of time, what becomes of each by its pattern. */
export function StretchBar({ marks, lengthMs, position, goTo }: Omit<StretchesProps, 'change'>) {
  const on = stretchAt(marks, position);
  return (
    <div className={classes.bar} role="group" aria-label="Stretches, as lengths of time">
      {stretchesBy(marks, lengthMs).map((s, i) => (
        <button
          key={s.from}
          type="button"
          data-fate={s.fate}
          data-on={i === on}
          style={{ flexGrow: s.until - s.from }}
          title={`${lengthWords(s.from)} to ${lengthWords(s.until)}: ${FATE_WORDS[s.fate]}`}
          aria-label={`To ${lengthWords(s.from)}: ${FATE_WORDS[s.fate]}`}
          onClick={() => goTo(s.from)}
        >
          <span>{FATE_WORDS[s.fate]}</span>
        </button>
      ))}
      <span
        className={classes.now}
        style={{ left: `${(100 * position) / Math.max(1, lengthMs)}%` }}
        aria-hidden
      />
    </div>
  );
}

/** Each stretch with when it begins, what becomes of it, and the next joined to it. */
export function Stretches({ marks, lengthMs, position, goTo, change }: StretchesProps) {
  const on = stretchAt(marks, position);
  const begin = (i: number, from: number) => change(marks.map((m, k) => (k === i ? { ...m, from } : m)));
  return (
    <ol className={classes.stretches} aria-label="Stretches">
      {stretchesBy(marks, lengthMs).map(({ from, until, fate }, i) => (
        <li key={from} data-on={i === on}>
          <Begins
            of={from}
            fixed={i === 0}
            within={[
              i ? marks[i - 1]!.from + SHORTEST_MS : 0,
              (marks[i + 1]?.from ?? lengthMs) - SHORTEST_MS,
            ]}
            set={(at) => begin(i, at)}
          />
          <span className="figures">{lengthWords(until - from)} long</span>
          <NativeSelect
            aria-label={`What becomes of ${lengthWords(from)} to ${lengthWords(until)}`}
            value={fate}
            data={FATES.map((value) => ({ value, label: FATE_WORDS[value] }))}
            onChange={(e) => change(withFate(marks, i, e.currentTarget.value as Fate))}
          />
          <Button size="compact-sm" variant="default" onClick={() => goTo(Math.max(0, from - 2000))}>
            Hear its beginning
          </Button>
          {i + 1 < marks.length && (
            <Button
              size="compact-sm"
              variant="subtle"
              style={{ justifySelf: 'start' }}
              onClick={() => change(joinNext(marks, i))}
            >
              One with the next
            </Button>
          )}
        </li>
      ))}
    </ol>
  );
}

interface BeginsProps {
  of: number;
  fixed: boolean;
  within: [number, number];
  set: (at: number) => void;
}

/** When a stretch begins, typed; what is no such time is said, and nothing changes. */
function Begins({ of, fixed, within: [least, most], set }: BeginsProps) {
  const [typed, setTyped] = useState<string | null>(null);
  const stands = momentWords(of);
  const at = typed === null ? of : lengthRead(typed);
  const wrong = at === null || at < least || at > most;
  const take = () => {
    if (typed !== null && !wrong && at !== of) set(at);
    if (!wrong) setTyped(null);
  };
  return (
    <TextInput
      aria-label={`Begins at ${stands}`}
      className="figures"
      disabled={fixed}
      value={typed ?? stands}
      error={typed !== null && wrong && `From ${lengthWords(least)} to ${lengthWords(most)}`}
      onChange={(e) => setTyped(e.currentTarget.value)}
      onBlur={take}
      onKeyDown={(e) => e.key === 'Enter' && take()}
    />
  );
}
