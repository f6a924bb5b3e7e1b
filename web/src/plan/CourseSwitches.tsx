import { Switch } from '@mantine/core';
import { useAsk } from '../app/api';
import { useThisCourse } from '../app/course';
import { useChange } from '../app/queries';
import { Panel } from '../ui/Panel';

/** What the rules of the readiness check need to know of a course. */
export function CourseSwitches() {
  const course = useThisCourse();
  const ask = useAsk();
  const save = useChange(
    (youngPupils: boolean) =>
      ask(`/courses/${course.id}/settings`, 'PUT', { title: course.title, youngPupils }),
    () => 'Saved.',
  );
  return (
    <Panel title="The class">
      <Switch
        label="Younger pupils"
        description="Half an hour is what they sustain: longer sessions and private writing are warned of"
        checked={course.youngPupils}
        onChange={(e) => save.mutate(e.currentTarget.checked)}
      />
    </Panel>
  );
}
