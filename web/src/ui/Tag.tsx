import { Badge } from '@mantine/core';

/** A word about a thing, beside its name: draft, listed, pinned. Readable in both themes. */
export function Tag({ children }: { children: string }) {
  return (
    <Badge variant="outline" tt="none" style={{ color: 'var(--ink)', borderColor: 'var(--brass)' }}>
      {children}
    </Badge>
  );
}
