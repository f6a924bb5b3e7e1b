import { Button, CopyButton, Group, Menu, Text, TextInput } from '@mantine/core';
import { useState } from 'react';
import type { CourseDetail, ListEditDraft, MemberInfo } from '@nimble-bell/core/api';
import { countWords } from '@nimble-bell/core/calendar';
import { spokenPin } from '@nimble-bell/core/mail';
import { useAsk, type Ask } from '../app/api';
import { useThisCourse } from '../app/course';
import { useChange } from '../app/queries';
import classes from './class.module.css';
import { ConfirmEdit } from './ConfirmEdit';

interface Asked {
  edit: ListEditDraft;
  title: string;
  action: string;
}

/** What can be done with those who are chosen. What breaks by it is said before. */
export function BulkBar({ chosen, clear }: { chosen: MemberInfo[]; clear: () => void }) {
  const course = useThisCourse();
  const ask = useAsk();
  const [asked, setAsked] = useState<Asked | null>(null);
  const invite = useChange(
    () =>
      ask<{ queued: number }>(`/courses/${course.id}/invitations`, 'POST', {
        members: chosen.map((m) => m.id),
      }),
    ({ queued }) => `${countWords(queued, 'invitation')} on the way.`,
  );
  const people = countWords(chosen.length, 'person', 'people');
  const members = chosen.map((m) => m.id);
  const one = chosen.length === 1 ? chosen[0]! : null;

  return (
    <div className={classes.bar} role="region" aria-label="With those chosen">
      <Group gap="xs">
        <Text fw={600} size="sm">
          {people} chosen
        </Text>
        <Button size="compact-sm" loading={invite.isPending} onClick={() => invite.mutate(undefined)}>
          {chosen.every((m) => m.invitation === 'none') ? 'Invite' : 'Invite again'}
        </Button>
        <GroupMenu course={course} setAsked={setAsked} members={members} people={people} />
        <Breaking setAsked={setAsked} members={members} chosen={chosen} people={people} />
        {one && <TheirData ask={ask} course={course} one={one} clear={clear} />}
        <Button size="compact-sm" variant="subtle" onClick={clear}>
          Choose nobody
        </Button>
      </Group>
      {one && one.role !== 'teacher' && <WayIn member={one} />}
      <ConfirmEdit
        edit={asked?.edit ?? null}
        title={asked?.title ?? ''}
        action={asked?.action ?? ''}
        close={() => setAsked(null)}
      />
    </div>
  );
}

/** One person's link, as it is read out, and their PIN where the course has a line. */
function WayIn({ member }: { member: MemberInfo }) {
  const url = `${window.location.origin}${member.link}`;
  return (
    <Group gap="xs" mt={6}>
      <Text size="sm" className="figures" style={{ overflowWrap: 'anywhere' }}>
        {url}
        {member.pin && `, PIN ${spokenPin(member.pin)}`}
      </Text>
      <CopyButton value={url}>
        {({ copied, copy }) => (
          <Button size="compact-sm" variant="default" onClick={copy}>
            {copied ? 'Link copied' : 'Copy the link'}
          </Button>
        )}
      </CopyButton>
    </Group>
  );
}

/** Into a group that there is, into another one, or out of them. */
function GroupMenu({
  course,
  setAsked,
  members,
  people,
}: {
  course: CourseDetail;
  setAsked: (value: Asked | null) => void;
  members: string[];
  people: string;
}) {
  const [group, setGroup] = useState('');
  const put = (into: string | null) =>
    setAsked({
      edit: { edit: 'change', members, fields: { group: into } },
      title: into === null ? `Take ${people} out of the groups` : `Put ${people} into group ${into}`,
      action: into === null ? 'Take out' : `Put into ${into}`,
    });
  return (
    <Menu>
      <Menu.Target>
        <Button size="compact-sm" variant="default">
          Put into a group
        </Button>
      </Menu.Target>
      <Menu.Dropdown>
        {[...new Set(course.series.map((s) => s.group).filter((g) => g !== null))].map((g) => (
          <Menu.Item key={g} onClick={() => put(g)}>
            Group {g}
          </Menu.Item>
        ))}
        <form
          onSubmit={(e) => {
            e.preventDefault();
            if (group.trim()) put(group.trim());
          }}
        >
          <TextInput
            size="xs"
            p={6}
            placeholder="Another group, Enter"
            aria-label="Another group"
            value={group}
            onChange={(e) => setGroup(e.currentTarget.value)}
          />
        </form>
        <Menu.Item onClick={() => put(null)}>No group</Menu.Item>
      </Menu.Dropdown>
    </Menu>
  );
}

/** What breaks something: asked before. */
function Breaking({
  setAsked,
  members,
  chosen,
  people,
}: {
  setAsked: (value: Asked | null) => void;
  members: string[];
  chosen: MemberInfo[];
  people: string;
}) {
  return (
    <>
      <Button
        size="compact-sm"
        variant="default"
        onClick={() =>
          setAsked({
            edit: { edit: 'replace-links', members },
            title: `Replace the ${chosen.length === 1 ? 'link' : 'links'} of ${people}`,
            action: 'Replace and tell them',
          })
        }
      >
        Replace links
      </Button>
      <Button
        size="compact-sm"
        variant="default"
        color="clay"
        onClick={() =>
          setAsked({
            edit: { edit: 'drop', members },
            title: `Take ${people} off the list`,
            action: `Take ${people} off`,
          })
        }
      >
        Take off the list
      </Button>
    </>
  );
}

/** What a course holds of one person: taken along, or forgotten. */
function TheirData({
  ask,
  course,
  one,
  clear,
}: {
  ask: Ask;
  course: CourseDetail;
  one: MemberInfo;
  clear: () => void;
}) {
  const forget = useChange(
    () => ask(`/courses/${course.id}/members/${one.id}/data`, 'DELETE'),
    () => 'They are forgotten. The roll keeps that somebody was there.',
  );
  const [forgetting, setForgetting] = useState(false);
  return (
    <>
      <Button
        size="compact-sm"
        variant="subtle"
        component="a"
        href={`/api/courses/${course.id}/members/${one.id}/data`}
      >
        Their data
      </Button>
      {forgetting ? (
        <>
          <Text size="sm">
            Name, address, letters and answers of {one.name} are gone from this course for good. Forget them?
          </Text>
          <Button
            size="compact-sm"
            color="clay"
            loading={forget.isPending}
            onClick={() => forget.mutate(undefined, { onSuccess: clear })}
          >
            Forget them
          </Button>
          <Button size="compact-sm" variant="default" autoFocus onClick={() => setForgetting(false)}>
            Keep them
          </Button>
        </>
      ) : (
        <Button size="compact-sm" variant="subtle" color="clay" onClick={() => setForgetting(true)}>
          Forget
        </Button>
      )}
    </>
  );
}
