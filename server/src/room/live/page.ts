import type { Socket } from 'socket.io';
import type { ClientMessages, ServerMessages } from '@nimble-bell/core/api';
import { placeOf, type Place } from '@nimble-bell/core/room';
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

  join({ room: { session, state }, member }: Visit) {
    const staff = channels.staff(session);
    void this.socket.join([channels.room(session), channels.member(session, member.id)]);
    this.goTo(session, placeOf(state, member.id));
    if (teaches(member.role)) void this.socket.join(staff);
    else void this.socket.leave(staff);
  }

  /** It hears this place of the room from now on, and no other. */
  goTo(session: string, place: Place) {
    const own = channels.place(session, place);
    for (const name of [...this.socket.rooms])
      if (name.startsWith(channels.place(session, '')) && name !== own) void this.socket.leave(name);
    void this.socket.join(own);
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
