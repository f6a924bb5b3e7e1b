import { bin } from 'd3';
import { countWords } from '@nimble-bell/core/calendar';
import {
  letterOf,
  optionsOf,
  thirdOf,
  THIRDS,
  type Answer,
  type OnPicture,
  type Question,
  type Tally,
} from '@nimble-bell/core/questions';
import classes from './questions.module.css';

export interface BarsProps {
  question: Question;
  tally: Tally;
  /** The round before, where there was one. */
  before: Tally | null;
  own: Answer | null;
  right: Answer | null;
}

interface Row {
  label: string;
  count: number;
  before: number | null;
  own: boolean;
  right: boolean;
  words?: string;
}

const holds = (answer: Answer | null, option: number): boolean =>
  Array.isArray(answer) ? answer.includes(option) : answer === option;

function optionRows({ question, tally, before, own, right }: BarsProps): Row[] {
  const labels = optionsOf(question).map((o, i) =>
    question.kind === 'yesNo' || question.kind === 'trueFalse'
      ? o
      : [letterOf(i), o].filter(Boolean).join(' '),
  );
  const rows = labels.map((label, i): Row => ({
    label,
    count: tally.counts?.[i] ?? 0,
    before: before?.counts?.[i] ?? null,
    own: holds(own, i),
    right: holds(right, i),
  }));
  if (question.kind !== 'order') return rows;
  const firstOf = (answer: Answer | null) => (answer as number[] | null)?.[0];
  return rows
    .map((row, i) => ({
      ...row,
      own: firstOf(own) === i,
      right: firstOf(right) === i,
      place: tally.places?.[i] ?? 0,
    }))
    .sort((a, b) => a.place - b.place)
    .map(({ place, ...row }) => ({
      ...row,
      words: tally.answered ? `place ${place.toFixed(1)} on average` : '',
    }));
}

function numberRows({ tally, own, right }: BarsProps): Row[] {
  const values = tally.values ?? [];
  const distinct = new Set(values).size;
  const within = (v: Answer | null, from: number, to: number, last: boolean) =>
    typeof v === 'number' && v >= from && (v < to || (last && v <= to));
  // A few that recur are told one by one.
  if (distinct <= 10)
    return [...new Set(values)].map((v) => ({
      label: String(v),
      count: values.filter((x) => x === v).length,
      before: null,
      own: own === v,
      right: right === v,
    }));
  const bins = bin().thresholds(8)(values);
  return bins.map((b, i) => ({
    label: `${b.x0} to ${b.x1}`,
    count: b.length,
    before: null,
    own: within(own, b.x0!, b.x1!, i === bins.length - 1),
    right: within(right, b.x0!, b.x1!, i === bins.length - 1),
  }));
}

const wordRows = ({ tally, own, right }: BarsProps): Row[] =>
  (tally.groups ?? []).map(({ text, count }) => ({
    label: text,
    count,
    before: null,
    own: own === text,
    right: right === text,
  }));

/** Places on a picture, by the third of it that they are in: for who does not see it. */
function pointRows({ tally, before, own }: BarsProps): Row[] {
  const of = ({ points = [] }: Tally, third: string) => points.filter((p) => thirdOf(p) === third).length;
  return THIRDS.map((label) => ({
    label,
    count: of(tally, label),
    before: before && of(before, label),
    own: own !== null && thirdOf(own as OnPicture) === label,
    right: false,
  })).filter((row) => row.count > 0 || (row.before ?? 0) > 0);
}

function rowsOf(props: BarsProps): Row[] {
  const { kind } = props.question;
  if (kind === 'number') return numberRows(props);
  if (kind === 'words') return wordRows(props);
  return kind === 'point' ? pointRows(props) : optionRows(props);
}

/** What was answered, as bars: how many, one's own, the right one, and the round before as a thin line below. */
export function Bars(props: BarsProps) {
  const { tally, before } = props;
  const rows = rowsOf(props);
  const most = Math.max(1, tally.answered, before?.answered ?? 0);
  return (
    <ul className={classes.bars} aria-label={`What was answered, ${countWords(tally.answered, 'answer')}`}>
      {rows.length === 0 && <li className={classes.note}>No answer yet.</li>}
      {rows.map(({ label, count, before: was, own, right, words }) => (
        <li key={label} data-right={right}>
          <span className={classes.label}>
            {label}
            {right && <em> right</em>}
            {own && <em> yours</em>}
          </span>
          <span className={classes.track} aria-hidden>
            <i style={{ width: `${(100 * count) / most}%` }} />
            {was !== null && <i data-before style={{ width: `${(100 * was) / most}%` }} />}
          </span>
          <span className="figures">
            {count}
            {tally.answered > 0 && !words && ` (${Math.round((100 * count) / tally.answered)} %)`}
            {words && ` first, ${words}`}
            {was !== null && <small>, {was} before</small>}
          </span>
        </li>
      ))}
    </ul>
  );
}
