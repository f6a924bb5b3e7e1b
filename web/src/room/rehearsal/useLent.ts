import { useEffect } from 'react';
import { isOn } from '@nimble-bell/core/room';
import { Call, type TrackKind } from '../live/call';
import { RoomConnection } from '../live/connection';
import { speakingMicrophone, standInCamera, standInMicrophone } from '../live/standInDevices';

const LENT: readonly TrackKind[] = ['sound', 'camera'];

/**
 * Some of a made-up class have devices: this page makes their sound and picture, and sends them over connections of
 * their own, as theirs would be. When they switch them on, they decide themselves; whether it is passed on, the relay.
 */
export function useLent(session: string, links: readonly string[]) {
  const all = links.join();
  useEffect(() => {
    const lent = all ? all.split(',').map((link, nr) => lend(session, link, nr)) : [];
    return () => lent.forEach((back) => back());
  }, [session, all]);
}

/** A voice of their own; a server that has none for them says so. */
async function speaking(session: string, nr: number): Promise<MediaStreamTrack> {
  const response = await fetch(`/api/sessions/${session}/rehearsal/voices/${nr}`);
  if (!response.ok) throw new Error('There is no voice for a stand-in.');
  return speakingMicrophone(await response.arrayBuffer());
}

/** Gives what takes the devices back. */
function lend(session: string, link: string, nr: number): () => void {
  const connection = new RoomConnection(session, link);
  const make = async (kind: TrackKind): Promise<MediaStreamTrack> => {
    const { info } = connection.view;
    const name = info?.people.find((p) => p.member === info.me.member)?.name;
    if (kind === 'camera') return standInCamera(name, 201 + 75 * nr);
    return speaking(session, nr).catch(() => standInMicrophone(180 + 60 * nr));
  };
  const call = new Call(connection, make, false);
  const on = new Set<TrackKind>();
  const stop = connection.subscribe(() => {
    const { state, info, status } = connection.view;
    if (!state || !info || status !== 'in') return;
    call.follow(state, info.me.member);
    for (const kind of LENT) {
      const now = isOn(state, info.me.member, kind);
      if (now && !on.has(kind)) void call.open(kind);
      if (now) on.add(kind);
      else on.delete(kind);
    }
  });
  connection.open();
  return () => {
    stop();
    call.close();
    connection.close();
  };
}
