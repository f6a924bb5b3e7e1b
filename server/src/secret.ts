import { randomBytes } from 'node:crypto';
import { readFileSync, writeFileSync } from 'node:fs';
import path from 'node:path';
import type { Context } from './context';

let secret: Buffer | null = null;

/** The key of this server's own signatures. */
export function secretOf(ctx: Context): Buffer {
  if (secret) return secret;
  const file = path.join(ctx.config.dataDir, 'ticket-secret');
  try {
    secret = readFileSync(file);
  } catch {
    secret = randomBytes(32);
    writeFileSync(file, secret, { mode: 0o600 });
  }
  return secret;
}
