import { randomInt } from 'node:crypto';
import type { Db } from '../db/pool';
import { holderOfPin, setPin, withoutPin } from './store';

const DIGITS = 8;
const TRIES = 20;

/** Gives a PIN to everyone of a course with a telephone line who has none: eight digits, no two alike in the college. */
export async function givePins(db: Db, courseId: string) {
  const without = await withoutPin(db, courseId);
  for (const { id } of without) await setPin(db, await freePin(db), id);
}

async function freePin(db: Db): Promise<string> {
  for (let i = 0; i < TRIES; i++) {
    const pin = String(randomInt(10 ** DIGITS)).padStart(DIGITS, '0');
    if (!(await holderOfPin(db, pin))) return pin;
  }
  throw new Error('No free PIN was found.');
}
