import { Button, Stack, Title } from '@mantine/core';
import { useContext, type ReactNode } from 'react';
import { Link, useParams } from 'react-router';
import type { RoomInfo } from '@nimble-bell/core/api';
import { LinkContext } from '../../app/api';
import { BellMark } from '../../app/Bar';
import classes from './doorway.module.css';

/** A page before or after the room: the bell, what it is, and a way on. */
export function Doorway({ title, children }: { title: string; children: ReactNode }) {
  return (
    <Stack component="main" align="center" justify="center" mih="100vh" p="lg" bg="var(--paper)" gap="md">
      <div className={classes.doorMark}>
        <BellMark size={40} />
      </div>
      <Title order={1} size="h2" ta="center">
        {title}
      </Title>
      {children}
    </Stack>
  );
}

/** Back to where one came from: a student's page, or the session with its roll and recording. */
export function WayBack({ info }: { info: RoomInfo | null }) {
  const link = useContext(LinkContext);
  const { code } = useParams();
  const [to, words] = link
    ? [`/in/${code}`, 'To the course page']
    : info
      ? [`/course/${info.course.id}/session/${info.session.id}`, 'To the session']
      : ['/courses', 'To your courses'];
  return (
    <Button component={Link} to={to} variant="default">
      {words}
    </Button>
  );
}
