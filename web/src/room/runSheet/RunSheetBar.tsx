import { ActionIcon, Button, Modal, Tooltip } from '@mantine/core';
import { IconPlayerPause, IconPlayerPlay } from '@tabler/icons-react';
import { lazy, Suspense, useState } from 'react';
import { clockWords, isStanding } from '@nimble-bell/core/calendar';
import type { Kept } from '@nimble-bell/core/recording';
import { segmentEnds, type RunSheetState, isWithheld } from '@nimble-bell/core/room';
import { BellMark } from '../../app/Bar';
import { useNow } from '../../app/clock';
import { useInfo, useInside, useRoom, useTeaching, type Inside } from '../live/useRoom';
import { Cues } from './Cues';
import { Segments } from './Segments';
import type { Times } from './times';
import classes from './runSheet.module.css';

// Once a class.
const Ending = lazy(() => import('./Ending'));

/** The part of the run sheet that is on. */
function partWords(sheet: RunSheetState) {
  const ends = segmentEnds(sheet);
  return ends === null ? null : { title: sheet.segments[sheet.at!]!.title, ends };
}

const minutesTo = (ends: number, now: number) =>
  now < ends
    ? `${Math.ceil((ends - now) / 60_000)} min left`
    : `${Math.ceil((now - ends) / 60_000)} min over`;

const select = ({ room, info }: Inside) => ({
  phase: room.bell.phase,
  rangInAt: room.bell.rangInAt,
  times: room.bell.times ?? info.session,
  planned: room.runSheet.segments.length > 0,
  on: partWords(room.runSheet),
});

/** The run sheet as a bar of time: the segment, the moment now, minutes left; ring in, dismiss, the recording. */
export function RunSheetBar() {
  const { session, course, zone } = useInfo();
  const { send } = useRoom();
  const teaching = useTeaching();
  const { phase, rangInAt, times, planned, on } = useInside(select);
  const now = useNow(1000);
  const standing = isStanding(session.kind);
  const left = standing ? sinceWords(rangInAt, zone) : leftWords(now, times, phase === 'live');
  return (
    <header className={classes.bar}>
      <BellMark />
      <div className={classes.barTitle}>
        <h1>
          {course.code} {session.seriesTitle} {standing ? '' : session.number}
        </h1>
        <span className="figures">
          {clockWords(now, zone)} ·{' '}
          {on && phase === 'live' ? `${on.title}, ${minutesTo(on.ends, now)}` : left}
        </span>
      </div>
      {standing ? (
        <div className={classes.apart} />
      ) : planned ? (
        <PlannedSheet times={times} now={now} left={left} />
      ) : (
        <Sheet title={session.seriesTitle} times={times} now={now} left={left} />
      )}
      {teaching && phase === 'live' && planned && <Cues />}
      <RecordingMark />
      {teaching && phase === 'waiting' && (
        <Button color="brass.5" c="#22302b" data-act="begin" onClick={() => void send({ type: 'ringIn' })}>
          Ring in
        </Button>
      )}
      {teaching && phase === 'live' && <DismissButton />}
    </header>
  );
}

const selectSheet = ({ room }: Inside) => room.runSheet;

function PlannedSheet(props: { times: Times; now: number; left: string }) {
  const { zone } = useInfo();
  const sheet = useInside(selectSheet, Object.is);
  return <Segments sheet={sheet} zone={zone} {...props} />;
}

/** The session's length drawn, with the linger as its end, and the moment now. */
function Sheet({ title, times, now, left }: { title: string; times: Times; now: number; left: string }) {
  const whole = times.endsAt + times.lingerMinutes * 60_000 - times.startsAt;
  const share = (at: number) => `${Math.min(100, Math.max(0, (100 * (at - times.startsAt)) / whole))}%`;
  const minutes = Math.round((times.endsAt - times.startsAt) / 60_000);
  return (
    <div className={classes.sheet} role="img" aria-label={`Run sheet: ${title}, ${minutes} minutes. ${left}`}>
      <div className={classes.segment} style={{ width: share(times.endsAt) }}>
        {title} {minutes} min
      </div>
      {times.lingerMinutes > 0 && <div className={classes.lingerSegment}>linger {times.lingerMinutes}</div>}
      <div className={classes.moment} style={{ left: share(now) }} />
    </div>
  );
}

/** A room without dates has no minutes to count down. */
const sinceWords = (rangInAt: number | null, zone: string): string =>
  rangInAt === null ? 'not open yet' : `open since ${clockWords(rangInAt, zone)}`;

function leftWords(now: number, session: { startsAt: number; endsAt: number }, live: boolean): string {
  const minutes = (ms: number) => Math.ceil(ms / 60_000);
  if (now < session.startsAt) return `${minutes(session.startsAt - now)} min to the start`;
  if (now < session.endsAt) return `${minutes(session.endsAt - now)} min left`;
  return live ? `${minutes(now - session.endsAt)} min over` : 'over';
}

/** The lasting mark that the class is recorded, for everyone; pause and resume for those who teach. */
const selectRecording = ({ room, info }: Inside) => ({
  state: room.recording.state,
  waits: room.recording.automatic && room.bell.phase === 'live' && room.recording.begins,
  kept: room.recording.kept,
  withheld: isWithheld(room, info.me.member),
});

function recordingWords(on: boolean, kept: Kept, withheld: boolean): string {
  if (kept === 'nothing') return 'Disk full: not recorded';
  if (!on) return 'Recording paused';
  if (withheld) return 'Recorded, not you';
  return kept === 'sound' ? 'Only sound is recorded' : 'Being recorded';
}

function RecordingMark() {
  const { send } = useRoom();
  const teaching = useTeaching();
  const { state, waits, kept, withheld } = useInside(selectRecording);
  if (state === 'off')
    return (
      waits &&
      teaching && (
        <Button variant="default" onClick={() => void send({ type: 'startRecording' })}>
          {waits === 'hand' ? 'Begin recording' : 'Begin recording early'}
        </Button>
      )
    );
  const on = state === 'on';
  return (
    <div className={classes.recording} data-on={on} data-testid="recording-mark">
      <span className={classes.reel} aria-hidden />
      <span>{recordingWords(on, kept, withheld)}</span>
      {teaching && kept !== 'nothing' && (
        <Tooltip label={on ? 'Pause the recording' : 'Go on recording'}>
          <ActionIcon
            variant="subtle"
            c="inherit"
            data-act="pause"
            aria-label={on ? 'Pause the recording' : 'Go on recording'}
            onClick={() => void send({ type: on ? 'pauseRecording' : 'resumeRecording' })}
          >
            {on ? <IconPlayerPause size={18} /> : <IconPlayerPlay size={18} />}
          </ActionIcon>
        </Tooltip>
      )}
    </div>
  );
}

function DismissButton() {
  const [asking, setAsking] = useState(false);
  const close = () => setAsking(false);
  return (
    <>
      <Button color="clay" variant="filled" data-act="end" onClick={() => setAsking(true)}>
        Dismiss
      </Button>
      <Modal opened={asking} onClose={close} title="Dismiss the class?" centered>
        <Suspense>
          <Ending close={close} />
        </Suspense>
      </Modal>
    </>
  );
}
