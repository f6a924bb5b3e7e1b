import { Anchor, Button, Checkbox, Group, MultiSelect, SegmentedControl, Stack, Title } from '@mantine/core';
import { DateTimePicker } from '@mantine/dates';
import { useState } from 'react';
import { Link } from 'react-router';
import type { MemberInfo } from '@nimble-bell/core/api';
import { countWords } from '@nimble-bell/core/calendar';
import { useAsk } from '../app/api';
import { useThisCourse } from '../app/course';
import { useAsked, useChange } from '../app/queries';
import { Empty, Panel } from '../ui/Panel';
import { LetterEditor } from './LetterEditor';
import { instantOf } from './picked';

type Whom = 'new' | 'groups' | 'chosen';

/** One press invites everyone who has no invitation yet; below it the letter, as each person gets it. */
export function InvitePage() {
  const course = useThisCourse();
  const members = useAsked<MemberInfo[]>(`/courses/${course.id}/members`);
  const { students } = course.counts;
  const ready = students > 0 && course.series.some((s) => s.publishedAt !== null);
  return (
    <Stack>
      <Title order={1} size="h2">
        Invitations
      </Title>
      {!ready && (
        <Empty
          action={
            <Anchor component={Link} to={`../${students === 0 ? 'class' : 'plan'}`} relative="path">
              {students === 0 ? 'Go to the class list' : 'Go to the plan'}
            </Anchor>
          }
        >
          {students === 0
            ? 'There is nobody to invite yet.'
            : 'There is no published session to invite to yet.'}
        </Empty>
      )}
      {ready && course.role === 'teacher' && members.data && <Send members={members.data} />}
      {students > 0 && <LetterEditor members={members.data ?? []} />}
    </Stack>
  );
}

function Send({ members }: { members: MemberInfo[] }) {
  const course = useThisCourse();
  const ask = useAsk();
  const [whom, setWhom] = useState<Whom>('new');
  const [groups, setGroups] = useState<string[]>([]);
  const [chosen, setChosen] = useState<string[]>([]);
  const [later, setLater] = useState<string | null>(null);
  const [copy, setCopy] = useState(false);
  const students = members.filter((m) => m.role === 'student');
  const count =
    whom === 'new'
      ? students.filter((m) => m.invitation === 'none').length
      : whom === 'groups'
        ? students.filter((m) => m.group !== null && groups.includes(m.group)).length
        : chosen.length;
  const send = useChange(
    () =>
      ask<{ queued: number }>(`/courses/${course.id}/invitations`, 'POST', {
        members: whom === 'chosen' ? chosen : null,
        groups: whom === 'groups' ? groups : null,
        at: later ? instantOf(later, course.term.zone) : null,
        copyToMe: copy,
      }),
    ({ queued }) =>
      later
        ? `${countWords(queued, 'invitation')} wait for their time.`
        : `${countWords(queued, 'invitation')} on the way.`,
  );
  const known = [...new Set(students.map((m) => m.group).filter((g): g is string => g !== null))].sort();
  return (
    <Panel
      title="Send"
      action={
        <Button
          disabled={count === 0}
          loading={send.isPending}
          onClick={() => send.mutate(undefined, { onSuccess: () => setChosen([]) })}
        >
          {count === 0 && whom === 'new'
            ? 'Everyone is invited'
            : `Invite ${countWords(count, 'person', 'people')}`}
        </Button>
      }
    >
      <Group align="flex-end">
        <SegmentedControl
          aria-label="Whom"
          value={whom}
          onChange={(v) => setWhom(v as Whom)}
          data={[
            { value: 'new', label: 'Everyone not invited yet' },
            ...(known.length ? [{ value: 'groups', label: 'Groups' }] : []),
            { value: 'chosen', label: 'Chosen people' },
          ]}
        />
        {whom === 'groups' && (
          <MultiSelect
            aria-label="Groups"
            placeholder="Which groups"
            data={known}
            value={groups}
            onChange={setGroups}
          />
        )}
        {whom === 'chosen' && (
          <MultiSelect
            aria-label="People"
            placeholder="Who"
            searchable
            limit={50}
            miw={260}
            data={members
              .filter((m) => m.role !== 'teacher')
              .map((m) => ({ value: m.id, label: `${m.name}, ${m.email}` }))}
            value={chosen}
            onChange={setChosen}
          />
        )}
        <DateTimePicker
          aria-label="When"
          placeholder="Send now, or at…"
          clearable
          miw={190}
          valueFormat="D MMM YYYY HH:mm"
          value={later}
          onChange={setLater}
        />
        <Checkbox
          label="A copy to me"
          checked={copy}
          onChange={(e) => setCopy(e.currentTarget.checked)}
          pb={8}
        />
      </Group>
    </Panel>
  );
}
