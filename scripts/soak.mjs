import { spawn } from 'node:child_process';
import { ensureTestable, ROOT } from './lib/install.mjs';
import { orSay } from './lib/say.mjs';

/** npm run soak [minutes]: eight hands at one course while app and database are killed, then random edits taken back. */
async function soak() {
  await ensureTestable();
  const minutes = Number(process.argv[2] ?? 10);
  const child = spawn(
    'node_modules/.bin/playwright',
    ['test', '-c', 'e2e', '--project=pages', '--workers=1', 'storm', 'model'],
    {
      cwd: ROOT,
      stdio: 'inherit',
      env: { ...process.env, SOAK: '1', STORM_MS: String(minutes * 60_000) },
    },
  );
  process.exitCode = await new Promise((resolve) => child.on('close', resolve));
}

orSay(soak());
