import { Button, Group, Stack, Text, Title } from '@mantine/core';
import type { PlanChangeInfo } from '@nimble-bell/core/api';
import { countWords, instantWords } from '@nimble-bell/core/calendar';
import { useThisCourse } from '../app/course';
import { useAsked } from '../app/queries';
import { Empty, Panel } from '../ui/Panel';
import { Deltas } from './OutcomeView';
import { useUndo } from './PlanStage';

/** Everything that was done to the plan: what, who, when, who was told. */
export function HistoryPage() {
  const course = useThisCourse();
  const history = useAsked<PlanChangeInfo[]>(`/courses/${course.id}/plan/history`);
  const undo = useUndo();
  return (
    <Stack>
      <Title order={1} size="h2">
        What was changed
      </Title>
      {history.data?.length === 0 && <Empty>Nothing was changed yet.</Empty>}
      {history.data?.map((c) => (
        <Panel
          key={c.id}
          title={c.words}
          about={`${c.by}, ${instantWords(c.at, course.term.zone)}${c.told ? `, ${countWords(c.told, 'person', 'people')} told` : ''}`}
          action={
            c.undoneAt !== null ? (
              <Text size="sm" c="dimmed">
                undone
              </Text>
            ) : (
              c.undoable &&
              course.role === 'teacher' && (
                <Button variant="default" loading={undo.isPending} onClick={() => undo.mutate(c.id)}>
                  Undo
                </Button>
              )
            )
          }
        >
          <Group>
            <Deltas sessions={c.sessions} most={5} />
          </Group>
        </Panel>
      ))}
    </Stack>
  );
}
