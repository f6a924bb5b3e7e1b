import { Button, Group, Loader, NumberInput, Select, Switch, Text } from '@mantine/core';
import { useState } from 'react';
import type { CourseDetail, DoorRules } from '@nimble-bell/core/api';
import { useAsk } from '../app/api';
import { useThisCourse } from '../app/course';
import { useChange } from '../app/queries';
import { useKeeping, useKept, type Kept } from '../plan/useKeptDraft';
import { Panel } from '../ui/Panel';

const STRAIGHT = { value: 'straight', label: 'walk straight in' };
const KNOCKS = { value: 'knocks', label: 'knock' };
const NOT = { value: 'not', label: 'do not come in' };

const keyOf = (course: CourseDetail) => `door/${course.id}`;

/** Who comes in when, and how, in every session of the course. What was left half done is taken up. */
export function DoorPanel() {
  const course = useThisCourse();
  const kept = useKept<DoorRules>(keyOf(course));
  if (kept === undefined) return <Loader aria-label="Looking for what you chose" />;
  return <DoorForm kept={kept} />;
}

function DoorForm({ kept }: { kept: Kept<DoorRules> | null }) {
  const course = useThisCourse();
  const ask = useAsk();
  const [door, setDoor] = useState<DoorRules>({ ...course.door, ...kept?.body });
  const mayPlan = course.role === 'teacher';
  const save = useChange(
    () => ask(`/courses/${course.id}/door`, 'PUT', door),
    () => 'The door’s rules are in force, in a class that is on as well.',
  );
  const dirty = (Object.keys(door) as (keyof DoorRules)[]).some((k) => door[k] !== course.door[k]);
  const forget = useKeeping(keyOf(course), mayPlan && dirty ? door : null);
  const set = (more: Partial<DoorRules>) => setDoor({ ...door, ...more });
  return (
    <Panel
      title="The door"
      about="Those who teach come in from two hours before; in class the door can be locked."
    >
      <Fields door={door} set={set} mayPlan={mayPlan} />
      {mayPlan && (
        <Group mt="md">
          <Button
            loading={save.isPending}
            disabled={!dirty}
            onClick={() => save.mutate(undefined, { onSuccess: () => void forget() })}
          >
            Save the door
          </Button>
          {dirty && (
            <Text size="sm" c="dimmed">
              Not in force yet. It is kept if you leave the page.
            </Text>
          )}
        </Group>
      )}
    </Panel>
  );
}

interface FieldsProps {
  door: DoorRules;
  set: (more: Partial<DoorRules>) => void;
  mayPlan: boolean;
}

type MinutesKey = 'opensMinutesBefore' | 'aloneMinutes' | 'lateMinutes';

interface MinutesProps extends FieldsProps {
  of: MinutesKey;
  label: string;
  suffix: string;
  least?: number;
  most?: number;
}

function Minutes({ of, label, suffix, least = 0, most = 240, door, set, mayPlan }: MinutesProps) {
  // Emptied to be typed anew: what holds is what was there until then.
  const [empty, setEmpty] = useState(false);
  return (
    <NumberInput
      disabled={!mayPlan}
      w={220}
      label={label}
      suffix={suffix}
      min={least}
      max={most}
      allowDecimal={false}
      value={empty ? '' : door[of]}
      onChange={(v) => {
        setEmpty(v === '');
        if (typeof v === 'number') set({ [of]: v });
      }}
      onBlur={() => setEmpty(false)}
    />
  );
}

function Fields(all: FieldsProps) {
  const { door, set, mayPlan } = all;
  return (
    <>
      <Group align="flex-end">
        <Minutes of="opensMinutesBefore" label="It opens" suffix=" min before the start" {...all} />
        <Switch
          label="Not before a teacher has rung in"
          disabled={!mayPlan}
          checked={door.teacherFirst}
          onChange={(e) => set({ teacherFirst: e.currentTarget.checked })}
          mb={8}
        />
        <Minutes
          of="aloneMinutes"
          label="Without a teacher it closes"
          suffix=" min after"
          least={1}
          most={60}
          {...all}
        />
      </Group>
      <HowFields {...all} />
    </>
  );
}

/** How each kind of comer comes in. */
function HowFields(all: FieldsProps) {
  const { door, set, mayPlan } = all;
  const how = { disabled: !mayPlan, w: 220, allowDeselect: false };
  return (
    <>
      <Group align="flex-end" mt="sm">
        <Select
          {...how}
          label="The class list"
          data={[STRAIGHT, KNOCKS]}
          value={door.classList}
          onChange={(v) => set({ classList: v as DoorRules['classList'] })}
        />
        <Select
          {...how}
          label="Guests"
          data={[STRAIGHT, KNOCKS, NOT]}
          value={door.guests}
          onChange={(v) => set({ guests: v as DoorRules['guests'] })}
        />
        <Select
          {...how}
          label="Who is late"
          data={[{ value: 'straight', label: 'as anybody' }, KNOCKS, NOT]}
          value={door.late}
          onChange={(v) => set({ late: v as DoorRules['late'] })}
        />
        {door.late !== 'straight' && (
          <Minutes of="lateMinutes" label="Late is" suffix=" min after the start" {...all} />
        )}
      </Group>
    </>
  );
}
