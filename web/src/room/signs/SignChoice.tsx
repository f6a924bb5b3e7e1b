import { Text } from '@mantine/core';
import { SIGN_WORDS, SIGNS, type Sign } from '@nimble-bell/core/room';
import { useRefusal } from '../controls/useRefusal';
import { useMay, useRoom } from '../live/useRoom';
import { SignMark } from './SignMark';
import classes from './signs.module.css';

/** The signs one can give. The one that stands is taken back by pressing it again. */
export default function SignChoice({ given, close }: { given: Sign | null; close: () => void }) {
  const { send } = useRoom();
  const { allowed } = useMay('react');
  const refusal = useRefusal('react');
  if (!allowed && !given)
    return (
      <Text size="sm" role="alert" maw={240} p={6}>
        {refusal}
      </Text>
    );
  return (
    <div role="group" aria-label="Signs" className={classes.choice}>
      {SIGNS.filter((sign) => allowed || sign === given).map((sign) => (
        <button
          key={sign}
          type="button"
          className={classes.sign}
          aria-pressed={sign === given}
          onClick={() => {
            close();
            void send({ type: 'giveSign', sign: sign === given ? null : sign });
          }}
        >
          <SignMark sign={sign} size={18} />
          {SIGN_WORDS[sign]}
        </button>
      ))}
    </div>
  );
}
