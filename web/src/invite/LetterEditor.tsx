import {
  Alert,
  Button,
  Code,
  Grid,
  Group,
  SegmentedControl,
  Select,
  Stack,
  Text,
  Textarea,
  TextInput,
} from '@mantine/core';
import { useDebouncedValue } from '@mantine/hooks';
import { useQuery, type UseMutationResult, type UseQueryResult } from '@tanstack/react-query';
import { useState } from 'react';
import type { CourseDetail, InvitationPreview, InvitationTemplate, MemberInfo } from '@nimble-bell/core/api';
import { DEFAULT_INVITATION, FIELDS } from '@nimble-bell/core/mail';
import { countWords } from '@nimble-bell/core/calendar';
import { useAsk } from '../app/api';
import { say } from '../app/notices';
import { useThisCourse } from '../app/course';
import { useChange } from '../app/queries';
import { LetterPaper } from '../ui/LetterPaper';
import { Panel } from '../ui/Panel';

/** The invitation's words, with fields filled in for each person, and beside them the letter as one person gets it. */
export function LetterEditor({ members }: { members: MemberInfo[] }) {
  const course = useThisCourse();
  const ask = useAsk();
  const kept = course.invitation ?? DEFAULT_INVITATION;
  const [draft, setDraft] = useState<InvitationTemplate>(kept);
  const [member, setMember] = useState<string | null>(null);
  const [settled] = useDebouncedValue(draft, 250);
  const changed = draft.subject !== kept.subject || draft.text !== kept.text;
  const mayPlan = course.role === 'teacher';
  const preview = useQuery({
    queryKey: ['invitation-preview', course.id, settled, member],
    queryFn: () =>
      ask<InvitationPreview>(`/courses/${course.id}/invitations/preview`, 'POST', {
        member,
        template: settled,
      }),
    placeholderData: (before) => before,
    retry: false,
  });
  const save = useChange(
    (template: InvitationTemplate | null) => ask(`/courses/${course.id}/invitation`, 'PUT', { template }),
    () => 'The letter is kept.',
  );
  const students = members.filter((m) => m.role === 'student');
  return (
    <Panel
      title="The letter"
      about="The link in it is theirs alone; their sessions come as calendar entries inside."
    >
      <Grid gap="lg">
        <Grid.Col span={{ base: 12, md: 5 }}>
          <Words
            mayPlan={mayPlan}
            draft={draft}
            setDraft={setDraft}
            changed={changed}
            preview={preview}
            save={save}
            course={course}
          />
        </Grid.Col>
        <Shown
          preview={preview}
          students={students}
          member={member}
          setMember={setMember}
          course={course}
          draft={draft}
        />
      </Grid>
    </Panel>
  );
}

function Preview(props: {
  preview: InvitationPreview;
  as: string;
  course: CourseDetail;
  draft: InvitationTemplate;
}) {
  const { preview, as } = props;
  const copy = async () => {
    const html = new Blob([preview.html], { type: 'text/html' });
    const text = new Blob([preview.text], { type: 'text/plain' });
    await navigator.clipboard.write([new ClipboardItem({ 'text/html': html, 'text/plain': text })]);
    say(`Copied as ${preview.name} gets it: paste it where you like.`);
  };
  return (
    <Stack gap="xs">
      <Text fw={600}>{preview.subject}</Text>
      {as === 'html' ? (
        <LetterPaper title={`The letter to ${preview.name}`} html={preview.html} />
      ) : (
        <Code
          block
          style={{ whiteSpace: 'pre-wrap', fontSize: 14, background: 'var(--paper)', color: 'var(--ink)' }}
        >
          {preview.text}
        </Code>
      )}
      <Group justify="space-between">
        <Text size="sm" c="dimmed">
          {preview.entries.length
            ? `${countWords(preview.entries.length, 'calendar entry', 'calendar entries')} inside: ${preview.entries.join('; ')}`
            : 'No calendar entry inside: nothing with dates is published for them.'}
        </Text>
        <Button size="compact-sm" variant="default" onClick={() => void copy()}>
          Copy this invitation
        </Button>
      </Group>
    </Stack>
  );
}

interface WordsProps {
  mayPlan: boolean;
  draft: InvitationTemplate;
  setDraft: (value: InvitationTemplate) => void;
  changed: boolean;
  preview: UseQueryResult<InvitationPreview>;
  save: UseMutationResult<unknown, Error, { subject: string; text: string } | null>;
  course: CourseDetail;
}

/** Subject and text, with the fields that can stand in them. */
function Words(props: WordsProps) {
  const { mayPlan, draft, setDraft, changed, preview, save, course } = props;
  return (
    <Stack gap="sm">
      <TextInput
        label="Subject"
        readOnly={!mayPlan}
        value={draft.subject}
        onChange={(e) => setDraft({ ...draft, subject: e.currentTarget.value })}
      />
      <Textarea
        label="Text"
        readOnly={!mayPlan}
        autosize
        minRows={10}
        maxRows={18}
        value={draft.text}
        onChange={(e) => setDraft({ ...draft, text: e.currentTarget.value })}
      />
      <details>
        <summary>Fields, and a linked phrase</summary>
        <Text size="sm" component="div" c="dimmed">
          {Object.entries(FIELDS).map(([name, about]) => (
            <div key={name}>
              <Code>{`{${name}}`}</Code> {about}
            </div>
          ))}
          <div>
            <Code>{'[come in here]({link})'}</Code> a phrase that is their link
          </div>
        </Text>
      </details>
      {mayPlan && (
        <Group>
          <Button
            disabled={!changed || Boolean(preview.error)}
            loading={save.isPending}
            onClick={() => save.mutate(draft)}
          >
            Keep this letter
          </Button>
          {course.invitation && (
            <Button
              variant="subtle"
              onClick={() => save.mutate(null, { onSuccess: () => setDraft(DEFAULT_INVITATION) })}
            >
              Back to the college&apos;s own
            </Button>
          )}
        </Group>
      )}
    </Stack>
  );
}

interface AsWhomProps {
  preview: UseQueryResult<InvitationPreview>;
  students: MemberInfo[];
  member: string | null;
  setMember: (value: string | null) => void;
  as: string;
  setAs: (value: string) => void;
}

/** As whom, and as what, the letter is shown. */
function AsWhom(props: AsWhomProps) {
  const { preview, students, member, setMember, as, setAs } = props;
  return (
    <Group justify="space-between" mb="xs">
      <Select
        aria-label="As who gets it"
        w={280}
        searchable
        limit={50}
        placeholder={preview.data ? `As ${preview.data.name} gets it` : 'As somebody gets it'}
        data={students.map((m) => ({ value: m.id, label: m.name }))}
        value={member}
        onChange={setMember}
      />
      <SegmentedControl
        aria-label="Shown as"
        size="xs"
        value={as}
        onChange={setAs}
        data={[
          { value: 'html', label: 'Letter' },
          { value: 'text', label: 'Plain text' },
        ]}
      />
    </Group>
  );
}

interface ShownProps {
  preview: UseQueryResult<InvitationPreview>;
  students: MemberInfo[];
  member: string | null;
  setMember: (value: string | null) => void;
  course: CourseDetail;
  draft: InvitationTemplate;
}

/** The letter as one person gets it. */
function Shown(props: ShownProps) {
  const { preview, students, member, setMember, course, draft } = props;
  const [as, setAs] = useState('html');
  return (
    <Grid.Col span={{ base: 12, md: 7 }}>
      <AsWhom
        preview={preview}
        students={students}
        member={member}
        setMember={setMember}
        as={as}
        setAs={setAs}
      />
      {preview.error ? (
        <Alert color="clay">{preview.error.message}</Alert>
      ) : (
        preview.data && <Preview preview={preview.data} as={as} course={course} draft={draft} />
      )}
    </Grid.Col>
  );
}
