import { randomUUID } from 'node:crypto';
import type { Logger } from 'pino';
import { WebSocket } from 'ws';

interface Jsep {
  type: 'offer' | 'answer';
  sdp: string;
}

export interface Reply {
  data: Record<string, unknown>;
  jsep?: Jsep;
}

interface Pending {
  resolve: (message: Record<string, unknown>) => void;
  reject: (error: Error) => void;
  timer: NodeJS.Timeout;
  ackIsAnswer: boolean;
}

const TIMEOUT_MS = 8000;
const KEEPALIVE_MS = 20_000;
const RETRY_MS = 700;

/** The relay's refusal of a request, with its code. */
export class RelayError extends Error {
  constructor(
    readonly code: number,
    words: string,
  ) {
    super(`relay: ${words}`);
  }
}

/** The relay's JSON protocol over one WebSocket: a session that is opened again whenever it was lost. */
export class JanusClient {
  #socket: WebSocket | null = null;
  #session: number | null = null;
  #pending = new Map<string, Pending>();
  #listeners: ((up: boolean) => void)[] = [];
  #keepalive: NodeJS.Timeout | null = null;
  /** Handles whose peer connection is awaited. */
  #awaited = new Map<number, () => void>();
  #told = new Map<number, (data: Record<string, unknown>) => void>();
  #stopped = false;

  constructor(
    readonly url: string,
    readonly log: Logger,
  ) {
    this.#connect();
  }

  get up(): boolean {
    return this.#session !== null;
  }

  onChange(listener: (up: boolean) => void) {
    this.#listeners.push(listener);
  }

  /** Attaches to a plugin; a handle is one peer connection, or one participant without one. */
  async attach(plugin: 'videoroom' | 'audiobridge'): Promise<number> {
    const reply = await this.#send({ janus: 'attach', plugin: `janus.plugin.${plugin}` });
    return (reply.data as { id: number }).id;
  }

  /** What a handle is told by the relay of itself. */
  onEvent(handle: number, listener: (data: Record<string, unknown>) => void) {
    this.#told.set(handle, listener);
  }

  /** When a handle's peer connection stands; without an end where it never does. */
  whenUp(handle: number): Promise<void> {
    return new Promise((resolve) => this.#awaited.set(handle, resolve));
  }

  async detach(handle: number): Promise<void> {
    this.#awaited.delete(handle);
    this.#told.delete(handle);
    if (this.up) await this.#send({ janus: 'detach', handle_id: handle }).catch(() => {});
  }

  /** A plugin request and its answer, at once or as an event. */
  async request(handle: number, body: Record<string, unknown>, jsep?: Jsep): Promise<Reply> {
    const message = await this.#send({
      janus: 'message',
      handle_id: handle,
      body,
      ...(jsep ? { jsep } : {}),
    });
    const data = (message.plugindata as { data: Record<string, unknown> }).data;
    if (data.error) throw new RelayError(Number(data.error_code ?? 0), String(data.error));
    return message.jsep ? { data, jsep: message.jsep as Jsep } : { data };
  }

  stop() {
    this.#stopped = true;
    this.#socket?.close();
  }

  #connect() {
    if (this.#stopped) return;
    const socket = new WebSocket(this.url, 'janus-protocol');
    this.#socket = socket;
    socket.on('open', () => void this.#open().catch(() => socket.close()));
    socket.on('message', (data) => this.#receive(JSON.parse(String(data)) as Record<string, unknown>));
    socket.on('error', () => {});
    socket.on('close', () => this.#lost());
  }

  async #open() {
    const reply = await this.#send({ janus: 'create' });
    this.#session = (reply.data as { id: number }).id;
    this.#keepalive = setInterval(
      () => void this.#send({ janus: 'keepalive' }).catch(() => {}),
      KEEPALIVE_MS,
    );
    this.log.info('media relay is up');
    for (const listener of this.#listeners) listener(true);
  }

  #lost() {
    const was = this.up;
    this.#session = null;
    if (this.#keepalive) clearInterval(this.#keepalive);
    for (const pending of this.#pending.values()) {
      clearTimeout(pending.timer);
      pending.reject(new Error('The relay is gone.'));
    }
    this.#pending.clear();
    this.#awaited.clear();
    this.#told.clear();
    if (was && !this.#stopped) {
      this.log.warn('media relay is gone');
      for (const listener of this.#listeners) listener(false);
    }
    if (!this.#stopped) setTimeout(() => this.#connect(), RETRY_MS);
  }

  #send(message: Record<string, unknown>): Promise<Record<string, unknown>> {
    const transaction = randomUUID();
    const session = this.#session === null ? {} : { session_id: this.#session };
    return new Promise((resolve, reject) => {
      if (this.#socket?.readyState !== WebSocket.OPEN) return reject(new Error('The relay is not there.'));
      const timer = setTimeout(() => {
        this.#pending.delete(transaction);
        reject(new Error(`The relay did not answer ${String(message.janus)}.`));
      }, TIMEOUT_MS);
      this.#pending.set(transaction, { resolve, reject, timer, ackIsAnswer: message.janus === 'keepalive' });
      this.#socket.send(JSON.stringify({ ...message, ...session, transaction }));
    });
  }

  #receive(message: Record<string, unknown>) {
    if (message.janus === 'webrtcup') {
      this.#awaited.get(Number(message.sender))?.();
      this.#awaited.delete(Number(message.sender));
    }
    const pending = this.#pending.get(String(message.transaction));
    const { data } = (message.plugindata ?? {}) as { data?: Record<string, unknown> };
    if (!pending && data) this.#told.get(Number(message.sender))?.(data);
    if (!pending) return;
    // A plugin request is acknowledged first and answered later; a keepalive's acknowledgement is its answer.
    if (message.janus === 'ack' && !pending.ackIsAnswer) return;
    clearTimeout(pending.timer);
    this.#pending.delete(String(message.transaction));
    if (message.janus === 'error') pending.reject(new Error(`relay: ${JSON.stringify(message.error)}`));
    else pending.resolve(message);
  }
}
