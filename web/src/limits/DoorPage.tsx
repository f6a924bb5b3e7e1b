import { Anchor, List, Loader, Select, Stack, Table, Text, Title, VisuallyHidden } from '@mantine/core';
import { useMemo, useState } from 'react';
import type { RulesDetail, RulesInput } from '@nimble-bell/core/api';
import { COLLEGE_DOOR, DOOR_ROWS, doorRuleWords, type DoorRules } from '@nimble-bell/core/door';
import { dateWords, dateIn } from '@nimble-bell/core/calendar';
import { LAYER_WORDS } from '@nimble-bell/core/limits';
import { inForce } from '@nimble-bell/core/settings';
import { useAsk } from '../app/api';
import { useThisCourse } from '../app/course';
import { stopOf, useChange } from '../app/queries';
import { useKeeping, useKept } from '../plan/useKeptDraft';
import { Fault } from '../ui/Fault';
import { Panel } from '../ui/Panel';
import { Scrolls } from '../ui/Panel';
import { DoorControl } from './DoorControl';
import { Ending } from './Ending';
import { placesOf, type Place } from './places';
import { useRules, useSetRules } from './useRules';

/** What is chosen of a place's door and not saved; null takes back what is said there. */
type Draft = { [K in keyof DoorRules]?: DoorRules[K] | null };

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
  const kept = useKept<Draft>(draftKey);
  if (kept === undefined) return <Loader aria-label="Looking for what you chose" />;
  return <Fields {...{ place, rules, draftKey }} kept={kept?.body ?? {}} />;
}

interface FieldsProps {
  place: Place;
  rules: RulesDetail;
  draftKey: string;
  kept: Draft;
}

/** A value of a place's door as it is with the draft, and where it is from. */
function valueAt(place: Place, rules: RulesDetail, draft: Draft, key: keyof DoorRules, zone: string) {
  const wider = inForce(place.layers.slice(0, -1), 'door', key);
  const own = inForce(place.layers.slice(-1), 'door', key);
  const chosen = draft[key];
  const value = chosen ?? (chosen === null ? undefined : own?.value) ?? wider?.value ?? COLLEGE_DOOR[key];
  if (chosen !== undefined && chosen !== null) return { value, from: 'not in force yet', own: true };
  if (chosen === null || !own) {
    const from = wider ? LAYER_WORDS[wider.because.layer] : LAYER_WORDS.college;
    return { value, from: chosen === null ? `${from}, not in force yet` : from, own: false };
  }
  const { by, at } = own.because;
  const who = by ? (rules.names[by] ?? 'somebody') : 'the college';
  return { value, from: `here, by ${who}${at ? `, ${dateWords(dateIn(zone, at))}` : ''}`, own: true };
}

function Fields({ place, rules, draftKey, kept }: FieldsProps) {
  const course = useThisCourse();
  const mayPlan = course.role === 'teacher';
  const [draft, setDraft] = useState<Draft>(kept);
  const save = useSetRules('The door’s rules are in force, in a class that is on as well.');
  const dirty = Object.keys(draft).length > 0;
  const forget = useKeeping(draftKey, mayPlan && dirty ? draft : null);
  const back = () => (setDraft({}), void forget());
  const set = (key: keyof DoorRules, value: unknown) => setDraft({ ...draft, [key]: value });
  const input = { at: place.at, door: draft } as RulesInput;
  return (
    <Panel title={place.name}>
      <Scrolls label="The door’s rules, scrolls">
        <Table layout="fixed" miw={560} verticalSpacing={6}>
          <Table.Thead>
            <Table.Tr>
              <Table.Th>Rule</Table.Th>
              <Table.Th>As it is</Table.Th>
              <Table.Th>Where it is from</Table.Th>
            </Table.Tr>
          </Table.Thead>
          {DOOR_ROWS.map((group) => (
            <Table.Tbody key={group.title}>
              <Table.Tr>
                <Table.Th colSpan={3} scope="rowgroup" c="dimmed" pt="md">
                  {group.title}
                </Table.Th>
              </Table.Tr>
              {group.rows.map((row) => (
                <RuleRow key={row.key} row={row} {...{ place, rules, draft }} set={mayPlan ? set : null} />
              ))}
            </Table.Tbody>
          ))}
        </Table>
      </Scrolls>
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

interface RuleRowProps {
  row: (typeof DOOR_ROWS)[number]['rows'][number];
  place: Place;
  rules: RulesDetail;
  draft: Draft;
  /** Null where it is only read. */
  set: ((key: keyof DoorRules, value: unknown) => void) | null;
}

/** A rule, how it is here, and where that is from. */
function RuleRow({ row, place, rules, draft, set }: RuleRowProps) {
  const { zone } = useThisCourse().term;
  const { value, from, own } = valueAt(place, rules, draft, row.key, zone);
  return (
    <Table.Tr>
      <Table.Th scope="row">{row.label}</Table.Th>
      <Table.Td>
        <DoorControl row={row} value={value} set={set && ((v) => set(row.key, v))} />
      </Table.Td>
      <Table.Td c={own ? undefined : 'dimmed'}>
        {from}{' '}
        {own && set && (
          <Anchor component="button" type="button" size="sm" onClick={() => set(row.key, null)}>
            As the {place.at.layer === 'course' ? 'college' : 'wider place'}
            <VisuallyHidden>: {row.label}</VisuallyHidden>
          </Anchor>
        )}
      </Table.Td>
    </Table.Tr>
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
