import { Button, Group, NativeSelect, TextInput } from '@mantine/core';
import { clockWords } from '@nimble-bell/core/calendar';
import type { Message } from '@nimble-bell/core/room';
import { downloadText } from '../../../ui/download';
import { useInfo, useInside, useMe, useNameOf, useRoom, type Inside } from '../../live/useRoom';
import type { Sieve } from './sieve';

interface Props {
  sieve: Sieve;
  set: (sieve: Sieve) => void;
}

const selectMessages = ({ room }: Inside) => room.talk;

/** What was written: looked through, the questions that were kept alone, or saved as text. */
export default function Finding({ sieve, set }: Props) {
  const talk = useInside(selectMessages, Object.is);
  const { connection } = useRoom();
  const { member: me } = useMe();
  const { zone, session } = useInfo();
  const nameOf = useNameOf();
  const save = async () => {
    let all: readonly Message[] = talk.messages;
    let { earlier } = talk;
    while (earlier > 0 && all[0]) {
      const reply = await connection.ask('earlier', { before: all[0].seq });
      if (!reply?.ok) break;
      all = [...reply.messages, ...all];
      earlier = reply.earlier;
    }
    const to = ({ addressee }: Message) =>
      addressee.to === 'class'
        ? ''
        : addressee.to === 'teachers'
          ? ' to the teachers'
          : ` to ${addressee.member === me ? 'you' : nameOf(addressee.member)}`;
    const lines = all.map(
      (m) =>
        `${clockWords(m.at, zone)} ${nameOf(m.from)}${to(m)}: ${m.unsaid ? '(taken back)' : m.text.replaceAll('\n', '\n  ')}`,
    );
    downloadText(`Talk ${session.seriesTitle} ${session.number}.txt`, `${lines.join('\n')}\n`);
  };
  return (
    <Group gap={6} pb={6}>
      <TextInput
        size="xs"
        aria-label="Find in what was written"
        placeholder="Words, or a name"
        autoFocus
        value={sieve.words}
        onChange={(e) => set({ ...sieve, words: e.currentTarget.value })}
        style={{ flex: 1, minWidth: 110 }}
      />
      <NativeSelect
        size="xs"
        aria-label="Which are shown"
        data={[
          { value: '', label: 'Everything' },
          { value: 'later', label: 'Questions for later' },
          { value: 'all', label: 'Questions kept' },
        ]}
        value={sieve.kept ?? ''}
        onChange={(e) => set({ ...sieve, kept: (e.currentTarget.value || null) as Sieve['kept'] })}
      />
      <Button size="xs" variant="default" onClick={() => void save()}>
        Save as text
      </Button>
    </Group>
  );
}
