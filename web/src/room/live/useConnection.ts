import { useContext, useEffect, useRef, useState, useSyncExternalStore } from 'react';
import type { RoomCommand } from '@nimble-bell/core/api';
import { listWords } from '@nimble-bell/core/calendar';
import { isOn, may, speaksBy, type RoomState } from '@nimble-bell/core/room';
import { LinkContext } from '../../app/api';
import { say } from '../../app/notices';
import { arrival } from '../door/arrival';
import { isPeople } from '../frame/apart';
import { Call, type TrackKind } from './call';
import { RoomConnection, type RoomView } from './connection';
import { Lines } from './lines';
import type { RoomTools } from './useRoom';

/** Opens a connection for as long as the page shows the room. */
export function useConnection(session: string): { tools: RoomTools; connection: RoomConnection } {
  const link = useContext(LinkContext);
  const [made] = useState(() => {
    const connection = new RoomConnection(session, link);
    return { connection, tools: toolsOf(connection, new Call(connection)) };
  });
  const { connection, tools } = made;
  useEffect(() => {
    connection.open();
    const seen = () => document.visibilityState === 'visible' && connection.wake();
    document.addEventListener('visibilitychange', seen);
    window.addEventListener('online', seen);
    const stop = connection.subscribe(() => {
      const { state, info } = connection.view;
      if (state && info) tools.call.follow(state, info.me.member);
    });
    return () => {
      document.removeEventListener('visibilitychange', seen);
      window.removeEventListener('online', seen);
      stop();
      tools.call.close();
      connection.close();
    };
  }, [connection, tools]);
  useSwitchesOff(connection, tools);
  return made;
}

/** How the page stands to the room, and no more: what happens in the room changes nothing of it. */
export function useStanding(connection: RoomConnection) {
  const standing = ({ status, refusal, shut, porch, state }: RoomView) =>
    JSON.stringify({ status, refusal, shut, porch, phase: state?.bell.phase ?? null });
  return JSON.parse(useSyncExternalStore(connection.subscribe, () => standing(connection.view))) as {
    status: RoomView['status'];
    refusal: string | null;
    shut: boolean;
    porch: RoomView['porch'];
    phase: 'waiting' | 'live' | 'dismissed' | null;
  };
}

/**
 * A page that was opened again holds no devices: the switches that its person left on are turned off, once; but for the
 * camera, where they chose to come in with it and the door's rules leave it to them.
 */
function useSwitchesOff(connection: RoomConnection, tools: RoomTools) {
  const entered = useRef(false);
  useEffect(() => {
    const stop = connection.subscribe(() => {
      const { status, state, info } = connection.view;
      if (status !== 'in' || entered.current || !state || !info || isPeople()) return;
      entered.current = true;
      const { member } = info.me;
      const withCamera =
        arrival.get().camera &&
        state.door.rules.cameras === 'choice' &&
        may(state, info.me, 'camera').allowed;
      if (arrival.get().listens) void connection.command({ type: 'onlyListen', on: true });
      if (withCamera) void tools.sendWithDevice('camera', { type: 'camera', on: true });
      const off = [];
      if (state.desk.microphone[member] && !isCalling(state, member)) {
        void connection.command({ type: 'microphone', on: false });
        off.push('microphone');
      }
      if (state.desk.camera[member] && !withCamera) {
        void connection.command({ type: 'camera', on: false });
        off.push('camera');
      }
      if (isOn(state, member, 'screen')) {
        void connection.command({ type: 'present', on: false });
        off.push('screen');
      }
      // What was on before is not on by itself again, and that is said.
      if (off.length) say(`You are back. What was on is off now: your ${listWords(off)}.`);
    });
    return () => void stop();
  }, [connection, tools]);
}

/** Their microphone is their telephone's. */
const isCalling = (state: RoomState, member: string) => speaksBy(state, member) === 'telephone';

export function toolsOf(connection: RoomConnection, call: Call): RoomTools {
  const send = async (command: RoomCommand) => {
    const reply = await connection.command(command);
    if (!reply.ok) say(reply.refusal.message, 'fault');
    return reply.ok;
  };
  return {
    connection,
    call,
    lines: new Lines(connection),
    send,
    sendWithDevice: async (kind, command) => {
      try {
        await call.open(kind);
      } catch (error) {
        say(deviceWords(kind, error as DOMException), 'fault');
        return false;
      }
      return send(command);
    },
  };
}

function deviceWords(kind: TrackKind, error: DOMException): string {
  const what = kind === 'sound' ? 'The microphone' : kind === 'camera' ? 'The camera' : 'The screen';
  if (error.name === 'NotAllowedError')
    return `${what} was not allowed by the browser. Allow it beside the address, then try again.`;
  return `${what} could not be opened: ${error.message}`;
}
