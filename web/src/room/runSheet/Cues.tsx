import { Menu } from '@mantine/core';
import { lazy, Suspense, useState } from 'react';
import { segmentEnds, type RunSheetState } from '@nimble-bell/core/room';
import { useNow } from '../../app/clock';
import { ActButton } from '../controls/ActButton';
import { useInside, useRoom, type Inside } from '../live/useRoom';
import { useNotes } from './useNotes';
import classes from './runSheet.module.css';

const PlanLeft = lazy(() => import('./PlanLeft'));

const select = ({ room }: Inside) => room.runSheet;
/** By the clock the next segment is announced so long before. */
const NOTICE_S = 30;

/** A teacher's cues: the next by one press, any other from the list, by the clock, and what is left planned anew. */
export function Cues() {
  const { send } = useRoom();
  const sheet = useInside(select, Object.is);
  const [planning, setPlanning] = useState(false);
  const now = useNow(1000);
  const { segments, at, byClock } = sheet;
  const next = (at ?? -1) + 1;
  const ends = segmentEnds(sheet);
  const seconds = byClock && ends !== null ? Math.max(0, Math.ceil((ends - now) / 1000)) : null;
  const coming = segments[next];
  const soon = coming && seconds !== null && seconds <= NOTICE_S;
  return (
    <div className={classes.cues}>
      {soon && (
        <span role="status" className={classes.soon}>
          {coming.title} in <span aria-hidden>{seconds} s</span>
          <span className={classes.unseen}>half a minute</span>
        </span>
      )}
      {soon && (
        <button
          type="button"
          className={classes.cue}
          onClick={() => void send({ type: 'goByClock', on: false })}
        >
          Hold
        </button>
      )}
      {coming && (
        <ActButton
          act="cue"
          pressed={false}
          className={classes.cue}
          onClick={() => void send({ type: 'cue', index: next })}
        >
          Next: {coming.title}
        </ActButton>
      )}
      <SheetMenu sheet={sheet} plan={coming ? () => setPlanning(true) : null} />
      {planning && (
        <Suspense>
          <PlanLeft close={() => setPlanning(false)} />
        </Suspense>
      )}
    </div>
  );
}

/** Every part, to begin it out of turn, and how they follow one another. */
function SheetMenu({ sheet, plan }: { sheet: RunSheetState; plan: (() => void) | null }) {
  const { send } = useRoom();
  const { segments, at, byClock } = sheet;
  const notes = useNotes();
  return (
    <Menu position="bottom-end" shadow="md" width={280}>
      <Menu.Target>
        <button type="button" className={classes.cue}>
          Run sheet
        </button>
      </Menu.Target>
      <Menu.Dropdown>
        {segments.map((s, i) => (
          <Menu.Item
            key={i}
            disabled={i === at}
            onClick={() => void send({ type: 'cue', index: i })}
            rightSection={<span className="figures">{s.minutes} min</span>}
          >
            {s.title}
            {i === at ? ', on now' : ''}
            {notes.has(s.title) && <small className={classes.note}>{notes.get(s.title)}</small>}
          </Menu.Item>
        ))}
        <Menu.Divider />
        <Menu.Item onClick={() => void send({ type: 'goByClock', on: !byClock })}>
          {byClock ? 'Wait for me, not the clock' : 'Go on by the clock'}
        </Menu.Item>
        {plan && <Menu.Item onClick={plan}>Plan what is left</Menu.Item>}
      </Menu.Dropdown>
    </Menu>
  );
}
