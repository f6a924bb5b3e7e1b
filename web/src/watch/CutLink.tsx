import { Button } from '@mantine/core';
import { Link, useParams } from 'react-router';

/** The way to where a recording is cut. */
export function CutLink({ recording }: { recording: string }) {
  const { course } = useParams();
  return (
    <Button component={Link} to={`/course/${course}/watch/${recording}/cut`} variant="default">
      Cut …
    </Button>
  );
}
