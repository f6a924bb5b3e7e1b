import type { MemberRow } from '../accounts/store';
import type { Context } from '../context';
import { forgetWrongPins, memberByPin, noteWrongPin, wrongPinsSince } from './store';

/** Wrong PINs are counted over this long, ms. */
const WHILE_MS = 15 * 60_000;
/** So many of one caller, or of all who withhold their number, and so many on one line, are the last that are tried. */
export const MOST_WRONG = { caller: 6, withheld: 30, line: 200 };

/** Whose PIN this is; `wrong` where it is nobody's on this line; `tooOften` where no more are tried, right or wrong. */
export async function whoseCall(
  ctx: Context,
  line: string,
  caller: string | null,
  pin: string,
): Promise<MemberRow | 'wrong' | 'tooOften'> {
  const now = ctx.now();
  const counted = await wrongPinsSince(ctx.db, line, caller ?? '', now - WHILE_MS);
  const most = caller === null ? MOST_WRONG.withheld : MOST_WRONG.caller;
  if (counted && (counted.own >= most || counted.all >= MOST_WRONG.line)) return 'tooOften';
  const member = await memberByPin(ctx.db, line, pin, now);
  if (member) return member;
  await noteWrongPin(ctx.db, line, caller ?? '', now);
  await forgetWrongPins(ctx.db, now - 4 * WHILE_MS);
  return 'wrong';
}
