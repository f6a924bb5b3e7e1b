import { Button, Group, Loader, Text, Title } from '@mantine/core';
import { useState } from 'react';
import { Link } from 'react-router';
import type { Capability, CollegeRules, CollegeRulesInput, Permission } from '@nimble-bell/core/api';
import { instantWords } from '@nimble-bell/core/calendar';
import type { DoorRules } from '@nimble-bell/core/door';
import { resolveAll } from '@nimble-bell/core/limits';
import { noSettings, type Layer } from '@nimble-bell/core/settings';
import { writingTimes, type Around, type WritingTime } from '@nimble-bell/core/writing';
import { useAsk } from '../app/api';
import { stopOf, useAsked, useChange } from '../app/queries';
import { DoorTable, type DoorDraft } from '../limits/DoorTable';
import { Ending } from '../limits/Ending';
import { LimitsTable } from '../limits/LimitsTable';
import { TimesFields } from '../limits/TimesFields';
import { useKeeping, useKept } from '../plan/useKeptDraft';
import { CollegeFrame } from './CollegeFrame';
import { Fault } from '../ui/Fault';
import { Panel } from '../ui/Panel';

/** Chosen and not saved. */
interface Draft {
  limits: { [K in Capability]?: Permission };
  writing: { [K in WritingTime]?: number | Around | null };
  door: DoorDraft;
}
const NOTHING: Draft = { limits: {}, writing: {}, door: {} };
const KEY = 'college/rules';
const ZONE = Intl.DateTimeFormat().resolvedOptions().timeZone;

/** What holds in every course that says nothing else: limits and door of the college. */
export function CollegeRulesPage() {
  const rules = useAsked<CollegeRules>('/college/rules');
  const kept = useKept<Draft>(KEY);
  const stop = stopOf(rules);
  if (stop) return <Fault error={stop} />;
  return (
    <CollegeFrame>
      <Group justify="space-between">
        <Title order={1} size="h2">
          What holds in every course
        </Title>
        <Button variant="default" component={Link} to="/college">
          Terms and bell times
        </Button>
      </Group>
      <Text c="dimmed">
        A course, a series or a session that says something of its own keeps it. What is set here is in force
        at once, in classes that are on as well.
      </Text>
      {!rules.data || kept === undefined ? (
        <Loader aria-label="Looking up the rules" />
      ) : (
        <Rules rules={rules.data} kept={kept?.body ?? null} />
      )}
    </CollegeFrame>
  );
}

/** Saves on the state that was looked at, and takes the latest change back. */
function useCollegeRules(on: string) {
  const ask = useAsk();
  const save = useChange(
    (input: CollegeRulesInput) => ask('/college/rules', 'PUT', input, { on }),
    () => 'It is in force, in classes that are on as well.',
  );
  const undo = useChange(
    (change: string) => ask('/college/rules/undo', 'POST', { change }),
    () => 'It is as it was before.',
  );
  return { save, undo };
}

function Rules({ rules, kept }: { rules: CollegeRules; kept: Draft | null }) {
  const [draft, setDraft] = useState<Draft>({ ...NOTHING, ...kept });
  const { save, undo } = useCollegeRules(rules.on);
  const dirty = Object.values(draft).some((part) => Object.keys(part).length);
  const forget = useKeeping(KEY, dirty ? draft : null);
  const back = () => (setDraft(NOTHING), void forget());
  const layer: Layer = {
    name: 'college',
    settings: { ...noSettings(), limits: rules.limits, writing: rules.writing, door: rules.door },
  };
  const setLimit = (c: Capability, state: Permission) =>
    setDraft({ ...draft, limits: { ...draft.limits, [c]: state } });
  const setDoor = (key: keyof DoorRules, value: unknown) =>
    setDraft({ ...draft, door: { ...draft.door, [key]: value } });
  const input = { ...draft } as CollegeRulesInput;
  return (
    <>
      {rules.latest && (
        <Group role="status">
          <Text size="sm">
            {rules.latest.words}, {instantWords(rules.latest.at, ZONE)}.
          </Text>
          <Button
            size="compact-sm"
            variant="default"
            loading={undo.isPending}
            onClick={() => undo.mutate(rules.latest!.id)}
          >
            Undo
          </Button>
        </Group>
      )}
      <Panel title="What students may do" about="Teachers and assistants may always do everything.">
        <LimitsTable limits={{ ...resolveAll([layer]), ...draft.limits }} set={setLimit} />
      </Panel>
      <Panel
        title="Writing before and after class"
        about="On the session’s page before its door opens and after its class, and in the room before ring-in and past the planned end."
      >
        <TimesFields
          value={(key) => draft.writing[key] ?? writingTimes([layer])[key]}
          nothing="As it comes"
          set={(key, value) => setDraft({ ...draft, writing: { ...draft.writing, [key]: value } })}
        />
      </Panel>
      <Panel title="The door">
        <DoorTable layers={[layer]} draft={draft.door} names={{}} zone={ZONE} set={setDoor} />
      </Panel>
      <Ending
        label="Save for every course"
        saving={save.isPending}
        dirty={dirty}
        save={() => save.mutate(input, { onSuccess: back })}
        back={back}
      />
    </>
  );
}
