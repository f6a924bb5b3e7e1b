import { Anchor, Text } from '@mantine/core';
import { Link } from 'react-router';
import { listWords } from '@nimble-bell/core/calendar';
import { exceptionWords } from '@nimble-bell/core/limits';
import { useThisCourse } from '../app/course';
import { useRules } from '../limits/useRules';

/** Who of the class may, or may not, otherwise than the others, and the way to where that is set. */
export function Excepted() {
  const { id, term } = useThisCourse();
  const list = useRules().data?.exceptions ?? [];
  if (!list.length) return null;
  const words = list.map((e) => `${e.name} (${exceptionWords(e, term.zone)})`);
  return (
    <Text size="sm" mb="sm">
      <Anchor component={Link} underline="always" to={`/course/${id}/limits/exceptions`}>
        Exceptions
      </Anchor>
      : {listWords(words)}.
    </Text>
  );
}
