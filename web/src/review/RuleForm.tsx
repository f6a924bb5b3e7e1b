import { Button } from '@mantine/core';
import { useState, type ReactNode } from 'react';
import type { RulesInput } from '@nimble-bell/core/api';
import { useThisCourse } from '../app/course';
import { LatestRules } from '../limits/LatestRules';
import { useSetRules } from '../limits/useRules';
import { Panel } from '../ui/Panel';

/** What the fields of such a form have: the values as they are typed, and the press that sets them. */
export interface Fields<V> {
  values: V;
  set: (next: Partial<V>) => void;
  disabled: boolean;
  save: ReactNode;
}

interface RuleFormProps<V> {
  title: string;
  about: string;
  /** What is said when it is set. */
  said: string;
  rules: V;
  /** What a change of them asks of the course. */
  asks: (changed: Partial<V>) => Omit<RulesInput, 'at'>;
  children: (fields: Fields<V>) => ReactNode;
}

/** Rules of a course beside what they are used for; set by its teacher, with the latest change and its way back. */
export function RuleForm<V extends object>({ title, about, said, rules, asks, children }: RuleFormProps<V>) {
  const { role } = useThisCourse();
  const [changed, setChanged] = useState<Partial<V>>({});
  const set = useSetRules(said);
  const mayPlan = role === 'teacher';
  const save = mayPlan && (
    <Button type="submit" loading={set.isPending} disabled={!Object.keys(changed).length}>
      Save
    </Button>
  );
  return (
    <Panel title={title} about={about}>
      {mayPlan && <LatestRules />}
      <form
        onSubmit={(e) => {
          e.preventDefault();
          set.mutate({ at: { layer: 'course' }, ...asks(changed) }, { onSuccess: () => setChanged({}) });
        }}
      >
        {children({
          values: { ...rules, ...changed },
          set: (next) => setChanged({ ...changed, ...next }),
          disabled: !mayPlan,
          save,
        })}
      </form>
    </Panel>
  );
}
