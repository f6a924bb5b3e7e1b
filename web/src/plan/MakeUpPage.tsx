import { Alert, Button, Group, Loader, NumberInput, Stack, Table, Text, Title } from '@mantine/core';
import { useState } from 'react';
import { useNavigate, useParams } from 'react-router';
import type { MakeUps, MakeUpSlot, MapSlot } from '@nimble-bell/core/clashes';
import { durationWords, instantWords, listWords, termDays } from '@nimble-bell/core/calendar';
import { useThisCourse } from '../app/course';
import { useAsked } from '../app/queries';
import { Heads } from '../ui/Heads';
import { Empty, Panel, Scrolls } from '../ui/Panel';
import { ConfirmPlan } from './ConfirmPlan';
import { MakeUpMap } from './MakeUpMap';
import type { CourseDetail, SessionInfo } from '@nimble-bell/core/api';

type Chosen = MapSlot;

/** For a lost session, the best slots of the remaining term, each with its reasons; one press books it. */
export function MakeUpPage() {
  const course = useThisCourse();
  const { session: id } = useParams();
  const navigate = useNavigate();
  const [chosen, setChosen] = useState<Chosen | null>(null);
  const lost = course.sessions.find((s) => s.id === id);
  if (!lost) return <Empty>This session is not in the plan any more.</Empty>;
  return (
    <Stack>
      <Title order={1} size="h2">
        Make up {lost.seriesTitle} of {instantWords(lost.startsAt, course.term.zone)}
      </Title>
      <Offers course={course} lost={lost} setChosen={setChosen} />
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

interface OffersProps {
  course: CourseDetail;
  lost: SessionInfo;
  setChosen: (value: Chosen) => void;
}

/** What is open: the best slots, and week by week. */
function Offers({ course, lost, setChosen }: OffersProps) {
  const [notice, setNotice] = useState(48);
  const [week, setWeek] = useState<string | null>(null);
  const asked = `notice=${notice}${week ? `&week=${week}` : ''}`;
  const found = useAsked<MakeUps>(`/sessions/${lost.id}/make-ups?${asked}`, { keep: true });
  const already = course.sessions.find((s) => s.replaces === lost.id && s.state !== 'cancelled');
  return (
    <>
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
        {found.isPending && <Loader aria-label="Ranking the slots" />}
        {found.error && <Text c="var(--clay)">{found.error.message}</Text>}
        {found.data?.best.length === 0 && <Empty>No slot is left in this term with that notice.</Empty>}
        <Slots slots={found.data?.best ?? []} course={course} already={already} setChosen={setChosen} />
      </Panel>
      {found.data && (
        <Panel
          title="By week"
          about="Each number is how many could not come, or only at an odd hour of theirs."
        >
          <MakeUpMap
            week={found.data.week}
            students={found.data.students}
            days={termDays(course.term)}
            disabled={Boolean(already)}
            turn={setWeek}
            choose={setChosen}
          />
        </Panel>
      )}
    </>
  );
}

interface SlotLineProps {
  slot: MakeUpSlot;
  /** What sets it apart from the others. */
  reasons: string[];
  i: number;
  course: CourseDetail;
  already: SessionInfo | undefined;
  setChosen: (value: Chosen) => void;
}

function SlotLine(props: SlotLineProps) {
  const { slot, reasons, i, course, already, setChosen } = props;
  return (
    <Table.Tr data-testid="slot">
      <Table.Td className="figures" w={30}>
        {i + 1}
      </Table.Td>
      <Table.Td className="figures" w={170}>
        <strong>{instantWords(slot.startsAt, course.term.zone)}</strong>
      </Table.Td>
      <Table.Td w={80}>{slot.week ? `Week ${slot.week}` : ''}</Table.Td>
      <Table.Td>{listWords(reasons)}</Table.Td>
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
  slots: MakeUpSlot[];
  course: CourseDetail;
  already: SessionInfo | undefined;
  setChosen: (value: Chosen) => void;
}

/** The best slots. What is true of all of them is said once; of each, what differs. */
function Slots({ slots, ...rest }: SlotsProps) {
  const shared = slots[0]?.reasons.filter((r) => slots.every((s) => s.reasons.includes(r))) ?? [];
  const common = slots.length > 1 ? shared : [];
  return (
    <>
      {common.length > 0 && (
        <Text size="sm" mb="xs" data-testid="common">
          All of them: {common.join('; ')}.
        </Text>
      )}
      <Scrolls label="Slots, scrolls">
        <Table fz="sm">
          <Heads quiet of={['Rank', 'When', 'Week', 'What speaks against it', 'Choose it']} />
          <Table.Tbody>
            {slots.map((slot, i) => (
              <SlotLine
                key={slot.startsAt}
                slot={slot}
                reasons={slot.reasons.filter((r) => !common.includes(r))}
                i={i}
                {...rest}
              />
            ))}
          </Table.Tbody>
        </Table>
      </Scrolls>
    </>
  );
}
