import { randomBytes } from 'node:crypto';
import { simpleParser } from 'mailparser';
import nodemailer from 'nodemailer';
import { SMTPServer } from 'smtp-server';
import { openPool } from '../db/pool';
import { bounceFor, isUndeliverable } from './bounces';
import { startPop3 } from './pop3';
import { keepMail, noteFetched, rawMail, unfetched } from './store';

/**
 * The stand-in mailbox: a real SMTP listener on loopback that keeps every letter, and a POP3 listener from which the
 * product reads what comes back to it. A process of its own, so that mail is handed over a wire as it is outside. A
 * Message-ID reaches an address once.
 */
const port = Number(process.env.NB_MAILBOX_PORT);
const inboxPort = Number(process.env.NB_INBOX_PORT);
const offset = Number(process.env.NB_CLOCK_OFFSET ?? 0);
const organizer = process.env.NB_ORGANIZER ?? 'classes@saltmarsh.example';
/** The share of letters that are refused for the moment, and of those taken whose answer is lost: for tests. */
const refusing = Number(process.env.NB_MAILBOX_REFUSES ?? 0);
const dropping = Number(process.env.NB_MAILBOX_DROPS ?? 0);
const db = openPool(process.env.DATABASE_URL!);

const server = new SMTPServer({
  authOptional: true,
  disabledCommands: ['AUTH', 'STARTTLS'],
  size: 10_000_000,
  onData(stream, session, done) {
    const chunks: Buffer[] = [];
    stream.on('data', (chunk: Buffer) => chunks.push(chunk));
    stream.on('end', () => {
      if (Math.random() < refusing) {
        const busy = Object.assign(new Error('Busy for the moment, try again.'), { responseCode: 451 });
        return done(busy);
      }
      const to = session.envelope.rcptTo.map((r) => r.address.toLowerCase());
      const from = session.envelope.mailFrom ? session.envelope.mailFrom.address : '';
      keep(Buffer.concat(chunks), from, to).then(
        // The letter is kept, and whoever sent it never hears of it.
        () => (Math.random() < dropping ? drop(session.id) : done()),
        (error: Error) => done(error),
      );
    });
  },
});

function drop(session: string) {
  const connections = (
    server as unknown as { connections: Set<{ id: string; _socket: { destroy(): void } }> }
  ).connections;
  for (const c of connections) if (c.id === session) c._socket.destroy();
}

async function keep(raw: Buffer, from: string, recipients: string[]) {
  const mail = await simpleParser(raw);
  for (const recipient of recipients) {
    const { affectedRows } = await keepMail(db, {
      messageId: mail.messageId ?? `<${randomBytes(9).toString('hex')}@stand-in>`,
      recipient,
      sender: mail.from?.text ?? '',
      subject: mail.subject ?? '',
      at: Date.now() + offset,
      raw: raw.toString('utf8'),
    });
    if (affectedRows && from && isUndeliverable(recipient)) await giveBack(raw, from, recipient);
  }
}

/** A letter to an address that takes no post goes back, as mail servers send it back. */
async function giveBack(raw: Buffer, from: string, recipient: string) {
  const transport = nodemailer.createTransport({ host: '127.0.0.1', port, ignoreTLS: true });
  await transport.sendMail(bounceFor(raw.toString('utf8'), from, recipient));
}

server.on('error', (error) => {
  process.stderr.write(`stand-in mailbox: ${error.message}\n`);
});
server.listen(port, '127.0.0.1');

const pop3 = startPop3(inboxPort, {
  list: async () => {
    const found = await unfetched(db, organizer);
    return found.map((f) => f.id);
  },
  read: async (id) => (await rawMail(db, id))?.raw ?? '',
  remove: async (ids) => {
    if (ids.length) await noteFetched(db, Date.now() + offset, ids);
  },
});

process.on('SIGTERM', () => {
  pop3.close();
  server.close(() => void db.end().then(() => process.exit(0)));
});
