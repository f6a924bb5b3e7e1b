import { Table, VisuallyHidden } from '@mantine/core';

interface Props {
  of: readonly string[];
  /** The one over figures, which stand at the right. */
  figures?: string;
  quiet?: boolean;
}

/** The heads of a table's columns; quiet ones are read and not drawn, where the rows explain themselves to the eye. */
export function Heads({ of, figures, quiet = false }: Props) {
  return (
    <Table.Thead>
      <Table.Tr {...(quiet ? { style: { border: 0 } } : {})}>
        {of.map((head) => (
          <Table.Th
            key={head}
            scope="col"
            {...(head === figures ? { ta: 'right' } : {})}
            {...(quiet ? { p: 0 } : {})}
          >
            {quiet ? <VisuallyHidden>{head}</VisuallyHidden> : head}
          </Table.Th>
        ))}
      </Table.Tr>
    </Table.Thead>
  );
}
