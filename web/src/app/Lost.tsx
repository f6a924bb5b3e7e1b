import { Anchor, Button, Container, Text, Title } from '@mantine/core';
import { Link } from 'react-router';

/** An address that leads nowhere, or a page that broke. */
export function Lost() {
  return (
    <Container size="xs" py={96} component="main" id="content">
      <Title order={1} mb="sm">
        There is nothing here
      </Title>
      <Text mb="md">The address may be old, or the page has failed. Nothing that was saved is lost.</Text>
      <Anchor component={Link} to="/">
        Go to the entrance
      </Anchor>
    </Container>
  );
}

/** A page whose code did not come. */
export function NotFetched() {
  return (
    <Container size="xs" py={96} component="main" id="content">
      <Title order={1} mb="sm">
        This page did not come
      </Title>
      <Text mb="md">
        The line is down, or Nimble Bell was renewed since this tab was opened. What was saved is there; what
        you typed is kept where it says so.
      </Text>
      <Button onClick={() => window.location.reload()}>Load it anew</Button>
    </Container>
  );
}
