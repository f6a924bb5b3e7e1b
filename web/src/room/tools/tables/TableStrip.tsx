import { Button, TextInput } from '@mantine/core';
import { lazy, Suspense } from 'react';
import { countWords, lengthWords } from '@nimble-bell/core/calendar';
import { CLASS, type Laid } from '@nimble-bell/core/room';
import { useNow } from '../../../app/clock';
import { Linked } from '../../../ui/Linked';
import { SmallButton } from '../../../ui/SmallButton';
import { useLine } from '../../controls/useLine';
import { useInside, usePlace, useRoom, useTableName, useTeaching, type Inside } from '../../live/useRoom';
import strip from '../strip.module.css';
import classes from './tables.module.css';

// Where there are any.
const TaskFiles = lazy(() => import('./TaskFiles'));
const TheirLimits = lazy(() => import('./TheirLimits'));

const select = ({ room }: Inside) => room.tables.laid;
const selectOn = ({ room }: Inside) => room.recording.state === 'on';

/** That the class is at tables: how long yet, what to do there; back again, more time, a word to all, a call for help. */
export default function TableStrip() {
  const laid = useInside(select, Object.is);
  const on = useInside(selectOn);
  const teaching = useTeaching();
  const place = usePlace();
  const tableName = useTableName();
  if (!laid) return null;
  return (
    <div className={strip.strip} data-testid="tables">
      <div className={strip.words}>
        <strong>
          {place === CLASS ? `At ${countWords(laid.tables.length, 'table')}` : tableName(place)}
        </strong>
        {laid.until !== null && <Left until={laid.until} soon={laid.soon} />}
        {laid.recorded && on && (
          <span className={classes.hint}>
            {place === CLASS ? 'each recorded' : 'recorded, for this table'}
          </span>
        )}
        {laid.task && (
          <span className={classes.task}>
            <Linked text={laid.task} />
          </span>
        )}
        {laid.files.length > 0 && (
          <Suspense>
            <TaskFiles files={laid.files} />
          </Suspense>
        )}
        {laid.words.length > 0 && <span className={classes.word}>{laid.words.at(-1)!.text}</span>}
      </div>
      {teaching ? <Teaching laid={laid} at={place} /> : place !== CLASS && <Sitting laid={laid} at={place} />}
    </div>
  );
}

function Left({ until, soon }: { until: number; soon: boolean }) {
  const left = Math.max(0, until - useNow(500));
  return (
    <>
      <span role="timer" className={`figures ${classes.left}`} data-short={soon}>
        {lengthWords(Math.ceil(left / 1000) * 1000)}
      </span>
      {soon && <span>then all are back</span>}
    </>
  );
}

interface Props {
  laid: Laid;
  at: string;
}

function Teaching({ laid, at }: Props) {
  const { send } = useRoom();
  const { field } = useLine((text) => send({ type: 'wordToTables', text }));
  const tableName = useTableName();
  return (
    <div className={strip.acts}>
      {laid.calls.map(({ place }) => (
        <SmallButton key={place} apart onClick={() => void send({ type: 'goTo', place })}>
          {tableName(place)} asks
        </SmallButton>
      ))}
      {at !== CLASS && (
        <Button size="compact-sm" variant="default" onClick={() => void send({ type: 'goTo', place: CLASS })}>
          Leave the table
        </Button>
      )}
      <TextInput
        size="xs"
        aria-label="A word to all tables"
        placeholder="A word to all tables, and Enter"
        maxLength={400}
        className={classes.toAll!}
        {...field}
      />
      <Limited at={at} />
      <Button
        size="compact-sm"
        variant="default"
        onClick={() => void send({ type: 'moreTableTime', seconds: 300 })}
      >
        5 minutes more
      </Button>
      <Button
        size="compact-sm"
        data-act="tables"
        onClick={() => void send({ type: 'endTables', ...(laid.soon ? { now: true } : {}) })}
      >
        {laid.soon ? 'Back at once' : 'Everybody back'}
      </Button>
    </div>
  );
}

const selectLimits = ({ room }: Inside) => room.limits.tables;

/** What they may at the table where one is; or, in the class, at all of them. */
function Limited({ at }: Pick<Props, 'at'>) {
  const { send } = useRoom();
  const said = useInside(selectLimits, Object.is);
  if (!said) return null;
  return (
    <Suspense>
      <TheirLimits
        inRow
        label={at === CLASS ? 'What they may at the tables' : 'What they may at this table'}
        now={said.own[at] ?? said.all}
        set={({ limits, sheet }) => void send({ type: 'limitTables', limits, ...(sheet ? { sheet } : {}) })}
      />
    </Suspense>
  );
}

function Sitting({ laid, at }: Props) {
  const { send } = useRoom();
  const turn = laid.calls.findIndex((c) => c.place === at);
  return (
    <div className={strip.acts}>
      <span role="status">
        {turn === 0 && 'A teacher comes to you next.'}
        {turn > 0 && `A teacher comes: ${countWords(turn, 'table')} before you.`}
      </span>
      <Button
        size="compact-sm"
        variant="default"
        onClick={() => void send({ type: 'callHelp', on: turn < 0 })}
      >
        {turn < 0 ? 'Call a teacher' : 'No need any more'}
      </Button>
    </div>
  );
}
