import {
  Anchor,
  Button,
  Checkbox,
  FileButton,
  Group,
  Progress,
  Select,
  Stack,
  Table,
  Text,
  TextInput,
  Title,
} from '@mantine/core';
import { useQueryClient, type UseMutationResult, type UseQueryResult } from '@tanstack/react-query';
import { useState } from 'react';
import type { CourseDetail, MaterialInfo } from '@nimble-bell/core/api';
import { instantWords } from '@nimble-bell/core/calendar';
import { useAsk, type Ask } from '../app/api';
import { serverNow } from '../app/clock';
import { useThisCourse } from '../app/course';
import { useAsked, useChange } from '../app/queries';
import { Heads } from '../ui/Heads';
import { Empty, Panel } from '../ui/Panel';
import { sizeWords } from '../ui/Materials';
import { sendFile } from '../ui/sendFile';

interface Upload {
  name: string;
  share: number;
  fault: string | null;
}

/** Files and links for the class: of the course, or of one session. */
export function FilesPage() {
  const course = useThisCourse();
  const ask = useAsk();
  const path = `/courses/${course.id}/materials`;
  const materials = useAsked<MaterialInfo[]>(path);
  const titleOf = (id: string) => {
    const s = course.sessions.find((x) => x.id === id);
    return s ? `${s.seriesTitle} ${s.number}, ${instantWords(s.startsAt, course.term.zone)}` : 'a session';
  };
  const give = useChange(
    ({ id, forTeachers }: Pick<MaterialInfo, 'id' | 'forTeachers'>) =>
      ask(`/materials/${id}`, 'PUT', { forTeachers: !forTeachers }),
    () => 'Kept.',
  );
  const remove = useChange(
    (id: string) => ask(`/materials/${id}`, 'DELETE'),
    () => 'Taken away.',
  );
  return (
    <Stack>
      <Title order={1} size="h2">
        Files and links
      </Title>
      <Add {...{ ask, path, titleOf, course }} />
      <There {...{ materials, titleOf, course, give, remove }} />
    </Stack>
  );
}

interface AddProps {
  ask: Ask;
  path: string;
  titleOf: (id: string) => string;
  course: CourseDetail;
}

/** Files sent up and links written down, for the course or one session, for the class or those who teach. */
function Add({ ask, path, titleOf, course }: AddProps) {
  const [session, setSession] = useState<string | null>(null);
  const [own, setOwn] = useState(false);
  const { uploads, send } = useUploads(path, session, own);
  const near = course.sessions.filter(
    (s) => s.state !== 'cancelled' && s.endsAt > serverNow() - 14 * 86_400_000,
  );
  return (
    <Panel
      title="Add"
      about="Only those on the class list can open them, and those of a session only whom it is for."
    >
      <Stack>
        <Select
          label="For"
          maw={420}
          searchable
          clearable
          placeholder="The whole course"
          data={near.map((s) => ({ value: s.id, label: titleOf(s.id) }))}
          value={session}
          onChange={setSession}
        />
        <Checkbox
          label="Only those who teach have it, until you give it to the class"
          checked={own}
          onChange={(e) => setOwn(e.currentTarget.checked)}
        />
        <Group align="flex-end">
          <FileButton multiple onChange={(files) => void send(files)}>
            {(button) => <Button {...button}>Choose files</Button>}
          </FileButton>
          <AddLink ask={ask} path={path} session={session} />
        </Group>
        {uploads.map((u) => (
          <div key={u.name}>
            <Text size="sm" c={u.fault ? 'var(--clay)' : undefined}>
              {u.name} {u.fault ?? `${Math.round(100 * u.share)} %`}
            </Text>
            {!u.fault && <Progress value={100 * u.share} aria-label={`${u.name} on its way`} />}
          </div>
        ))}
      </Stack>
    </Panel>
  );
}

interface ThereProps {
  materials: UseQueryResult<MaterialInfo[]>;
  titleOf: (id: string) => string;
  course: CourseDetail;
  give: UseMutationResult<unknown, Error, Pick<MaterialInfo, 'id' | 'forTeachers'>>;
  remove: UseMutationResult<unknown, Error, string>;
}

function There(props: ThereProps) {
  const { materials, titleOf, course, give, remove } = props;
  return (
    <Panel title="What is there">
      {materials.data?.length === 0 && <Empty>There is no file or link yet.</Empty>}
      {materials.data && materials.data.length > 0 && (
        <Table fz="sm">
          <Heads quiet of={['Name', 'For', 'Size', 'By', 'What you can do']} />
          <Table.Tbody>
            {materials.data.map((m) => (
              <Table.Tr key={m.id}>
                <Table.Td>
                  <Anchor
                    fz="sm"
                    href={m.url}
                    target={m.kind === 'link' ? '_blank' : undefined}
                    rel="noreferrer"
                  >
                    {m.name}
                  </Anchor>
                </Table.Td>
                <Table.Td>
                  {m.sessionId ? titleOf(m.sessionId) : 'The whole course'}
                  {m.forTeachers && ', those who teach'}
                </Table.Td>
                <Table.Td className="figures">{m.kind === 'file' ? sizeWords(m.bytes) : 'link'}</Table.Td>
                <Table.Td>
                  {m.by}, {instantWords(m.at, course.term.zone)}
                </Table.Td>
                <Table.Td ta="right">
                  {m.kind === 'file' && (
                    <Button size="compact-xs" variant="subtle" onClick={() => give.mutate(m)}>
                      {m.forTeachers ? 'Give to the class' : 'Keep from the class'}
                    </Button>
                  )}
                  <Button size="compact-xs" variant="subtle" color="clay" onClick={() => remove.mutate(m.id)}>
                    Take away
                  </Button>
                </Table.Td>
              </Table.Tr>
            ))}
          </Table.Tbody>
        </Table>
      )}
    </Panel>
  );
}

/** Files on their way, each with its share or its fault. */
function useUploads(path: string, session: string | null, own: boolean) {
  const client = useQueryClient();
  const [uploads, setUploads] = useState<Upload[]>([]);
  const send = async (files: File[]) => {
    for (const file of files) {
      const put = (how: Partial<Upload>) =>
        setUploads((all) => all.map((u) => (u.name === file.name ? { ...u, ...how } : u)));
      setUploads((all) => [
        ...all.filter((u) => u.name !== file.name),
        { name: file.name, share: 0, fault: null },
      ]);
      try {
        const query = new URLSearchParams({ name: file.name, ...(session ? { session } : {}) });
        if (own) query.set('for', 'teachers');
        await sendFile(`/api${path}?${query}`, file, { tell: (share) => put({ share }) });
        setUploads((all) => all.filter((u) => u.name !== file.name));
      } catch (error) {
        put({ fault: (error as Error).message });
      }
      await client.invalidateQueries();
    }
  };
  return { uploads, send };
}

function AddLink({ ask, path, session }: { ask: Ask; path: string; session: string | null }) {
  const [link, setLink] = useState({ name: '', url: '' });
  const addLink = useChange(
    () => ask(`${path}/links`, 'POST', { ...link, sessionId: session }),
    () => 'The link is there.',
  );
  return (
    <form
      onSubmit={(e) => {
        e.preventDefault();
        addLink.mutate(undefined, { onSuccess: () => setLink({ name: '', url: '' }) });
      }}
    >
      <Group align="flex-end">
        <TextInput
          label="Or a link: its name"
          value={link.name}
          onChange={(e) => setLink({ ...link, name: e.currentTarget.value })}
        />
        <TextInput
          label="Address"
          placeholder="https://"
          value={link.url}
          onChange={(e) => setLink({ ...link, url: e.currentTarget.value })}
        />
        <Button
          type="submit"
          variant="default"
          disabled={!link.name.trim() || !link.url.trim()}
          loading={addLink.isPending}
        >
          Add the link
        </Button>
      </Group>
    </form>
  );
}
