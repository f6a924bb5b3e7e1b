import { Button, Group, Text } from '@mantine/core';

interface EndingProps {
  /** What the button saves: "Save the door". */
  label: string;
  save: () => void;
  saving: boolean;
  /** Something is chosen that is not saved. */
  dirty: boolean;
  /** Saved as it is, where nothing was said yet. */
  saves?: boolean;
  back: () => void;
}

/** The end of a form of rules: saved, or back to what is saved; what is half done is said not to be in force. */
export function Ending({ label, save, saving, dirty, saves = dirty, back }: EndingProps) {
  return (
    <Group mt="md">
      <Button loading={saving} disabled={!saves} onClick={save}>
        {label}
      </Button>
      {dirty && (
        <>
          <Button variant="default" onClick={back}>
            Back to what is saved
          </Button>
          <Text size="sm" c="dimmed">
            Not in force yet. It is kept if you leave the page.
          </Text>
        </>
      )}
    </Group>
  );
}
