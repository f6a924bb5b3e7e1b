import { Anchor, Container, Text, Title } from '@mantine/core';
import { Link } from 'react-router';
import { ApiError } from '../app/api';

/** A page that cannot be shown, and what one can do. */
export function Fault({ error }: { error: Error }) {
  const signIn = error instanceof ApiError && error.code === 'not-signed-in';
  return (
    <Container size="xs" py={80} component="main">
      <Title order={1} size="h2" mb="sm">
        {signIn ? 'Sign in to see this page' : 'This page cannot be shown'}
      </Title>
      <Text mb="md">{error.message}</Text>
      <Anchor component={Link} to="/">
        Go to the entrance
      </Anchor>
    </Container>
  );
}
