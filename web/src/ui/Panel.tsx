import { Group, Paper, Text, Title } from '@mantine/core';
import type { ReactNode } from 'react';
import classes from './parts.module.css';

/** A titled surface: what it is, what it holds, what one can do with it. */
export function Panel(props: { title: string; about?: ReactNode; action?: ReactNode; children: ReactNode }) {
  return (
    <Paper withBorder p={{ base: 'sm', xs: 'lg' }} component="section" aria-label={props.title}>
      <Group justify="space-between" align="flex-start" mb="sm">
        <div className={classes.panelTitle}>
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

/** What may be wider than its window: it scrolls in its own place, by key as well. */
export function Scrolls({ label, children }: { label: string; children: ReactNode }) {
  return (
    <div className={classes.scrolls} role="group" aria-label={label} tabIndex={0} data-scrolls>
      {children}
    </div>
  );
}
