import { Button, Group, Paper, Text } from '@mantine/core';
import { useNow } from '../app/clock';

const FRESH_MS = 15 * 60_000;

/** The change just made, and its way back by one press; an older one is in the history. */
export function LatestChange(props: {
  at: number;
  words: string;
  undo: () => void;
  undoing: boolean;
  /** The space below it. */
  mb?: string;
}) {
  const now = useNow(20_000);
  if (now - props.at > FRESH_MS) return null;
  return (
    <Paper withBorder px="md" py={6} mb={props.mb ?? 0} role="status">
      <Group justify="space-between" wrap="nowrap">
        <Text size="sm" style={{ minWidth: 0 }}>
          {props.words}
        </Text>
        <Button
          variant="default"
          size="compact-sm"
          style={{ flex: 'none' }}
          loading={props.undoing}
          onClick={props.undo}
        >
          Undo
        </Button>
      </Group>
    </Paper>
  );
}
