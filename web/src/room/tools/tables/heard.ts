import { useEffect, useState } from 'react';
import { useRoom } from '../../live/useRoom';

/** Who is heard somewhere in the room, by the relay that hears them all: for those who teach. */
export function useHeardAnywhere(): ReadonlySet<string> {
  const { connection } = useRoom();
  const [heard, setHeard] = useState<ReadonlySet<string>>(new Set());
  useEffect(() => {
    const stop = connection.onVoice(({ member, heard: on }) =>
      setHeard((all) => (on ? new Set(all).add(member) : new Set([...all].filter((m) => m !== member)))),
    );
    return () => void stop();
  }, [connection]);
  return heard;
}
