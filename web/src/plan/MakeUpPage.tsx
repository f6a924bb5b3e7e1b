import { Alert, Button, Group, Loader, NumberInput, Stack, Table, Text, Title } from '@mantine/core';
import { useState } from 'react';
import { useNavigate, useParams } from 'react-router';
import type { MakeUpSlot } from '@nimble-bell/core/clashes';
import { durationWords, instantWords, listWords } from '@nimble-bell/core/calendar';
import { useThisCourse } from '../app/course';
import { useAsked } from '../app/queries';
import { Empty, Panel } from '../ui/Panel';
import { ConfirmPlan } from './ConfirmPlan';
import type { CourseDetail, SessionInfo } from '@nimble-bell/core/api';
import type { UseQueryResult } from '@tanstack/react-query';

/** For a lost session, the best slots of the remaining term, each with its reasons; one press books it. */
export function MakeUpPage() {
  const course = useThisCourse();
  const { session: id } = useParams();
  const navigate = useNavigate();
  const [notice, setNotice] = useState(48);
  const [chosen, setChosen] = useState<MakeUpSlot | null>(null);
  const slots = useAsked<MakeUpSlot[]>(`/sessions/${id}/make-ups?notice=${notice}`);
  const lost = course.sessions.find((s) => s.id === id);
  const already = course.sessions.find((s) => s.replaces === id && s.state !== 'cancelled');
  if (!lost) return <Empty>This session is not in the plan any more.</Empty>;
  return (
    <Stack>
      <Title order={1} size="h2">
        Make up {lost.seriesTitle} of {instantWords(lost.startsAt, course.term.zone)}
      </Title>
      {already && (
        <Alert color="tide" title="It is made up for already">
          {instantWords(already.startsAt, course.term.zone)}
        </Alert>
      )}
      <Panel
        title="The best slots"
        about={`${durationWords(lost.minutes)}, over the other sessions of everyone in the class, their own clocks, days off and bell times`}
        action={
          <NumberInput
            label="Notice"
            suffix=" hours"
            min={0}
            max={1440}
            w={130}
            value={notice}
            onChange={(v) => typeof v === 'number' && setNotice(v)}
          />
        }
      >
        {slots.isPending && <Loader aria-label="Ranking the slots" />}
        {slots.error && <Text c="var(--clay)">{slots.error.message}</Text>}
        {slots.data?.length === 0 && <Empty>No slot is left in this term with that notice.</Empty>}
        <Slots slots={slots} course={course} already={already} setChosen={setChosen} />
      </Panel>
      <ConfirmPlan
        edit={
          chosen && {
            edit: 'add-session',
            seriesId: lost.seriesId,
            date: chosen.date,
            start: chosen.start,
            minutes: lost.minutes,
            replaces: lost.id,
          }
        }
        title={chosen ? `Make it up ${instantWords(chosen.startsAt, course.term.zone)}` : ''}
        action="Book it"
        close={() => setChosen(null)}
        done={() => void navigate(`/course/${course.id}/plan`)}
      />
    </Stack>
  );
}

interface SlotLineProps {
  slot: MakeUpSlot;
  i: number;
  course: CourseDetail;
  already: SessionInfo | undefined;
  setChosen: (value: MakeUpSlot | null) => void;
}

function SlotLine(props: SlotLineProps) {
  const { slot, i, course, already, setChosen } = props;
  return (
    <Table.Tr data-testid="slot">
      <Table.Td className="figures" w={30}>
        {i + 1}
      </Table.Td>
      <Table.Td className="figures" w={170}>
        <strong>{instantWords(slot.startsAt, course.term.zone)}</strong>
      </Table.Td>
      <Table.Td w={80}>{slot.week ? `Week ${slot.week}` : ''}</Table.Td>
      <Table.Td>{listWords(slot.reasons)}</Table.Td>
      <Table.Td ta="right">
        <Group justify="flex-end">
          <Button
            size="compact-sm"
            variant={i === 0 ? 'filled' : 'default'}
            disabled={Boolean(already)}
            onClick={() => setChosen(slot)}
          >
            Choose it
          </Button>
        </Group>
      </Table.Td>
    </Table.Tr>
  );
}

interface SlotsProps {
  slots: UseQueryResult<MakeUpSlot[]>;
  course: CourseDetail;
  already: SessionInfo | undefined;
  setChosen: (value: MakeUpSlot | null) => void;
}

function Slots(props: SlotsProps) {
  const { slots, course, already, setChosen } = props;
  return (
    <Table fz="sm">
      <Table.Tbody>
        {slots.data?.map((slot, i) => (
          <SlotLine
            key={slot.startsAt}
            slot={slot}
            i={i}
            course={course}
            already={already}
            setChosen={setChosen}
          />
        ))}
      </Table.Tbody>
    </Table>
  );
}
