import { Button, Group, MultiSelect, NumberInput, Stack, Switch } from '@mantine/core';
import { useState } from 'react';
import { useParams } from 'react-router';
import type { MemberInfo, RecordingDetail, RulesInput } from '@nimble-bell/core/api';
import { useAsk } from '../app/api';
import { useAsked, useChange } from '../app/queries';
import { Panel } from '../ui/Panel';

type Said = NonNullable<RulesInput['recording']>;
const AS_WIDER: Said = {
  ...{ studentsWatch: null, studentsDownload: null },
  ...{ watchAfterDays: null, watchForDays: null, onlyFor: null },
};

/** Who may watch this recording, and take it along, from when until when; said for its session, in force at once. */
export default function WhoMay({ recording: { plan, sessionId } }: { recording: RecordingDetail }) {
  const { course } = useParams();
  const ask = useAsk();
  const { data: members = [] } = useAsked<MemberInfo[]>(`/courses/${course}/members`);
  const [changed, setChanged] = useState<Said>({});
  const save = useChange(
    (recording: Said) =>
      ask(`/courses/${course}/rules`, 'PUT', { at: { layer: 'session', ids: [sessionId] }, recording }).then(
        () => setChanged({}),
      ),
    () => 'It is in force.',
  );
  const of = { ...plan, ...changed };
  const set = (next: Said) => setChanged({ ...changed, ...next });
  return (
    <Panel
      title="Who may watch"
      about="Said for this recording; those who teach watch always. What is changed holds in the same moment."
    >
      <Stack gap="sm">
        <Fields {...{ of, set, members }} />
        <Group>
          <Button
            disabled={!Object.keys(changed).length}
            loading={save.isPending}
            onClick={() => save.mutate(changed)}
          >
            Let it be so
          </Button>
          <Button variant="subtle" loading={save.isPending} onClick={() => save.mutate(AS_WIDER)}>
            As the course has it
          </Button>
        </Group>
      </Stack>
    </Panel>
  );
}

interface FieldsProps {
  of: Said;
  set: (next: Said) => void;
  members: readonly MemberInfo[];
}

function Fields({ of, set, members }: FieldsProps) {
  const only = of.onlyFor ?? { groups: [], members: [] };
  const students = members.filter((m) => m.role === 'student');
  const groups = [...new Set(students.flatMap((m) => m.group ?? []))].sort();
  return (
    <>
      <Group gap="lg">
        <Switch
          label="Students may watch"
          checked={of.studentsWatch ?? false}
          onChange={(e) => set({ studentsWatch: e.currentTarget.checked })}
        />
        <Switch
          label="Students may download"
          checked={of.studentsDownload ?? false}
          onChange={(e) => set({ studentsDownload: e.currentTarget.checked })}
        />
      </Group>
      <Group align="flex-end">
        <Days
          label="From so many days after class"
          value={of.watchAfterDays ?? 0}
          set={(watchAfterDays) => set({ watchAfterDays })}
        />
        <Days
          label="For so many days; 0: as long as it is kept"
          value={of.watchForDays ?? 0}
          set={(watchForDays) => set({ watchForDays })}
        />
      </Group>
      <Group align="flex-start">
        <Some
          label="For these groups alone"
          nothing="All groups"
          data={groups}
          value={only.groups}
          set={(chosen) => set({ onlyFor: { ...only, groups: chosen } })}
        />
        <Some
          label="For these students alone, or beside the groups"
          nothing="All students"
          data={students.map((m) => ({ value: m.id, label: m.name }))}
          value={only.members}
          set={(chosen) => set({ onlyFor: { ...only, members: chosen } })}
        />
      </Group>
    </>
  );
}

interface DaysProps {
  label: string;
  value: number;
  set: (days: number) => void;
}

const Days = ({ label, value, set }: DaysProps) => (
  <NumberInput
    label={label}
    w={290}
    min={0}
    max={365}
    allowDecimal={false}
    value={value}
    onChange={(v) => typeof v === 'number' && set(v)}
  />
);

interface SomeProps {
  label: string;
  nothing: string;
  data: string[] | { value: string; label: string }[];
  value: string[];
  set: (chosen: string[]) => void;
}

const Some = ({ label, nothing, data, value, set }: SomeProps) => (
  <MultiSelect
    label={label}
    placeholder={value.length ? '' : nothing}
    w={420}
    maw="100%"
    searchable
    clearable
    limit={60}
    data={data}
    value={value}
    onChange={set}
    styles={{ inputField: { minHeight: 24 } }}
  />
);
