import { SegmentedControl } from '@mantine/core';
import { IconMaximize, IconMinimize } from '@tabler/icons-react';
import { useEffect, useRef, useState, type RefObject } from 'react';
import { CLASS, frontOf, placeOf, type Front } from '@nimble-bell/core/room';
import { teaches } from '@nimble-bell/core/roster';
import { SmallButton } from '../../ui/SmallButton';
import { useInside, useRoom, useTeaching, type Inside } from '../live/useRoom';
import { STAGE_TOOLS } from '../tools/registry';
import { Notice } from './Notice';
import { ownStage, shownWhile } from './ownStage';
import classes from './stage.module.css';

const select = ({ room, info }: Inside) => {
  const place = placeOf(room, info.me.member);
  const { laid } = room.tables;
  // Whoever has no seat, and those who teach, look at all tables.
  const tables = laid !== null && (place === CLASS || laid.choose || teaches(info.me.role));
  const front = frontOf(room, place);
  return { front, tables, film: room.film.on !== null && place === CLASS, seats: front === 'seats' };
};

/**
 * What the room looks at: one of the tools, chosen by its word. What whoever teaches puts before everybody is there for
 * each; one may look at another for oneself until the next is put there.
 */
export function Stage() {
  const { send } = useRoom();
  const teaching = useTeaching();
  const { front, ...has } = useInside(select);
  const whole = useRef<HTMLElement>(null);
  const words = useRef<HTMLDivElement>(null);
  useSwitchWidth(whole, words);
  const shows = shownWhile(front, ownStage.use());
  useEffect(() => () => ownStage.set(null), []);
  const { Stage: Shown } = STAGE_TOOLS.find((t) => t.id === shows)!;
  const word = STAGE_TOOLS.find((t) => t.id === front)!.word.toLowerCase();
  return (
    <section
      ref={whole}
      className={classes.stage}
      aria-label="Stage"
      data-elsewhere={shows !== front}
      data-shows={shows}
    >
      <div className={classes.stageSwitch}>
        <div className={classes.words} ref={words}>
          <SegmentedControl
            size="xs"
            aria-label="What the stage shows"
            value={shows}
            onChange={(value) => ownStage.set({ shows: value as Front, while: front })}
            data={STAGE_TOOLS.filter(
              (t) => !(t.id in has) || has[t.id as keyof typeof has] || shows === t.id,
            ).map(({ id, word }) => ({ value: id, label: word }))}
          />
          <FullScreen of={whole} />
        </div>
        {shows !== front && teaching && (
          <SmallButton apart onClick={() => void send({ type: 'setFront', tool: shows })}>
            Put before everybody
          </SmallButton>
        )}
        {shows !== front && !teaching && (
          <SmallButton apart onClick={() => ownStage.set(null)}>
            To the {word}, with the class
          </SmallButton>
        )}
      </div>
      <Shown />
      <Notice />
    </section>
  );
}

/** How wide what one chooses by is, for what stands beside it: `--switch`. */
function useSwitchWidth(stage: RefObject<HTMLElement | null>, words: RefObject<HTMLElement | null>) {
  useEffect(() => {
    if (!('ResizeObserver' in window)) return;
    const observer = new ResizeObserver(() => {
      stage.current?.style.setProperty('--switch', `${(words.current?.offsetWidth ?? 0) + 20}px`);
    });
    observer.observe(words.current!);
    return () => observer.disconnect();
  }, [stage, words]);
}

/** The stage and nothing else, as large as the screen; Escape leads back. */
function FullScreen({ of }: { of: RefObject<HTMLElement | null> }) {
  const [full, setFull] = useState(false);
  useEffect(() => {
    const look = () => setFull(document.fullscreenElement !== null);
    document.addEventListener('fullscreenchange', look);
    return () => document.removeEventListener('fullscreenchange', look);
  }, []);
  if (!document.fullscreenEnabled) return null;
  const change = () =>
    void (full ? document.exitFullscreen() : of.current?.requestFullscreen())?.catch(() => {});
  const words = full ? 'Leave full screen' : 'Full screen';
  return (
    <button type="button" className={classes.full} aria-label={words} title={words} onClick={change}>
      {full ? <IconMinimize size={18} /> : <IconMaximize size={18} />}
    </button>
  );
}
