import { Anchor, Container, Text, Title } from '@mantine/core';
import { Link } from 'react-router';
import { ApiError } from '../app/api';

const HEADS: Record<string, string> = {
  'not-signed-in': 'Sign in to see this page',
  'off-list': 'This link is shut',
  'link-unknown': 'This link opens nothing',
};
const headOf = (error: Error) =>
  (error instanceof ApiError && HEADS[error.code]) || 'This page cannot be shown';

/** A page that cannot be shown, and what one can do. */
export function Fault({ error }: { error: Error }) {
  return (
    <Container size="xs" py={80} component="main">
      <Title order={1} size="h2" mb="sm">
        {headOf(error)}
      </Title>
      <Text mb="md">{error.message}</Text>
      <Anchor component={Link} to="/">
        Go to the entrance
      </Anchor>
    </Container>
  );
}
