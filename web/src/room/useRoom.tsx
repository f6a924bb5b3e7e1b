import { notifications } from '@mantine/notifications';
import { createContext, useContext, useEffect, useRef, useState, useSyncExternalStore } from 'react';
import type { RoomCommand, RoomInfo } from '@nimble-bell/core/api';
import { teaches } from '@nimble-bell/core/limits';
import { may, type RoomState, type Verdict } from '@nimble-bell/core/room';
import type { Capability } from '@nimble-bell/core/api';
import { LinkContext } from '../app/api';
import { Call, type TrackKind } from './call';
import { RoomConnection, type RoomView } from './connection';

/** Opens a connection for as long as the page shows the room. */
export function useConnection(session: string): { connection: RoomConnection; call: Call; view: RoomView } {
  const link = useContext(LinkContext);
  const [{ connection, call }] = useState(() => {
    const made = new RoomConnection(session, link);
    return { connection: made, call: new Call(made) };
  });
  useEffect(() => {
    connection.open();
    return () => {
      call.close();
      connection.close();
    };
  }, [connection, call]);
  const view = useSyncExternalStore(connection.subscribe, connection.snapshot);
  useEffect(() => {
    if (view.state && view.info) call.follow(view.state, view.info.me.member);
  }, [call, view.state, view.info]);
  useSwitchesOff(connection, view);
  return { connection, call, view };
}

/** A page that was opened again holds no devices: the switches that its person left on are turned off, once. */
function useSwitchesOff(connection: RoomConnection, view: RoomView) {
  const entered = useRef(false);
  useEffect(() => {
    if (view.status !== 'in' || entered.current || !view.state || !view.info) return;
    entered.current = true;
    const { member } = view.info.me;
    const own = view.state.occupants[member];
    if (own?.microphone) void connection.command({ type: 'microphone', on: false });
    if (own?.camera) void connection.command({ type: 'camera', on: false });
    if (view.state.presenting === member) void connection.command({ type: 'present', on: false });
  }, [connection, view.status, view.state, view.info]);
}

export interface RoomTools {
  info: RoomInfo;
  state: RoomState;
  call: Call;
  view: RoomView;
  me: string;
  teaching: boolean;
  /** Asks the room; a refusal is shown in its own words. Gives whether it was done. */
  send: (command: RoomCommand) => Promise<boolean>;
  /** Opens a device, then asks. */
  sendWithDevice: (kind: TrackKind, command: RoomCommand) => Promise<boolean>;
  may: (capability: Capability) => Verdict;
  nameOf: (member: string) => string;
}

export const RoomContext = createContext<RoomTools | null>(null);

export function useRoom(): RoomTools {
  const tools = useContext(RoomContext);
  if (!tools) throw new Error('This belongs inside a room.');
  return tools;
}

export function toolsOf(connection: RoomConnection, call: Call, view: RoomView): RoomTools | null {
  const { info, state } = view;
  if (!info || !state) return null;
  const { member: me, role } = info.me;
  const send = async (command: RoomCommand) => {
    const reply = await connection.command(command);
    if (!reply.ok) notifications.show({ message: reply.refusal.message, color: 'clay' });
    return reply.ok;
  };
  return {
    info,
    state,
    call,
    view,
    me,
    teaching: teaches(role),
    send,
    sendWithDevice: async (kind, command) => {
      try {
        await call.open(kind);
      } catch (error) {
        notifications.show({ message: deviceWords(kind, error as DOMException), color: 'clay' });
        return false;
      }
      return send(command);
    },
    may: (capability) => may(state, me, role, capability),
    nameOf: (member) =>
      info.people.find((p) => p.member === member)?.name ?? state.occupants[member]?.name ?? 'Somebody',
  };
}

function deviceWords(kind: TrackKind, error: DOMException): string {
  const what = kind === 'sound' ? 'The microphone' : kind === 'camera' ? 'The camera' : 'The screen';
  if (error.name === 'NotAllowedError')
    return `${what} was not allowed by the browser. Allow it beside the address, then try again.`;
  return `${what} could not be opened: ${error.message}`;
}
