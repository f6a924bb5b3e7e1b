import {
  Alert,
  Anchor,
  Box,
  Button,
  Container,
  Divider,
  Paper,
  SimpleGrid,
  Stack,
  Text,
  Title,
} from '@mantine/core';
import { useDeferredValue } from 'react';
import { Link, Navigate } from 'react-router';
import type { DemoEntrance } from '@nimble-bell/core/api';
import { Bar } from './Bar';
import SignInForm, { useSignIn } from '../ui/SignInForm';
import { useAsked, useMe } from './queries';

/** Sign in; in the demo, also who one can enter as. */
export function EntrancePage() {
  const me = useMe();
  // Drawn in slices: a weak phone answers meanwhile.
  const demo = useDeferredValue(me.data?.demo);
  if (me.data?.person) return <Navigate to="/courses" replace />;
  return (
    <>
      <Bar />
      <Container size="md" py={48} component="main" id="content">
        <Title order={1} mb={4}>
          A term of classes, rung in on time
        </Title>
        <Text c="dimmed" size="lg" mb="xl" maw={620}>
          Plan the sessions, invite the class, say what students may do, teach, and watch it again afterwards.
        </Text>
        <SimpleGrid cols={{ base: 1, sm: demo ? 2 : 1 }} spacing="lg" maw={demo ? undefined : 440}>
          <SignIn />
          {demo && <DemoDoors />}
        </SimpleGrid>
      </Container>
    </>
  );
}

function SignIn() {
  return (
    <Paper withBorder p="lg" component="section" aria-label="Sign in">
      <Title order={2} size="h4" mb="md">
        Sign in
      </Title>
      <SignInForm />
      <Text size="sm" c="dimmed" mt="md">
        Students need no account: follow the link in your invitation.
      </Text>
    </Paper>
  );
}

function DemoDoors() {
  const { signIn, fault } = useSignIn();
  const demo = useAsked<DemoEntrance>('/demo');
  return (
    <Paper withBorder p="lg" bg="var(--brass-wash)" component="section" aria-label="The demo">
      <Title order={2} size="h4" mb={4}>
        Saltmarsh Open College, a demo
      </Title>
      <Text size="sm" mb="md">
        An evening college by the sea. A lecture of NAV-210 starts within the hour.
      </Text>
      <Stack gap="xs">
        {demo.data?.people.map((p) => (
          <Box key={p.email}>
            <Button
              variant="white"
              fullWidth
              justify="space-between"
              onClick={() => void signIn(p.email, demo.data.password)}
              rightSection={<Text size="sm">{p.role}</Text>}
            >
              Enter as {p.name}
            </Button>
          </Box>
        ))}
        {fault && <Alert color="clay">{fault}</Alert>}
        <Divider my={4} color="brass.3" />
        {demo.data?.links.map((l) => (
          <Anchor key={l.path} component={Link} to={l.path} c="var(--ink)" underline="always">
            {l.name}, {l.about}
          </Anchor>
        ))}
        <Anchor component={Link} to="/mailbox" c="var(--ink)" underline="always">
          Everyone&apos;s post
        </Anchor>
        <Anchor component={Link} to="/telephone" c="var(--ink)" underline="always">
          A telephone, to call a class
        </Anchor>
      </Stack>
    </Paper>
  );
}
