import type { AddressInfo } from 'node:net';
import pino from 'pino';
import { WebSocketServer, type WebSocket } from 'ws';
import { JanusClient } from './janusClient';

const log = pino({ level: 'silent' });
const ends: (() => void)[] = [];
afterEach(() => {
  for (const end of ends.splice(0)) end();
});

type Message = Record<string, unknown> & { transaction: string; janus: string };

/** A relay's end of the wire, answering as the protocol says. */
async function fakeRelay(answer: (message: Message, reply: (body: object) => void) => void) {
  const server = new WebSocketServer({ port: 0, host: '127.0.0.1' });
  const sockets: WebSocket[] = [];
  server.on('connection', (socket) => {
    sockets.push(socket);
    socket.on('message', (data) => {
      const message = JSON.parse(String(data)) as Message;
      const reply = (body: object) =>
        socket.send(JSON.stringify({ transaction: message.transaction, ...body }));
      if (message.janus === 'create') reply({ janus: 'success', data: { id: 7 } });
      else if (message.janus === 'attach') reply({ janus: 'success', data: { id: 11 } });
      else answer(message, reply);
    });
  });
  await new Promise((resolve) => server.once('listening', resolve));
  const client = new JanusClient(`ws://127.0.0.1:${(server.address() as AddressInfo).port}`, log);
  ends.push(() => {
    client.stop();
    for (const socket of sockets) socket.terminate();
    server.close();
  });
  return { client, sockets };
}

const until = async (condition: () => boolean) => {
  for (let i = 0; i < 300 && !condition(); i++) await new Promise((resolve) => setTimeout(resolve, 10));
  expect(condition()).toBe(true);
};

test('a plugin request is acknowledged first and answered by an event', async () => {
  const relay = await fakeRelay((_message, reply) => {
    reply({ janus: 'ack' });
    reply({
      janus: 'event',
      plugindata: { data: { videoroom: 'joined' } },
      jsep: { type: 'answer', sdp: 'sdp' },
    });
  });
  const { client } = relay;
  await until(() => client.up);
  const handle = await client.attach('videoroom');
  expect(handle).toBe(11);
  expect(await client.request(handle, { request: 'join' })).toEqual({
    data: { videoroom: 'joined' },
    jsep: { type: 'answer', sdp: 'sdp' },
  });
});

test("the relay's errors are errors, with its words", async () => {
  const relay = await fakeRelay((message, reply) =>
    (message.body as { request: string }).request === 'plugin'
      ? reply({ janus: 'success', plugindata: { data: { error: 'No such room' } } })
      : reply({ janus: 'error', error: { code: 458, reason: 'No such session' } }),
  );
  const { client } = relay;
  await until(() => client.up);
  await expect(client.request(1, { request: 'plugin' })).rejects.toThrow('No such room');
  await expect(client.request(1, { request: 'other' })).rejects.toThrow('No such session');
});

test('a lost relay fails what was asked, says so, and is found again by itself', async () => {
  const relay = await fakeRelay(() => {});
  const { client } = relay;
  const changes: boolean[] = [];
  client.onChange((up) => changes.push(up));
  await until(() => client.up);
  const asked = client.request(1, { request: 'never answered' });
  relay.sockets[0]!.terminate();
  await expect(asked).rejects.toThrow('The relay is gone.');
  await expect(client.attach('videoroom')).rejects.toThrow('The relay is not there.');
  await until(() => client.up);
  expect(changes).toEqual([true, false, true]);
});

test('it is told when a peer connection stands', async () => {
  const relay = await fakeRelay(() => {});
  const { client } = relay;
  await until(() => client.up);
  const up = client.whenUp(11);
  relay.sockets[0]!.send(JSON.stringify({ janus: 'webrtcup', sender: 11 }));
  await up;
});
