import { mkdtempSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { newId, newLinkCode, type Context } from '../context';
import { readTicket, ticketFor } from '../recordings/ticket';
import { hashPassword, passwordFits } from './password';
import { cookieOf, linkCode } from './principal';

test('a password fits its own hash only, however it was typed, and is never stored', async () => {
  const hash = await hashPassword('sält marsh');
  expect(hash).toMatch(/^scrypt\$[0-9a-f]{32}\$[0-9a-f]{64}$/);
  expect(await passwordFits('sält marsh', hash)).toBe(true);
  expect(await passwordFits('sält marsh'.normalize('NFD'), hash)).toBe(true);
  expect(await passwordFits('salt marsh', hash)).toBe(false);
  expect(await passwordFits('sält marsh', 'md5$x$y')).toBe(false);
  expect(await hashPassword('sält marsh')).not.toBe(hash);
});

test('link codes have seventeen characters that cannot be taken for one another, and no two are alike', () => {
  const codes = Array.from({ length: 2000 }, newLinkCode);
  for (const code of codes) expect(code).toMatch(/^[2-9abcdefghjkmnpqrstvwxyz]{17}$/);
  expect(new Set(codes).size).toBe(codes.length);
  const letters = new Map<string, number>();
  for (const letter of codes.join('')) letters.set(letter, (letters.get(letter) ?? 0) + 1);
  expect(letters.size).toBe(30);
  for (const count of letters.values()) expect(Math.abs(count / (32_000 / 30) - 1)).toBeLessThan(0.2);
  expect(newId()).toHaveLength(12);
});

test('a link is read with hyphens and capitals; a cookie is found among others', () => {
  expect(linkCode('ABCD-efgh-2345-6789')).toBe('abcdefgh23456789');
  expect(cookieOf({ cookie: 'a=1; nb_session=token; b=2' })).toBe('token');
  expect(cookieOf({ cookie: 'other=1' })).toBeNull();
  expect(cookieOf({})).toBeNull();
});

test('a ticket is for one recording and one member, for a time, and cannot be altered', () => {
  let now = 1_000_000;
  const config = { dataDir: mkdtempSync(path.join(tmpdir(), 'tickets-')) };
  const ctx = { config, now: () => now } as unknown as Context;
  const ana = { id: 'ana', link: 'first' };
  const ticket = ticketFor(ctx, 'recording', ana);
  const opens = (text: string, holder: typeof ana, file = 'recording') =>
    readTicket(ctx, text, file)?.isOf(holder) ?? false;
  expect(opens(ticket, ana)).toBe(true);
  expect(readTicket(ctx, ticket, 'another')).toBeNull();
  expect(opens(ticket.replace('ana', 'ben'), { id: 'ben', link: 'first' })).toBe(false);
  expect(opens(`${ticket}x`, ana)).toBe(false);
  expect(opens('', ana)).toBe(false);
  // It dies with the link that its holder had.
  expect(opens(ticket, { id: 'ana', link: 'second' })).toBe(false);
  // Asked for again within the hour it is the same address, and nothing is loaded anew.
  now = 3_599_999;
  expect(ticketFor(ctx, 'recording', ana)).toBe(ticket);
  now += 6 * 3_600_000;
  expect(opens(ticket, ana)).toBe(true);
  now += 2;
  expect(opens(ticket, ana)).toBe(false);
});
