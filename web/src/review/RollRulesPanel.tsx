import { Group, NumberInput } from '@mantine/core';
import type { RollBookInfo } from '@nimble-bell/core/api';
import { RuleForm } from './RuleForm';

const FIELDS = [
  ['lateAfterMinutes', 'Late, from so many minutes after the start', 120],
  ['earlyBeforeMinutes', 'Left early, so many minutes before the end', 120],
  ['enoughMinutes', 'Absent, who was there for fewer minutes', 720],
] as const;

/** By which rules the roll is made; with a change of them every roll of the course is judged anew. */
export const RollRulesPanel = ({ rules }: { rules: RollBookInfo['rules'] }) => (
  <RuleForm
    title="What counts as what"
    about="Rolls of sessions that are over are judged anew; what you corrected stays."
    said="Every roll is judged by it."
    rules={rules}
    asks={(roll) => ({ roll })}
  >
    {({ values, set, disabled, save }) => (
      <Group align="flex-end">
        {FIELDS.map(([key, label, max]) => (
          <NumberInput
            key={key}
            {...{ label, max, disabled }}
            min={0}
            allowDecimal={false}
            value={values[key]}
            onChange={(v) => typeof v === 'number' && set({ [key]: v })}
          />
        ))}
        {save}
      </Group>
    )}
  </RuleForm>
);
