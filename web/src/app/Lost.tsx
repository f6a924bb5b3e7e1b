import { Anchor, Container, Text, Title } from '@mantine/core';
import { Link } from 'react-router';

/** An address that leads nowhere, or a page that broke. */
export function Lost() {
  return (
    <Container size="xs" py={96} component="main">
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
