import { Anchor, Group, Text } from '@mantine/core';
import type { Answer, MyCourse } from '@nimble-bell/core/api';
import { countWords } from '@nimble-bell/core/calendar';
import { useAsk } from '../app/api';
import { serverNow } from '../app/clock';
import { useChange } from '../app/queries';
import { Choice } from '../ui/Choice';
import { Panel } from '../ui/Panel';

const ANSWERS: { value: Answer; label: string }[] = [
  { value: 'accepted', label: 'I come' },
  { value: 'tentative', label: 'Perhaps' },
  { value: 'declined', label: 'I cannot' },
];

/** Whether one comes, a series at a time; the same answer as from a calendar program. */
export function Answers({ mine }: { mine: MyCourse }) {
  const ask = useAsk();
  const reply = useChange((input: { seriesId: string; answer: Answer }) =>
    ask('/my-course/reply', 'PUT', input),
  );
  const now = serverNow();
  const ahead = mine.sessions.filter((s) => (s.state === 'planned' || s.state === 'moved') && s.endsAt > now);
  const series = [...new Map(ahead.map((s) => [s.seriesId, s.seriesTitle]))];
  if (!series.length) return null;
  return (
    <Panel title="Do you come?" about="Your teacher sees it on the class list.">
      {series.map(([id, title]) => (
        <Group key={id} justify="space-between" py={4}>
          <div>
            <Text>{title}</Text>
            <Text size="sm" c="dimmed">
              {countWords(ahead.filter((s) => s.seriesId === id).length, 'session')} ahead
            </Text>
          </div>
          <Choice
            label={`Do you come to ${title}?`}
            options={ANSWERS}
            value={mine.replies.find((r) => r.seriesId === id && r.date === null)?.answer ?? null}
            onChange={(answer) => reply.mutate({ seriesId: id, answer })}
            follows={false}
          />
        </Group>
      ))}
    </Panel>
  );
}

/** An answer to one session alone: that one cannot come, or can after all. */
export function CannotCome({ mine, session }: { mine: MyCourse; session: MyCourse['sessions'][number] }) {
  const ask = useAsk();
  const { seriesId, date, take } = session;
  const reply = useChange((answer: Answer) =>
    ask('/my-course/reply', 'PUT', { seriesId, date, take, answer }),
  );
  const given = mine.replies.find(
    (r) => r.seriesId === seriesId && r.date === date && r.take === take,
  )?.answer;
  return given === 'declined' ? (
    <Text size="sm">
      You said you cannot come.{' '}
      <Anchor component="button" type="button" size="sm" onClick={() => reply.mutate('accepted')}>
        I can after all
      </Anchor>
    </Text>
  ) : (
    <Anchor component="button" type="button" size="sm" onClick={() => reply.mutate('declined')}>
      I cannot come to this one
    </Anchor>
  );
}
