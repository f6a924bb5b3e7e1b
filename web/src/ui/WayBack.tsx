import { Button, Text } from '@mantine/core';

/** The way back of an entry of a history: the button, or why there is none. */
export function WayBack(props: {
  entry: { undoneAt: number | null; undoable: boolean; spent: boolean };
  /** Whether whoever looks may take things back. */
  may: boolean;
  busy: boolean;
  undo: () => void;
}) {
  const { undoneAt, undoable, spent } = props.entry;
  if (undoneAt !== null || spent)
    return (
      <Text size="sm" c="dimmed">
        {undoneAt !== null ? 'undone' : 'nothing left to undo'}
      </Text>
    );
  if (!undoable || !props.may) return null;
  return (
    <Button size="compact-sm" variant="default" loading={props.busy} onClick={props.undo}>
      Undo
    </Button>
  );
}
