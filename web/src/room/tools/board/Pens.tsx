import type { Stroke } from '@nimble-bell/core/api';
import { SmallButton } from '../../../ui/SmallButton';
import { useMe } from '../../live/useRoom';
import type { Acts } from './useActs';
import { FIGURES, PENS, type Hand, type Tool } from './useHand';
import classes from './board.module.css';

const COLOURS: Stroke['colour'][] = ['ink', 'pine', 'brass', 'clay', 'tide'];

const TOOL_WORDS: Record<Tool, string> = {
  pen: 'Pen',
  broad: 'Broad pen',
  line: 'Line',
  arrow: 'Arrow',
  box: 'Box',
  oval: 'Oval',
  move: 'Move',
  wipe: 'Wipe',
};
const TOOLS: readonly Tool[] = [...PENS, ...FIGURES, 'move', 'wipe'];

interface Props {
  tool: Tool;
  setTool: (tool: Tool) => void;
  colour: Stroke['colour'];
  setColour: (colour: Stroke['colour']) => void;
  acts: Acts;
  hand: Hand;
}

/** What one has in one's hand, in which colour; and what is done with what is chosen. */
export function Pens({ tool, setTool, colour, setColour, acts, hand }: Props) {
  const { chosen, choose } = hand;
  const { member: me } = useMe();
  // A copy is of whoever makes it: what another drew stays theirs.
  const own = chosen.filter((m) => m.by === me);
  return (
    <>
      <div className={classes.row} role="group" aria-label="In the hand">
        {TOOLS.map((t) => (
          <SmallButton key={t} aria-pressed={tool === t} apart={tool === t} onClick={() => setTool(t)}>
            {TOOL_WORDS[t]}
          </SmallButton>
        ))}
        <SmallButton disabled={!acts.back} onClick={() => acts.back?.()}>
          Take back
        </SmallButton>
      </div>
      {tool === 'move' ? (
        <div className={classes.row} role="group" aria-label="What is chosen">
          <SmallButton
            className={classes.next}
            disabled={!hand.next}
            onClick={() => hand.next && choose([hand.next])}
          >
            {chosen.length ? 'Choose the next' : 'Choose one'}
          </SmallButton>
          <SmallButton disabled={!own.length} onClick={() => void acts.copy(own)}>
            Copy
          </SmallButton>
          <SmallButton disabled={!chosen.length} onClick={() => void acts.takeOff(chosen)}>
            Take off
          </SmallButton>
          <span className={classes.said}>
            {chosen.length ? 'Arrows move it.' : 'Press something, or draw a frame around it.'}
          </span>
        </div>
      ) : (
        <div className={classes.row} role="group" aria-label="Colour">
          {COLOURS.map((c) => (
            <button
              key={c}
              type="button"
              aria-label={`Pen: ${c}`}
              aria-pressed={colour === c}
              className={classes.pen}
              onClick={() => setColour(c)}
            >
              <i style={{ background: `var(--${c})` }} data-pen={c} />
              {c}
            </button>
          ))}
        </div>
      )}
    </>
  );
}
