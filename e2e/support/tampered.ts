import type { Page } from '@playwright/test';
import { io, type Socket } from 'socket.io-client';
import type { RelayOffer } from '@nimble-bell/core/api';
import type { RoomCommand } from '@nimble-bell/core/room';
import { BASE_URL } from './product';

type Kept = Window & { sending: RTCPeerConnection[]; receiving?: RTCPeerConnection };

/** A client of somebody's own making: a page of the browser for the media, and the live channel past every control. */
export class Tampered {
  socket: Socket;

  constructor(
    readonly page: Page,
    readonly link: string,
    readonly session: string,
  ) {
    this.socket = this.#connect();
  }
  #connect(): Socket {
    return io(BASE_URL, {
      path: '/live',
      transports: ['websocket'],
      forceNew: true,
      reconnection: false,
      auth: { link: this.link.replace('/in/', '') },
    });
  }
  enter = () => this.socket.emitWithAck('enter', { session: this.session, after: 0 });
  command = (command: RoomCommand) =>
    this.socket.emitWithAck('command', { id: crypto.randomUUID(), command }) as Promise<{ ok: boolean }>;

  /** Cuts the line and is back at once. */
  async reconnect() {
    this.socket.disconnect();
    this.socket = this.#connect();
    return this.enter();
  }

  /** Sound, camera and screen, all sending, whatever the room says. Gives whether the offer was taken. */
  async publish(): Promise<boolean> {
    const { sdp, place } = await this.page.evaluate(async () => {
      const kept = window as unknown as Kept;
      kept.sending ??= [];
      const canvas = document.createElement('canvas');
      canvas.width = canvas.height = 160;
      const draw = canvas.getContext('2d')!;
      setInterval(() => {
        draw.fillStyle = `hsl(${Math.random() * 360} 80% 50%)`;
        draw.fillRect(0, 0, 160, 160);
      }, 50);
      const tone = new AudioContext();
      const out = tone.createMediaStreamDestination();
      const source = tone.createOscillator();
      source.connect(out);
      source.start();
      const pc = new RTCPeerConnection();
      const picture = () => canvas.captureStream(15).getTracks()[0]!;
      for (const track of [out.stream.getTracks()[0]!, picture(), picture()])
        pc.addTransceiver(track, { direction: 'sendonly' });
      await pc.setLocalDescription();
      if (pc.iceGatheringState !== 'complete')
        await new Promise<void>((resolve) => {
          setTimeout(resolve, 1500);
          pc.onicegatheringstatechange = () => pc.iceGatheringState === 'complete' && resolve();
        });
      return { sdp: pc.localDescription!.sdp, place: kept.sending.push(pc) - 1 };
    });
    const reply = await this.socket
      .timeout(8000)
      .emitWithAck('publish', { sdp })
      .catch(() => ({ ok: false }));
    if (!reply.ok) return false;
    return this.page.evaluate(
      async ([answer, at]) => {
        const pc = (window as unknown as Kept).sending[Number(at)]!;
        await pc.setRemoteDescription({ type: 'answer', sdp: String(answer) });
        return true;
      },
      [reply.sdp as string, place] as const,
    );
  }

  /** Packets sent so far, over all connections: the positive side of every count of nothing. */
  sent = () =>
    this.page.evaluate(async () => {
      let packets = 0;
      for (const pc of (window as unknown as Kept).sending)
        for (const s of (await pc.getStats()).values())
          if (s.type === 'outbound-rtp') packets += s.packetsSent as number;
      return packets;
    });

  /** Begins to receive whatever the relay passes on; what it received by before is let go. */
  async listen() {
    this.socket.off('offer');
    await this.page.evaluate(() => {
      const kept = window as unknown as Kept;
      kept.receiving?.close();
      delete kept.receiving;
    });
    this.socket.on('offer', (offer: RelayOffer) => void this.#receive(offer.sdp));
    await this.socket.emitWithAck('watch', {});
  }
  async #receive(sdp: string) {
    const answer = await this.page.evaluate(async (offer) => {
      const kept = window as unknown as Kept;
      const pc = (kept.receiving ??= new RTCPeerConnection());
      await pc.setRemoteDescription({ type: 'offer', sdp: offer });
      await pc.setLocalDescription();
      if (pc.iceGatheringState !== 'complete')
        await new Promise<void>((resolve) => {
          setTimeout(resolve, 1500);
          pc.onicegatheringstatechange = () => pc.iceGatheringState === 'complete' && resolve();
        });
      return pc.localDescription!.sdp;
    }, sdp);
    await this.socket.emitWithAck('answer', { sdp: answer });
  }
  /** Packets received so far, by media section. */
  received = () =>
    this.page.evaluate(async () => {
      const pc = (window as unknown as Kept).receiving;
      const byMid: Record<string, number> = {};
      for (const s of (await pc?.getStats())?.values() ?? [])
        if (s.type === 'inbound-rtp') byMid[s.mid as string] = s.packetsReceived as number;
      return byMid;
    });
  /** What arrives in a while: packets, over all sections. */
  async arriving(ms = 1200): Promise<number> {
    const sum = (by: Record<string, number>) => Object.values(by).reduce((a, b) => a + b, 0);
    const before = sum(await this.received());
    await this.page.waitForTimeout(ms);
    return sum(await this.received()) - before;
  }
  close() {
    this.socket.disconnect();
  }
}
