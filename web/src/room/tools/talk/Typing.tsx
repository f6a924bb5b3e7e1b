import { useEffect, useState } from 'react';
import { useInside, useNameOf, useRoom, type Inside } from '../../live/useRoom';
import classes from './talk.module.css';

/** Who was told of longer ago than this writes no more, ms. */
const STAYS_MS = 4000;

const selectMessages = ({ room }: Inside) => room.talk.messages;

/** Who is writing to the class at this moment. */
export function Typing() {
  const { connection } = useRoom();
  const nameOf = useNameOf();
  const [writing, setWriting] = useState<readonly { member: string; before: number }[]>([]);
  const messages = useInside(selectMessages, Object.is);
  useEffect(() => {
    const timers = new Map<string, ReturnType<typeof setTimeout>>();
    const stop = connection.onSignal(({ what, member }) => {
      if (what !== 'typing') return;
      const others = (all: readonly { member: string; before: number }[]) =>
        all.filter((w) => w.member !== member);
      clearTimeout(timers.get(member));
      timers.set(
        member,
        setTimeout(() => setWriting(others), STAYS_MS),
      );
      const before = connection.view.state?.seq ?? 0;
      setWriting((all) => [...others(all), { member, before }]);
    });
    return () => {
      stop();
      timers.forEach(clearTimeout);
    };
  }, [connection]);
  // Whose message has come writes no more.
  const still = writing.filter(({ member, before }) =>
    messages.slice(-30).every((m) => m.from !== member || m.seq <= before),
  );
  return (
    <p className={classes.typing}>
      {still.length === 1 && `${nameOf(still[0]!.member)} writes …`}
      {still.length > 1 && `${still.length} people write …`}
    </p>
  );
}
