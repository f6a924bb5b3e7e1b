import { Group, Radio, Table, Text } from '@mantine/core';
import type { Capability, Limits, Permission } from '@nimble-bell/core/api';
import { PERMISSION_WORDS, PERMISSIONS, rowOf, CAPABILITY_IDS } from '@nimble-bell/core/limits';
import { Scrolls } from '../ui/Panel';
import { PermissionMark } from '../ui/PermissionMark';

const ABOUT: Record<Permission, string> = {
  closed: 'nobody does it',
  byHand: 'a raised hand, and you give the floor to that one',
  open: 'everyone may',
};

interface LimitsTableProps {
  limits: Limits;
  /** Null where it is only read. */
  set: ((capability: Capability, state: Permission) => void) | null;
}

/** Every capability with the states that make sense of it, one of them chosen. */
export const LimitsTable = ({ limits, set }: LimitsTableProps) => (
  <Scrolls label="Limits, scrolls">
    <Table fz="md" verticalSpacing={9} withRowBorders layout="fixed" miw={480}>
      <Heads />
      <Table.Tbody>
        {CAPABILITY_IDS.map((c) => (
          <LimitRow key={c} capability={c} state={limits[c]} set={set && ((state) => set(c, state))} />
        ))}
      </Table.Tbody>
    </Table>
  </Scrolls>
);

interface LimitRowProps {
  capability: Capability;
  state: Permission;
  set: ((state: Permission) => void) | null;
}

const LimitRow = ({ capability: c, state, set }: LimitRowProps) => (
  <Table.Tr>
    <Table.Th scope="row">{rowOf(c).label}</Table.Th>
    {PERMISSIONS.map((p) => (
      <Table.Td key={p}>
        {rowOf(c).states.includes(p) && (
          <Radio
            name={c}
            value={p}
            disabled={!set}
            aria-label={`${rowOf(c).label}: ${PERMISSION_WORDS[p]}`}
            checked={state === p}
            onChange={() => set?.(p)}
          />
        )}
      </Table.Td>
    ))}
  </Table.Tr>
);

function Heads() {
  return (
    <Table.Thead>
      <Table.Tr>
        <Table.Th scope="col">Students</Table.Th>
        {PERMISSIONS.map((p) => (
          <Table.Th key={p} scope="col">
            <Group gap={8} wrap="nowrap">
              <PermissionMark state={p} />
              <span>
                {PERMISSION_WORDS[p]}
                <Text size="xs" c="dimmed" fw={400}>
                  {ABOUT[p]}
                </Text>
              </span>
            </Group>
          </Table.Th>
        ))}
      </Table.Tr>
    </Table.Thead>
  );
}
