import { NativeSelect, NumberInput } from '@mantine/core';
import { useEffect, useRef, useState, type ReactNode } from 'react';
import type { Stroke } from '@nimble-bell/core/api';
import type { Question } from '@nimble-bell/core/questions';
import { MOST_ZOOM, type Frame, type Leafing, type Shown } from '@nimble-bell/core/room';
import { ActButton } from '../../controls/ActButton';
import { useInside, useRoom, type Inside } from '../../live/useRoom';
import { PageNote } from './PageNote';
import { PageView } from './PageView';
import { Pens } from './Pens';
import classes from './slides.module.css';
import { useDeckText } from './useDeckText';
import { usePagesByKey } from './usePagesByKey';
import { usePointed, useShown } from './useShown';

const LEAFING: { value: Leafing; label: string }[] = [
  { value: 'together', label: 'Students stay with you' },
  { value: 'back', label: 'Students leaf back' },
  { value: 'freely', label: 'Students leaf freely' },
];
/** So often a pointer is told, ms. */
const TOLD_MS = 50;

type Hand = Stroke['colour'] | 'point' | null;

/** The pages in the hands of whoever teaches: turned, enlarged, pointed at, marked, asked about. */
export default function Conducted() {
  const { shown, pages, marksOn } = useShown();
  const { send, connection } = useRoom();
  const { deck, page, frame } = shown;
  const text = useDeckText(deck);
  const [hand, setHand] = useState<Hand>(null);
  const [noting, setNoting] = useState(false);
  const pointed = usePointed();
  const point = usePointing((x, y) => connection.signal({ what: 'pointer', x, y }));
  const { turn, turnBy } = useTurning(shown);
  const give = (more: Partial<Frame>) => void send({ type: 'frameSlide', frame: { ...frame, ...more } });
  const byKey = usePagesByKey({ frame, turnBy, give });
  const held = useFocusOfLost();
  const pen = hand === 'point' ? null : hand;
  const draw = (points: number[]) =>
    void send({ type: 'markSlide', deck: deck.id, page, stroke: { points, colour: pen! } });
  const marks = marksOn(page);
  const label = `${deck.name}, page ${page}`;
  return (
    <div className={classes.slides} data-own-height data-foot>
      <Head shown={shown}>
        <button
          type="button"
          className={classes.turn}
          aria-pressed={noting}
          onClick={() => setNoting(!noting)}
        >
          {text.notes[page] ? 'Note' : 'Note …'}
        </button>
      </Head>
      <div ref={held} className={classes.held} tabIndex={0} role="group" aria-label={label} {...byKey}>
        <PageView
          {...{ pages, deck, page, frame, pointed, marks }}
          colour={pen ?? 'clay'}
          draw={pen ? draw : null}
          {...(hand === 'point' ? { point } : {})}
        />
      </div>
      {noting && (
        <PageNote key={page} deck={deck.id} page={page} text={text.notes[page] ?? ''} kept={text.reload} />
      )}
      <div className={classes.bar} role="group" aria-label="Pages">
        <Turning shown={shown} turn={turn} turnBy={turnBy} />
        <Enlarging frame={frame} give={give} />
        <Hands hand={hand} take={setHand} />
        {marks.length > 0 && (
          <button
            type="button"
            className={classes.turn}
            onClick={() => void send({ type: 'clearMarks', page })}
          >
            Wipe
          </button>
        )}
        <AskThis question={text.questionOn(page)} />
      </div>
    </div>
  );
}

/** Whoever pressed what is gone now, has the page. */
function useFocusOfLost() {
  const held = useRef<HTMLDivElement>(null);
  useEffect(() => {
    if (document.activeElement === document.body) held.current?.focus();
  }, []);
  return held;
}

/** What lies open, and how far students leaf in it. */
function Head({ shown, children }: { shown: Shown; children: ReactNode }) {
  const { send } = useRoom();
  return (
    <div className={classes.top}>
      <span className={classes.name}>{shown.deck.name}</span>
      <NativeSelect
        size="xs"
        aria-label="How students leaf"
        data={LEAFING}
        value={shown.leafing}
        onChange={(e) => void send({ type: 'letLeaf', leafing: e.currentTarget.value as Leafing })}
      />
      {children}
      <button type="button" className={classes.turn} onClick={() => void send({ type: 'putSlidesAway' })}>
        Put away
      </button>
    </div>
  );
}

/** What one has in hand over a page: a pointer, a pen, or nothing. */
function Hands({ hand, take }: { hand: Hand; take: (hand: Hand) => void }) {
  const points = hand === 'point';
  return (
    <>
      <button
        type="button"
        className={classes.turn}
        aria-pressed={points}
        onClick={() => take(points ? null : 'point')}
      >
        Point
      </button>
      <Pens pen={points ? null : hand} take={take} />
    </>
  );
}

/** Turns for everybody; pressed again before the page is turned, one page further than that. */
function useTurning({ deck, page }: Shown) {
  const { send } = useRoom();
  const wanted = useRef<number | null>(null);
  const turn = async (to: number) => {
    const next = Math.min(deck.pages, Math.max(1, to));
    if (next === (wanted.current ?? page)) return;
    wanted.current = next;
    await send({ type: 'turnSlide', page: next });
    if (wanted.current === next) wanted.current = null;
  };
  return {
    turn: (to: number) => void turn(to),
    turnBy: (by: number) => void turn((wanted.current ?? page) + by),
  };
}

type TurnProps = { shown: Shown; turn: (to: number) => void; turnBy: (by: number) => void };

function Turning({ shown: { deck, page }, turn, turnBy }: TurnProps) {
  return (
    <>
      <ActButton act="pageBefore" className={classes.turn} disabled={page === 1} onClick={() => turnBy(-1)}>
        Back
      </ActButton>
      <NumberInput
        key={page}
        size="xs"
        className={classes.number!}
        hideControls
        aria-label={`Page, of ${deck.pages}`}
        defaultValue={page}
        min={1}
        max={deck.pages}
        onKeyDown={(e) => e.key === 'Enter' && turn(Number(e.currentTarget.value))}
        onBlur={(e) => turn(Number(e.currentTarget.value))}
      />
      <span className="figures">of {deck.pages}</span>
      <ActButton
        act="pageAfter"
        className={classes.turn}
        disabled={page === deck.pages}
        onClick={() => turnBy(1)}
      >
        Next
      </ActButton>
    </>
  );
}

function Enlarging({ frame, give }: { frame: Frame; give: (more: Partial<Frame>) => void }) {
  const wide = frame.fit === 'width';
  const enlarge = (times: number) => give({ zoom: Math.min(MOST_ZOOM, Math.max(1, frame.zoom * times)) });
  return (
    <>
      <button
        type="button"
        className={classes.turn}
        aria-label="Smaller"
        disabled={frame.zoom <= 1}
        onClick={() => enlarge(1 / 1.5)}
      >
        −
      </button>
      <button
        type="button"
        className={classes.turn}
        aria-label="Larger"
        disabled={frame.zoom >= MOST_ZOOM}
        onClick={() => enlarge(1.5)}
      >
        +
      </button>
      <button
        type="button"
        className={classes.turn}
        aria-pressed={wide}
        onClick={() => give(wide ? { fit: 'page', y: 0.5 } : { fit: 'width', y: 0 })}
      >
        Width
      </button>
    </>
  );
}

const selectLive = ({ room }: Inside) => room.bell.phase === 'live';

/** What the page asks is asked of the class, by one press. */
function AskThis({ question }: { question: Question | null }) {
  const { send } = useRoom();
  const live = useInside(selectLive);
  if (!question) return null;
  return (
    <button
      type="button"
      className={`${classes.turn} ${classes.asks}`}
      disabled={!live}
      title={live ? question.text : 'Ring in first.'}
      onClick={() => void send({ type: 'ask', question })}
    >
      Ask this
    </button>
  );
}

/** Tells where one points, so often and no more. */
function usePointing(tell: (x: number, y: number) => void) {
  const last = useRef(0);
  return (x: number, y: number) => {
    const now = performance.now();
    if (now - last.current < TOLD_MS) return;
    last.current = now;
    tell(x, y);
  };
}
