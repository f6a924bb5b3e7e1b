import { Anchor, Button, Group, Text } from '@mantine/core';
import { useState } from 'react';
import { Link } from 'react-router';
import type { CourseDetail, Finding } from '@nimble-bell/core/api';
import { countWords } from '@nimble-bell/core/calendar';
import { useAsk } from '../app/api';
import { useChange } from '../app/queries';
import classes from './findings.module.css';

/** How grave: a barred gate stops, a dip warns, a nod advises. Told by shape and by its word. */
export function LevelMark({ level, size = 16 }: { level: Finding['level']; size?: number }) {
  const line = { stroke: 'currentColor', strokeWidth: 2, fill: 'none', strokeLinecap: 'round' as const };
  return (
    <svg width={size} height={size} viewBox="0 0 16 16" aria-hidden className={classes.mark}>
      {level === 'stops' && <path d="M3 2v12M13 2v12M3 6h10M3 10.5h10" {...line} />}
      {level === 'warns' && <path d="M1.5 5h3.2l3.3 6l3.3-6h3.2" {...line} />}
      {level === 'advises' && <path d="M2 8h12" {...line} strokeDasharray="0.5 4" />}
    </svg>
  );
}

interface FindingsProps {
  course: CourseDetail;
  findings: readonly Finding[];
  /** By which what they are about names them as its description. */
  id?: string;
}

/** Findings with their fixes: one press, done on the server from its own check. */
export function Findings({ course, findings, id }: FindingsProps) {
  const ask = useAsk();
  const [all, setAll] = useState(false);
  const fix = useChange(
    (finding: Finding) =>
      ask<{ done: string }>(`/courses/${course.id}/fixes`, 'POST', { finding: finding.id }),
    ({ done }) => `Done: ${done}.`,
  );
  if (!findings.length) return null;
  const pressing = findings.filter((f) => f.level !== 'advises');
  // Advice waits behind what is graver.
  const first = pressing.length ? pressing.slice(0, 5) : findings.slice(0, 1);
  const shown = all ? findings : first;
  return (
    <ul id={id} className={classes.list} aria-label="Findings of the readiness check">
      {shown.map((f) => (
        <li
          key={f.id}
          className={classes.finding}
          data-level={f.level}
          data-testid="finding"
          data-rule={f.rule}
        >
          <LevelMark level={f.level} />
          <Text size="sm" className={classes.text}>
            <strong>{WORDS[f.level]}</strong> {f.text}
          </Text>
          {f.fix && course.role === 'teacher' && (
            <FixButton course={course} finding={f} press={() => fix.mutate(f)} busy={fix.isPending} />
          )}
        </li>
      ))}
      {findings.length > shown.length && (
        <li>
          <Anchor component="button" type="button" size="sm" onClick={() => setAll(true)}>
            {countWords(findings.length - shown.length, 'more', 'more')}{' '}
            {pressing.length > shown.length ? 'findings' : 'to consider'}
          </Anchor>
        </li>
      )}
    </ul>
  );
}

const WORDS = { stops: 'Stops:', warns: 'Warns:', advises: 'Advises:' };

function FixButton(props: { course: CourseDetail; finding: Finding; press: () => void; busy: boolean }) {
  const { label, fix } = props.finding.fix!;
  if (fix.do === 'go')
    return (
      <Button
        component={Link}
        to={`/course/${props.course.id}/${fix.to}`}
        variant="default"
        size="compact-sm"
      >
        {label}
      </Button>
    );
  return (
    <Button variant="default" size="compact-sm" onClick={props.press} disabled={props.busy}>
      {label}
    </Button>
  );
}

/** What the check says of one stage of the work, but for what the stage's own page is there to do. */
export function StageFindings({ course, stage }: { course: CourseDetail; stage: Finding['stage'] }) {
  const isThePage = ({ fix }: Finding) =>
    fix?.fix.do === 'invite' || (fix?.fix.do === 'go' && fix.fix.to === stage);
  const own = course.findings.filter((f) => f.stage === stage && !isThePage(f));
  if (!own.length) return null;
  return (
    <Group mb="md" grow>
      <Findings course={course} findings={own} />
    </Group>
  );
}
