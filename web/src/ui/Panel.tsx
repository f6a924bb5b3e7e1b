import { Group, Paper, Text, Title } from '@mantine/core';
import type { ReactNode } from 'react';

/** A titled surface: what it is, what it holds, what one can do with it. */
export function Panel(props: { title: string; about?: ReactNode; action?: ReactNode; children: ReactNode }) {
  return (
    <Paper withBorder p="lg" component="section" aria-label={props.title}>
      <Group justify="space-between" align="flex-start" mb="sm" wrap="nowrap">
        <div>
          <Title order={2} size="h4">
            {props.title}
          </Title>
          {props.about && (
            <Text size="sm" c="dimmed">
              {props.about}
            </Text>
          )}
        </div>
        {props.action}
      </Group>
      {props.children}
    </Paper>
  );
}

/** What stands where a list is empty: what is missing, and the way to it. */
export function Empty({ children, action }: { children: ReactNode; action?: ReactNode }) {
  return (
    <Group justify="space-between" py="md" px="md" bg="var(--paper)" style={{ borderRadius: 6 }}>
      <Text c="dimmed">{children}</Text>
      {action}
    </Group>
  );
}
