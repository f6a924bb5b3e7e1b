import { io, type Socket } from 'socket.io-client';
import type { TelephoneKey } from '@nimble-bell/core/telephone';
import { told } from '../app/told';
import { acquire, gathered } from '../room/live/devices';

export interface TelephoneState {
  at: 'down' | 'rings' | 'talks';
  /** What the line has said, the latest last. */
  said: readonly string[];
  /** What was keyed in this call. */
  keyed: string;
}
const DOWN: TelephoneState = { at: 'down', said: [], keyed: '' };

/** A telephone that is a page: it dials, sends keys, and has one track of sound each way. */
export class Telephone {
  readonly state = told<TelephoneState>(DOWN);
  #line: Socket | null = null;
  #sound: RTCPeerConnection[] = [];
  #microphone: MediaStreamTrack | null = null;
  readonly #ear = new Audio();

  /** `room`: the session to which the call is passed on, and the keys that lead there. */
  dial(dialled: string, caller: string | null, room?: { session: string; keys: string }) {
    this.#putDown();
    this.#set(room ? { at: 'rings' } : { ...DOWN, at: 'rings' });
    const line = io('/telephone', {
      ...{ path: '/live', transports: ['websocket'], forceNew: true, reconnection: false },
      ...(room ? { query: { room: room.session } } : {}),
    });
    this.#line = line;
    line.on('connect', () => line.emit('dial', { dialled, caller }));
    line.on('connect_error', () => this.hangUp());
    line.on('spoken', ({ words }: { words: string }) => this.#heard(words));
    line.on('offer', ({ what }: { what: 'hears' | 'says' }, reply: (offer: { sdp: string }) => void) => {
      void this.#offer(what).then((sdp) => reply({ sdp }));
    });
    line.on('answer', ({ what, sdp }: { what: 'hears' | 'says'; sdp: string }) => {
      void this.#sound[what === 'hears' ? 0 : 1]?.setRemoteDescription({ type: 'answer', sdp });
      this.#set({ at: 'talks' });
      if (what === 'hears') for (const key of room?.keys ?? '') line.emit('key', key);
    });
    line.on('again', (room_: { session: string; keys: string }) => this.dial(dialled, caller, room_));
    line.on('disconnect', () => this.#line === line && this.hangUp());
  }

  press(key: TelephoneKey) {
    if (!this.#line) return;
    this.#line.emit('key', key);
    this.#set({ keyed: (this.state.get().keyed + key).slice(-24) });
  }

  hangUp() {
    this.#putDown();
    this.#set({ at: 'down', keyed: '' });
  }

  #putDown() {
    const line = this.#line;
    this.#line = null;
    line?.disconnect();
    for (const pc of this.#sound.splice(0)) pc.close();
    this.#microphone?.stop();
    this.#microphone = null;
  }

  async #offer(what: 'hears' | 'says'): Promise<string> {
    const pc = new RTCPeerConnection();
    this.#sound[what === 'hears' ? 0 : 1] = pc;
    if (what === 'hears') {
      pc.addTransceiver('audio', { direction: 'recvonly' });
      pc.addEventListener('track', ({ track }) => {
        this.#ear.srcObject = new MediaStream([track]);
        void this.#ear.play().catch(() => {});
      });
    } else {
      this.#microphone = await acquire('sound');
      pc.addTransceiver(this.#microphone, { direction: 'sendonly' });
    }
    await pc.setLocalDescription();
    await gathered(pc);
    return pc.localDescription!.sdp;
  }

  #heard(words: string) {
    this.#set({ said: [...this.state.get().said, words].slice(-6) });
  }
  #set(more: Partial<TelephoneState>) {
    this.state.set({ ...this.state.get(), ...more });
  }
}
