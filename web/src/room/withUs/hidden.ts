import { useEffect, useState } from 'react';
import { serverNow } from '../../app/clock';
import { useInside, useRoom, useTeaching, type Inside } from '../live/useRoom';

/** So often a hidden page says it again: whoever comes to teach meanwhile knows it too. */
const SAID_MS = 20_000;
/** A page that has said nothing for so long is taken to be seen. Browsers let a hidden page's clock run once a minute. */
const FORGOTTEN_MS = 150_000;

const selectLive = ({ room }: Inside) => room.bell.phase === 'live';

/** Says to those who teach whether this page is hidden behind another; nobody keeps it. */
export function useSayHidden() {
  const { connection } = useRoom();
  const teaching = useTeaching();
  const live = useInside(selectLive);
  useEffect(() => {
    if (teaching || !live) return;
    const say = () => connection.signal({ what: 'hidden', hidden: document.hidden });
    const repeat = () => document.hidden && say();
    if (document.hidden) say();
    document.addEventListener('visibilitychange', say);
    const timer = setInterval(repeat, SAID_MS);
    return () => {
      document.removeEventListener('visibilitychange', say);
      clearInterval(timer);
    };
  }, [connection, teaching, live]);
}

/** Whose pages are hidden, as they say themselves. */
export function useHidden(now: number): ReadonlySet<string> {
  const { connection } = useRoom();
  const [hidden, setHidden] = useState<ReadonlyMap<string, number>>(new Map());
  useEffect(() => {
    const end = connection.onSignal((signal) => {
      if (signal.what !== 'hidden') return;
      setHidden((known) => {
        const next = new Map(known);
        next.delete(signal.member);
        if (signal.hidden) next.set(signal.member, serverNow());
        return next;
      });
    });
    return () => void end();
  }, [connection]);
  return new Set([...hidden].filter(([, at]) => now - at < FORGOTTEN_MS).map(([member]) => member));
}
