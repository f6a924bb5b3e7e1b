import { Button } from '@mantine/core';
import { lazy, Suspense, useEffect, useRef, useState } from 'react';
import type { Message } from '@nimble-bell/core/room';
import { useInfo, useMe, useNameOf, useRoom } from '../../live/useRoom';
import { Acts, toNext } from './Acts';
import { useTalkHere, writtenAt } from './here';
import { Messages } from './Messages';
import { sieved, type Sieve } from './sieve';
import classes from './talk.module.css';
import { Typing } from './Typing';

const Attached = lazy(() => import('./Attached'));

/** Messages, those before the first that a page was given, and which of them one has read. */
function useTalk() {
  const { messages, earlier, unsaid, place } = useTalkHere();
  const { connection } = useRoom();
  const [older, setOlder] = useState<{ messages: Message[]; earlier: number } | null>(null);
  const before = older?.messages ?? [];
  const readOn = async () => {
    const first = before[0] ?? messages[0];
    const reply = first && (await connection.ask('earlier', { before: first.seq }));
    if (reply?.ok) setOlder({ messages: [...reply.messages, ...before], earlier: reply.earlier });
  };
  // What was read before it was taken back is gone here as well.
  const still = before.map((m) => (unsaid.includes(m.seq) ? { ...m, text: '', unsaid: true as const } : m));
  return {
    messages,
    all: [...writtenAt(still, place), ...messages],
    left: older ? older.earlier : earlier,
    readOn,
  };
}

/** How many came since one was at the end with the page in sight. */
function useUnread(messages: readonly Message[], me: string) {
  const list = useRef<HTMLDivElement>(null);
  /** Whoever reads further up is left there. */
  const atEnd = useRef(true);
  const inSight = useRef(true);
  const last = messages.at(-1)?.seq ?? 0;
  const [read, setRead] = useState(last);
  const catchUp = useRef(() => {});
  useEffect(() => {
    catchUp.current = () => {
      if (atEnd.current && inSight.current && document.visibilityState === 'visible') setRead(last);
    };
    if (list.current && atEnd.current) list.current.scrollTop = list.current.scrollHeight;
    catchUp.current();
  }, [last]);
  useEffect(() => {
    const look = () => catchUp.current();
    document.addEventListener('visibilitychange', look);
    const sight = new IntersectionObserver(([entry]) => {
      inSight.current = entry?.isIntersecting ?? true;
      look();
    });
    if (list.current) sight.observe(list.current);
    return () => {
      document.removeEventListener('visibilitychange', look);
      sight.disconnect();
    };
  }, []);
  const unread = messages.filter((m) => m.seq > read && m.from !== me);
  return {
    list,
    unread,
    scrolled: (e: HTMLElement) => {
      atEnd.current = e.scrollHeight - e.scrollTop - e.clientHeight < 24;
      catchUp.current();
    },
    toEnd: () => {
      list.current?.scrollIntoView({ block: 'nearest' });
      list.current?.scrollTo({ top: list.current.scrollHeight });
    },
  };
}

/** What was written, as far as one may read it. */
export function Written({ sieve, answer }: { sieve: Sieve; answer: (message: Message) => void }) {
  const { messages, all, left, readOn } = useTalk();
  const { member: me } = useMe();
  const { zone, session } = useInfo();
  const nameOf = useNameOf();
  const { list, unread, scrolled, toEnd } = useUnread(messages, me);
  const shown = sieved(all, sieve, nameOf);
  return (
    <>
      <div
        ref={list}
        className={classes.messages}
        tabIndex={0}
        onKeyDown={toNext}
        onScroll={({ currentTarget }) => scrolled(currentTarget)}
        role="log"
        aria-live="off"
        aria-label="What was written"
      >
        {left > 0 && (
          <Button size="compact-xs" variant="subtle" onClick={() => void readOn()}>
            {left} written before
          </Button>
        )}
        {shown.length === 0 && (
          <p className={classes.quiet}>{all.length ? 'Nothing of this.' : 'Nothing has been written yet.'}</p>
        )}
        <Messages
          messages={shown}
          {...{ me, zone, nameOf }}
          newFrom={unread[0]?.seq ?? null}
          files={(id) => (
            <Suspense>
              <Attached session={session.id} id={id} />
            </Suspense>
          )}
          acts={(message, last) => <Acts {...{ message, last }} answer={() => answer(message)} />}
        />
      </div>
      <Typing />
      {unread.length > 0 && (
        <button type="button" className={classes.unread} onClick={toEnd}>
          {unread.length} new in talk
        </button>
      )}
    </>
  );
}
