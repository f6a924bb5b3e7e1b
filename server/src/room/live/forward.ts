import type { IncomingMessage, Server } from 'node:http';
import { connect } from 'node:net';
import type { Duplex } from 'node:stream';
import type { Logger } from 'pino';
import type { Leases } from '../lease';

/** Set on what was forwarded once: it is not forwarded again. */
const FORWARDED = 'x-forwarded-room';

const ANSWERS_MS = 1500;

/** The room that a page's live channel is for: it says so in the address. */
export function roomOf(url: string | undefined): string | null {
  const room = new URL(url ?? '/', 'http://room').searchParams.get('room');
  return room && /^[\w-]{1,40}$/.test(room) ? room : null;
}

/**
 * Joins a page that reached this server to the one that holds its room: the line is passed on as it is. Must be called
 * when everything else that upgrades lines is attached.
 */
export function forwardToHolders(http: Server, leases: Leases, log: Logger) {
  const own = http.listeners('upgrade') as ((req: IncomingMessage, line: Duplex, head: Buffer) => void)[];
  http.removeAllListeners('upgrade');
  http.on('upgrade', (req: IncomingMessage, line: Duplex, head: Buffer) => {
    const here = () => own.forEach((listener) => listener(req, line, head));
    const room = req.headers[FORWARDED] ? null : roomOf(req.url);
    if (!room) return here();
    line.on('error', () => line.destroy());
    leases.elsewhere(room).then(
      (address) => (address ? passOn(req, line, head, address) : here()),
      (error: unknown) => {
        log.warn({ why: String(error) }, 'where a room is held could not be read');
        line.destroy();
      },
    );
  });
}

function passOn(req: IncomingMessage, line: Duplex, head: Buffer, address: string) {
  const [host, port] = address.split(':') as [string, string];
  // One that takes lines and answers none is as good as dead: the page tries again.
  const silent = setTimeout(() => other.destroy(), ANSWERS_MS);
  const other = connect(Number(port), host, () => {
    const headers = [];
    for (let i = 0; i < req.rawHeaders.length; i += 2)
      headers.push(`${req.rawHeaders[i]}: ${req.rawHeaders[i + 1]}`);
    other.write(`${req.method} ${req.url} HTTP/1.1\r\n${headers.join('\r\n')}\r\n${FORWARDED}: 1\r\n\r\n`);
    other.write(head);
    other.once('data', () => clearTimeout(silent));
    other.pipe(line).pipe(other);
  });
  other.on('error', () => line.destroy());
  other.on('close', () => {
    clearTimeout(silent);
    line.destroy();
  });
  line.on('close', () => other.destroy());
}
