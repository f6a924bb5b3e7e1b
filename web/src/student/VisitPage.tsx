import { Alert, Button, Container, Paper, Stack, Text, TextInput, Title } from '@mantine/core';
import { useMutation } from '@tanstack/react-query';
import { useState } from 'react';
import { useNavigate, useParams } from 'react-router';
import { Bar } from '../app/Bar';
import { useAsk } from '../app/api';
import { useAsked, useMe, stopOf } from '../app/queries';
import { Fault } from '../ui/Fault';

/** The door of the class link: a name and the passcode make a link of one's own for the next session. */
export function VisitPage() {
  const { code } = useParams();
  const ask = useAsk();
  const navigate = useNavigate();
  const course = useAsked<{ code: string; title: string }>(`/class/${code}`);
  const [name, setName] = useState('');
  const [passcode, setPasscode] = useState('');
  const person = useMe().data?.person ?? null;
  const enter = useMutation({
    mutationFn: () => ask<{ path: string }>(`/class/${code}`, 'POST', person ? {} : { name, passcode }),
    onSuccess: ({ path }) => navigate(path),
  });
  const stop = stopOf(course);
  if (stop) return <Fault error={stop} />;
  return (
    <>
      <Bar />
      <Container size="xs" py="xl" component="main" id="content">
        <Title order={1} size="h2" mb="md">
          {course.data ? `${course.data.code} ${course.data.title}` : 'A class'}
        </Title>
        <Paper withBorder p="lg">
          <form
            onSubmit={(e) => {
              e.preventDefault();
              enter.mutate();
            }}
          >
            <Stack>
              <Text>
                If you had an invitation, use the link in it. With this one you come to the next session as a
                guest.
              </Text>
              {person && <Text fw={600}>You come as {person.name}, by your account.</Text>}
              {!person && <Fields {...{ name, setName, passcode, setPasscode }} />}
              {enter.error && <Alert color="clay">{enter.error.message}</Alert>}
              <Button type="submit" loading={enter.isPending}>
                Go to the class
              </Button>
            </Stack>
          </form>
        </Paper>
      </Container>
    </>
  );
}

interface FieldsProps {
  name: string;
  setName: (name: string) => void;
  passcode: string;
  setPasscode: (passcode: string) => void;
}

/** What somebody says of themselves who is not signed in. */
function Fields({ name, setName, passcode, setPasscode }: FieldsProps) {
  return (
    <>
      <TextInput
        label="Your name"
        required
        autoFocus
        maxLength={120}
        value={name}
        onChange={(e) => setName(e.currentTarget.value)}
      />
      <TextInput
        label="Passcode"
        required
        value={passcode}
        onChange={(e) => setPasscode(e.currentTarget.value)}
      />
    </>
  );
}
