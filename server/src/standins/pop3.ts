import { createServer, type Server, type Socket } from 'node:net';

/** The letters that a mailbox holds. */
export interface Mailbox {
  list: () => Promise<number[]>;
  read: (id: number) => Promise<string>;
  remove: (ids: number[]) => Promise<void>;
}

/** A mailbox on loopback that is read by POP3 (RFC 1939), for anybody who asks: it holds a stand-in's post. */
export function startPop3(port: number, box: Mailbox): Server {
  const server = createServer((socket) => serve(socket, box));
  server.on('error', (error) => {
    process.stderr.write(`stand-in inbox: ${error.message}\n`);
  });
  return server.listen(port, '127.0.0.1');
}

function serve(socket: Socket, box: Mailbox) {
  let ids: number[] = [];
  const marked = new Set<number>();
  const say = (line: string) => socket.write(`${line}\r\n`);
  const lines = (head: string, body: string[]) => say([head, ...body, '.'].join('\r\n'));
  const at = (argument: string | undefined) => ids[Number(argument) - 1];
  const numbered = (describe: (id: number) => string) =>
    ids.flatMap((id, i) => (marked.has(id) ? [] : [`${i + 1} ${describe(id)}`]));

  async function answer(line: string) {
    const [command = '', argument] = line.trim().split(/\s+/);
    switch (command.toUpperCase()) {
      case 'USER':
        return say('+OK');
      case 'PASS':
        ids = await box.list();
        return say(`+OK ${ids.length} letters`);
      case 'STAT':
        return say(`+OK ${ids.length} 0`);
      case 'LIST':
        return lines(
          '+OK',
          numbered(() => '1'),
        );
      case 'UIDL':
        return lines(
          '+OK',
          numbered((id) => `stand-in-${id}`),
        );
      case 'RETR': {
        const id = at(argument);
        if (id === undefined) return say('-ERR no such letter');
        const raw = await box.read(id);
        // A line that begins with a dot gets another, so that none is taken for the end (§3).
        return lines(
          '+OK',
          raw.split(/\r?\n/).map((l) => (l.startsWith('.') ? `.${l}` : l)),
        );
      }
      case 'DELE': {
        const id = at(argument);
        if (id === undefined) return say('-ERR no such letter');
        marked.add(id);
        return say('+OK');
      }
      case 'NOOP':
        return say('+OK');
      case 'RSET':
        marked.clear();
        return say('+OK');
      case 'QUIT':
        await box.remove([...marked]);
        say('+OK');
        return socket.end();
      default:
        return say('-ERR not known here');
    }
  }

  let pending = '';
  let last: Promise<unknown> = Promise.resolve();
  socket.setEncoding('utf8');
  socket.on('data', (chunk: string) => {
    pending += chunk;
    const complete = pending.split('\r\n');
    pending = complete.pop()!;
    for (const line of complete)
      last = last.then(() => answer(line)).catch(() => say('-ERR something went wrong'));
  });
  socket.on('error', () => socket.destroy());
  say('+OK the stand-in inbox');
}
