import { Button, Group, Loader, SegmentedControl, Stack, Text, TextInput, Title } from '@mantine/core';
import { useMemo, useState } from 'react';
import type { RollBookInfo } from '@nimble-bell/core/api';
import { countWords, dateIn, dayWords } from '@nimble-bell/core/calendar';
import { MARK_WORDS, MARKS, shareOf, sumsOf, type BookRow } from '@nimble-bell/core/roll';
import { writeCsv } from '@nimble-bell/core/roster';
import { useThisCourse } from '../app/course';
import { stopOf, useAsked } from '../app/queries';
import { downloadCsv } from '../ui/download';
import { Fault } from '../ui/Fault';
import { Empty, Panel } from '../ui/Panel';
import { CorrectionDialog, type Corrected } from './CorrectionDialog';
import { WriteButton } from './WriteButton';
import { RollGrid } from './RollGrid';
import { RollMark } from './RollMark';
import { RollRulesPanel } from './RollRulesPanel';
import { TermAttendance } from './TermAttendance';

/** The roll of the whole term: who was there when, in what share, and who is slipping. */
export function RollBookPage() {
  const course = useThisCourse();
  const asked = useAsked<RollBookInfo>(`/courses/${course.id}/roll-book`);
  const stop = stopOf(asked);
  if (stop) return <Fault error={stop} />;
  return (
    <Stack>
      <Title order={1} size="h2">
        Roll book
      </Title>
      {!asked.data && <Loader aria-label="Looking up the rolls" />}
      {asked.data && <Book book={asked.data} />}
    </Stack>
  );
}

function Book({ book }: { book: RollBookInfo }) {
  const [correcting, setCorrecting] = useState<Corrected | null>(null);
  if (!book.sessions.length)
    return <Empty>No session has been held yet. The roll writes itself from who comes and goes.</Empty>;
  return (
    <>
      <Slipping book={book} />
      <Marks book={book} correct={setCorrecting} />
      <TermAttendance book={book} />
      <RollRulesPanel rules={book.rules} />
      {correcting && <CorrectionDialog of={correcting} close={() => setCorrecting(null)} />}
    </>
  );
}

/** Who is slipping, and by what: computed, to be looked after by a person. */
const BEGIN =
  'We missed you in class lately. Is something in the way? The recordings are on your course page; write to me if I can help.';

function Slipping({ book }: { book: RollBookInfo }) {
  const { id: course } = useThisCourse();
  const rows = book.rows.filter((r) => book.slipping[r.member]);
  return (
    <Panel
      title="Who is slipping"
      about="Missed two of the last three; missed one, did not watch it, and was silent in the others; or is there for far less of a class than before. Excused absences count for nothing."
      action={
        rows.length > 0 && <WriteButton label="Write to them …" course={course} to={rows} begin={BEGIN} />
      }
    >
      {rows.length === 0 ? (
        <Empty>Nobody, by these signs.</Empty>
      ) : (
        <ul style={{ margin: 0, paddingLeft: 18 }}>
          {rows.map((r) => (
            <li key={r.member}>
              <strong>{r.name}</strong>: {book.slipping[r.member]}
            </li>
          ))}
        </ul>
      )}
    </Panel>
  );
}

type Shown = 'all' | 'slipping';

function Marks({ book, correct }: { book: RollBookInfo; correct: (of: Corrected) => void }) {
  const { code, term } = useThisCourse();
  const [shown, setShown] = useState<Shown>('all');
  const [name, setName] = useState('');
  const rows = useMemo(() => {
    const words = name.trim().toLowerCase();
    return book.rows.filter(
      (r) =>
        (shown === 'all' || book.slipping[r.member]) &&
        (!words || `${r.name} ${r.group ?? ''}`.toLowerCase().includes(words)),
    );
  }, [book, shown, name]);
  return (
    <Panel
      title="Students and sessions"
      about={`${countWords(book.rows.length, 'student')}, ${countWords(book.sessions.length, 'session')} held. Press a mark to correct it.`}
      action={
        <Button
          variant="default"
          onClick={() =>
            downloadCsv(`${code} roll ${dateIn(term.zone, Date.now())}.csv`, csvOf(book, term.zone))
          }
        >
          Download as CSV
        </Button>
      }
    >
      <Stack gap="sm">
        <Group justify="space-between">
          <Legend />
          <Group gap="sm">
            <TextInput
              aria-label="Name or group"
              placeholder="Name or group"
              w={180}
              value={name}
              onChange={(e) => setName(e.currentTarget.value)}
            />
            <SegmentedControl
              aria-label="Whom to show"
              value={shown}
              onChange={(v) => setShown(v as Shown)}
              data={[
                { value: 'all', label: 'Everyone' },
                { value: 'slipping', label: 'Who is slipping' },
              ]}
            />
          </Group>
        </Group>
        {rows.length ? (
          <RollGrid book={book} rows={rows} correct={correct} />
        ) : (
          <Empty>Nobody of this name or kind.</Empty>
        )}
      </Stack>
    </Panel>
  );
}

const Legend = () => (
  <Group gap="md" component="ul" m={0} p={0} style={{ listStyle: 'none' }}>
    {MARKS.map((m) => (
      <Group key={m} gap={5} component="li" wrap="nowrap">
        <RollMark mark={m} />
        <Text size="sm">{MARK_WORDS[m]}</Text>
      </Group>
    ))}
  </Group>
);

const csvOf = (book: RollBookInfo, zone: string) =>
  writeCsv(
    [
      ...['Name', 'Group'],
      ...book.sessions.map((s) => `${s.title} ${s.number}, ${dayWords(dateIn(zone, s.startsAt))}`),
      ...['There', 'Of', 'Share', 'Late', 'Excused', 'Minutes', 'Slipping'],
    ],
    book.rows.map((r) => {
      const sums = sumsOf(r.cells);
      const share = shareOf(sums);
      return [
        ...[r.name, r.group ?? ''],
        ...r.cells.map(cellWords),
        ...[sums.there, sums.of].map(String),
        share === null ? '' : `${Math.round(share * 100)} %`,
        ...[sums.late, sums.excused, sums.minutes].map(String),
        book.slipping[r.member] ?? '',
      ];
    }),
  );

const cellWords = (cell: BookRow['cells'][number]): string =>
  cell ? `${MARK_WORDS[cell.mark]}${cell.minutes ? `, ${cell.minutes} min` : ''}` : '';
