import { createHmac, randomBytes, timingSafeEqual } from 'node:crypto';
import { readFileSync, writeFileSync } from 'node:fs';
import path from 'node:path';
import type { Context } from '../context';

const HOURS_6 = 6 * 3_600_000;
let secret: Buffer | null = null;

function secretOf(ctx: Context): Buffer {
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

const sign = (ctx: Context, text: string) =>
  createHmac('sha256', secretOf(ctx)).update(text).digest('base64url');

/**
 * A media element sends no headers of ours, so its address carries a ticket: one member, one recording, six hours.
 * It says who asks; whether they may is asked anew with every request.
 */
export function ticketFor(ctx: Context, recording: string, member: string): string {
  const text = `${recording}.${member}.${ctx.now() + HOURS_6}`;
  return `${text}.${sign(ctx, text)}`;
}

/** The member a ticket was made for, or null. */
export function memberOfTicket(ctx: Context, ticket: string, recording: string): string | null {
  const [id, member, until, mark] = ticket.split('.');
  if (!member || !until || !mark || id !== recording || Number(until) < ctx.now()) return null;
  const given = Buffer.from(mark);
  const right = Buffer.from(sign(ctx, `${id}.${member}.${until}`));
  return given.length === right.length && timingSafeEqual(given, right) ? member : null;
}
