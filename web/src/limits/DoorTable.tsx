import { Anchor, Table, VisuallyHidden } from '@mantine/core';
import { COLLEGE_DOOR, DOOR_ROWS, type DoorRules } from '@nimble-bell/core/door';
import { dateIn, dateWords } from '@nimble-bell/core/calendar';
import { LAYER_WORDS } from '@nimble-bell/core/limits';
import { inForce, type Layer, type LayerName } from '@nimble-bell/core/settings';
import { Scrolls } from '../ui/Panel';
import { DoorControl } from './DoorControl';

/** What is chosen of a place's door and not saved; null takes back what is said there. */
export type DoorDraft = { [K in keyof DoorRules]?: DoorRules[K] | null };

interface DoorTableProps {
  /** The place itself is the last. */
  layers: readonly Layer[];
  draft: DoorDraft;
  /** Who set something. */
  names: Readonly<Record<string, string>>;
  zone: string;
  /** Null where it is only read. */
  set: ((key: keyof DoorRules, value: unknown) => void) | null;
}

/** A value of a place's door as it is with the draft, and where it is from. */
function valueAt({ layers, draft, names, zone }: DoorTableProps, key: keyof DoorRules) {
  const wider = inForce(layers.slice(0, -1), 'door', key);
  const own = inForce(layers.slice(-1), 'door', key);
  const chosen = draft[key];
  const value = chosen ?? (chosen === null ? undefined : own?.value) ?? wider?.value ?? COLLEGE_DOOR[key];
  if (chosen !== undefined && chosen !== null) return { value, from: 'not in force yet', own: true };
  if (chosen === null || !own) {
    const ofCollege = layers.length > 1 ? LAYER_WORDS.college : 'As it comes';
    const from = wider ? LAYER_WORDS[wider.because.layer] : ofCollege;
    return { value, from: chosen === null ? `${from}, not in force yet` : from, own: false };
  }
  const { by, at } = own.because;
  const who = by ? (names[by] ?? 'somebody') : 'the college';
  return { value, from: `here, by ${who}${at ? `, ${dateWords(dateIn(zone, at))}` : ''}`, own: true };
}

const BACK: Partial<Record<LayerName, string>> = { college: 'As it came', course: 'As the college' };

/** Every rule of a door, how it is at a place, and where that is from. */
export function DoorTable(props: DoorTableProps) {
  return (
    <Scrolls label="The door’s rules, scrolls">
      <Table layout="fixed" miw={560} verticalSpacing={6}>
        <Table.Thead>
          <Table.Tr>
            <Table.Th>Rule</Table.Th>
            <Table.Th>As it is</Table.Th>
            <Table.Th>Where it is from</Table.Th>
          </Table.Tr>
        </Table.Thead>
        {DOOR_ROWS.map((group) => (
          <Table.Tbody key={group.title}>
            <Table.Tr>
              <Table.Th colSpan={3} scope="rowgroup" c="dimmed" pt="md">
                {group.title}
              </Table.Th>
            </Table.Tr>
            {group.rows.map((row) => (
              <RuleRow key={row.key} row={row} {...props} />
            ))}
          </Table.Tbody>
        ))}
      </Table>
    </Scrolls>
  );
}

type RuleRowProps = DoorTableProps & { row: (typeof DOOR_ROWS)[number]['rows'][number] };

function RuleRow({ row, ...props }: RuleRowProps) {
  const { set, layers } = props;
  const { value, from, own } = valueAt(props, row.key);
  return (
    <Table.Tr>
      <Table.Th scope="row">{row.label}</Table.Th>
      <Table.Td>
        <DoorControl row={row} value={value} set={set && ((v) => set(row.key, v))} />
      </Table.Td>
      <Table.Td c={own ? undefined : 'dimmed'}>
        {from}{' '}
        {own && set && (
          <Anchor component="button" type="button" size="sm" onClick={() => set(row.key, null)}>
            {BACK[layers.at(-1)!.name] ?? 'As the wider place'}
            <VisuallyHidden>: {row.label}</VisuallyHidden>
          </Anchor>
        )}
      </Table.Td>
    </Table.Tr>
  );
}
