import { Anchor, Stack, Title } from '@mantine/core';
import { Link } from 'react-router';
import { useThisCourse } from '../app/course';
import { useMembers } from '../app/members';
import { Empty } from '../ui/Panel';
import { LetterEditor } from './LetterEditor';
import { Send } from './Send';
import { TelephonePanel } from './TelephonePanel';

/** One press invites everyone who has no invitation yet; below it the letter, as each person gets it. */
export function InvitePage() {
  const course = useThisCourse();
  const members = useMembers(course.id);
  const { students } = course.counts;
  const ready = students > 0 && course.series.some((s) => s.publishedAt !== null);
  return (
    <Stack>
      <Title order={1} size="h2">
        Invitations
      </Title>
      {!ready && (
        <Empty
          action={
            <Anchor component={Link} to={`../${students === 0 ? 'class' : 'plan'}`} relative="path">
              {students === 0 ? 'Go to the class list' : 'Go to the plan'}
            </Anchor>
          }
        >
          {students === 0
            ? 'There is nobody to invite yet.'
            : 'There is no published session to invite to yet.'}
        </Empty>
      )}
      {ready && course.role === 'teacher' && members.data && <Send members={members.data} />}
      {students > 0 && <LetterEditor members={members.data ?? []} />}
      {course.role === 'teacher' && <TelephonePanel />}
    </Stack>
  );
}
