import {
  ActionIcon,
  Button,
  Checkbox,
  Group,
  Loader,
  NativeSelect,
  NumberInput,
  Stack,
  Table,
  Text,
  TextInput,
  Title,
} from '@mantine/core';
import { IconArrowDown, IconArrowUp, IconGripVertical, IconX } from '@tabler/icons-react';
import { useMemo, useState, type KeyboardEvent } from 'react';
import { useSearchParams } from 'react-router';
import type { CourseDetail, RulesDetail } from '@nimble-bell/core/api';
import { ApiError } from '../app/api';
import { useThisCourse } from '../app/course';
import { useKeeping, useKept } from '../plan/useKeptDraft';
import { Heads } from '../ui/Heads';
import { InOrder, useDragged } from '../ui/InOrder';
import { moved } from '../ui/moved';
import { Empty, Panel, Scrolls } from '../ui/Panel';
import { placesOf, type Place } from './places';
import { SegmentBar } from './SegmentBar';
import { blank, draftOf, titled, toSegments, wholeOf, type SegmentDraft } from './sheetDraft';
import { useRules, useSetRules } from './useRules';

/** The planned course of a class: its segments, each with its minutes, its limits and its recording. */
export function RunSheetsPage() {
  const course = useThisCourse();
  const rules = useRules();
  return (
    <Stack>
      <Title order={1} size="h2">
        Run sheets
      </Title>
      {rules.data ? (
        <Chosen course={course} rules={rules.data} />
      ) : (
        <Loader aria-label="Looking for the run sheets" />
      )}
    </Stack>
  );
}

/** Where the run sheet that holds at a place is said: there, or at the session's series; null where none is. */
function saidAt(place: Place, places: readonly Place[], course: CourseDetail): Place | null {
  if (place.own.segments || place.at.layer !== 'session') return place.own.segments ? place : null;
  const session = [...course.sessions, ...course.standing].find((s) => s.id === place.key);
  const series = places.find((p) => p.key === session?.seriesId);
  return series?.own.segments ? series : null;
}

/** The minutes of what a place plans: the longest session it has. */
function minutesAt(place: Place, course: CourseDetail): number {
  const those = course.sessions.filter(
    (s) =>
      place.at.layer === 'course' ||
      (place.at.layer === 'series' ? s.seriesId === place.key : s.id === place.key),
  );
  return Math.max(0, ...those.map((s) => s.minutes)) || 60;
}

function Chosen({ course, rules }: { course: CourseDetail; rules: RulesDetail }) {
  const places = useMemo(
    () => placesOf(course, rules).filter((p) => p.at.layer !== 'course'),
    [course, rules],
  );
  const [search, setSearch] = useSearchParams();
  const place = places.find((p) => p.key === search.get('of')) ?? places[0];
  if (!place) return <Empty>A run sheet belongs to a series. Plan one first.</Empty>;
  const said = saidAt(place, places, course);
  return (
    <Panel
      title={place.title}
      about={
        place.own.segments
          ? 'Its own run sheet.'
          : said
            ? `As ${said.title}: change it, and it has its own.`
            : 'No run sheet yet.'
      }
      action={
        <NativeSelect
          aria-label="Run sheet of"
          value={place.key}
          onChange={(e) => setSearch({ of: e.currentTarget.value })}
          data={places.map((p) => ({
            value: p.key,
            label: `${p.at.layer === 'session' ? '\u2003' : ''}${p.title}${p.own.segments ? ', has its own' : ''}`,
          }))}
        />
      }
    >
      <Kept
        key={place.key}
        place={place}
        said={said}
        rules={rules}
        length={minutesAt(place, course)}
        mayPlan={course.role === 'teacher'}
      />
    </Panel>
  );
}

interface EditorProps {
  place: Place;
  said: Place | null;
  rules: RulesDetail;
  length: number;
  mayPlan: boolean;
}

/** What is typed, and the state of the rules that it was begun on; null where that moved on and was seen to. */
interface Edited {
  segments: SegmentDraft[];
  on: string | null;
}

const keyOf = (place: Place) => `run-sheet/${place.key}`;

/** What was left half done is taken up. */
function Kept(props: EditorProps) {
  const kept = useKept<Edited>(keyOf(props.place));
  if (kept === undefined) return <Loader aria-label="Looking for what you typed" />;
  return <Editor {...props} kept={kept && { ...kept.body, segments: kept.body.segments.map(draftOf) }} />;
}

function Editor({ place, said, rules, length, mayPlan, kept }: EditorProps & { kept: Edited | null }) {
  const [edited, setEdited] = useState(kept);
  const stored = useMemo(() => (said?.own.segments ?? []).map(draftOf), [said?.own.segments]);
  const segments = edited?.segments ?? stored;
  const forget = useKeeping(keyOf(place), mayPlan ? edited : null);
  const save = useSetRules('The run sheet is saved.', edited?.on ?? rules.on);
  const change = (next: SegmentDraft[]) => setEdited({ segments: next, on: edited ? edited.on : rules.on });
  const set = mayPlan ? change : null;
  const store = (next: SegmentDraft[] | null) =>
    save.mutate(
      { at: place.at, segments: next && toSegments(next) },
      {
        onSuccess: () => void forget().then(() => setEdited(null)),
        // What others did meanwhile is said, and seen; pressed again it is saved over it.
        onError: (error) =>
          error instanceof ApiError &&
          error.code === 'moved-on' &&
          edited &&
          setEdited({ ...edited, on: null }),
      },
    );
  return (
    <Stack>
      {segments.length > 0 && <SegmentBar segments={segments} length={length} set={set} />}
      {segments.length > 0 ? (
        <Rows segments={segments} set={set} rules={rules} length={length} />
      ) : (
        <Empty>The class goes on under one set of limits, from ring-in to its end.</Empty>
      )}
      {mayPlan && (
        <Group>
          <Button variant="default" onClick={() => change(withOneMore(segments, length))}>
            Add a segment
          </Button>
          <Button
            disabled={!edited || segments.some((s) => !s.title.trim() || !s.minutes)}
            loading={save.isPending}
            onClick={() => store(segments)}
          >
            Save the run sheet
          </Button>
          {edited && (
            <Button variant="subtle" onClick={() => void forget().then(() => setEdited(null))}>
              Back to what is saved
            </Button>
          )}
          {edited && (
            <Text size="sm" c="dimmed">
              Not in force yet. It is kept if you leave the page.
            </Text>
          )}
          {!edited && place.own.segments && (
            <Button variant="subtle" onClick={() => store(null)}>
              {place.at.layer === 'session' ? 'As the series has it' : 'No run sheet'}
            </Button>
          )}
        </Group>
      )}
    </Stack>
  );
}

interface RowsProps {
  /** The session's minutes. */
  length: number;
  segments: SegmentDraft[];
  set: ((segments: SegmentDraft[]) => void) | null;
  rules: RulesDetail;
}

/** What a new segment begins with: the minutes that are left. */
const withOneMore = (segments: SegmentDraft[], length: number) => [
  ...segments,
  blank(Math.max(5, length - wholeOf(segments))),
];

function Rows({ length, ...props }: RowsProps) {
  const { segments, set } = props;
  // Enter in the last one goes on to the next.
  const onKey = (e: KeyboardEvent, index: number) => {
    if (e.key !== 'Enter' || !(e.target instanceof HTMLInputElement)) return;
    e.preventDefault();
    if (index === segments.length - 1 && segments[index]!.title.trim()) set?.(withOneMore(segments, length));
  };
  return (
    <Scrolls label="Segments, scrolls">
      <Table verticalSpacing={6} miw={940}>
        <Heads
          of={['Segment', 'Minutes', 'Rule sheet', 'Recording', 'Its time', 'Note, for teachers', 'Order']}
        />
        <InOrder keys={segments.map((s) => s.key)} put={(from, to) => set?.(moved(segments, from, to))}>
          <Table.Tbody>
            {segments.map((s, i) => (
              <SegmentRow key={s.key} {...props} segment={s} index={i} onKey={onKey} />
            ))}
          </Table.Tbody>
        </InOrder>
      </Table>
    </Scrolls>
  );
}

const RECORDING = [
  { value: '', label: 'as it is' },
  { value: 'on', label: 'goes on' },
  { value: 'paused', label: 'paused' },
];

interface SegmentRowProps extends Omit<RowsProps, 'length'> {
  segment: SegmentDraft;
  index: number;
  onKey: (e: KeyboardEvent, index: number) => void;
}

function SegmentRow({ segment, index, segments, set, rules, onKey }: SegmentRowProps) {
  const off = !set;
  const with_ = (more: Partial<SegmentDraft>) =>
    set?.(segments.map((s, i) => (i === index ? { ...s, ...more } : s)));
  const name = segment.title || `segment ${index + 1}`;
  const dragged = useDragged<HTMLTableRowElement>(segment.key, name);
  return (
    <Table.Tr onKeyDown={(e) => onKey(e, index)} {...dragged.row}>
      <Table.Td>
        <TextInput
          aria-label={`Title of segment ${index + 1}`}
          placeholder="Welcome"
          maxLength={90}
          disabled={off}
          autoFocus={!segment.title}
          value={segment.title}
          onChange={(e) => with_(titled(segment, e.currentTarget.value, rules.sheets))}
        />
      </Table.Td>
      <Table.Td w={110}>
        <NumberInput
          aria-label={`Minutes of ${name}`}
          min={1}
          max={720}
          allowDecimal={false}
          disabled={off}
          value={segment.minutes}
          onChange={(v) => with_({ minutes: typeof v === 'number' ? v : '' })}
        />
      </Table.Td>
      <Rules segment={segment} name={name} rules={rules} set={set ? with_ : null} />
      <Table.Td>
        <TextInput
          aria-label={`Note on ${name}`}
          maxLength={500}
          disabled={off}
          value={segment.note}
          onChange={(e) => with_({ note: e.currentTarget.value })}
        />
      </Table.Td>
      <Table.Td w={150}>
        {set && <Order {...{ index, name, segments, set }} handle={dragged.handle} />}
      </Table.Td>
    </Table.Tr>
  );
}

interface SegmentRulesProps {
  segment: SegmentDraft;
  name: string;
  rules: RulesDetail;
  set: ((more: Partial<SegmentDraft>) => void) | null;
}

/** What holds while it is on. */
function Rules({ segment, name, rules, set }: SegmentRulesProps) {
  return (
    <>
      <Table.Td w={170}>
        <NativeSelect
          aria-label={`Rule sheet of ${name}`}
          disabled={!set}
          data={[
            { value: '', label: 'as the session' },
            ...rules.sheets.map((r) => ({ value: r.id, label: r.name })),
          ]}
          value={segment.sheet ?? ''}
          onChange={(e) => set?.({ sheet: e.currentTarget.value || null })}
        />
      </Table.Td>
      <Table.Td w={130}>
        <NativeSelect
          aria-label={`Recording of ${name}`}
          disabled={!set}
          data={RECORDING}
          value={segment.recording ?? ''}
          onChange={(e) => set?.({ recording: (e.currentTarget.value || null) as SegmentDraft['recording'] })}
        />
      </Table.Td>
      <Table.Td w={84}>
        <Checkbox
          size="xs"
          label="shown"
          aria-label={`Everybody sees the time of ${name} run out`}
          disabled={!set}
          checked={segment.timed ?? false}
          onChange={(e) => set?.({ timed: e.currentTarget.checked })}
        />
      </Table.Td>
    </>
  );
}

interface OrderProps {
  index: number;
  name: string;
  segments: SegmentDraft[];
  set: (segments: SegmentDraft[]) => void;
  handle: object;
}

function Order({ index, name, segments, set, handle }: OrderProps) {
  return (
    <Group gap={4} wrap="nowrap">
      <ActionIcon variant="subtle" {...handle}>
        <IconGripVertical size={16} />
      </ActionIcon>
      <ActionIcon
        variant="default"
        disabled={index === 0}
        aria-label={`Earlier: ${name}`}
        onClick={() => set(moved(segments, index, index - 1))}
      >
        <IconArrowUp size={16} />
      </ActionIcon>
      <ActionIcon
        variant="default"
        disabled={index + 1 === segments.length}
        aria-label={`Later: ${name}`}
        onClick={() => set(moved(segments, index, index + 1))}
      >
        <IconArrowDown size={16} />
      </ActionIcon>
      <ActionIcon
        variant="default"
        aria-label={`Take out: ${name}`}
        onClick={() => set(segments.filter((_, i) => i !== index))}
      >
        <IconX size={16} />
      </ActionIcon>
    </Group>
  );
}
