import { Text } from '@mantine/core';
import { isAsked, QUIET_MS, quietSince, type Deed, type RoomState } from '@nimble-bell/core/room';
import { useNameOf } from '../live/useRoom';
import classes from './withUs.module.css';

const DID: Record<Deed, string> = {
  answered: 'answered',
  wrote: 'wrote',
  drew: 'drew',
  spoke: 'spoke',
  hand: 'raised a hand',
  sign: 'gave a sign',
};

interface Props {
  part: Pick<RoomState, 'presence' | 'withUs' | 'desk'>;
  now: number;
  hidden: ReadonlySet<string>;
}

const agoWords = (ms: number) => (ms < 60_000 ? 'just now' : `${Math.floor(ms / 60_000)} min ago`);

/** Each student by what was seen of them last, the longest quiet first. */
export default function List({ part, now, hidden }: Props) {
  const nameOf = useNameOf();
  const rows = Object.values(part.presence.people)
    .filter((o) => o.present && isAsked(o))
    .map(({ member }) => ({
      member,
      since: quietSince(part, member),
      last: part.withUs[member]?.last ?? null,
    }))
    .sort((a, b) => (a.since ?? now) - (b.since ?? now));
  return (
    <>
      <Text size="sm" c="dimmed" mb={4}>
        By what they do, not by a camera. Students read that you see this.
      </Text>
      <ul className={classes.list} aria-label="With us, the longest quiet first">
        {rows.map(({ member, since, last }) => (
          <li key={member} data-quiet={since !== null && now - since >= QUIET_MS}>
            <bdi>{nameOf(member)}</bdi>
            <span>
              {part.desk.microphone[member]
                ? 'microphone on'
                : last
                  ? `${DID[last.what]} ${agoWords(now - last.at)}`
                  : `came ${agoWords(now - (since ?? now))}, nothing yet`}
              {hidden.has(member) && ', page hidden'}
            </span>
          </li>
        ))}
      </ul>
    </>
  );
}
