import { useEffect, useState } from 'react';
import type { Line } from '@nimble-bell/core/api';
import { Judge } from './judged';
import { useRoom } from './useRoom';

const MEASURED_MS = 3000;
/** So often a connection that is not good is told again: whoever comes to teach meanwhile knows it too. */
const SAID_MS = 20_000;

/**
 * How one's own connection is. Where it is poor sound comes before pictures: none is received, and the own one rests,
 * until it is better, or until one wants them all the same. Those who teach are told.
 */
export function useOwnLine(): { line: Line; wanted: boolean; want: () => void } {
  const { call, connection } = useRoom();
  const [line, setLine] = useState<Line>('good');
  const [wanted, setWanted] = useState(false);
  useEffect(() => {
    const judge = new Judge();
    const timer = setInterval(() => {
      void call.measured().then((sample) => sample && setLine(judge.take(sample)));
    }, MEASURED_MS);
    return () => clearInterval(timer);
  }, [call]);
  if (line === 'good' && wanted) setWanted(false);
  useEffect(() => call.ease(wanted ? 'good' : line), [call, line, wanted]);
  useEffect(() => {
    const say = () => connection.signal({ what: 'line', line });
    say();
    if (line === 'good') return;
    const timer = setInterval(say, SAID_MS);
    return () => clearInterval(timer);
  }, [connection, line]);
  return { line, wanted, want: () => setWanted(true) };
}
