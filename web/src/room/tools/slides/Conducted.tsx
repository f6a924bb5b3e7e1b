import { NativeSelect, NumberInput } from '@mantine/core';
import { useState } from 'react';
import type { Stroke } from '@nimble-bell/core/api';
import { MOST_ZOOM, type Frame, type Leafing } from '@nimble-bell/core/room';
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
  { value: 'together', label: 'Students: with you' },
  { value: 'back', label: 'Students: may leaf back' },
  { value: 'freely', label: 'Students: may leaf freely' },
];
/** So often a pointer is told, ms. */
const TOLD_MS = 50;

const selectLive = ({ room }: Inside) => room.bell.phase === 'live';

/** The pages in the hands of whoever teaches: turned, enlarged, pointed at, marked, asked about. */
export default function Conducted() {
  const { shown, pages, marksOn } = useShown();
  const { send, connection } = useRoom();
  const live = useInside(selectLive);
  const { deck, page, frame } = shown;
  const text = useDeckText(deck);
  const [hand, setHand] = useState<Stroke['colour'] | 'point' | null>(null);
  const [noting, setNoting] = useState(false);
  const pointed = usePointed();
  const point = usePointing((x, y) => connection.signal({ what: 'pointer', x, y }));
  const pen = hand === 'point' ? null : hand;
  const turn = (to: number) => {
    if (to >= 1 && to <= deck.pages && to !== page) void send({ type: 'turnSlide', page: to });
  };
  const give = (more: Partial<Frame>) => void send({ type: 'frameSlide', frame: { ...frame, ...more } });
  const enlarge = (times: number) => give({ zoom: Math.min(MOST_ZOOM, Math.max(1, frame.zoom * times)) });
  const byKey = usePagesByKey({ page, frame, turn, give });
  const question = text.questionOn(page);
  return (
    <div className={classes.slides} data-own-height>
      <div
        className={classes.window}
        tabIndex={0}
        role="group"
        aria-label={`${deck.name}, page ${page}`}
        {...byKey}
      >
        <PageView
          {...{ pages, deck, page, frame, pointed }}
          marks={marksOn(page)}
          colour={pen ?? 'clay'}
          draw={
            pen
              ? (points) =>
                  void send({ type: 'markSlide', deck: deck.id, page, stroke: { points, colour: pen } })
              : null
          }
          {...(hand === 'point' ? { point } : {})}
        />
      </div>
      {noting && (
        <PageNote key={page} deck={deck.id} page={page} text={text.notes[page] ?? ''} kept={text.reload} />
      )}
      <div className={classes.bar} role="group" aria-label="Pages">
        <ActButton
          act="pageBefore"
          className={classes.turn}
          disabled={page === 1}
          onClick={() => turn(page - 1)}
        >
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
          onClick={() => turn(page + 1)}
        >
          Next
        </ActButton>
        {question && (
          <button
            type="button"
            className={`${classes.turn} ${classes.asks}`}
            disabled={!live}
            title={live ? question.text : 'Ring in first.'}
            onClick={() => void send({ type: 'ask', question })}
          >
            Ask what stands here
          </button>
        )}
        <Enlarging {...{ frame, give, enlarge }} />
        <button
          type="button"
          className={classes.turn}
          aria-pressed={hand === 'point'}
          onClick={() => setHand(hand === 'point' ? null : 'point')}
        >
          Point
        </button>
        <Pens pen={pen} take={setHand} />
        {marksOn(page).length > 0 && (
          <button
            type="button"
            className={classes.turn}
            onClick={() => void send({ type: 'clearMarks', page })}
          >
            Wipe
          </button>
        )}
        <button
          type="button"
          className={classes.turn}
          aria-pressed={noting}
          onClick={() => setNoting(!noting)}
        >
          {text.notes[page] ? 'Note' : 'Note …'}
        </button>
        <NativeSelect
          size="xs"
          aria-label="How students leaf"
          data={LEAFING}
          value={shown.leafing}
          onChange={(e) => void send({ type: 'letLeaf', leafing: e.currentTarget.value as Leafing })}
        />
        <button
          type="button"
          className={`${classes.turn} push`}
          onClick={() => void send({ type: 'putSlidesAway' })}
        >
          Put away
        </button>
      </div>
    </div>
  );
}

function Enlarging({
  frame,
  give,
  enlarge,
}: {
  frame: Frame;
  give: (more: Partial<Frame>) => void;
  enlarge: (times: number) => void;
}) {
  const wide = frame.fit === 'width';
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
        Full width
      </button>
    </>
  );
}

/** Tells where one points, so often and no more. */
function usePointing(tell: (x: number, y: number) => void) {
  const [last] = useState({ at: 0 });
  return (x: number, y: number) => {
    const now = performance.now();
    if (now - last.at < TOLD_MS) return;
    last.at = now;
    tell(x, y);
  };
}
