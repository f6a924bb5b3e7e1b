import {
  Badge,
  Button,
  Container,
  Group,
  Modal,
  Paper,
  Select,
  SimpleGrid,
  Stack,
  Text,
  TextInput,
  Title,
  UnstyledButton,
} from '@mantine/core';
import { useForm } from '@mantine/form';
import { useDisclosure } from '@mantine/hooks';
import { zod4Resolver } from 'mantine-form-zod-resolver';
import { useEffect } from 'react';
import { Link, useNavigate } from 'react-router';
import { rememberHome } from '../offline/register';
import { NewCourse, type CourseCard, type Me, type TermInfo } from '@nimble-bell/core/api';
import { countWords, dateIn, instantWords } from '@nimble-bell/core/calendar';
import { Fault } from '../ui/Fault';
import { FeedPanel } from '../ui/FeedPanel';
import { Empty } from '../ui/Panel';
import { Bar } from './Bar';
import { Person } from './PlanningFrame';
import { ApiError, useAsk } from './api';
import { serverNow } from './clock';
import { useAsked, useChange, useMe, stopOf } from './queries';
import classes from './frame.module.css';
import type { UseQueryResult } from '@tanstack/react-query';

/** All courses of this person, and the way to a new one. */
export function CoursesPage() {
  const me = useMe();
  const courses = useAsked<CourseCard[]>('/courses');
  useEffect(() => rememberHome('/courses'), []);
  const [adding, { open, close }] = useDisclosure();
  const stop = stopOf(courses);
  if (stop) return <Fault error={stop} />;
  return (
    <>
      <Bar>
        <span className={classes.grow} />
        <Person />
      </Bar>
      <Container size="lg" py={32} component="main" id="content">
        <Group justify="space-between" mb="lg">
          <Title order={1} size="h2">
            Your courses
          </Title>
          <Group>
            <Button variant="default" component={Link} to="/college">
              Terms and bell times
            </Button>
            <Button onClick={open}>New course</Button>
          </Group>
        </Group>
        {courses.data?.length === 0 && <Empty>You have no course yet.</Empty>}
        <Cards courses={courses.data?.filter((c) => c.archivedAt === null) ?? []} me={me} />
        <PutAway courses={courses.data?.filter((c) => c.archivedAt !== null) ?? []} me={me} />
        <div style={{ marginTop: 24 }}>
          <FeedPanel course={null} about="All your courses in your own calendar, and up to date." />
        </div>
        <Modal opened={adding} onClose={close} title="New course">
          <NewCourseForm />
        </Modal>
      </Container>
    </>
  );
}

interface CardsProps {
  courses: CourseCard[];
  me: UseQueryResult<Me>;
}

const Cards = ({ courses, me }: CardsProps) => (
  <SimpleGrid cols={{ base: 1, sm: 2, md: 3 }}>
    {courses.map((c) => (
      <Card key={c.id} c={c} me={me} />
    ))}
  </SimpleGrid>
);

/** Courses that are out of the way, behind one press. */
function PutAway({ courses, me }: CardsProps) {
  const [open, { toggle }] = useDisclosure();
  if (!courses.length) return null;
  return (
    <div style={{ marginTop: 24 }}>
      <Button variant="default" size="compact-sm" aria-expanded={open} onClick={toggle} mb="sm">
        {open ? 'Hide what is put away' : `Show ${countWords(courses.length, 'course')} put away`}
      </Button>
      {open && <Cards courses={courses} me={me} />}
    </div>
  );
}

/** The term that runs, or begins next, or was last: the one that a new course is most likely for. */
function likelyTerm(terms: readonly TermInfo[]): string | undefined {
  const ahead = terms.find((t) => t.lastDay >= dateIn(t.zone, serverNow()));
  return (ahead ?? terms.at(-1))?.id;
}

function NewCourseForm() {
  const ask = useAsk();
  const navigate = useNavigate();
  const terms = useAsked<TermInfo[]>('/terms');
  const form = useForm<NewCourse>({
    initialValues: { code: '', title: '' },
    validate: zod4Resolver(NewCourse),
  });
  const term = form.values.term ?? likelyTerm(terms.data ?? []);
  const create = useChange((course: NewCourse) => ask<{ id: string }>('/courses', 'POST', course));
  const submit = form.onSubmit((values) =>
    create.mutate(
      { ...values, ...(term ? { term } : {}) },
      {
        onSuccess: ({ id }) => void navigate(`/course/${id}/plan`),
        onError: (error) => {
          if (error instanceof ApiError) for (const f of error.fields) form.setFieldError(f.path, f.message);
        },
      },
    ),
  );
  return (
    <Stack component="form" onSubmit={submit as never}>
      <TextInput label="Code" placeholder="TID-101" data-autofocus {...form.getInputProps('code')} />
      <TextInput label="Title" placeholder="Reading the Tides" {...form.getInputProps('title')} />
      <Select
        label="Term"
        allowDeselect={false}
        data={terms.data?.map((t) => ({ value: t.id, label: t.name })) ?? []}
        value={term ?? null}
        onChange={(value) => value && form.setFieldValue('term', value)}
      />
      <Button type="submit" loading={create.isPending}>
        Create and plan it
      </Button>
    </Stack>
  );
}

function Card({ c, me }: { c: CourseCard; me: UseQueryResult<Me> }) {
  return (
    <UnstyledButton component={Link} to={`/course/${c.id}`}>
      <Paper withBorder p="lg" h="100%">
        <Group justify="space-between">
          <Text fw={650}>{c.code}</Text>
          <Text size="sm" c="dimmed">
            {c.role}
          </Text>
        </Group>
        <Title order={2} size="h4" mb="xs">
          {c.title}
        </Title>
        <Text size="sm" c="dimmed">
          {c.term} · {countWords(c.students, 'student')}
        </Text>
        {c.next ? (
          <Text size="sm" component="div">
            {c.next.state === 'live' ? (
              <Badge color="brass" variant="filled">
                In class now
              </Badge>
            ) : (
              <>Next: {instantWords(c.next.startsAt, me.data?.person?.zone ?? 'UTC')}</>
            )}
          </Text>
        ) : (
          <Text size="sm" c="dimmed">
            No session ahead
          </Text>
        )}
      </Paper>
    </UnstyledButton>
  );
}
