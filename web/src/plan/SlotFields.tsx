import { Group, MultiSelect, NumberInput, Select, TextInput } from '@mantine/core';
import { TimePicker } from '@mantine/dates';
import type { Weekday } from '@nimble-bell/core/api';
import { weekdayData } from './PatternFields';

export interface SlotForm {
  title: string;
  days: Weekday[];
  from: string;
  to: string;
  minutes: number | '';
  gap: number | '';
  way: 'staggered' | 'simultaneous';
  every: number | '';
}

const numeric = (v: number | string) => (typeof v === 'number' ? v : '');

/** When the groups may meet, and for how long. */
export function SlotFields({ slots, set }: { slots: SlotForm; set: (more: Partial<SlotForm>) => void }) {
  return (
    <Group align="flex-end">
      <TextInput
        label="Called"
        w={170}
        maxLength={70}
        value={slots.title}
        onChange={(e) => set({ title: e.currentTarget.value })}
      />
      <MultiSelect
        label="Weekdays"
        w={200}
        data={weekdayData}
        value={slots.days}
        onChange={(v) => set({ days: v as Weekday[] })}
      />
      <TimePicker
        label="From"
        hoursInputLabel="From, hour"
        minutesInputLabel="From, minute"
        w={105}
        value={slots.from}
        onChange={(v) => set({ from: v })}
      />
      <TimePicker
        label="Until"
        hoursInputLabel="Until, hour"
        minutesInputLabel="Until, minute"
        w={105}
        value={slots.to}
        onChange={(v) => set({ to: v })}
      />
      <Lengths slots={slots} set={set} />
      <Select
        label="Slots"
        w={170}
        allowDeselect={false}
        data={[
          { value: 'staggered', label: 'one after another' },
          { value: 'simultaneous', label: 'all at once' },
        ]}
        value={slots.way}
        onChange={(v) => set({ way: v as SlotForm['way'] })}
      />
      <NumberInput
        label="Every … weeks"
        min={1}
        max={8}
        w={120}
        value={slots.every}
        onChange={(v) => set({ every: numeric(v) })}
      />
    </Group>
  );
}

function Lengths({ slots, set }: { slots: SlotForm; set: (more: Partial<SlotForm>) => void }) {
  return (
    <>
      <NumberInput
        label="Length"
        suffix=" min"
        min={1}
        max={720}
        w={110}
        value={slots.minutes}
        onChange={(v) => set({ minutes: numeric(v) })}
      />
      <NumberInput
        label="Between"
        suffix=" min"
        min={0}
        max={120}
        w={110}
        value={slots.gap}
        onChange={(v) => set({ gap: numeric(v) })}
      />
    </>
  );
}
