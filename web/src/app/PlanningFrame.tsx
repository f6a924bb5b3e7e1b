import { Menu, Text, UnstyledButton, VisuallyHidden } from '@mantine/core';
import { IconChevronDown } from '@tabler/icons-react';
import { memo, useDeferredValue } from 'react';
import { Link, NavLink, Outlet, useLocation, useNavigate, useParams } from 'react-router';
import type { CourseCard, CourseDetail, StageName, StageState, Finding } from '@nimble-bell/core/api';
import { instantWords, zoneWords } from '@nimble-bell/core/calendar';
import { Fault } from '../ui/Fault';
import { LevelMark, StageFindings } from '../ui/Findings';
import { StageMark } from '../ui/StageMark';
import { useNow } from './clock';
import { CourseContext } from './course';
import { Bar } from './Bar';
import { TermRibbon } from './TermRibbon';
import { useAsk } from './api';
import { useAsked, useCourse, useMe, stopOf } from './queries';
import { Shell } from './Shell';
import { useAbout } from './title';
import { usePulse } from './usePulse';
import classes from './frame.module.css';

const STAGES: [StageName, string][] = [
  ['plan', 'Plan'],
  ['class', 'Class'],
  ['invite', 'Invite'],
  ['limits', 'Limits'],
  ['recording', 'Recording'],
  ['teach', 'Teach'],
  ['review', 'Review'],
];

/** Stages whose findings stand above their page; the plan shows its own beside each series. */
const BESIDE = ['class', 'invite', 'limits', 'recording'] as const;

/** Before and after class: bar, term ribbon, path, and the stage itself. */
export function PlanningFrame() {
  const { course: id } = useParams();
  const { pathname } = useLocation();
  const course = useCourse(id!);
  // Drawn in slices: a weak machine answers meanwhile.
  const shown = useDeferredValue(course.data);
  usePulse(id!);
  useAbout(course.data && `${course.data.code} ${course.data.title}`);
  const stop = stopOf(course);
  if (stop) return <Fault error={stop} />;
  if (!shown) return <Shell label="Loading the course" />;
  return (
    <CourseContext value={shown}>
      <Head course={shown} />
      <p className="on-paper">
        {shown.code} {shown.title}, {shown.term.name}
      </p>
      <div className={classes.below}>
        <div className={classes.ribbon}>
          <TermRibbon course={shown} />
        </div>
        <Path course={shown} />
      </div>
      <main id="content" className={classes.content}>
        {BESIDE.map((stage) =>
          pathname.endsWith(`/${stage}`) ? <StageFindings key={stage} course={shown} stage={stage} /> : null,
        )}
        <Outlet />
      </main>
    </CourseContext>
  );
}

// Neither the head nor the path has to do with what is being drafted.
const Head = memo(function Head({ course }: { course: CourseDetail }) {
  return (
    <Bar home="/courses">
      <CourseSwitch course={course} />
      <span className={classes.grow} />
      <ZoneTime zone={course.term.zone} />
      <Person />
    </Bar>
  );
});

const Path = memo(function Path({ course }: { course: CourseDetail }) {
  return (
    <nav className={classes.path} aria-label="Stages of the work">
      {STAGES.map(([stage, label]) => (
        <Stage
          key={stage}
          to={stage}
          label={label}
          state={course.stages[stage]}
          findings={course.findings.filter((f) => f.stage === stage && f.level !== 'advises')}
        />
      ))}
    </nav>
  );
});

interface StageProps {
  to: string;
  label: string;
  state: StageState;
  findings: Finding[];
}

function Stage({ to, label, state, findings }: StageProps) {
  const stops = findings.some((f) => f.level === 'stops');
  return (
    <NavLink to={to} className={classes.stage!}>
      <StageMark state={state} />
      {label}
      <span className={classes.stageState} data-state={state}>
        {state}
      </span>
      {findings.length > 0 && (
        <span className={classes.findings} data-level={stops ? 'stops' : 'warns'}>
          <LevelMark level={stops ? 'stops' : 'warns'} size={12} />
          {findings.length}
          <VisuallyHidden>{findings.length === 1 ? ' finding' : ' findings'}</VisuallyHidden>
        </span>
      )}
    </NavLink>
  );
}

export function ZoneTime({ zone }: { zone: string }) {
  const now = useNow(5000);
  return (
    <time className={classes.barTime}>
      {instantWords(now, zone)} in {zoneWords(zone)}
    </time>
  );
}

function CourseSwitch({ course }: { course: CourseDetail }) {
  const courses = useAsked<CourseCard[]>('/courses');
  return (
    <Menu position="bottom-start" width={320}>
      <Menu.Target>
        <UnstyledButton
          c="#fbf7ee"
          className={classes.courseSwitch}
          aria-label={`Course: ${course.code} ${course.title}. Choose another`}
        >
          <span style={{ display: 'flex', gap: 6, alignItems: 'center' }}>
            <span className={classes.course}>
              {course.code} {course.title}
            </span>
            <IconChevronDown size={15} />
          </span>
        </UnstyledButton>
      </Menu.Target>
      <Menu.Dropdown>
        {courses.data
          ?.filter((c) => c.archivedAt === null)
          .map((c) => (
            <Menu.Item key={c.id} component={Link} to={`/course/${c.id}`}>
              {c.code} {c.title}
            </Menu.Item>
          ))}
        <Menu.Divider />
        <Menu.Item component={Link} to="/courses">
          All courses, or a new one
        </Menu.Item>
      </Menu.Dropdown>
    </Menu>
  );
}

export function Person() {
  const me = useMe();
  const ask = useAsk();
  const navigate = useNavigate();
  if (!me.data?.person) return null;
  const signOut = async () => {
    await ask('/sign-out', 'POST', {});
    await navigate('/');
    window.location.reload();
  };
  return (
    <Menu position="bottom-end">
      <Menu.Target>
        <UnstyledButton c="#fbf7ee">
          <Text size="sm">{me.data.person.name}</Text>
        </UnstyledButton>
      </Menu.Target>
      <Menu.Dropdown>
        <Menu.Item component={Link} to="/ways">
          Your ways: days, hours, keys
        </Menu.Item>
        <Menu.Item onClick={() => void signOut()}>Sign out</Menu.Item>
      </Menu.Dropdown>
    </Menu>
  );
}
