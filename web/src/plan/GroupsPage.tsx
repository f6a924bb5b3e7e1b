import {
  DndContext,
  KeyboardSensor,
  PointerSensor,
  useDraggable,
  useDroppable,
  useSensor,
  useSensors,
  type KeyboardCoordinateGetter,
} from '@dnd-kit/core';
import { Button, Group, NumberInput, Select, Stack, Switch, Text, Title } from '@mantine/core';
import { useMemo, useState, type ReactNode } from 'react';
import type { CourseDetail, GroupPlan, MemberInfo, PlanEditDraft, PlanOutcome } from '@nimble-bell/core/api';
import { countWords, groupSlots, patternWords, zoneWords, type GroupSlot } from '@nimble-bell/core/calendar';
import { groupName, ownValue, splitInto, type SplitWay } from '@nimble-bell/core/roster';
import { inOrder } from '../app/order';
import { useThisCourse } from '../app/course';
import { useMembers } from '../app/members';
import { Findings } from '../ui/Findings';
import { ARROWS } from '../ui/arrows';
import { dragWords } from '../ui/dragWords';
import { Faulty } from '../ui/Faulty';
import { Empty, Panel } from '../ui/Panel';
import { useSavePlan } from './ConfirmPlan';
import { OutcomeView } from './OutcomeView';
import { SlotFields, type SlotForm } from './SlotFields';
import { usePreview } from './usePreview';
import classes from './groups.module.css';

type Assigned = Record<string, string>;

/** The class in small groups: split by rule or by hand, a weekly slot for each, saved at once. */
export function GroupsPage() {
  const course = useThisCourse();
  const members = useMembers(course.id);
  const students = useMemo(() => members.data?.filter((m) => m.role === 'student') ?? [], [members.data]);
  if (!members.data) return null;
  if (!students.length)
    return <Empty>Nobody is on the class list yet: import it first, then split it into groups.</Empty>;
  return <GroupEditor key={members.data.map((m) => m.group).join()} students={students} />;
}

function GroupEditor({ students }: { students: MemberInfo[] }) {
  const course = useThisCourse();
  const { assigned, names, deal, move } = useGroups(students);
  const mayPlan = course.role === 'teacher';
  const { withSlots, setWithSlots, slots, setSlots, computed, slotFault } = useSlots(names);
  const plan: GroupPlan = {
    groups: names.map((name) => ({
      name,
      people: students.filter((s) => assigned[s.id] === name).map((s) => s.id),
    })),
    series:
      Array.isArray(computed) && names.length
        ? { title: slots.title, every: Number(slots.every) || 1, slots: computed }
        : null,
  };
  const changed = withSlots || students.some((s) => (s.group ?? '') !== (assigned[s.id] ?? ''));
  const edit: PlanEditDraft | null = changed && !slotFault ? { edit: 'groups', plan } : null;
  const { outcome, fault } = usePreview(course.id, mayPlan ? edit : null);
  const save = useSavePlan(outcome?.on);
  const told = outcome?.told.length ?? 0;
  const findings = course.findings.filter((f) => f.rule.includes('group'));
  return (
    <Stack>
      <Title order={1} size="h2">
        Small groups
      </Title>
      <Findings course={course} findings={findings} />
      {mayPlan && <SplitPanel students={students} deal={deal} />}
      <Columns
        move={move}
        names={names}
        computed={computed}
        course={course}
        plan={plan}
        students={students}
        mayPlan={mayPlan}
        assigned={assigned}
      />
      {mayPlan && (
        <Slots
          withSlots={withSlots}
          setWithSlots={setWithSlots}
          slots={slots}
          setSlots={setSlots}
          slotFault={slotFault}
        />
      )}
      {outcome && <OutcomeView outcome={outcome} edit={edit} />}
      {fault && <Text c="var(--clay)">{fault.message}</Text>}
      {mayPlan && changed && <Saving edit={edit} outcome={outcome} save={save} told={told} />}
    </Stack>
  );
}

const slotWords = (slots: ReturnType<typeof groupSlots> | null, i: number) =>
  Array.isArray(slots) && slots[i]
    ? `${slots[i].day.slice(0, 3)} ${slots[i].start}, ${slots[i].minutes} min`
    : undefined;
const seriesWords = (pattern: Parameters<typeof patternWords>[0] | null | undefined) =>
  pattern ? patternWords(pattern) : 'no slot yet';

interface SplitProps {
  students: MemberInfo[];
  deal: (groups: { name: string; people: string[] }[]) => void;
}

/** What somebody has in a column: the zone, the group, or one of the list's own, which begins with a sign. */
const valueIn = ({ zone, group, extra }: MemberInfo, column: string): string =>
  (column === 'zone' ? zone : column === 'group' ? group : ownValue(extra, column.slice(1))) ?? '';

function SplitPanel({ students, deal }: SplitProps) {
  const [size, setSize] = useState<number | ''>(10);
  const [way, setWay] = useState<SplitWay>('random');
  const [column, setColumn] = useState('zone');
  const own = [...new Set(students.flatMap((s) => Object.keys(s.extra)))].sort(inOrder);
  const [seed, setSeed] = useState(1);
  const split = (next: number) => {
    setSeed(next);
    deal(
      splitInto(
        students.map((s) => ({
          id: s.id,
          value: valueIn(s, column),
        })),
        Number(size) || 10,
        way,
        next,
      ),
    );
  };
  return (
    <Panel
      title="Split the class"
      about={`${countWords(students.length, 'student')}, dealt evenly; then drag anyone elsewhere.`}
    >
      <Group align="flex-end">
        <NumberInput
          label="At most"
          suffix=" in a group"
          min={1}
          max={200}
          w={160}
          value={size}
          onChange={(v) => setSize(typeof v === 'number' ? v : '')}
        />
        <HowFields way={way} setWay={setWay} own={own} column={column} setColumn={setColumn} />
        <Button onClick={() => split(seed)}>Split</Button>
        <Button variant="default" onClick={() => split(seed + 1)}>
          Deal anew
        </Button>
        <Button
          variant="subtle"
          onClick={() =>
            deal(
              Array.from({ length: Math.ceil(students.length / (Number(size) || 10)) }, (_, i) => ({
                name: groupName(i),
                people: [],
              })),
            )
          }
        >
          Start by hand
        </Button>
      </Group>
    </Panel>
  );
}

function Column(props: { id: string; title: string; about: string | undefined; children: ReactNode[] }) {
  const { setNodeRef, isOver } = useDroppable({ id: props.id });
  return (
    <section
      ref={setNodeRef}
      className={classes.column}
      data-over={isOver || undefined}
      aria-label={props.title}
    >
      <Text fw={600} size="sm">
        {props.title} <span className={classes.count}>{props.children.length}</span>
      </Text>
      {props.about && (
        <Text size="sm" c="dimmed">
          {props.about}
        </Text>
      )}
      <div className={classes.people}>{props.children}</div>
    </section>
  );
}

interface CardProps {
  student: MemberInfo;
  names: string[];
  group: string;
  move: (student: string, group: string) => void;
  mayPlan: boolean;
}

/** Dragged, or put elsewhere by the choice at its end. */
function StudentCard({ student, names, group, move, mayPlan }: CardProps) {
  const { setNodeRef, attributes, listeners, transform } = useDraggable({
    id: student.id,
    disabled: !mayPlan,
  });
  const style = transform
    ? { transform: `translate(${transform.x}px, ${transform.y}px)`, zIndex: 5 }
    : undefined;
  return (
    <div ref={setNodeRef} className={classes.student} style={style} title={zoneWords(student.zone)}>
      <span className={classes.handle} {...listeners} {...attributes} aria-label={`Drag ${student.name}`}>
        {student.name}
      </span>
      {mayPlan && (
        <select
          aria-label={`Group of ${student.name}`}
          value={group}
          onChange={(e) => move(student.id, e.currentTarget.value)}
        >
          <option value="">none</option>
          {names.map((n) => (
            <option key={n}>{n}</option>
          ))}
        </select>
      )}
    </div>
  );
}

interface ColumnsProps {
  move: (student: string, group: string) => void;
  names: string[];
  computed: string | GroupSlot[] | null;
  course: CourseDetail;
  plan: GroupPlan;
  students: MemberInfo[];
  mayPlan: boolean;
  assigned: Assigned;
}

/** By key a student goes from group to group, in the order in which they stand. */
const toGroup: KeyboardCoordinateGetter = (event, { context }) => {
  const step = ARROWS[event.code];
  if (!step) return undefined;
  event.preventDefault();
  const columns = context.droppableContainers.getEnabled().map(({ id }) => id);
  const from = columns.indexOf(context.over?.id ?? '');
  const rect = context.droppableRects.get(columns[Math.max(0, Math.min(from + step, columns.length - 1))]!);
  return rect && { x: rect.left + 8, y: rect.top + 8 };
};

/** The groups side by side: a student is dragged from one into another. */
function Columns(props: ColumnsProps) {
  const { move, names, computed, course, plan, students, mayPlan, assigned } = props;
  const sensors = useSensors(
    useSensor(PointerSensor, { activationConstraint: { distance: 5 } }),
    useSensor(KeyboardSensor, { coordinateGetter: toGroup }),
  );
  const words = dragWords({
    what: (id) => students.find((s) => s.id === id)?.name ?? 'A student',
    where: (_active, over) => over && (over.id === 'none' ? 'in no group' : `in group ${over.id}`),
    how: 'Arrows lead to the group beside it, Space puts down, Escape leaves it. Or choose the group in the list beside the name.',
  });
  return (
    <DndContext
      accessibility={words}
      sensors={sensors}
      onDragEnd={({ active, over }) =>
        over && move(String(active.id), over.id === 'none' ? '' : String(over.id))
      }
    >
      <div className={classes.columns}>
        {names.map((name, i) => (
          <Column
            key={name}
            id={name}
            title={`Group ${name}`}
            about={
              slotWords(computed, i) ?? seriesWords(course.series.find((s) => s.group === name)?.pattern)
            }
          >
            {plan.groups[i]!.people.map((id) => (
              <StudentCard
                key={id}
                student={students.find((s) => s.id === id)!}
                names={names}
                group={name}
                move={move}
                mayPlan={mayPlan}
              />
            ))}
          </Column>
        ))}
        <Column id="none" title="In no group" about={undefined}>
          {students
            .filter((s) => !assigned[s.id])
            .map((s) => (
              <StudentCard key={s.id} student={s} names={names} group="" move={move} mayPlan={mayPlan} />
            ))}
        </Column>
      </div>
    </DndContext>
  );
}

interface SlotsProps {
  withSlots: boolean;
  setWithSlots: (value: boolean) => void;
  slots: SlotForm;
  setSlots: (value: SlotForm) => void;
  slotFault: string | null;
}

function Slots(props: SlotsProps) {
  const { withSlots, setWithSlots, slots, setSlots, slotFault } = props;
  return (
    <Panel title="A weekly slot for each group">
      <Switch
        label="Plan the groups' sessions here"
        checked={withSlots}
        onChange={(e) => setWithSlots(e.currentTarget.checked)}
        mb="sm"
      />
      {withSlots && (
        <Faulty label="The slots" fault={slotFault}>
          <SlotFields slots={slots} set={(more) => setSlots({ ...slots, ...more })} />
        </Faulty>
      )}
    </Panel>
  );
}

interface SavingProps {
  edit: PlanEditDraft | null;
  outcome: PlanOutcome | null;
  save: ReturnType<typeof useSavePlan>;
  told: number;
}

function Saving(props: SavingProps) {
  const { edit, outcome, save, told } = props;
  return (
    <Group>
      <Button disabled={!edit || !outcome} loading={save.isPending} onClick={() => edit && save.mutate(edit)}>
        {told ? `Save the groups and tell ${countWords(told, 'person', 'people')}` : 'Save the groups'}
      </Button>
    </Group>
  );
}

/** A weekly slot for each group, where they are wanted. */
function useSlots(names: string[]) {
  const [withSlots, setWithSlots] = useState(false);
  const [slots, setSlots] = useState<SlotForm>({
    title: 'Group session',
    days: ['friday'],
    from: '17:00',
    to: '21:00',
    minutes: 30,
    gap: 5,
    way: 'staggered',
    every: 1,
  });
  const computed = withSlots
    ? groupSlots(names.length, slots, Number(slots.minutes) || 0, Number(slots.gap) || 0, slots.way)
    : null;
  const slotFault = typeof computed === 'string' ? computed : null;
  return { withSlots, setWithSlots, slots, setSlots, computed, slotFault };
}

interface HowFieldsProps {
  way: SplitWay;
  setWay: (value: SplitWay) => void;
  own: string[];
  column: string;
  setColumn: (value: string) => void;
}

function HowFields(props: HowFieldsProps) {
  const { way, setWay, own, column, setColumn } = props;
  return (
    <>
      <Select
        label="How"
        w={240}
        allowDeselect={false}
        data={[
          { value: 'random', label: 'at random' },
          { value: 'together', label: 'the same together' },
          { value: 'mixed', label: 'evenly mixed' },
        ]}
        value={way}
        onChange={(v) => setWay(v as SplitWay)}
      />
      {way !== 'random' && (
        <Select
          label="By"
          w={170}
          allowDeselect={false}
          data={[
            { value: 'zone', label: 'time zone' },
            { value: 'group', label: 'group so far' },
            ...own.map((heading) => ({ value: `:${heading}`, label: heading })),
          ]}
          value={column}
          onChange={(v) => setColumn(v ?? 'zone')}
        />
      )}
    </>
  );
}

/** Who is in which group: as it is, and as it is being made. */
function useGroups(students: MemberInfo[]) {
  const [assigned, setAssigned] = useState<Assigned>(() =>
    Object.fromEntries(students.filter((s) => s.group).map((s) => [s.id, s.group!])),
  );
  const [names, setNames] = useState(() =>
    [...new Set(students.map((s) => s.group).filter((g) => g !== null))].sort(inOrder),
  );
  const deal = (groups: { name: string; people: string[] }[]) => {
    setNames(groups.map((g) => g.name));
    setAssigned(Object.fromEntries(groups.flatMap((g) => g.people.map((p) => [p, g.name]))));
  };

  const move = (student: string, group: string) =>
    setAssigned((all) => {
      const { [student]: was, ...rest } = all;
      return group ? { ...rest, [student]: group } : rest;
    });
  return { assigned, names, deal, move };
}
