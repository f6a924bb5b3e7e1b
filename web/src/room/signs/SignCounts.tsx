import { listWords } from '@nimble-bell/core/calendar';
import { SIGN_WORDS, SIGNS } from '@nimble-bell/core/room';
import { useInside, useNameOf, type Inside } from '../live/useRoom';
import parts from '../frame/parts.module.css';
import { SignMark } from './SignMark';
import classes from './signs.module.css';

const select = ({ room }: Inside) =>
  SIGNS.map((sign) => ({
    sign,
    members: Object.keys(room.signs).filter((m) => room.signs[m]!.sign === sign),
  })).filter((s) => s.members.length > 0);
type Counted = ReturnType<typeof select>;
const same = (a: Counted, b: Counted) => JSON.stringify(a) === JSON.stringify(b);

/** How many give which sign now, against who gives most. */
export default function SignCounts() {
  const counted = useInside(select, same);
  const nameOf = useNameOf();
  const most = Math.max(...counted.map((c) => c.members.length));
  return (
    <>
      <h2 className={parts.heading}>Signs</h2>
      <ul className={classes.counts} aria-label="Signs">
        {counted.map(({ sign, members }) => (
          <li key={sign} title={listWords(members.map(nameOf))}>
            <SignMark sign={sign} />
            <span>{SIGN_WORDS[sign]}</span>
            <strong>{members.length}</strong>
            <span
              className={classes.bar}
              style={{ width: `${(members.length / most) * 100}%` }}
              aria-hidden
            />
          </li>
        ))}
      </ul>
    </>
  );
}
