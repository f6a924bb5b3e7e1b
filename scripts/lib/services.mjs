import { spawnSync } from 'node:child_process';
import { existsSync, mkdirSync, rmSync, writeFileSync } from 'node:fs';
import path from 'node:path';
import { findProgram } from './install.mjs';
import { Fault, step } from './say.mjs';

/** MariaDB on loopback with its own data folder, as whoever starts it. */
export async function startDatabase(children, dataDir, port) {
  const folder = path.join(dataDir, 'db');
  const ready = path.join(dataDir, 'db-ready');
  const asRoot = process.getuid?.() === 0 ? ['--user=root'] : [];
  if (existsSync(folder) && !existsSync(ready)) {
    // The mark is set before the first use: without it the folder has never held anything.
    step('the database folder was left half-finished by an earlier start: it is laid anew');
    rmSync(folder, { recursive: true, force: true });
  }
  if (!existsSync(folder)) {
    step('laying the database');
    mkdirSync(folder, { recursive: true });
    const args = [
      '--no-defaults',
      `--datadir=${folder}`,
      '--auth-root-authentication-method=normal',
      '--skip-test-db',
      ...asRoot,
    ];
    const result = spawnSync(findProgram('mariadb-install-db'), args, { encoding: 'utf8' });
    if (result.status !== 0)
      throw new Fault(`The database could not be laid in ${folder}.\n${result.stdout}${result.stderr}`);
    writeFileSync(ready, '');
  }
  const init = path.join(dataDir, 'init.sql');
  writeFileSync(
    init,
    'CREATE DATABASE IF NOT EXISTS nimble_bell CHARACTER SET utf8mb4 COLLATE utf8mb4_unicode_ci;\n',
  );
  step('starting the database');
  const args = [
    '--no-defaults',
    `--datadir=${folder}`,
    `--port=${port}`,
    '--bind-address=127.0.0.1',
    `--socket=${path.join(dataDir, 'run/db.sock')}`,
  ];
  args.push(
    `--pid-file=${path.join(dataDir, 'run/mariadbd-own')}`,
    '--skip-name-resolve',
    `--init-file=${init}`,
    ...asRoot,
  );
  await children.start('database', findProgram('mariadbd'), args, { port });
  return `mysql://root@127.0.0.1:${port}/nimble_bell`;
}

const OTHER_PLUGINS = [
  'duktape',
  'echotest',
  'lua',
  'nosip',
  'recordplay',
  'sip',
  'streaming',
  'textroom',
  'videocall',
  'voicemail',
];
const OTHER_TRANSPORTS = ['http', 'mqtt', 'nanomsg', 'pfunix', 'rabbitmq'];
const libraries = (names) => names.map((n) => `libjanus_${n}.so`).join(',');

/** The relay on loopback with a configuration made here. */
export async function startRelay(children, dataDir, port) {
  const folder = path.join(dataDir, 'relay');
  mkdirSync(folder, { recursive: true });
  const interfaces = process.env.NB_RELAY_INTERFACES ?? 'lo';
  const media = 20_000 + (port % 1000) * 40;
  writeFileSync(
    path.join(folder, 'janus.jcfg'),
    `general: { configs_folder = "${folder}"
  log_to_stdout = true
  debug_level = 3
  session_timeout = 60 }
media: { rtp_port_range = "${media}-${media + 1490}" }
nat: { ice_lite = true
  full_trickle = false
  ice_enforce_list = "${interfaces}" }
plugins: { disable = "${libraries(OTHER_PLUGINS)}" }
transports: { disable = "${libraries(OTHER_TRANSPORTS)}" }
events: { broadcast = false }
`,
  );
  writeFileSync(
    path.join(folder, 'janus.transport.websockets.jcfg'),
    `general: { json = "compact"
  ws = true
  ws_port = ${port}
  ws_ip = "127.0.0.1"
  wss = false }
admin: { admin_ws = false
  admin_wss = false }
`,
  );
  writeFileSync(path.join(folder, 'janus.plugin.videoroom.jcfg'), 'general: { string_ids = true }\n');
  writeFileSync(
    path.join(folder, 'janus.plugin.audiobridge.jcfg'),
    `general: { string_ids = true
  local_ip = "127.0.0.1"
  rtp_port_range = "${media + 1500}-${media + 1990}" }
`,
  );
  step('starting the media relay');
  await children.start(
    'relay',
    findProgram('janus'),
    [`--config=${path.join(folder, 'janus.jcfg')}`, `--configs-folder=${folder}`],
    { port },
  );
  return `ws://127.0.0.1:${port}`;
}
