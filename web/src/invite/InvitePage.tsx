import { Anchor, Button, Code, Group, Progress, ScrollArea, Stack, Table, Text, Title } from '@mantine/core';
import { Link } from 'react-router';
import type { Delivery, InvitationPreview } from '@nimble-bell/core/api';
import { countWords, instantWords } from '@nimble-bell/core/calendar';
import { useAsk } from '../app/api';
import { useThisCourse } from '../app/course';
import { useAsked, useChange, useMe } from '../app/queries';
import { Empty, Panel } from '../ui/Panel';

/** One press invites everyone who has no invitation yet; beside it, what they get and what became of it. */
export function InvitePage() {
  const course = useThisCourse();
  const ask = useAsk();
  const me = useMe();
  const { students, invited } = course.counts;
  const waiting = students - invited;
  const deliveries = useAsked<Delivery[]>(`/courses/${course.id}/deliveries`, {
    every: invited > 0 ? 1500 : undefined,
  });
  const preview = useAsked<InvitationPreview>(`/courses/${course.id}/invitations/preview`, {
    enabled: students > 0,
  });
  const invite = useChange(
    () => ask<{ queued: number }>(`/courses/${course.id}/invitations`, 'POST', {}),
    ({ queued }) => `${countWords(queued, 'invitation')} on the way.`,
  );
  const ready = students > 0 && course.sessions.length > 0;
  return (
    <Stack>
      <Group justify="space-between">
        <Title order={1} size="h2">
          Invitations
        </Title>
        {course.role === 'teacher' && ready && (
          <Button
            disabled={waiting === 0}
            loading={invite.isPending}
            onClick={() => invite.mutate(undefined)}
          >
            {waiting === 0 ? 'Everyone is invited' : `Invite ${countWords(waiting, 'person', 'people')}`}
          </Button>
        )}
      </Group>
      {!ready && (
        <Empty
          action={
            <Anchor component={Link} to={`../${students === 0 ? 'class' : 'plan'}`}>
              {students === 0 ? 'Go to the class list' : 'Go to the plan'}
            </Anchor>
          }
        >
          {students === 0 ? 'There is nobody to invite yet.' : 'There is no session to invite to yet.'}
        </Empty>
      )}
      {ready && preview.data && (
        <Panel
          title="What each person gets"
          about={`As ${preview.data.name} will read it. The link is theirs alone; the sessions come as a calendar entry.`}
        >
          <Text fw={600} mb="xs">
            {preview.data.subject}
          </Text>
          <Code
            block
            style={{ whiteSpace: 'pre-wrap', fontSize: 14, background: 'var(--paper)', color: 'var(--ink)' }}
          >
            {preview.data.text}
          </Code>
        </Panel>
      )}
      {deliveries.data && deliveries.data.length > 0 && (
        <Deliveries deliveries={deliveries.data} zone={me.data?.person?.zone ?? 'UTC'} />
      )}
    </Stack>
  );
}

const STATE_WORDS: Record<Delivery['state'], string> = {
  queued: 'queued',
  sent: 'sent',
  failed: 'not delivered',
};

function Deliveries({ deliveries, zone }: { deliveries: Delivery[]; zone: string }) {
  const sent = deliveries.filter((d) => d.state === 'sent').length;
  return (
    <Panel title="Delivery log" about={`${sent} of ${deliveries.length} sent`}>
      {sent < deliveries.length && (
        <Progress value={(100 * sent) / deliveries.length} mb="sm" aria-label="Invitations sent" />
      )}
      <ScrollArea.Autosize mah={420} viewportProps={{ tabIndex: 0, 'aria-label': 'Delivery log, scrolls' }}>
        <Table fz="sm" stickyHeader>
          <Table.Thead>
            <Table.Tr>
              <Table.Th>To</Table.Th>
              <Table.Th>What</Table.Th>
              <Table.Th>State</Table.Th>
              <Table.Th>When</Table.Th>
            </Table.Tr>
          </Table.Thead>
          <Table.Tbody>
            {deliveries.map((d) => (
              <Table.Tr key={d.id}>
                <Table.Td fw={550}>{d.name}</Table.Td>
                <Table.Td>{d.subject}</Table.Td>
                <Table.Td c={d.state === 'failed' ? 'var(--clay)' : undefined}>
                  {STATE_WORDS[d.state]}
                  {d.fault && d.state !== 'sent' && <Text size="xs">{d.fault}</Text>}
                </Table.Td>
                <Table.Td className="figures">{instantWords(d.at, zone)}</Table.Td>
              </Table.Tr>
            ))}
          </Table.Tbody>
        </Table>
      </ScrollArea.Autosize>
    </Panel>
  );
}
