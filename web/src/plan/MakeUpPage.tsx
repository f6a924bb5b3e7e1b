import { Alert, Button, Group, Loader, NumberInput, Stack, Table, Text, Title } from '@mantine/core';
import { useState } from 'react';
import { useNavigate, useParams } from 'react-router';
import type { PlanEditDraft, PlanOutcome } from '@nimble-bell/core/api';
import type { MakeUpSlot } from '@nimble-bell/core/clashes';
import { countWords, durationWords, instantWords, listWords } from '@nimble-bell/core/calendar';
import { useAsk } from '../app/api';
import { useThisCourse } from '../app/course';
import { useAsked, useChange } from '../app/queries';
import { Empty, Panel } from '../ui/Panel';

/** For a lost session, the best slots of the remaining term, each with its reasons; one press books it. */
export function MakeUpPage() {
  const course = useThisCourse();
  const { session: id } = useParams();
  const navigate = useNavigate();
  const ask = useAsk();
  const [notice, setNotice] = useState(48);
  const slots = useAsked<MakeUpSlot[]>(`/sessions/${id}/make-ups?notice=${notice}`);
  const lost = course.sessions.find((s) => s.id === id);
  const already = course.sessions.find((s) => s.replaces === id && s.state !== 'cancelled');
  const book = useChange(
    (slot: MakeUpSlot) => {
      const edit: PlanEditDraft = {
        edit: 'add-session',
        seriesId: lost!.seriesId,
        date: slot.date,
        start: slot.start,
        minutes: lost!.minutes,
        replaces: lost!.id,
      };
      return ask<PlanOutcome>(`/courses/${course.id}/plan`, 'POST', edit);
    },
    ({ words, told }) =>
      `${words}.${told.count ? ` ${countWords(told.count, 'person', 'people')} told.` : ''}`,
  );
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
        <Table fz="sm">
          <Table.Tbody>
            {slots.data?.map((slot, i) => (
              <Table.Tr key={slot.startsAt} data-testid="slot">
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
                      loading={book.isPending && book.variables?.startsAt === slot.startsAt}
                      onClick={() =>
                        book.mutate(slot, { onSuccess: () => void navigate(`/course/${course.id}/plan`) })
                      }
                    >
                      Book it
                    </Button>
                  </Group>
                </Table.Td>
              </Table.Tr>
            ))}
          </Table.Tbody>
        </Table>
      </Panel>
    </Stack>
  );
}
