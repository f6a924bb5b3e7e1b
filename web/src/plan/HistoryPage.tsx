import { Group, Stack, Title } from '@mantine/core';
import type { PlanChangeInfo } from '@nimble-bell/core/api';
import { instantWords } from '@nimble-bell/core/calendar';
import { useThisCourse } from '../app/course';
import { useAsked } from '../app/queries';
import { Empty, Panel } from '../ui/Panel';
import { WayBack } from '../ui/WayBack';
import { Deltas } from './OutcomeView';
import { newsWords, useUndo } from './PlanStage';

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
          about={`${c.by}, ${instantWords(c.at, course.term.zone)}${newsWords(c)}`}
          action={
            <WayBack
              entry={c}
              may={course.role === 'teacher'}
              busy={undo.isPending}
              undo={() => undo.mutate(c.id)}
            />
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
