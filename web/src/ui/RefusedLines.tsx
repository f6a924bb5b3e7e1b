import { Text } from '@mantine/core';

const SHOWN = 12;

/** What of a file is left out, each with its reason. */
export function RefusedLines({ lines }: { lines: readonly { title: string; reason: string }[] }) {
  if (!lines.length) return null;
  return (
    <>
      <Text size="sm" fw={600} mt="xs">
        Left out
      </Text>
      {lines.slice(0, SHOWN).map((b, i) => (
        <Text key={i} size="sm">
          {b.title}: {b.reason}
        </Text>
      ))}
      {lines.length > SHOWN && <Text size="sm">and {lines.length - SHOWN} more</Text>}
    </>
  );
}
