import { listWords } from '@nimble-bell/core/calendar';
import { SIGN_WORDS, SIGNS, type RoomState } from '@nimble-bell/core/room';
import { SignMark } from './SignMark';
import classes from './signs.module.css';

interface Props {
  signs: RoomState['signs'];
  nameOf: (member: string) => string;
}

/** How many give which sign, against who gives most. */
export function SignBars({ signs, nameOf }: Props) {
  const counted = SIGNS.map((sign) => ({
    sign,
    members: Object.keys(signs).filter((m) => signs[m]!.sign === sign),
  })).filter((s) => s.members.length > 0);
  const most = Math.max(...counted.map((c) => c.members.length));
  return (
    <ul className={classes.counts} aria-label="Signs">
      {counted.map(({ sign, members }) => (
        <li key={sign} title={listWords(members.map(nameOf))}>
          <SignMark sign={sign} />
          <span>{SIGN_WORDS[sign]}</span>
          <strong>{members.length}</strong>
          <span className={classes.bar} style={{ width: `${(members.length / most) * 100}%` }} aria-hidden />
        </li>
      ))}
    </ul>
  );
}
