import { Popover } from '@mantine/core';
import { lazy, Suspense, useState, type ComponentType } from 'react';
import type { KeyId } from '../../keys/keys';
import { ActButton } from '../controls/ActButton';
import { useInside, useRoom, type Inside } from '../live/useRoom';
import { useSlowly } from './pick/slowly';
import classes from './atHand.module.css';

const Compose = lazy(() => import('./questions/Compose'));
const StartTime = lazy(() => import('./time/StartTime'));
const Captioners = lazy(() => import('./captions/Captioners'));
const ChooseFilm = lazy(() => import('./film/Choose'));
const LayTables = lazy(() => import('./tables/LayTables'));

const select = ({ room }: Inside) => ({
  live: room.bell.phase === 'live',
  laid: room.tables.laid !== null,
});

/** What a teacher puts before the class with one press: a question, a time, one of them by lot, a film, small tables. */
export function AtHand() {
  const { send } = useRoom();
  const { live, laid } = useInside(select);
  const [slowly] = useSlowly();
  return (
    <div className={classes.row} role="group" aria-label="Put before the class">
      <Opened act="ask" word="Ask" width={400} disabled={!live} Part={Compose} />
      <Opened act="time" word="Time" width={280} disabled={!live} Part={StartTime} />
      <ActButton
        act="pick"
        pressed={false}
        disabled={!live}
        className={classes.button}
        onClick={() => void send({ type: 'pick', slowly })}
      >
        Pick
      </ActButton>
      <Opened act="captions" word="Captions" width={300} Part={Captioners} disabled={false} />
      <Opened act="film" word="Film" width={380} disabled={!live} Part={ChooseFilm} />
      {!laid && <Opened act="tables" word="Tables" width={480} disabled={!live} Part={LayTables} />}
    </div>
  );
}

interface OpenedProps {
  act: KeyId;
  word: string;
  width: number;
  disabled: boolean;
  Part: ComponentType<{ close: () => void }>;
}

function Opened({ act, word, width, disabled, Part }: OpenedProps) {
  const [open, setOpen] = useState(false);
  const close = () => setOpen(false);
  return (
    <Popover
      opened={open}
      onChange={setOpen}
      width={width}
      position="bottom-start"
      shadow="md"
      withArrow
      trapFocus
      returnFocus
    >
      <Popover.Target>
        <ActButton {...{ act, disabled }} className={classes.button} onClick={() => setOpen(!open)}>
          {word}
        </ActButton>
      </Popover.Target>
      <Popover.Dropdown aria-label={word} style={{ maxHeight: '80dvh', overflowY: 'auto' }}>
        <Suspense>{open && <Part close={close} />}</Suspense>
      </Popover.Dropdown>
    </Popover>
  );
}
