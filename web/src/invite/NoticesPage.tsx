import { Button, Group, Stack, Text, Title } from '@mantine/core';
import { lazy, Suspense, useState } from 'react';
import type { NoticeInfo } from '@nimble-bell/core/api';
import { instantWords } from '@nimble-bell/core/calendar';
import { useAsk } from '../app/api';
import { useNow } from '../app/clock';
import { useThisCourse } from '../app/course';
import { useAsked, useChange } from '../app/queries';
import { NoticeBody } from '../ui/NoticeBody';
import { Empty, Panel } from '../ui/Panel';
import { Tag } from '../ui/Tag';
import type { UseMutationResult } from '@tanstack/react-query';

/** The editor is large and rarely wanted: it comes when it is. */
const NoticeEditor = lazy(() => import('./NoticeEditor'));

/** What stands on the class's page for some time: text, a day's plan, files. */
export function NoticesPage() {
  const course = useThisCourse();
  const ask = useAsk();
  const now = useNow(30_000);
  const notices = useAsked<NoticeInfo[]>(`/courses/${course.id}/notices`);
  const [editing, setEditing] = useState<NoticeInfo | 'new' | null>(null);
  const [asking, setAsking] = useState<string | null>(null);
  const remove = useChange(
    (id: string) => ask(`/courses/${course.id}/notices/${id}`, 'DELETE'),
    () => 'The notice is gone.',
  );
  const stateOf = (n: NoticeInfo) =>
    n.from > now
      ? `seen from ${instantWords(n.from, course.term.zone)}`
      : n.until !== null && n.until <= now
        ? 'no longer seen'
        : n.until !== null
          ? `seen until ${instantWords(n.until, course.term.zone)}`
          : 'seen';
  return (
    <Stack>
      <Group justify="space-between">
        <Title order={1} size="h2">
          Notices
        </Title>
        {!editing && <Button onClick={() => setEditing('new')}>Write a notice</Button>}
      </Group>
      {editing && (
        <Suspense fallback={<Text>The editor is on its way.</Text>}>
          <NoticeEditor notice={editing === 'new' ? null : editing} done={() => setEditing(null)} />
        </Suspense>
      )}
      {notices.data?.length === 0 && !editing && (
        <Empty>
          Nothing is on the board. A notice can say what a day holds, with its times, files and links.
        </Empty>
      )}
      {notices.data?.map((n) => (
        <Panel
          key={n.id}
          title={n.title}
          about={`${n.by}, ${instantWords(n.at, course.term.zone)}, ${stateOf(n)}${n.mailedAt ? ', mailed' : ''}`}
          action={
            <Actions n={n} setEditing={setEditing} asking={asking} remove={remove} setAsking={setAsking} />
          }
        >
          <NoticeBody body={n.body} days={n.days} zone={course.term.zone} />
        </Panel>
      ))}
    </Stack>
  );
}

interface ActionsProps {
  n: NoticeInfo;
  setEditing: (value: NoticeInfo | 'new' | null) => void;
  asking: string | null;
  remove: UseMutationResult<unknown, Error, string>;
  setAsking: (value: string | null) => void;
}

function Actions(props: ActionsProps) {
  const { n, setEditing, asking, remove, setAsking } = props;
  return (
    <Group gap="xs" wrap="nowrap">
      {n.pinned && <Tag>pinned</Tag>}
      <Button size="compact-sm" variant="default" onClick={() => setEditing(n)}>
        Change
      </Button>
      {asking === n.id ? (
        <>
          <Button size="compact-sm" color="clay" onClick={() => remove.mutate(n.id)}>
            Take it down
          </Button>
          <Button size="compact-sm" variant="default" autoFocus onClick={() => setAsking(null)}>
            Keep it
          </Button>
        </>
      ) : (
        <Button size="compact-sm" variant="subtle" color="clay" onClick={() => setAsking(n.id)}>
          Take down
        </Button>
      )}
    </Group>
  );
}
