import { useState } from 'react';
import type { Stroke } from '@nimble-bell/core/api';
import { useMay, useRoom } from '../../live/useRoom';
import { PageView } from './PageView';
import { Pens } from './Pens';
import classes from './slides.module.css';
import { usePointed, useShown } from './useShown';

/** The pages as a student has them: the one that is shown, or where that is open, one that they leafed to. */
export default function Followed() {
  const { shown, pages, leafs, marksOn } = useShown();
  const { send } = useRoom();
  const { allowed } = useMay('draw');
  const pointed = usePointed();
  const [pen, setPen] = useState<Stroke['colour'] | null>(null);
  // One's own page is held while the class's stays: when that is turned, one is with the class again.
  const [own, setOwn] = useState({ page: shown.page, while: shown.page });
  const page = own.while === shown.page && leafs.includes(own.page) ? own.page : shown.page;
  const leaf = (to: number | undefined) => to && setOwn({ page: to, while: shown.page });
  const apart = page !== shown.page;
  const draw = (points: number[]) =>
    void send({ type: 'markSlide', deck: shown.deck.id, page, stroke: { points, colour: pen! } });
  return (
    <div className={classes.slides} data-own-height data-foot>
      <div className={classes.top} data-short>
        <span className={classes.name}>{shown.deck.name}</span>
      </div>
      <PageView
        {...{ pages, page }}
        deck={shown.deck}
        frame={apart ? { ...shown.frame, zoom: 1 } : shown.frame}
        marks={marksOn(page)}
        colour={pen ?? 'clay'}
        draw={allowed && pen !== null && !apart ? draw : null}
        pointed={apart ? null : pointed}
      />
      <div className={classes.bar} role="group" aria-label="Pages">
        <span className="figures">
          Page {page} of {shown.deck.pages}
        </span>
        <Leafing {...{ leafs, page, leaf }} />
        {apart && (
          <button type="button" className={classes.turn} onClick={() => leaf(shown.page)}>
            To page {shown.page}, with the class
          </button>
        )}
        {allowed && !apart && <Pens pen={pen} take={setPen} />}
      </div>
    </div>
  );
}

interface LeafProps {
  leafs: readonly number[];
  page: number;
  leaf: (to: number | undefined) => void;
}

/** Leafs by oneself, where that is open. */
function Leafing({ leafs, page, leaf }: LeafProps) {
  if (!leafs.length) return null;
  const before = leafs.findLast((p) => p < page);
  const after = leafs.find((p) => p > page);
  return (
    <>
      <button type="button" className={classes.turn} disabled={!before} onClick={() => leaf(before)}>
        Page before
      </button>
      <button type="button" className={classes.turn} disabled={!after} onClick={() => leaf(after)}>
        Page after
      </button>
    </>
  );
}
