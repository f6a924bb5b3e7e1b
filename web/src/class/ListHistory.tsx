import { Group, Text } from '@mantine/core';
import type { ListChangeInfo, ListOutcome } from '@nimble-bell/core/api';
import { countWords, instantWords } from '@nimble-bell/core/calendar';
import { useAsk } from '../app/api';
import { useThisCourse } from '../app/course';
import { useAsked, useChange } from '../app/queries';
import { LatestChange } from '../ui/LatestChange';
import { Empty, Panel } from '../ui/Panel';
import { WayBack } from '../ui/WayBack';

const useHistory = (course: string) => useAsked<ListChangeInfo[]>(`/courses/${course}/members/history`);

function useUndo() {
  const course = useThisCourse();
  const ask = useAsk();
  return useChange(
    (change: string) => ask<ListOutcome>(`/courses/${course.id}/members/undo`, 'POST', { change }),
    ({ words }) => `${words}.`,
  );
}

/** The change just made to the class list, undone by one press. */
export function LatestListChange() {
  const course = useThisCourse();
  const latest = useHistory(course.id).data?.find((c) => c.undoable);
  const undo = useUndo();
  if (!latest) return null;
  return (
    <LatestChange
      at={latest.at}
      words={`${latest.words}.`}
      undo={() => undo.mutate(latest.id)}
      undoing={undo.isPending}
    />
  );
}

/** Everything that was done to the class list: what, who, when. */
export function ListHistory() {
  const course = useThisCourse();
  const history = useHistory(course.id);
  const undo = useUndo();
  return (
    <Panel title="What was changed">
      {history.data?.length === 0 && <Empty>Nothing was changed yet.</Empty>}
      {history.data?.map((c) => (
        <Group key={c.id} justify="space-between" py={4} wrap="nowrap">
          <Text size="sm">
            {c.words}
            <Text span c="dimmed" size="sm">
              {' '}
              {c.by}, {instantWords(c.at, course.term.zone)}, {countWords(c.people, 'person', 'people')}
            </Text>
          </Text>
          <WayBack
            entry={c}
            may={course.role === 'teacher'}
            busy={undo.isPending}
            undo={() => undo.mutate(c.id)}
          />
        </Group>
      ))}
    </Panel>
  );
}
