import {
  Alert,
  Button,
  Checkbox,
  FileButton,
  Grid,
  Group,
  NativeSelect,
  Select,
  Stack,
  Tabs,
  Text,
  Textarea,
} from '@mantine/core';
import { useDeferredValue, useMemo, useState } from 'react';
import type { CourseDetail, ListOutcome, MemberInfo } from '@nimble-bell/core/api';
import type { Field, ListSummary, RowKind, Settlement } from '@nimble-bell/core/roster';
import { countWords } from '@nimble-bell/core/calendar';
import { useAsk } from '../app/api';
import { useChange } from '../app/queries';
import { LettersAhead } from '../ui/LettersAhead';
import { Panel } from '../ui/Panel';
import {
  AlikeRows,
  BadRows,
  ChangedRows,
  FreshRows,
  GoneRows,
  LeftOutRows,
  NEXT,
  TwinRows,
  type More,
} from './ImportRows';
import type { ReadOrder } from './listReader';
import { filesOf, NOTHING, orderOf, sourceOf, useReading, type Source } from './useReading';

/** What is being read in, and what was said of it: columns, mended rows, who is whom, who leaves. */
function useImport(course: CourseDetail, members: MemberInfo[]) {
  const [source, setSource] = useState<Source>(NOTHING);
  const [fields, setFields] = useState<Field[] | null>(null);
  const [mended, setMended] = useState<ReadOrder['mended']>([]);
  const [settled, setSettled] = useState<ReadOrder['settled']>([]);
  const [rosterClass, setRosterClass] = useState<string | null>(null);
  const [leaving, setLeaving] = useState<string[]>([]);
  const [invite, setInvite] = useState(course.counts.invited > 0);
  const begin = (next: Source) => {
    setSource(next);
    setFields(null);
    setMended([]);
    setSettled([]);
    setLeaving([]);
    setRosterClass(null);
  };
  const order = useMemo(
    () => orderOf(course, members, { source, fields, mended, settled, rosterClass }),
    [course, members, source, fields, mended, settled, rosterClass],
  );
  return {
    source,
    rosterClass,
    settled,
    leaving,
    invite,
    setInvite,
    /** All that was said, for whoever asks whether something changed. */
    said: { source: source.number, fields, mended, settled, rosterClass, leaving, invite },
    begin,
    setFields,
    setRosterClass,
    setLeaving,
    settle: (line: number, as: Settlement) =>
      setSettled([...settled.filter(([l]) => l !== line), [line, as]]),
    mend: (line: number, cells: string[]) =>
      setMended([...mended.filter(([l]) => l !== line), [line, cells]]),
    ...useReading(order),
  };
}
type Import = ReturnType<typeof useImport>;

/** A class list from a paste or from files: who is new, changed, gone; what is wrong with a row; then one press. */
export function ImportPanel(props: { course: CourseDetail; members: MemberInfo[]; done: () => void }) {
  const { course, members, done } = props;
  const importing = useImport(course, members);
  const { answer, fault, reading } = importing;
  return (
    <Panel
      title="Import a class list"
      about="A line a person: name, e-mail, and what else you have. Any order of columns, any language of the headings; a paste from a spreadsheet, a CSV file, a workbook (.xlsx), or a OneRoster set."
    >
      <Grid gap="lg">
        <Grid.Col span={{ base: 12, md: 4 }}>
          <Given importing={importing} done={done} />
        </Grid.Col>
        <Grid.Col span={{ base: 12, md: 8 }}>
          {fault && <Alert color="clay">{fault}</Alert>}
          {!answer && !fault && (
            <Text c="dimmed" mt="xl">
              {reading ? 'Reading the list.' : 'Nothing is written before you have seen what it will do.'}
            </Text>
          )}
          {answer && (
            <Stack gap="sm">
              <Columns answer={answer} choose={importing.setFields} />
              {answer.fault ? (
                <Alert color="clay">{answer.fault}</Alert>
              ) : (
                <>
                  <Result answer={answer} importing={importing} />
                  <Saving course={course} answer={answer} importing={importing} done={done} />
                </>
              )}
            </Stack>
          )}
        </Grid.Col>
      </Grid>
    </Panel>
  );
}

/** The list as it comes in: a paste or files, and of a whole set, which class. */
function Given({ importing, done }: { importing: Import; done: () => void }) {
  const { source, answer, begin, rosterClass, setRosterClass } = importing;
  return (
    <Stack>
      <Textarea
        label="The list"
        placeholder={'Name,E-mail,Time zone\nAdaeze Hollis,adaeze.hollis@saltmarsh.example,Atlantic/Azores'}
        rows={9}
        value={source.text}
        onChange={(e) => begin(sourceOf(e.currentTarget.value))}
        styles={{ input: { fontFamily: 'ui-monospace, monospace', fontSize: 13, whiteSpace: 'pre' } }}
      />
      <Group>
        <FileButton
          multiple
          accept=".csv,.txt,.tsv,.xlsx,.zip,text/csv,text/plain,application/zip,application/vnd.openxmlformats-officedocument.spreadsheetml.sheet"
          onChange={(files) => void filesOf(files).then((read) => begin(sourceOf('', read)))}
        >
          {(button) => (
            <Button variant="default" {...button}>
              Choose files
            </Button>
          )}
        </FileButton>
        <Button variant="subtle" onClick={done}>
          Close
        </Button>
      </Group>
      {source.files.length > 0 && (
        <Text size="sm">
          {source.files.map((f) => f.name).join(', ')}
          {answer?.encoding && `, read as ${answer.encoding}`}
        </Text>
      )}
      {answer?.classes && (
        <Select
          label="Which class of the set"
          data={answer.classes.map((c) => ({
            value: c.id,
            label: `${c.title} (${countWords(c.students, 'student')})`,
          }))}
          value={rosterClass ?? (answer.classes.length === 1 ? answer.classes[0]!.id : null)}
          onChange={setRosterClass}
        />
      )}
    </Stack>
  );
}

interface SavingProps {
  course: CourseDetail;
  answer: ListSummary;
  importing: Import;
  done: () => void;
}

/** What those who come and go will read, and the press that does it. */
function Saving({ course, answer, importing, done }: SavingProps) {
  const ask = useAsk();
  const { reader, reading, leaving, invite, setInvite, said, begin } = importing;
  const path = `/courses/${course.id}/members`;
  const changes = answer.fresh.count + answer.changed.count + leaving.length;
  const body = () => reader().save({ drop: leaving, invite });
  const save = useChange(
    async () => ask<ListOutcome>(path, 'POST', await body()),
    ({ words }) => `${words}.`,
  );
  return (
    <>
      {changes > 0 && !reading && <LettersAhead path={`${path}/letters`} body={body} of={said} />}
      <Group justify="space-between" align="center">
        <Checkbox
          label="Invite those who are new at once"
          checked={invite}
          onChange={(e) => setInvite(e.currentTarget.checked)}
        />
        <Button
          disabled={changes === 0 || reading}
          loading={save.isPending}
          onClick={() => save.mutate(undefined, { onSuccess: () => (begin(NOTHING), done()) })}
        >
          {saveWords(answer.fresh.count, answer.changed.count, leaving.length)}
        </Button>
      </Group>
    </>
  );
}

function saveWords(fresh: number, changed: number, leaving: number): string {
  const parts = [
    fresh && `Add ${countWords(fresh, 'person', 'people')}`,
    changed && `change ${changed}`,
    leaving && `take ${leaving} off`,
  ].filter(Boolean) as string[];
  if (!parts.length) return 'Nothing to save';
  const text = parts.join(', ');
  return text[0]!.toUpperCase() + text.slice(1);
}

function Result({ answer, importing }: { answer: ListSummary; importing: Import }) {
  const { bad, fresh, changed, gone, alike, twins, leftOut, same, teaching } = answer;
  const first = bad.count ? 'bad' : alike.count ? 'alike' : twins.count ? 'twins' : 'fresh';
  // The counts come first, the rows in a turn of their own: neither keeps the page from answering for long.
  const unfolded = useDeferredValue(true, false);
  return (
    <div aria-live="polite">
      <Text fw={600} data-testid="roster-counts" mb={4}>
        {fresh.count} new, {changed.count} changed, {gone.count} not in it, {countWords(bad.count, 'bad row')}
      </Text>
      {(same > 0 || teaching > 0) && (
        <Text size="sm" c="dimmed">
          {same > 0 && `${countWords(same, 'row')} say what is known. `}
          {teaching > 0 && `${countWords(teaching, 'row')} of people who teach change nothing.`}
        </Text>
      )}
      {unfolded && (
        <Tabs defaultValue={first} key={first} keepMounted={false}>
          <Tabs.List>
            <Tabs.Tab value="fresh">New ({fresh.count})</Tabs.Tab>
            <Tabs.Tab value="changed">Changed ({changed.count})</Tabs.Tab>
            <Tabs.Tab value="gone">Not in it ({gone.count})</Tabs.Tab>
            {bad.count > 0 && (
              <Tabs.Tab value="bad" c="var(--clay)">
                To mend ({bad.count})
              </Tabs.Tab>
            )}
            {alike.count > 0 && <Tabs.Tab value="alike">The same person? ({alike.count})</Tabs.Tab>}
            {twins.count > 0 && <Tabs.Tab value="twins">Twice in it? ({twins.count})</Tabs.Tab>}
            {leftOut.count > 0 && <Tabs.Tab value="leftOut">Left out ({leftOut.count})</Tabs.Tab>}
          </Tabs.List>
          <RowPanels answer={answer} importing={importing} />
        </Tabs>
      )}
    </div>
  );
}

/** The rows of each kind, and what is to be said of them. */
function RowPanels({ answer, importing }: { answer: ListSummary; importing: Import }) {
  const { headings, bad, fresh, changed, gone, alike, twins, leftOut } = answer;
  const { leaving, setLeaving, mend, settle, reader } = importing;
  const more: More = (kind, from) => reader().more({ kind, from, count: NEXT });
  const panels: Record<RowKind, React.ReactNode> = {
    fresh: <FreshRows some={fresh} more={more} />,
    changed: <ChangedRows some={changed} more={more} />,
    gone: <GoneRows some={gone} more={more} leaving={leaving} setLeaving={setLeaving} />,
    bad: <BadRows some={bad} more={more} headings={headings} mend={mend} />,
    alike: <AlikeRows some={alike} more={more} settle={settle} />,
    twins: <TwinRows some={twins} more={more} settle={settle} />,
    leftOut: <LeftOutRows some={leftOut} more={more} />,
  };
  return Object.entries(panels).map(([kind, rows]) => (
    <Tabs.Panel key={kind} value={kind} pt="xs">
      {rows}
    </Tabs.Panel>
  ));
}

const FIELD_WORDS: Record<Field, string> = {
  name: 'Name',
  lastFirst: 'Last, First',
  first: 'First name',
  last: 'Last name',
  email: 'E-mail',
  zone: 'Time zone',
  group: 'Group',
  keep: 'Kept as it is',
  skip: 'Left out',
};

const CHOICES = Object.entries(FIELD_WORDS).map(([value, label]) => ({ value, label }));

/** What each column is taken for, and the way to say otherwise. */
function Columns({ answer, choose }: { answer: ListSummary; choose: (fields: Field[]) => void }) {
  const { headings, fields } = answer;
  if (!headings.length || answer.classes) return null;
  return (
    <Group gap="xs" align="flex-end">
      {headings.map((heading, i) => (
        <NativeSelect
          key={`${heading}${i}`}
          label={heading.length > 18 ? `${heading.slice(0, 17)}…` : heading}
          size="xs"
          w={132}
          data={CHOICES}
          value={fields[i]!}
          onChange={(e) => {
            const value = e.currentTarget.value as Field;
            choose(fields.map((f, k) => (k === i ? value : f)));
          }}
        />
      ))}
    </Group>
  );
}
