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

/** One reader's visit: what the box held when it began, and what is to go when it ends. */
interface Visit {
  box: Mailbox;
  ids: number[];
  marked: Set<number>;
}

const many = (head: string, body: string[]) => [head, ...body, '.'].join('\r\n');
const numbered = ({ ids, marked }: Visit, describe: (id: number) => string) =>
  ids.flatMap((id, i) => (marked.has(id) ? [] : [`${i + 1} ${describe(id)}`]));
const letterAt = ({ ids }: Visit, argument: string | undefined) => {
  const id = ids[Number(argument) - 1];
  if (id === undefined) throw new Error('no such letter');
  return id;
};

/** What is answered to each command. */
const COMMANDS: Record<string, (visit: Visit, argument: string | undefined) => string | Promise<string>> = {
  USER: () => '+OK',
  PASS: async (visit) => {
    visit.ids = await visit.box.list();
    return `+OK ${visit.ids.length} letters`;
  },
  STAT: ({ ids }) => `+OK ${ids.length} 0`,
  LIST: (visit) =>
    many(
      '+OK',
      numbered(visit, () => '1'),
    ),
  UIDL: (visit) =>
    many(
      '+OK',
      numbered(visit, (id) => `stand-in-${id}`),
    ),
  RETR: async (visit, argument) => {
    const raw = await visit.box.read(letterAt(visit, argument));
    // A line that begins with a dot gets another, so that none is taken for the end (§3).
    const lines = raw.split(/\r?\n/).map((l) => (l.startsWith('.') ? `.${l}` : l));
    return many('+OK', lines);
  },
  DELE: (visit, argument) => {
    visit.marked.add(letterAt(visit, argument));
    return '+OK';
  },
  NOOP: () => '+OK',
  RSET: ({ marked }) => {
    marked.clear();
    return '+OK';
  },
  QUIT: async ({ box, marked }) => {
    await box.remove([...marked]);
    return '+OK';
  },
};

function serve(socket: Socket, box: Mailbox) {
  const visit: Visit = { box, ids: [], marked: new Set() };
  const say = (line: string) => socket.write(`${line}\r\n`);
  const answer = async (line: string) => {
    const [command = '', argument] = line.trim().split(/\s+/);
    const does = COMMANDS[command.toUpperCase()];
    if (!does) return say('-ERR not known here');
    say(await does(visit, argument));
    if (command.toUpperCase() === 'QUIT') socket.end();
  };
  let pending = '';
  let last: Promise<unknown> = Promise.resolve();
  socket.setEncoding('utf8');
  socket.on('data', (chunk: string) => {
    pending += chunk;
    const complete = pending.split('\r\n');
    pending = complete.pop()!;
    for (const line of complete)
      last = last.then(() => answer(line)).catch((error: unknown) => say(`-ERR ${(error as Error).message}`));
  });
  socket.on('error', () => socket.destroy());
  say('+OK the stand-in inbox');
}
