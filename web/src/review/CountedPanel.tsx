import { Group, NumberInput, Stack, Switch } from '@mantine/core';
import type { AfterRules } from '@nimble-bell/core/after';
import { RuleForm } from './RuleForm';

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
  ['perAnswer', 'An answer'],
] as const;

/** What is counted of a class, what it is worth, and what the class is asked. */
export const CountedPanel = ({ rules }: { rules: AfterRules }) => (
  <RuleForm
    title="What is counted and asked"
    about="For the whole course. What is switched off is not kept, and not shown."
    said="It is counted so from now on."
    rules={rules}
    asks={(after) => ({ after })}
  >
    {({ values, set, disabled, save }) => (
      <Stack gap="sm">
        {SWITCHES.map(([key, label, description]) => (
          <Switch
            key={key}
            {...{ label, description, disabled }}
            checked={values[key]}
            onChange={(e) => set({ [key]: e.currentTarget.checked })}
          />
        ))}
        <Group align="flex-end">
          {WORTHS.map(([key, label]) => (
            <NumberInput
              key={key}
              {...{ label, disabled }}
              w={170}
              min={0}
              max={100}
              allowDecimal={false}
              value={values[key]}
              onChange={(v) => typeof v === 'number' && set({ [key]: v })}
            />
          ))}
          {save}
        </Group>
      </Stack>
    )}
  </RuleForm>
);
