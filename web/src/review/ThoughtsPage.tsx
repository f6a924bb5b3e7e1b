import { Anchor, Loader, Stack, Text, Title } from '@mantine/core';
import { greatest, rollup, scaleLinear, scalePoint } from 'd3';
import { Link } from 'react-router';
import { meanOf, TOGETHER } from '@nimble-bell/core/after';
import type { TermThoughts } from '@nimble-bell/core/api';
import { countWords, dateIn, dayWords, shortDayWords } from '@nimble-bell/core/calendar';
import { useThisCourse } from '../app/course';
import { stopOf, useAsked } from '../app/queries';
import { Fault } from '../ui/Fault';
import { Empty, Panel } from '../ui/Panel';
import classes from './part.module.css';

type Said = TermThoughts['sessions'][number] & { mean: number | null };

/** What the class thought of each session: one to five over the term, and in words. */
export function ThoughtsPage() {
  const course = useThisCourse();
  const asked = useAsked<TermThoughts>(`/courses/${course.id}/thoughts`);
  const stop = stopOf(asked);
  if (stop) return <Fault error={stop} />;
  const all = asked.data?.sessions.map((s): Said => ({ ...s, mean: meanOf(s.thoughts) })) ?? [];
  const said = all.filter((s) => s.thoughts.said > 0);
  return (
    <Stack>
      <Title order={1} size="h2">
        What the class thought
      </Title>
      {!asked.data && <Loader aria-label="Looking up what was said" />}
      {asked.data && !said.length && (
        <Empty>
          {asked.data.asked
            ? 'Nobody has said anything yet. Students are asked when a class is over.'
            : 'The class is not asked in this course. “Taking part” has the switch.'}
        </Empty>
      )}
      {said.length > 0 && (
        <Panel
          title="Over the term"
          about={`One is “lost me”, five is “clear as a bell”. Shown when ${TOGETHER} have answered, and then by ${TOGETHER} at once: nobody sees whose it was.`}
        >
          <Chart of={said} />
        </Panel>
      )}
      {[...said].reverse().map((s) => (
        <Words key={s.id} of={s} />
      ))}
    </Stack>
  );
}

const [WIDTH, HEIGHT] = [1100, 200];
const EDGE = { left: 30, right: 20, top: 14, bottom: 28 };

/** The mean of each session, as large as so many answered. */
function Chart({ of }: { of: Said[] }) {
  const { zone } = useThisCourse().term;
  const x = scalePoint(
    of.map((s) => s.id),
    [EDGE.left, WIDTH - EDGE.right],
  ).padding(0.5);
  const y = scaleLinear([1, 5], [HEIGHT - EDGE.bottom, EDGE.top]);
  const shown = of.filter((s) => s.mean !== null);
  const usual = mostOften(of.map((s) => s.title));
  const words = shown.map((s) => `${s.title} ${s.number}: ${s.mean}`).join(', ');
  const every = Math.ceil(of.length / 14);
  return (
    <svg
      className={classes.chart}
      viewBox={`0 0 ${WIDTH} ${HEIGHT}`}
      role="img"
      aria-label={`What the class thought, one to five: ${words || 'not enough have answered yet'}`}
    >
      {[1, 2, 3, 4, 5].map((n) => (
        <g key={n}>
          <line x1={EDGE.left} x2={WIDTH - EDGE.right} y1={y(n)} y2={y(n)} stroke="var(--line)" />
          <text x={EDGE.left - 10} y={y(n) + 4} textAnchor="end">
            {n}
          </text>
        </g>
      ))}
      <polyline
        points={shown
          .filter((s) => s.title === usual)
          .map((s) => `${x(s.id)},${y(s.mean!)}`)
          .join(' ')}
        fill="none"
        stroke="var(--edge)"
      />
      {shown.map((s) => (
        <Point key={s.id} of={s} x={x(s.id)!} y={y(s.mean!)} usual={s.title === usual} />
      ))}
      {of.map(
        (s, i) =>
          i % every === 0 && (
            <text key={s.id} x={x(s.id)} y={HEIGHT - 8} textAnchor="middle">
              {shortDayWords(dateIn(zone, s.startsAt))}
            </text>
          ),
      )}
    </svg>
  );
}

const mostOften = (titles: readonly string[]): string | undefined =>
  greatest(
    rollup(
      titles,
      (all) => all.length,
      (t) => t,
    ),
    ([, count]) => count,
  )?.[0];

/** As large as so many answered: a disc of what is taught most often, on its line; a square of anything else. */
function Point({ of: s, x, y, usual }: { of: Said; x: number; y: number; usual: boolean }) {
  const size = 4 + Math.min(8, Math.sqrt(s.thoughts.said));
  const title = <title>{`${s.title} ${s.number}: ${s.mean}, by ${s.thoughts.said}`}</title>;
  return usual ? (
    <circle cx={x} cy={y} r={size} fill="var(--pine)">
      {title}
    </circle>
  ) : (
    <rect x={x - size} y={y - size} width={2 * size} height={2 * size} fill="var(--tide)">
      {title}
    </rect>
  );
}

function Words({ of: { id, title, number, startsAt, thoughts, mean } }: { of: Said }) {
  const { id: course, term } = useThisCourse();
  return (
    <Panel
      title={`${title} ${number}, ${dayWords(dateIn(term.zone, startsAt))}`}
      about={`${countWords(thoughts.said, 'answer')}${mean === null ? '; shown when there are five' : `, ${mean} of 5`}.`}
      action={
        <Anchor component={Link} to={`/course/${course}/session/${id}`} size="sm">
          The session
        </Anchor>
      }
    >
      {thoughts.words.length > 0 ? (
        <ul className={classes.words}>
          {thoughts.words.map((w, i) => (
            <li key={`${i} ${w}`}>{w}</li>
          ))}
        </ul>
      ) : (
        <Text size="sm" c="dimmed">
          {mean === null ? 'Not enough have answered.' : 'Nobody added a word.'}
        </Text>
      )}
    </Panel>
  );
}
