import { NumberInput, Select, Switch } from '@mantine/core';
import { useState } from 'react';
import type { DoorRow, DoorRules } from '@nimble-bell/core/door';

type AnyRow = { [K in keyof DoorRules]: DoorRow<K> }[keyof DoorRules];

interface ControlProps {
  row: AnyRow;
  value: DoorRules[keyof DoorRules];
  /** Null where it is only read. */
  set: ((value: DoorRules[keyof DoorRules]) => void) | null;
}

/** One rule of the door, to be set. */
export function DoorControl({ row, value, set }: ControlProps) {
  // Emptied to be typed anew: what holds is what was there until then.
  const [empty, setEmpty] = useState(false);
  const how = { 'aria-label': row.label, disabled: !set };
  if (row.kind === 'minutes')
    return (
      <NumberInput
        {...how}
        suffix={` ${row.unit}`}
        min={row.least}
        max={row.most}
        allowDecimal={false}
        value={empty ? '' : (value as number)}
        onChange={(v) => {
          setEmpty(v === '');
          if (typeof v === 'number') set?.(v);
        }}
        onBlur={() => setEmpty(false)}
      />
    );
  if (row.kind === 'switch')
    return (
      <Switch
        {...how}
        label={value ? row.on : row.off}
        checked={value as boolean}
        onChange={(e) => set?.(e.currentTarget.checked)}
      />
    );
  return (
    <Select
      {...how}
      data={[...row.options]}
      value={value as string}
      allowDeselect={false}
      onChange={(v) => v && set?.(v as never)}
    />
  );
}
