import { Anchor, Text } from '@mantine/core';
import type { MaterialInfo } from '@nimble-bell/core/api';

export const sizeWords = (bytes: number): string =>
  bytes < 1_000_000 ? `${Math.max(1, Math.round(bytes / 1000))} kB` : `${(bytes / 1_000_000).toFixed(1)} MB`;

/** Files and links, to open. */
export function Materials({ materials }: { materials: MaterialInfo[] }) {
  return (
    <ul style={{ margin: 0, paddingLeft: 18 }}>
      {materials.map((m) => (
        <li key={m.id}>
          <Anchor href={m.url} target={m.kind === 'link' ? '_blank' : undefined} rel="noreferrer">
            {m.name}
          </Anchor>{' '}
          <Text span size="sm" c="dimmed">
            {m.kind === 'file' ? sizeWords(m.bytes) : 'link'}
          </Text>
        </li>
      ))}
    </ul>
  );
}
