import { io, type Socket } from 'socket.io-client';
import type { RoomCommand } from '@nimble-bell/core/room';
import { BASE_URL } from '../../e2e/support/product';

const connected = (socket: Socket) =>
  new Promise<Socket>((resolve, reject) => {
    socket.once('connect', () => resolve(socket));
    socket.once('connect_error', reject);
  });
export const open = (url: string, options: object) =>
  connected(io(url, { transports: ['websocket'], forceNew: true, reconnection: false, ...options }));

export interface Member {
  socket: Socket;
  send: (command: RoomCommand) => Promise<{ ok: boolean }>;
}

/** A page's line to a room, entered. */
export async function enter(session: string, options: object): Promise<Member> {
  const socket = await open(BASE_URL, { path: '/live', query: { room: session }, ...options });
  const reply = await socket.emitWithAck('enter', { session, after: 0 });
  if (!reply.ok) throw new Error(reply.refusal.message);
  return { socket, send: (command) => socket.emitWithAck('command', { id: crypto.randomUUID(), command }) };
}
