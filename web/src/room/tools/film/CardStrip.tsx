import { Anchor, Button } from '@mantine/core';
import { useInside, useRoom, useTeaching, type Inside } from '../../live/useRoom';
import strip from '../strip.module.css';

const select = ({ room }: Inside) => room.film.card;

/** An address that was opened for all: each presses it for themselves. */
export default function CardStrip() {
  const { send } = useRoom();
  const card = useInside(select);
  const teaching = useTeaching();
  if (!card) return null;
  return (
    <div className={strip.strip} data-testid="card">
      <div className={strip.words}>
        <Anchor href={card.url} target="_blank" rel="noreferrer noopener" fw={650}>
          {card.title}
        </Anchor>
        <span>{new URL(card.url).host}, opens apart</span>
      </div>
      {teaching && (
        <Button size="compact-sm" variant="default" onClick={() => void send({ type: 'putCardAway' })}>
          Put it away
        </Button>
      )}
    </div>
  );
}
