import { Button, Group, NumberInput } from '@mantine/core';
import { useState } from 'react';
import type { RollBookInfo } from '@nimble-bell/core/api';
import { useThisCourse } from '../app/course';
import { LatestRules } from '../limits/LatestRules';
import { useSetRules } from '../limits/useRules';
import { Panel } from '../ui/Panel';

const FIELDS = [
  ['lateAfterMinutes', 'Late, from so many minutes after the start', 120],
  ['earlyBeforeMinutes', 'Left early, so many minutes before the end', 120],
  ['enoughMinutes', 'Absent, who was there for fewer minutes', 720],
] as const;

/** By which rules the roll is made; with a change of them every roll of the course is judged anew. */
export function RollRulesPanel({ rules }: { rules: RollBookInfo['rules'] }) {
  const { role } = useThisCourse();
  const [changed, setChanged] = useState<Partial<RollBookInfo['rules']>>({});
  const save = useSetRules('Every roll is judged by it.');
  const mayPlan = role === 'teacher';
  return (
    <Panel
      title="What counts as what"
      about="Rolls of sessions that are over are judged anew; what you corrected stays."
    >
      {mayPlan && <LatestRules />}
      <form
        onSubmit={(e) => {
          e.preventDefault();
          save.mutate({ at: { layer: 'course' }, roll: changed }, { onSuccess: () => setChanged({}) });
        }}
      >
        <Group align="flex-end">
          {FIELDS.map(([key, label, max]) => (
            <NumberInput
              key={key}
              label={label}
              min={0}
              max={max}
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
      </form>
    </Panel>
  );
}
