import { existsSync, mkdirSync, rmSync } from 'node:fs';
import path from 'node:path';
import {
  checkNode,
  ensureBuilt,
  ensureModules,
  ensurePackages,
  PRODUCT_PACKAGES,
  ROOT,
} from './lib/install.mjs';
import { checkPorts, Children } from './lib/children.mjs';
import { Fault, orSay, step } from './lib/say.mjs';
import { startDatabase, startRelay } from './lib/services.mjs';

/**
 * npm start [-- --fresh] [-- --no-demo]
 *
 * NB_PORT   the app's port, 8210; the four after it are the database's, the relay's, the mailbox's and its inbox's
 * NB_DATA   the data folder, .data
 * NB_NOW    an ISO instant: the demo is laid around it and the clock runs from it
 * NB_CAPTIONER  who writes captions where a teacher lets a program do it: stand-in, pocketsphinx (installed then), none
 * SMTP_URL, INBOX_URL, DATABASE_URL, RELAY_URL  outside services instead of our own
 */
async function start() {
  const began = Date.now();
  const fresh = process.argv.includes('--fresh');
  const port = Number(process.env.NB_PORT ?? 8210);
  if (!Number.isInteger(port) || port < 1024 || port > 65_000)
    throw new Fault('NB_PORT is a number from 1024 to 65000.');
  const dataDir = path.resolve(ROOT, process.env.NB_DATA ?? '.data');
  const at = process.env.NB_NOW ? Date.parse(process.env.NB_NOW) : Date.now();
  if (Number.isNaN(at)) throw new Fault('NB_NOW is an instant such as 2026-10-06T21:05:00Z.');
  process.stdout.write('Nimble Bell\n');

  mkdirSync(dataDir, { recursive: true });
  const children = new Children(dataDir);
  await children.takeOver();
  await checkPorts({
    app: port,
    database: port + 1,
    'media relay': port + 2,
    mailbox: port + 3,
    inbox: port + 4,
  });
  checkNode();
  ensurePackages([
    ...PRODUCT_PACKAGES,
    ...(process.env.NB_CAPTIONER === 'pocketsphinx' ? ['pocketsphinx'] : []),
  ]);
  ensureModules();
  await ensureBuilt();
  if (fresh) {
    step('clearing the demo data');
    for (const part of ['db', 'db-ready', 'recordings', 'materials'])
      if (existsSync(path.join(dataDir, part))) rmSync(path.join(dataDir, part), { recursive: true });
  }
  const stop = () => {
    process.stdout.write('\n  stopping\n');
    void children.stop().then(() => process.exit(0));
  };
  process.on('SIGINT', stop);
  process.on('SIGTERM', stop);

  try {
    const databaseUrl = process.env.DATABASE_URL ?? (await startDatabase(children, dataDir, port + 1));
    const relayUrl = process.env.RELAY_URL ?? (await startRelay(children, dataDir, port + 2));
    const env = {
      DATABASE_URL: databaseUrl,
      RELAY_URL: relayUrl,
      NB_PORT: String(port),
      NB_MAILBOX_PORT: String(port + 3),
      NB_INBOX_PORT: String(port + 4),
      NB_DATA: dataDir,
      NB_WEB: path.join(ROOT, 'web/dist'),
      NB_MADE: path.join(ROOT, 'node_modules/.cache/nimble-bell'),
      NB_CLOCK_OFFSET: String(process.env.NB_NOW ? at - Date.now() : 0),
      NB_DEMO: process.argv.includes('--no-demo') ? '0' : '1',
    };
    if (!process.env.SMTP_URL) {
      step('starting the stand-in mailbox');
      await children.start('mailbox', process.execPath, [path.join(ROOT, 'server/dist/mailbox.js')], {
        port: port + 3,
        env,
      });
    }
    step('starting the app');
    await children.start(
      'app',
      process.execPath,
      ['--enable-source-maps', path.join(ROOT, 'server/dist/main.js')],
      { port, env, seconds: 180 },
    );
  } catch (error) {
    await children.stop();
    throw error;
  }
  const address = `http://127.0.0.1:${port}`;
  process.stdout.write(`
  Ready in ${((Date.now() - began) / 1000).toFixed(1)} s:  ${address}

  Enter as    Maren Oduya, teacher       maren.oduya@saltmarsh.example      password: saltmarsh
              Teo Vanterpool, assistant  teo.vanterpool@saltmarsh.example   password: saltmarsh
              a student                  by a link on the first page
  Everyone's post: ${address}/mailbox
  Ctrl-C ends all of it. "npm start -- --fresh" lays the demo anew.
`);
}

orSay(start());
