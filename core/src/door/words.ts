import type { DoorRules } from './index';

const ENTRY_WORDS = { straight: 'walk straight in', knocks: 'knock', not: 'do not come in' } as const;

interface Choice<T> {
  kind: 'choice';
  options: readonly { value: T; label: string }[];
}
interface Minutes {
  kind: 'minutes';
  /** After the number. */
  unit: string;
  least: number;
  most: number;
}
interface Switch {
  kind: 'switch';
  on: string;
  off: string;
}

/** How one rule of the door is set and said. */
export type DoorRow<K extends keyof DoorRules = keyof DoorRules> = {
  key: K;
  label: string;
} & (DoorRules[K] extends number ? Minutes : DoorRules[K] extends boolean ? Switch : Choice<DoorRules[K]>);

type AnyRow = { [K in keyof DoorRules]: DoorRow<K> }[keyof DoorRules];

const entries = <T extends keyof typeof ENTRY_WORDS>(...values: T[]) =>
  values.map((value) => ({ value, label: ENTRY_WORDS[value] }));
const minutes = (unit: string, least = 0, most = 240): Minutes => ({ kind: 'minutes', unit, least, most });

/** Every rule of the door, in the order in which a class comes to it. */
export const DOOR_ROWS: readonly { title: string; rows: readonly AnyRow[] }[] = [
  {
    title: 'When it opens',
    rows: [
      { key: 'opensMinutesBefore', label: 'It opens', ...minutes('min before the start') },
      {
        key: 'teacherFirst',
        label: 'A teacher goes first',
        ...{
          kind: 'switch',
          on: 'not before a teacher has rung in',
          off: 'whether a teacher is there or not',
        },
      },
      {
        key: 'missingMinutes',
        label: 'Where nobody rings in',
        ...minutes('min after the start the others are told', 0, 60),
      },
      {
        key: 'aloneMinutes',
        label: 'Without a teacher it closes',
        ...minutes('min after the last one left', 1, 60),
      },
    ],
  },
  {
    title: 'Who comes in, and how',
    rows: [
      { key: 'classList', label: 'The class list', kind: 'choice', options: entries('straight', 'knocks') },
      { key: 'guests', label: 'Guests', kind: 'choice', options: entries('straight', 'knocks', 'not') },
      {
        key: 'accounts',
        label: 'College accounts',
        kind: 'choice',
        options: entries('straight', 'knocks', 'not'),
      },
      { key: 'visitors', label: 'Visitors', kind: 'choice', options: entries('straight', 'knocks', 'not') },
      {
        key: 'telephone',
        label: 'By telephone',
        kind: 'choice',
        options: entries('straight', 'knocks', 'not'),
      },
      {
        key: 'late',
        label: 'Who is late',
        kind: 'choice',
        options: [{ value: 'straight', label: 'as anybody' }, ...entries('knocks', 'not')],
      },
      { key: 'lateMinutes', label: 'Late is', ...minutes('min after the start') },
    ],
  },
  {
    title: 'On arrival',
    rows: [
      {
        key: 'cameras',
        label: 'Cameras',
        kind: 'choice',
        options: [
          { value: 'off', label: 'are off' },
          { value: 'choice', label: 'by their own choice' },
        ],
      },
      {
        key: 'arrivalsFor',
        label: 'Who is told who comes and goes',
        kind: 'choice',
        options: [
          { value: 'nobody', label: 'nobody' },
          { value: 'teachers', label: 'those who teach' },
          { value: 'everyone', label: 'everyone' },
        ],
      },
      {
        key: 'arrivalsBy',
        label: 'How they are told',
        kind: 'choice',
        options: [
          { value: 'line', label: 'a line' },
          { value: 'bell', label: 'a bell' },
        ],
      },
    ],
  },
];

const ROWS = new Map(DOOR_ROWS.flatMap((group) => group.rows).map((row) => [row.key, row]));

/** A rule with its value, as in "the class list: knock". */
export function doorRuleWords<K extends keyof DoorRules>(key: K, value: DoorRules[K]): string {
  const row = ROWS.get(key)!;
  const label = row.label.charAt(0).toLowerCase() + row.label.slice(1);
  if (row.kind === 'minutes') return `${label} ${String(value)} ${row.unit}`;
  if (row.kind === 'switch') return value ? row.on : row.off;
  return `${label}: ${row.options.find((o) => o.value === value)?.label ?? String(value)}`;
}
