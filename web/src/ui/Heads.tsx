import { Table, VisuallyHidden } from '@mantine/core';

/** The heads of a table's columns; quiet ones are read and not drawn, where the rows explain themselves to the eye. */
export function Heads({ of, quiet = false }: { of: readonly string[]; quiet?: boolean }) {
  return (
    <Table.Thead>
      <Table.Tr {...(quiet ? { style: { border: 0 } } : {})}>
        {of.map((head) => (
          <Table.Th key={head} scope="col" {...(quiet ? { p: 0 } : {})}>
            {quiet ? <VisuallyHidden>{head}</VisuallyHidden> : head}
          </Table.Th>
        ))}
      </Table.Tr>
    </Table.Thead>
  );
}
