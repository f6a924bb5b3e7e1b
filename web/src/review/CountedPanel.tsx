import { Button, Group, NumberInput, Stack, Switch } from '@mantine/core';
import { useState } from 'react';
import type { AfterRules } from '@nimble-bell/core/after';
import { useThisCourse } from '../app/course';
import { LatestRules } from '../limits/LatestRules';
import { useSetRules } from '../limits/useRules';
import { Panel } from '../ui/Panel';

const SWITCHES = [
  ['participation', 'Count who takes part', 'Students read that it is counted, and see their own.'],
  ['watching', 'Count who watches recordings', 'Where one left off is kept for each all the same.'],
  [
    'thoughts',
    'Ask the class what it thought',
    'When a class is over, for two days; no name is kept with it.',
  ],
] as const;
const WORTHS = [
  ['perMinute', 'A spoken minute is worth'],
  ['perLine', 'A written line'],
  ['perHand', 'A raised hand'],
] as const;

/** What is counted of a class, what it is worth, and what the class is asked. */
export function CountedPanel({ rules }: { rules: AfterRules }) {
  const { role } = useThisCourse();
  const [changed, setChanged] = useState<Partial<AfterRules>>({});
  const save = useSetRules('It is counted so from now on.');
  const mayPlan = role === 'teacher';
  return (
    <Panel
      title="What is counted and asked"
      about="For the whole course. What is switched off is not kept, and not shown."
    >
      {mayPlan && <LatestRules />}
      <form
        onSubmit={(e) => {
          e.preventDefault();
          save.mutate({ at: { layer: 'course' }, after: changed }, { onSuccess: () => setChanged({}) });
        }}
      >
        <Stack gap="sm">
          {SWITCHES.map(([key, label, description]) => (
            <Switch
              key={key}
              {...{ label, description }}
              disabled={!mayPlan}
              checked={changed[key] ?? rules[key]}
              onChange={(e) => setChanged({ ...changed, [key]: e.currentTarget.checked })}
            />
          ))}
          <Group align="flex-end">
            {WORTHS.map(([key, label]) => (
              <NumberInput
                key={key}
                label={label}
                w={170}
                min={0}
                max={100}
                allowDecimal={false}
                disabled={!mayPlan}
                value={changed[key] ?? rules[key]}
                onChange={(v) => typeof v === 'number' && setChanged({ ...changed, [key]: v })}
              />
            ))}
            {mayPlan && (
              <Button type="submit" loading={save.isPending} disabled={!Object.keys(changed).length}>
                Save
              </Button>
            )}
          </Group>
        </Stack>
      </form>
    </Panel>
  );
}
