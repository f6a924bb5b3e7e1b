import { simpleParser } from 'mailparser';
import { SMTPServer } from 'smtp-server';
import { openPool, run } from '../db/pool';

/**
 * The stand-in mailbox: a real SMTP listener on loopback that keeps every letter. A process of its own, so that mail
 * is handed over a wire as it is outside. A Message-ID reaches an address once.
 */
const port = Number(process.env.NB_MAILBOX_PORT);
const offset = Number(process.env.NB_CLOCK_OFFSET ?? 0);
const db = openPool(process.env.DATABASE_URL!);

const server = new SMTPServer({
  authOptional: true,
  disabledCommands: ['AUTH', 'STARTTLS'],
  size: 10_000_000,
  onData(stream, session, done) {
    const chunks: Buffer[] = [];
    stream.on('data', (chunk: Buffer) => chunks.push(chunk));
    stream.on('end', () => {
      const to = session.envelope.rcptTo.map((r) => r.address.toLowerCase());
      keep(Buffer.concat(chunks), to).then(
        () => done(),
        (error: Error) => done(error),
      );
    });
  },
});

async function keep(raw: Buffer, recipients: string[]) {
  const mail = await simpleParser(raw);
  for (const recipient of recipients)
    await run(
      db,
      'INSERT IGNORE INTO standin_mail (message_id, recipient, sender, subject, at, raw) VALUES (?, ?, ?, ?, ?, ?)',
      [
        mail.messageId ?? '',
        recipient,
        mail.from?.text ?? '',
        mail.subject ?? '',
        Date.now() + offset,
        raw.toString('utf8'),
      ],
    );
}

server.on('error', (error) => {
  process.stderr.write(`stand-in mailbox: ${error.message}\n`);
});
server.listen(port, '127.0.0.1');

process.on('SIGTERM', () => {
  server.close(() => void db.end().then(() => process.exit(0)));
});
