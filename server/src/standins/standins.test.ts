import { createServer, type Server } from 'node:net';
import type { AddressInfo } from 'node:net';
import { noticeIn } from '@nimble-bell/core/mail';
import { InboxVisit } from '../mail/pop3';
import { bounceFor, isUndeliverable } from './bounces';
import { startPop3, type Mailbox } from './pop3';

const freePort = () =>
  new Promise<number>((resolve) => {
    const probe = createServer().listen(0, '127.0.0.1', () => {
      const { port } = probe.address() as AddressInfo;
      probe.close(() => resolve(port));
    });
  });

const LETTERS: Record<number, string> = {
  7: 'Subject: one\r\n\r\n.a line that begins with a dot\r\n..and two\r\nlast',
  9: 'Subject: two\n\nplain line ends\n',
};

let server: Server;
let removed: number[];
let port: number;
beforeEach(async () => {
  removed = [];
  const box: Mailbox = {
    list: async () => [7, 9].filter((id) => !removed.includes(id)),
    read: async (id) => LETTERS[id]!,
    remove: async (ids) => void removed.push(...ids),
  };
  port = await freePort();
  server = startPop3(port, box);
});
afterEach(() => new Promise<void>((done) => server.close(() => done())));

const open = () => new InboxVisit(`pop3://127.0.0.1:${port}`);

test('letters are listed under ids that stay, and come as they were, dots and all', async () => {
  const visit = open();
  expect(await visit.list()).toEqual([
    { number: 1, uidl: 'stand-in-7' },
    { number: 2, uidl: 'stand-in-9' },
  ]);
  expect(await visit.read(1)).toContain('\r\n.a line that begins with a dot\r\n..and two\r\nlast');
  expect(await visit.read(2)).toContain('plain line ends');
  await visit.end();
});

test('what is marked goes when the visit ends, and not before', async () => {
  const visit = open();
  await visit.list();
  await visit.remove(1);
  expect(removed).toEqual([]);
  await visit.end();
  expect(removed).toEqual([7]);
  const later = open();
  expect(await later.list()).toEqual([{ number: 1, uidl: 'stand-in-9' }]);
  await later.end();
});

test('a letter that is not there is refused, and the visit goes on; a mailbox that is not there is said', async () => {
  const visit = open();
  await visit.list();
  await expect(visit.read(5)).rejects.toThrow('no such letter');
  expect(await visit.list()).toHaveLength(2);
  await visit.end();
  const nobody = new InboxVisit(`pop3://127.0.0.1:${await freePort()}`);
  await expect(nobody.list()).rejects.toThrow();
});

test('a letter to nobody goes back with its headers, and is read as a delivery notice', () => {
  expect(isUndeliverable('somebody@nowhere.invalid')).toBe(true);
  expect(isUndeliverable('gone.away.ana@saltmarsh.example')).toBe(true);
  expect(isUndeliverable('ana@saltmarsh.example')).toBe(false);
  const letter = 'Message-ID: <invitation.first.m1@nimble-bell>\r\nSubject: your way in\r\n\r\nDear Ana';
  const { envelope, raw } = bounceFor(letter, 'classes@saltmarsh.example', 'gone.away@saltmarsh.example');
  expect(envelope).toEqual({ from: '', to: 'classes@saltmarsh.example' });
  expect(noticeIn(String(raw))).toEqual({
    messageId: '<invitation.first.m1@nimble-bell>',
    statuses: [
      {
        recipient: 'gone.away@saltmarsh.example',
        action: 'failed',
        status: '5.1.1',
        diagnostic: '550 There is no such mailbox.',
      },
    ],
  });
  expect(String(raw)).not.toContain('Dear Ana');
});
