import type { Stroke } from '@nimble-bell/core/api';
import classes from './slides.module.css';

const COLOURS: Stroke['colour'][] = ['clay', 'ink', 'tide'];

/** Pens for a page; none in hand where one only looks. */
export function Pens({
  pen,
  take,
}: {
  pen: Stroke['colour'] | null;
  take: (pen: Stroke['colour'] | null) => void;
}) {
  return COLOURS.map((c) => (
    <button
      key={c}
      type="button"
      className={classes.turn}
      aria-label={`Pen: ${c}`}
      aria-pressed={pen === c}
      onClick={() => take(pen === c ? null : c)}
    >
      <i data-pen={c} />
    </button>
  ));
}
