import { Anchor, Container, Text, Title } from '@mantine/core';
import { Link } from 'react-router';
import { lazy, Suspense, useEffect } from 'react';
import { ApiError } from '../app/api';
import { known } from '../app/line';

const SignInForm = lazy(() => import('./SignInForm'));

const HEADS: Record<string, string> = {
  'not-signed-in': 'Sign in to see this page',
  'off-list': 'This link is shut',
  'link-unknown': 'This link opens nothing',
};
const headOf = (error: Error) =>
  (error instanceof ApiError && HEADS[error.code]) || 'This page cannot be shown';

/** A page that cannot be shown, and what one can do. */
export function Fault({ error }: { error: Error }) {
  // The page itself asks who one is: nothing over it does.
  useEffect(known);
  return (
    <Container size="xs" py={80} component="main">
      <Title order={1} size="h2" mb="sm">
        {headOf(error)}
      </Title>
      <Text mb="md">{error.message}</Text>
      {error instanceof ApiError && error.code === 'not-signed-in' && (
        <Suspense>
          <div style={{ marginBottom: 24 }}>
            <SignInForm done={known} />
          </div>
        </Suspense>
      )}
      <Anchor component={Link} to="/">
        Go to the entrance
      </Anchor>
    </Container>
  );
}
