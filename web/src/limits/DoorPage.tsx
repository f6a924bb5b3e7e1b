import { Anchor, List, Loader, Select, Stack, Text, Title, VisuallyHidden } from '@mantine/core';
import { useMemo, useState } from 'react';
import type { RulesDetail, RulesInput } from '@nimble-bell/core/api';
import { doorRuleWords, type DoorRules } from '@nimble-bell/core/door';
import { useAsk } from '../app/api';
import { useThisCourse } from '../app/course';
import { stopOf, useChange } from '../app/queries';
import { useKeeping, useKept } from '../plan/useKeptDraft';
import { Fault } from '../ui/Fault';
import { Panel } from '../ui/Panel';
import { DoorTable, type DoorDraft } from './DoorTable';
import { Ending } from './Ending';
import { placesOf, type Place } from './places';
import { useRules, useSetRules } from './useRules';

/** Who comes in when, and how: for the course, a series, a session. */
export function DoorPage() {
  const course = useThisCourse();
  const rules = useRules();
  const [key, setKey] = useState('course');
  const stop = stopOf(rules);
  const places = useMemo(() => (rules.data ? placesOf(course, rules.data) : []), [course, rules.data]);
  if (stop) return <Fault error={stop} />;
  const place = places.find((p) => p.key === key) ?? places[0];
  if (!rules.data || !place) return <Loader aria-label="Looking up the door" />;
  return (
    <Stack>
      <Title order={1} size="h2">
        The door
      </Title>
      <Text c="dimmed">
        Those who teach come in from two hours before. Microphones are off on arrival, and nobody switches on
        another&apos;s. In class the door can be locked.
      </Text>
      <Select
        label="The door of"
        data={places.map((p) => ({ value: p.key, label: p.name }))}
        value={place.key}
        onChange={(v) => v && setKey(v)}
        allowDeselect={false}
        searchable
        maw={420}
      />
      <DoorForm key={place.key} place={place} rules={rules.data} />
      <Otherwise places={places} choose={setKey} />
      <Always of={rules.data.always} />
    </Stack>
  );
}

function DoorForm({ place, rules }: { place: Place; rules: RulesDetail }) {
  const course = useThisCourse();
  const draftKey = `door/${course.id}/${place.key}`;
  const kept = useKept<DoorDraft>(draftKey);
  if (kept === undefined) return <Loader aria-label="Looking for what you chose" />;
  return <Fields {...{ place, rules, draftKey }} kept={kept?.body ?? {}} />;
}

interface FieldsProps {
  place: Place;
  rules: RulesDetail;
  draftKey: string;
  kept: DoorDraft;
}

function Fields({ place, rules, draftKey, kept }: FieldsProps) {
  const course = useThisCourse();
  const { zone } = course.term;
  const mayPlan = course.role === 'teacher';
  const [draft, setDraft] = useState<DoorDraft>(kept);
  const save = useSetRules('The door’s rules are in force, in a class that is on as well.');
  const dirty = Object.keys(draft).length > 0;
  const forget = useKeeping(draftKey, mayPlan && dirty ? draft : null);
  const back = () => (setDraft({}), void forget());
  const set = (key: keyof DoorRules, value: unknown) => setDraft({ ...draft, [key]: value });
  const input = { at: place.at, door: draft } as RulesInput;
  return (
    <Panel title={place.name}>
      <DoorTable layers={place.layers} {...{ zone, draft }} names={rules.names} set={mayPlan ? set : null} />
      {mayPlan && (
        <Ending
          label="Save the door"
          saving={save.isPending}
          dirty={dirty}
          save={() => save.mutate(input, { onSuccess: back })}
          back={back}
        />
      )}
    </Panel>
  );
}

/** Those whom a teacher let in once and for all. */
function Always({ of }: { of: RulesDetail['always'] }) {
  const course = useThisCourse();
  const ask = useAsk();
  const knockAgain = useChange(
    (member: string) => ask(`/courses/${course.id}/always/${member}`, 'DELETE'),
    () => 'They knock again like others.',
  );
  if (!of.length) return null;
  return (
    <Panel title="Always let in">
      <List listStyleType="none" spacing={4}>
        {of.map(({ member, name }) => (
          <List.Item key={member}>
            {name}{' '}
            {course.role === 'teacher' && (
              <Anchor component="button" type="button" size="sm" onClick={() => knockAgain.mutate(member)}>
                They knock again
                <VisuallyHidden>: {name}</VisuallyHidden>
              </Anchor>
            )}
          </List.Item>
        ))}
      </List>
    </Panel>
  );
}

/** Where the door is otherwise than the wider place says. */
function Otherwise({ places, choose }: { places: readonly Place[]; choose: (key: string) => void }) {
  const own = places.filter((p) => p.at.layer !== 'course' && Object.keys(p.own.door).length);
  return (
    <Panel title="Otherwise than the course">
      {own.length === 0 ? (
        <Text c="dimmed">
          Every series and session has the course’s door. Choose one above to change that.
        </Text>
      ) : (
        <List listStyleType="none" spacing={4}>
          {own.map((p) => (
            <List.Item key={p.key}>
              <Anchor component="button" type="button" onClick={() => choose(p.key)}>
                {p.name}
              </Anchor>
              {': '}
              {Object.entries(p.own.door)
                .map(([k, v]) => doorRuleWords(k as keyof DoorRules, v.value as never))
                .join('; ')}
            </List.Item>
          ))}
        </List>
      )}
    </Panel>
  );
}
