import { createHmac, timingSafeEqual } from 'node:crypto';
import type { Context } from '../context';
import { secretOf } from '../secret';

const HOUR = 3_600_000;
const HOURS = 6;

const sign = (ctx: Context, text: string) =>
  createHmac('sha256', secretOf(ctx)).update(text).digest('base64url');

/**
 * A media element sends no headers of ours, so its address carries a ticket: one member, one file, six hours and what is
 * left of this one, so that a page that asks again has the same address and loads nothing anew. It says who asks; whether
 * they may is asked anew with every request. It dies with the link that its holder had when it was made.
 */
export function ticketFor(ctx: Context, file: string, member: { id: string; link: string }): string {
  const until = (Math.ceil(ctx.now() / HOUR) + HOURS) * HOUR;
  const text = `${file}.${member.id}.${until}`;
  return `${text}.${sign(ctx, `${text}.${member.link}`)}`;
}

/** What a ticket says of itself: whose it is, and whether it was made for them with the link that they have now. */
export interface Ticket {
  member: string;
  isOf: (member: { id: string; link: string }) => boolean;
}

/** A ticket for this file that is not past its time, or null. */
export function readTicket(ctx: Context, ticket: string, file: string): Ticket | null {
  const [id, member, until, mark] = ticket.split('.');
  if (!member || !until || !mark || id !== file || !(Number(until) >= ctx.now())) return null;
  const given = Buffer.from(mark);
  return {
    member,
    isOf: (holder) => {
      const right = Buffer.from(sign(ctx, `${id}.${member}.${until}.${holder.link}`));
      return holder.id === member && given.length === right.length && timingSafeEqual(given, right);
    },
  };
}
