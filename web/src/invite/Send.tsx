import { Button, Checkbox, Group, MultiSelect, SegmentedControl, Stack, Text } from '@mantine/core';
import { DateTimePicker } from '@mantine/dates';
import { useState } from 'react';
import type { CourseDetail, InviteBefore, MemberInfo } from '@nimble-bell/core/api';
import { countWords, listWords, namesWords } from '@nimble-bell/core/calendar';
import { inOrder } from '../app/order';
import { useAsk, type Ask } from '../app/api';
import { useThisCourse } from '../app/course';
import { useChange } from '../app/queries';
import { LettersAhead } from '../ui/LettersAhead';
import { Panel } from '../ui/Panel';
import { Before, beforeWords, DAY_BEFORE } from './Before';
import { instantOf } from './picked';

type Whom = 'all' | 'groups' | 'chosen';
type When = 'now' | 'later' | 'before';

/** Whom to invite, and when: now, at a time, or a while before each session. */
export function Send({ members }: { members: MemberInfo[] }) {
  const course = useThisCourse();
  const ask = useAsk();
  const [when, setWhen] = useState<When>('now');
  const [later, setLater] = useState<string | null>(null);
  const [minutes, setMinutes] = useState<number | null>(DAY_BEFORE);
  const [copy, setCopy] = useState(false);
  const fields = useAudience(members, when);
  const { whom, audience, count } = fields;
  const body = {
    ...audience,
    at: when === 'later' && later ? instantOf(later, course.term.zone) : null,
    copyToMe: copy,
  };
  const { invite, rule } = useInviting({ ask, course, body, when });
  const ready = count > 0 && (when === 'now' || (when === 'later' ? later !== null : minutes !== null));
  const send = () =>
    when === 'before'
      ? rule.mutate({ ...audience, minutes: minutes! })
      : invite.mutate(undefined, { onSuccess: () => fields.setChosen([]) });
  return (
    <Panel
      title="Send"
      action={
        <Button disabled={!ready} loading={invite.isPending || rule.isPending} onClick={send}>
          {count === 0 && whom === 'all'
            ? 'Everyone is invited'
            : `Invite ${countWords(count, 'person', 'people')}${when === 'before' ? ' to each session' : ''}`}
        </Button>
      }
    >
      <Stack gap="sm">
        <WhomFields {...fields} members={members} when={when} />
        <WhenFields
          when={when}
          setWhen={setWhen}
          later={later}
          setLater={setLater}
          setMinutes={setMinutes}
          copy={copy}
          setCopy={setCopy}
        />
        {when !== 'before' && ready && (
          <LettersAhead path={`/courses/${course.id}/invitations/letters`} body={body} />
        )}
        {when === 'before' && <AboutBefore />}
        {course.inviteBefore && (
          <Standing
            words={ruleWords(course.inviteBefore, members)}
            busy={rule.isPending}
            stop={() => rule.mutate(null)}
          />
        )}
      </Stack>
    </Panel>
  );
}

const AboutBefore = () => (
  <Text size="sm" c="dimmed">
    Each letter names its session and puts it into their calendar again. Whoever has no invitation yet gets
    the whole of it with the first.
  </Text>
);

function ruleWords({ minutes, members: ids, groups }: InviteBefore, members: MemberInfo[]): string {
  const names = ids?.map((id) => members.find((m) => m.id === id)?.name ?? 'somebody who left');
  const whom = names
    ? namesWords(names)
    : groups
      ? `${groups.length === 1 ? 'group' : 'groups'} ${listWords(groups)}`
      : 'everyone it is for';
  return `Each session's own invitation leaves ${beforeWords(minutes)} before it, to ${whom}.`;
}

interface WhomFieldsProps {
  whom: Whom;
  setWhom: (value: Whom) => void;
  when: When;
  known: string[];
  groups: string[];
  setGroups: (value: string[]) => void;
  members: MemberInfo[];
  chosen: string[];
  setChosen: (value: string[]) => void;
}

function WhomFields(props: WhomFieldsProps) {
  const { whom, setWhom, when, known, groups, setGroups, members, chosen, setChosen } = props;
  return (
    <Group align="flex-end">
      <SegmentedControl
        aria-label="Whom"
        value={whom}
        onChange={(v) => setWhom(v as Whom)}
        data={[
          { value: 'all', label: when === 'before' ? 'Everyone' : 'Everyone not invited yet' },
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
    </Group>
  );
}

interface WhenFieldsProps {
  when: When;
  setWhen: (value: When) => void;
  later: string | null;
  setLater: (value: string | null) => void;
  setMinutes: (value: number | null) => void;
  copy: boolean;
  setCopy: (value: boolean) => void;
}

function WhenFields(props: WhenFieldsProps) {
  const { when, setWhen, later, setLater, setMinutes, copy, setCopy } = props;
  return (
    <Group align="flex-end">
      <SegmentedControl
        aria-label="When"
        value={when}
        onChange={(v) => setWhen(v as When)}
        data={[
          { value: 'now', label: 'Now' },
          { value: 'later', label: 'At a time' },
          { value: 'before', label: 'Before each session' },
        ]}
      />
      {when === 'later' && (
        <DateTimePicker
          aria-label="At what time"
          placeholder="Day and time"
          clearable
          miw={190}
          value={later}
          onChange={setLater}
        />
      )}
      {when === 'before' && <Before label="How long" change={setMinutes} />}
      {when !== 'before' && (
        <Checkbox
          label="A copy to me"
          checked={copy}
          onChange={(e) => setCopy(e.currentTarget.checked)}
          pb={8}
        />
      )}
    </Group>
  );
}

/** The rule that stands, and the way to stop it. */
function Standing({ words, busy, stop }: { words: string; busy: boolean; stop: () => void }) {
  return (
    <Group gap="xs" data-testid="invite-before">
      <Text size="sm">{words}</Text>
      <Button size="compact-sm" variant="default" loading={busy} onClick={stop}>
        Stop that
      </Button>
    </Group>
  );
}

function useInviting({
  ask,
  course,
  body,
  when,
}: {
  ask: Ask;
  course: CourseDetail;
  body: { members: string[] | null; groups: string[] | null; at: number | null; copyToMe: boolean };
  when: When;
}) {
  const invite = useChange(
    () => ask<{ queued: number }>(`/courses/${course.id}/invitations`, 'POST', body),
    ({ queued }) =>
      `${countWords(queued, 'invitation')} ${when === 'later' ? `${queued === 1 ? 'waits' : 'wait'} for ${queued === 1 ? 'its' : 'their'} time` : 'on the way'}.`,
  );
  const rule = useChange(
    (r: InviteBefore | null) => ask(`/courses/${course.id}/invite-before`, 'PUT', { rule: r }),
    (_, r) =>
      r
        ? `They are invited to each session ${beforeWords(r.minutes)} before it.`
        : 'Sessions are not invited to one by one any more.',
  );
  return { invite, rule };
}

/** Whom the letters are for: everyone, groups, or people one by one. */
function useAudience(members: MemberInfo[], when: When) {
  const [whom, setWhom] = useState<Whom>('all');
  const [groups, setGroups] = useState<string[]>([]);
  const [chosen, setChosen] = useState<string[]>([]);
  const students = members.filter((m) => m.role === 'student');
  const known = [...new Set(students.map((m) => m.group).filter((g): g is string => g !== null))].sort(
    inOrder,
  );
  const audience = {
    members: whom === 'chosen' ? chosen : null,
    groups: whom === 'groups' ? groups : null,
  };
  const count =
    whom === 'groups'
      ? students.filter((m) => m.group !== null && groups.includes(m.group)).length
      : whom === 'chosen'
        ? chosen.length
        : when === 'before'
          ? students.length
          : students.filter((m) => m.invitation === 'none').length;
  return { whom, setWhom, groups, setGroups, chosen, setChosen, known, audience, count };
}
