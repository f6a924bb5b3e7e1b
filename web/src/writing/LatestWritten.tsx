import { Anchor, Text } from '@mantine/core';
import { Link } from 'react-router';
import type { CourseWritten } from '@nimble-bell/core/api';
import { instantWords } from '@nimble-bell/core/calendar';
import { useThisCourse } from '../app/course';
import { useAsked } from '../app/queries';
import { Panel } from '../ui/Panel';
import classes from './written.module.css';

/** The latest that was written around the classes of the course, each with the way to where it is answered. */
export function LatestWritten() {
  const course = useThisCourse();
  const latest = useAsked<CourseWritten[]>(`/courses/${course.id}/written`, { every: () => 30_000 });
  if (!latest.data?.length) return null;
  return (
    <Panel title="Written before and after class" about="The latest first.">
      <div role="list" className={classes.list}>
        {latest.data.map((w) => (
          <article key={w.id} role="listitem" className={classes.one} data-to={w.addressee.to}>
            <header>
              <strong>{w.name}</strong>
              <Anchor component={Link} to={`/course/${course.id}/session/${w.session}`} size="sm">
                {w.title}, {instantWords(w.startsAt, course.term.zone)}
              </Anchor>
              <time>{instantWords(w.at, course.term.zone)}</time>
            </header>
            <Text className={classes.text} lineClamp={2}>
              {w.text}
            </Text>
          </article>
        ))}
      </div>
    </Panel>
  );
}
