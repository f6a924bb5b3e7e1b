import type { Socket } from 'socket.io';
import type { ClientMessages, ServerMessages } from '@nimble-bell/core/api';
import { CLASS } from '@nimble-bell/core/room';
import { teaches } from '@nimble-bell/core/roster';
import type { MemberRow } from '../../accounts/store';
import type { Media } from '../effects/media';
import type { Device, Visit } from '../entrance/visits';
import { channels } from './broadcast';

export type LiveSocket = Socket<ClientMessages, ServerMessages>;

/** A page by its line. */
export class PageDevice implements Device {
  readonly way = 'page';

  constructor(
    readonly socket: LiveSocket,
    readonly media: Pick<Media, 'unwatch'>,
  ) {}

  get id() {
    return this.socket.id;
  }

  join({ room: { session }, member }: Visit) {
    const staff = channels.staff(session);
    void this.socket.join([
      channels.room(session),
      channels.place(session, CLASS),
      channels.member(session, member.id),
    ]);
    if (teaches(member.role)) void this.socket.join(staff);
    else void this.socket.leave(staff);
  }

  leave() {
    for (const name of [...this.socket.rooms]) if (name !== this.id) void this.socket.leave(name);
    void this.media.unwatch(this.id);
  }

  door = () => void this.socket.emit('door');
  word = (text: string) => void this.socket.emit('porch-word', { text });
  you = (member: MemberRow) => void this.socket.emit('you', { member: member.id, role: member.role });
  putOut = (message: string) => void this.socket.emit('put-out', { message });
  close = () => void this.socket.disconnect(true);

  moved() {
    this.socket.emit('moved');
    this.close();
  }
}
