import { scaleLinear, scalePoint, type ScaleLinear, type ScalePoint } from 'd3';
import type { RollBookInfo } from '@nimble-bell/core/api';
import { dateIn, dayWords, shortDayWords } from '@nimble-bell/core/calendar';
import { sumsOf } from '@nimble-bell/core/roll';
import { useThisCourse } from '../app/course';
import { Panel } from '../ui/Panel';
import classes from './rollBook.module.css';

const WIDTH = 1100;
const HEIGHT = 190;
const EDGE = { left: 44, right: 16, top: 12, bottom: 28 };

interface Shown {
  id: string;
  title: string;
  number: number;
  startsAt: number;
  there: number;
  of: number;
  share: number;
}
interface Scales {
  x: ScalePoint<string>;
  y: ScaleLinear<number, number>;
}

const Line = ({ points, x, y }: Scales & { points: Shown[] }) => (
  <polyline
    points={points.map((p) => `${x(p.id)},${y(p.share)}`).join(' ')}
    fill="none"
    stroke="var(--edge)"
  />
);

interface PointProps extends Scales {
  point: Shown;
  /** Of the kind of session that is most often: a disc, on a line; others are squares. */
  first: boolean;
  dated: boolean;
  zone: string;
}

function Point({ point: p, first, dated, x, y, zone }: PointProps) {
  const [cx, cy] = [x(p.id)!, y(p.share)];
  return (
    <g>
      <title>{`${p.title} ${p.number}, ${dayWords(dateIn(zone, p.startsAt))}: ${p.there} of ${p.of}`}</title>
      {first ? (
        <circle cx={cx} cy={cy} r={4.5} fill="var(--pine)" />
      ) : (
        <rect
          x={cx - 4}
          y={cy - 4}
          width={8}
          height={8}
          fill="var(--card)"
          stroke="var(--pine)"
          strokeWidth={1.8}
        />
      )}
      {dated && (
        <text x={cx} y={HEIGHT - 8} textAnchor="middle">
          {shortDayWords(dateIn(zone, p.startsAt))}
        </text>
      )}
    </g>
  );
}

/** How many of a class were there, session by session, with what kind of session it was. */
export function TermAttendance({ book }: { book: RollBookInfo }) {
  const { zone } = useThisCourse().term;
  const points = book.sessions.map((s, i) => {
    const { there, of } = sumsOf(book.rows.map((r) => r.cells[i] ?? null));
    return { ...s, there, of, share: of ? there / of : 0 };
  });
  const x = scalePoint(
    points.map((p) => p.id),
    [EDGE.left, WIDTH - EDGE.right],
  ).padding(0.5);
  const y = scaleLinear([0, 1], [HEIGHT - EDGE.bottom, EDGE.top]);
  const often = (title: string) => points.filter((p) => p.title === title).length;
  const [main] = [...new Set(points.map((p) => p.title))].sort((a, b) => often(b) - often(a));
  const every = Math.ceil(points.length / 14);
  return (
    <Panel
      title="The term’s attendance"
      about={`The share of those whose session it was; excused ones left out. Discs on the line: ${main}. Squares: the others.`}
    >
      <svg
        className={classes.chart}
        viewBox={`0 0 ${WIDTH} ${HEIGHT}`}
        role="img"
        aria-label={`Attendance by session: ${points.map((p) => `${p.title} ${p.number} ${Math.round(p.share * 100)} %`).join(', ')}`}
      >
        {[0, 0.5, 1].map((share) => (
          <g key={share}>
            <line x1={EDGE.left} x2={WIDTH - EDGE.right} y1={y(share)} y2={y(share)} stroke="var(--line)" />
            <text x={EDGE.left - 6} y={y(share) + 4} textAnchor="end">
              {share * 100} %
            </text>
          </g>
        ))}
        <Line points={points.filter((p) => p.title === main)} {...{ x, y }} />
        {points.map((p, i) => (
          <Point key={p.id} point={p} first={p.title === main} dated={i % every === 0} {...{ x, y, zone }} />
        ))}
      </svg>
    </Panel>
  );
}
