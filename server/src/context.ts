import { randomBytes } from 'node:crypto';
import type { EventEmitter } from 'node:events';
import type { Pool } from 'mysql2/promise';
import type { Logger } from 'pino';
import type { Config } from './config';

/** What every part of the server is given: nothing is reached for. */
export interface Context {
  config: Config;
  db: Pool;
  log: Logger;
  /** The time in force, ms. */
  now: () => number;
  /**
   * `changed`: something was written by a request, and may touch who is in a room, or what holds there. Who heeds it adds
   * what the answer waits for.
   */
  signals: EventEmitter<{ changed: [heeded: Promise<unknown>[]] }>;
}

/** Letters and digits that cannot be taken for one another: no 0 o, 1 l i, u v. 30 characters. */
const ALPHABET = '23456789abcdefghjkmnpqrstvwxyz';

/** `length` characters drawn evenly from the alphabet, 4.9 bits each. */
function draw(length: number): string {
  let text = '';
  while (text.length < length)
    for (const byte of randomBytes(length * 2))
      if (byte < 240 && text.length < length) text += ALPHABET[byte % 30];
  return text;
}

/** An id for a row, 59 bits. */
export const newId = (): string => draw(12);

/** The code of a personal link, 83.4 bits: see docs/decisions. */
export const newLinkCode = (): string => draw(17);
