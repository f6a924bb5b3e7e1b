import { Button, Group, List, Loader, Modal, Stack, Text, TextInput, Title } from '@mantine/core';
import { useState } from 'react';
import type { RulesDetail, SheetInput, SheetUse } from '@nimble-bell/core/api';
import { countWords } from '@nimble-bell/core/calendar';
import { PERMISSION_WORDS, rowOf, CAPABILITY_IDS, type RuleSheet } from '@nimble-bell/core/limits';
import { writingWords } from '@nimble-bell/core/writing';
import { useAsk } from '../app/api';
import { useAsked, useChange } from '../app/queries';
import { useThisCourse } from '../app/course';
import { Choice } from '../ui/Choice';
import { Panel, Scrolls } from '../ui/Panel';
import { PermissionMark } from '../ui/PermissionMark';
import { CapabilityHeads } from './CapabilityHeads';
import { TimesFields } from './TimesFields';
import { useRules } from './useRules';
import classes from './term.module.css';

type Edited = Omit<RuleSheet, 'own'>;

/** Named sets of limits: the college's, and one's own, which can be edited wherever they are used. */
export function SheetsPage() {
  const rules = useRules();
  const { role } = useThisCourse();
  const [edited, setEdited] = useState<Edited | null>(null);
  return (
    <Stack>
      <Title order={1} size="h2">
        Rule sheets
      </Title>
      {!rules.data && <Loader aria-label="Looking for the sheets" />}
      {rules.data && (
        <Panel
          title="Sheets"
          about="Applied on the term, or to a part of a run sheet. What is set otherwise there stays when the sheet changes."
        >
          <Sheets rules={rules.data} edit={role === 'teacher' ? setEdited : null} />
        </Panel>
      )}
      {edited && <Editor key={edited.id} edited={edited} close={() => setEdited(null)} />}
    </Stack>
  );
}

const HEADS = ['Sheet'];

function Sheets({ rules, edit }: { rules: RulesDetail; edit: ((sheet: Edited) => void) | null }) {
  return (
    <Scrolls label="Rule sheets, scrolls">
      <table className={classes.term}>
        <CapabilityHeads before={HEADS} after="Change" />
        <tbody>
          {rules.sheets.map((sheet) => (
            <SheetRow key={sheet.id} sheet={sheet} edit={edit} />
          ))}
        </tbody>
      </table>
    </Scrolls>
  );
}

function SheetRow({ sheet, edit }: { sheet: RuleSheet; edit: ((sheet: Edited) => void) | null }) {
  return (
    <tr data-layer="course">
      <th scope="row">
        {sheet.name}
        <Text size="xs" c="dimmed" fw={400}>
          {sheet.about || (sheet.own ? 'Yours' : 'Another teacher’s')}
          {(sheet.writing?.afterHours ?? 0) > 0 &&
            `; ${writingWords('afterHours', sheet.writing!.afterHours!)}`}
        </Text>
      </th>
      {CAPABILITY_IDS.map((c) => (
        <td key={c}>
          <span className={classes.cell}>
            <PermissionMark state={sheet.limits[c]!} />
            {PERMISSION_WORDS[sheet.limits[c]!]}
          </span>
        </td>
      ))}
      <td>
        {edit && (
          <Group gap={6} wrap="nowrap">
            <Button
              size="compact-sm"
              variant="default"
              aria-label={`${sheet.own ? 'Edit' : 'Copy'} ${sheet.name}`}
              onClick={() => edit(sheet.own ? sheet : { ...sheet, id: '', name: `${sheet.name}, my own` })}
            >
              {sheet.own ? 'Edit' : 'Copy'}
            </Button>
            {sheet.own && <Delete sheet={sheet} />}
          </Group>
        )}
      </td>
    </tr>
  );
}

/** A sheet cannot be brought back: one is asked. */
function Delete({ sheet }: { sheet: RuleSheet }) {
  const ask = useAsk();
  const remove = useChange(
    ({ id }: RuleSheet) => ask(`/rule-sheets/${id}`, 'DELETE'),
    (_done, { name }) => `The sheet ${name} is gone.`,
  );
  const [asking, setAsking] = useState(false);
  if (!asking)
    return (
      <Button
        size="compact-sm"
        variant="subtle"
        aria-label={`Delete ${sheet.name}`}
        onClick={() => setAsking(true)}
      >
        Delete
      </Button>
    );
  return (
    <Group gap={4} wrap="nowrap" role="alertdialog" aria-label={`Delete ${sheet.name}?`}>
      <Button size="compact-sm" color="clay" loading={remove.isPending} onClick={() => remove.mutate(sheet)}>
        Delete it
      </Button>
      <Button size="compact-sm" variant="default" onClick={() => setAsking(false)} autoFocus>
        Keep
      </Button>
    </Group>
  );
}

/** A sheet of one's own; before it is saved one sees where it is used. */
function Editor({ edited, close }: { edited: Edited; close: () => void }) {
  const ask = useAsk();
  const [sheet, setSheet] = useState(edited);
  const known = edited.id !== '';
  const uses = useAsked<SheetUse[]>(`/rule-sheets/${edited.id}/uses`, { enabled: known });
  const save = useChange(
    ({ name, about, limits, writing }: SheetInput) =>
      ask(known ? `/rule-sheets/${edited.id}` : '/rule-sheets', known ? 'PUT' : 'POST', {
        name,
        about,
        ...{ limits, writing },
      }),
    () => 'The sheet is saved.',
  );
  const fault = save.error?.message;
  return (
    <Modal
      opened
      onClose={close}
      size="lg"
      title={known ? `Edit ${edited.name}` : 'A sheet of your own'}
      centered
    >
      <form
        onSubmit={(e) => {
          e.preventDefault();
          const { name, about, limits, writing = {} } = sheet;
          save.mutate({ name, about, limits, writing }, { onSuccess: close });
        }}
      >
        <Stack gap="sm">
          <SheetFields sheet={sheet} set={setSheet} fault={fault} />
          {known && uses.data && <Uses uses={uses.data} />}
          <Group justify="flex-end">
            <Button variant="default" onClick={close}>
              Leave it
            </Button>
            <Button type="submit" loading={save.isPending} disabled={!sheet.name.trim()}>
              {uses.data?.length
                ? `Save it, and in ${countWords(uses.data.length, 'place')}`
                : 'Save the sheet'}
            </Button>
          </Group>
        </Stack>
      </form>
    </Modal>
  );
}

interface SheetFieldsProps {
  sheet: Edited;
  set: (sheet: Edited) => void;
  fault: string | undefined;
}

function SheetFields({ sheet, set, fault }: SheetFieldsProps) {
  return (
    <>
      <Group grow align="flex-start">
        <TextInput
          label="Name"
          required
          maxLength={60}
          data-autofocus
          error={fault}
          value={sheet.name}
          onChange={(e) => set({ ...sheet, name: e.currentTarget.value })}
        />
        <TextInput
          label="When one uses it"
          maxLength={120}
          value={sheet.about}
          onChange={(e) => set({ ...sheet, about: e.currentTarget.value })}
        />
      </Group>
      {CAPABILITY_IDS.map((c) => (
        <Group key={c} justify="space-between" wrap="nowrap">
          <Text size="sm">{rowOf(c).label}</Text>
          <Choice
            label={rowOf(c).label}
            value={sheet.limits[c] ?? null}
            onChange={(state) => set({ ...sheet, limits: { ...sheet.limits, [c]: state } })}
            options={rowOf(c).states.map((s) => ({ value: s, label: PERMISSION_WORDS[s] }))}
          />
        </Group>
      ))}
      <Text size="sm" fw={600} mt="xs">
        Writing at other times
      </Text>
      <TimesFields
        value={(key) => sheet.writing?.[key]}
        nothing="Says nothing of it"
        set={(key, v) => set({ ...sheet, writing: { ...sheet.writing, [key]: v ?? undefined } })}
      />
    </>
  );
}

const MOST = 6;

function Uses({ uses }: { uses: SheetUse[] }) {
  if (!uses.length) return <Text size="sm">It is used nowhere yet.</Text>;
  return (
    <div>
      <Text size="sm" fw={600}>
        What follows it changes with it:
      </Text>
      <List size="sm">
        {uses.slice(0, MOST).map((u) => (
          <List.Item key={`${u.course} ${u.what}`}>
            {u.course}, {u.what}
          </List.Item>
        ))}
        {uses.length > MOST && <List.Item>{countWords(uses.length - MOST, 'more', 'more')}</List.Item>}
      </List>
    </div>
  );
}
