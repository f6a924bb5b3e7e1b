import { Button, Group, Select, Stack, TextInput, Title } from '@mantine/core';
import { useMemo, useState } from 'react';
import type { CourseDetail, ListEditDraft, MemberFields, MemberInfo } from '@nimble-bell/core/api';
import { countWords } from '@nimble-bell/core/calendar';
import { writeClassList } from '@nimble-bell/core/roster';
import { useThisCourse } from '../app/course';
import { useMembers } from '../app/members';
import { downloadCsv } from '../ui/download';
import { Empty, Panel } from '../ui/Panel';
import { AddPerson } from './AddPerson';
import { BulkBar } from './BulkBar';
import { ClassLinkPanel } from './ClassLinkPanel';
import { ConfirmEdit, useSaveEdit } from './ConfirmEdit';
import { Excepted } from './Excepted';
import { ImportPanel } from './ImportPanel';
import { LatestListChange, ListHistory } from './ListHistory';
import { MemberTable } from './MemberTable';
import { INVITATION_WORDS, replyWords } from './words';

/** The class list: who is on it, how people come onto it, and what can be done with them. */
export function ClassPage() {
  const course = useThisCourse();
  const members = useMembers(course.id);
  const [open, setOpen] = useState<'import' | 'add' | null>(null);
  const [selected, select] = useState<ReadonlySet<string>>(new Set());
  const mayPlan = course.role === 'teacher';
  const empty = course.counts.students === 0;
  return (
    <Stack>
      <Group justify="space-between">
        <Title order={1} size="h2">
          The class
        </Title>
        {mayPlan && !open && !empty && <WaysIn setOpen={setOpen} select={select} />}
      </Group>
      {mayPlan && <LatestListChange />}
      {mayPlan && (open === 'import' || (empty && open !== 'add')) && members.data && (
        <ImportPanel course={course} members={members.data} done={() => setOpen(null)} />
      )}
      {mayPlan && open === 'add' && <AddPerson done={() => setOpen(null)} />}
      <List
        members={members.data}
        selected={selected}
        course={course}
        empty={empty}
        mayPlan={mayPlan}
        open={open}
        setOpen={setOpen}
        select={select}
      />
      <ClassLinkPanel />
      {mayPlan && <ListHistory />}
    </Stack>
  );
}

/** What the list can be narrowed to. */
const SHOWN = {
  everyone: { label: 'Everyone', is: () => true },
  students: { label: 'Students', is: (m) => m.role === 'student' },
  others: { label: 'Not students', is: (m) => m.role !== 'student' },
  uninvited: { label: 'Not invited yet', is: (m) => m.role === 'student' && m.invitation === 'none' },
  lost: { label: 'Invitation lost', is: (m) => m.invitation === 'bounced' || m.invitation === 'failed' },
  silent: {
    label: 'No reply yet',
    is: (m) => m.role === 'student' && m.invitation !== 'none' && m.replies.length === 0,
  },
  unseen: {
    label: 'Link never used',
    is: (m) => m.role === 'student' && (m.lastSeen ?? 0) <= (m.linkAt ?? 0),
  },
} satisfies Record<string, { label: string; is: (m: MemberInfo) => boolean }>;
type Shown = keyof typeof SHOWN;

function matching(members: MemberInfo[] | undefined, search: string): MemberInfo[] | undefined {
  const words = search.trim().toLowerCase().split(/\s+/).filter(Boolean);
  return members?.filter((m) => {
    const text =
      `${m.name} ${m.preferredName ?? ''} ${m.email} ${m.zone} ${m.group ?? ''} ${m.role} ${INVITATION_WORDS[m.invitation]} ${Object.values(m.extra).join(' ')}`.toLowerCase();
    return words.every((w) => text.includes(w));
  });
}

/** What is shown, written so that it can be read in again, and safe to open in a spreadsheet. */
function download(code: string, members: MemberInfo[]) {
  const csv = writeClassList(
    members.map((m) => ({ ...m, invitation: INVITATION_WORDS[m.invitation], reply: replyWords(m) })),
  );
  downloadCsv(`${code} class list ${new Date().toISOString().slice(0, 10)}.csv`, csv);
}

/** The list narrowed to what is searched for, and to some of its people. */
function Narrow({
  search,
  setSearch,
  members,
  show,
  setShow,
}: {
  search: string;
  setSearch: (value: string) => void;
  members: MemberInfo[] | undefined;
  show: Shown;
  setShow: (show: Shown) => void;
}) {
  return (
    <>
      <TextInput
        aria-label="Search the class list"
        placeholder="Name, address, group, role"
        w={210}
        value={search}
        onChange={(e) => setSearch(e.currentTarget.value)}
      />
      <Select
        aria-label="Who is shown"
        w={190}
        allowDeselect={false}
        data={Object.entries(SHOWN).map(([value, { label, is }]) => ({
          value,
          label: `${label}, ${members?.filter(is).length ?? 0}`,
        }))}
        value={show}
        onChange={(v) => setShow(v as Shown)}
      />
    </>
  );
}

interface ListProps {
  members: MemberInfo[] | undefined;
  selected: ReadonlySet<string>;
  course: CourseDetail;
  empty: boolean;
  mayPlan: boolean;
  open: 'import' | 'add' | null;
  setOpen: (value: 'import' | 'add' | null) => void;
  select: (value: ReadonlySet<string>) => void;
}

/** The people on it, narrowed as one likes, and what can be done with those who are chosen. */
function List(props: ListProps) {
  const { members, selected, course, empty, mayPlan, open, setOpen, select } = props;
  const [search, setSearch] = useState('');
  const [show, setShow] = useState<Shown>('everyone');
  const save = useSaveEdit();
  const [asked, setAsked] = useState<ListEditDraft | null>(null);
  const found = useMemo(() => matching(members, search)?.filter(SHOWN[show].is), [members, search, show]);
  const chosen = members?.filter((m) => selected.has(m.id)) ?? [];
  const change = (member: string, fields: MemberFields) => {
    const edit: ListEditDraft = { edit: 'change', members: [member], fields };
    // A new address or group is told: what it does is shown first.
    if ('email' in fields || 'group' in fields) setAsked(edit);
    else save.mutate(edit);
  };
  return (
    <>
      <Panel
        title="Class list"
        about={countWords(course.counts.students, 'student')}
        action={
          <Group>
            <Narrow search={search} setSearch={setSearch} members={members} show={show} setShow={setShow} />
            {!empty && (
              <Button
                variant="default"
                disabled={!found}
                onClick={() => found && download(course.code, found)}
              >
                Download as CSV
              </Button>
            )}
            {mayPlan && empty && open !== 'add' && (
              <Button variant="default" onClick={() => setOpen('add')}>
                Add a person
              </Button>
            )}
          </Group>
        }
      >
        <Excepted />
        {found && found.length > 0 && (
          <MemberTable
            course={course}
            members={found}
            selected={selected}
            select={select}
            change={mayPlan ? change : null}
          />
        )}
        {empty && <Empty>No student is on the list yet. Paste a list above, or choose a file.</Empty>}
        {!empty && found?.length === 0 && (
          <Empty>{search ? `Nobody matches “${search}”.` : 'Nobody is to be shown.'}</Empty>
        )}
        {mayPlan && chosen.length > 0 && <BulkBar chosen={chosen} clear={() => select(new Set())} />}
      </Panel>
      <ConfirmEdit edit={asked} title="Change it" action="Change it" close={() => setAsked(null)} />
    </>
  );
}

/** How people come onto the list. */
function WaysIn({
  setOpen,
  select,
}: {
  setOpen: (value: 'import' | 'add' | null) => void;
  select: (value: ReadonlySet<string>) => void;
}) {
  return (
    <Group>
      <Button variant="default" onClick={() => setOpen('add')}>
        Add a person
      </Button>
      <Button
        onClick={() => {
          select(new Set());
          setOpen('import');
        }}
      >
        Import a class list
      </Button>
    </Group>
  );
}
