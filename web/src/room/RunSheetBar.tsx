import { ActionIcon, Button, Group, Modal, Text, Tooltip } from '@mantine/core';
import { IconPlayerPause, IconPlayerPlay } from '@tabler/icons-react';
import { useState } from 'react';
import { BellMark } from '../app/Bar';
import { useNow } from '../app/clock';
import { clockWords, countWords } from '@nimble-bell/core/calendar';
import { useRoom } from './useRoom';
import classes from './room.module.css';

/** The run sheet as a bar of time: the segment, the moment now, minutes left; ring in, dismiss, the recording. */
export function RunSheetBar() {
  const { info, state, teaching, send } = useRoom();
  const now = useNow(1000);
  const { session, zone } = info;
  const whole = session.endsAt + session.lingerMinutes * 60_000 - session.startsAt;
  const share = (at: number) => `${Math.min(100, Math.max(0, (100 * (at - session.startsAt)) / whole))}%`;
  return (
    <header className={classes.bar}>
      <BellMark />
      <div className={classes.barTitle}>
        <strong>
          {info.course.code} {session.seriesTitle} {session.number}
        </strong>
        <span className="figures">
          {clockWords(now, zone)} · {leftWords(now, session, state.phase === 'live')}
        </span>
      </div>
      <div
        className={classes.sheet}
        role="img"
        aria-label={`Run sheet: ${session.seriesTitle}, ${session.minutes} minutes. ${leftWords(now, session, state.phase === 'live')}`}
      >
        <div className={classes.segment} style={{ width: share(session.endsAt) }}>
          {session.seriesTitle} {session.minutes} min
        </div>
        {session.lingerMinutes > 0 && (
          <div className={classes.lingerSegment}>linger {session.lingerMinutes}</div>
        )}
        <div className={classes.moment} style={{ left: share(now) }} />
      </div>
      <RecordingState />
      {teaching && state.phase === 'waiting' && (
        <Button color="brass.5" c="#22302b" onClick={() => void send({ type: 'ringIn' })}>
          Ring in
        </Button>
      )}
      {teaching && state.phase === 'live' && <DismissButton />}
    </header>
  );
}

function leftWords(now: number, session: { startsAt: number; endsAt: number }, live: boolean): string {
  const minutes = (ms: number) => Math.ceil(ms / 60_000);
  if (now < session.startsAt) return `${minutes(session.startsAt - now)} min to the start`;
  if (now < session.endsAt) return `${minutes(session.endsAt - now)} min left`;
  return live ? `${minutes(now - session.endsAt)} min over` : 'over';
}

/** The lasting mark that the class is recorded, for everyone; pause and resume for those who teach. */
function RecordingState() {
  const { state, teaching, send } = useRoom();
  if (state.recording === 'off') return null;
  const on = state.recording === 'on';
  return (
    <div className={classes.recording} data-on={on} data-testid="recording-mark">
      <span className={classes.reel} aria-hidden />
      <span>{on ? 'Being recorded' : 'Recording paused'}</span>
      {teaching && (
        <Tooltip label={on ? 'Pause the recording' : 'Go on recording'}>
          <ActionIcon
            variant="subtle"
            c="inherit"
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
  const { send, state } = useRoom();
  const [asking, setAsking] = useState(false);
  const others = Object.values(state.occupants).filter((o) => o.present).length - 1;
  return (
    <>
      <Button color="clay" variant="filled" onClick={() => setAsking(true)}>
        Dismiss
      </Button>
      <Modal opened={asking} onClose={() => setAsking(false)} title="Dismiss the class?" centered>
        <Text mb="md">
          {others > 0
            ? `${countWords(others, 'person leaves', 'people leave')} the room with you`
            : 'The room closes'}
          , the links are shut for this session, and the recording is prepared.
        </Text>
        <Group justify="flex-end">
          <Button variant="default" onClick={() => setAsking(false)}>
            Go on teaching
          </Button>
          <Button color="clay" onClick={() => void send({ type: 'dismiss' })} data-autofocus>
            Dismiss for everyone
          </Button>
        </Group>
      </Modal>
    </>
  );
}
