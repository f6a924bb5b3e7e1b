import { spawn } from 'node:child_process';
import { createSocket } from 'node:dgram';
import { createInterface } from 'node:readline';
import type { Place } from '@nimble-bell/core/room';
import type { Logger } from 'pino';
import type { MediaRelay } from '../media/relay';
import type { Captioner, Heard, Listener } from './captioner';

/** So many are listened to at once in a class: each costs half a processor. */
const EARS = 2;
/** Who has been silent for so long is not listened to any more, ms. */
const SILENT_MS = 60_000;

/** What the relay passes on, for ffmpeg (RFC 4566, RFC 7587). */
const description = (port: number) =>
  ['v=0', 'o=- 0 0 IN IP4 127.0.0.1', 's=-', 'c=IN IP4 127.0.0.1', 't=0 0', `m=audio ${port} RTP/AVP 111`]
    .concat('a=rtpmap:111 opus/48000/2')
    .join('\n');

/** What is passed on, as plain sound, into the program: it reads a pipe of the shell's, and no socket of ours. */
const LISTENS =
  'printf %s "$SOUND" | ffmpeg -v error -protocol_whitelist pipe,file,udp,rtp -fflags nobuffer -f sdp -i pipe:0 ' +
  '-ar 16000 -ac 1 -f s16le pipe:1 | pocketsphinx_continuous -infile /dev/stdin -logfn /dev/null & ' +
  'read -r _; kill 0';

/** A port of this machine that is free at this moment. */
const freePort = () =>
  new Promise<number>((resolve, reject) => {
    const socket = createSocket('udp4');
    socket.once('error', reject);
    socket.bind(0, '127.0.0.1', () => {
      const { port } = socket.address();
      socket.close(() => resolve(port));
    });
  });

/**
 * Debian's `pocketsphinx` with its English model: a real program, of long ago. It knows no names and few of a subject's
 * words, and mishears much.
 */
export const sphinx = (relay: MediaRelay, log: Logger): Captioner => ({
  about: 'A small program on this server that knows plain English alone. It mishears much.',
  listen: (session, told) => new Ears(session, relay, log, told),
});

interface Ear {
  opened: Promise<() => void>;
  silent: NodeJS.Timeout | null;
}

class Ears implements Listener {
  readonly #ears = new Map<string, Ear>();
  #closed = false;

  constructor(
    readonly session: string,
    readonly relay: MediaRelay,
    readonly log: Logger,
    readonly told: (heard: Heard) => void,
  ) {}

  voice(publisher: string, _place: Place, heard: boolean) {
    const known = this.#ears.get(publisher);
    if (known?.silent) clearTimeout(known.silent);
    if (known) known.silent = heard ? null : setTimeout(() => this.#shut(publisher), SILENT_MS).unref();
    if (known || !heard || this.#closed) return;
    if (this.#ears.size >= EARS) {
      // Who is silent now gives way.
      const idle = [...this.#ears].find(([, ear]) => ear.silent);
      if (!idle) return;
      this.#shut(idle[0]);
    }
    const opened = this.#open(publisher).catch((error: unknown) => {
      this.log.warn({ why: String(error), session: this.session }, 'nobody listens');
      this.#ears.delete(publisher);
      return () => {};
    });
    this.#ears.set(publisher, { opened, silent: null });
  }

  gone(publisher: string) {
    this.#shut(publisher);
  }

  close() {
    this.#closed = true;
    for (const publisher of this.#ears.keys()) this.#shut(publisher);
  }

  #shut(publisher: string) {
    const ear = this.#ears.get(publisher);
    this.#ears.delete(publisher);
    if (ear?.silent) clearTimeout(ear.silent);
    void ear?.opened.then((shut) => shut());
  }

  /** The relay's packets, as plain sound, into the program; its lines are what it has heard. */
  async #open(publisher: string): Promise<() => void> {
    const port = await freePort();
    // A group of its own, which ends with its standard input: so also with a server that is killed.
    const program = spawn('sh', ['-c', LISTENS], {
      ...{ stdio: ['pipe', 'pipe', 'ignore'], detached: true },
      env: { ...process.env, SOUND: description(port) },
    });
    let open = true;
    const shut = () => {
      open = false;
      program.stdin.end();
    };
    program.once('error', (error) => this.log.warn({ why: String(error) }, 'a program for captions'));
    program.stdin.on('error', () => {});
    createInterface({ input: program.stdout }).on('line', (line) => {
      const text = line.trim();
      // What it is still at when it is shut was said elsewhere.
      if (text && open) this.told({ publisher, text, whole: true });
    });
    const stop = await this.relay.pass(this.session, publisher, port).catch((error: unknown) => {
      shut();
      throw error;
    });
    return () => {
      void stop().catch(() => {});
      shut();
    };
  }
}
