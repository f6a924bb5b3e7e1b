import type { Context } from '../context';
import { expireRecordings } from '../recordings/expiry/expire';
import { warnOfLeaving } from '../recordings/space/soon';
import { warnOfSpace } from '../recordings/space/short';
import { forgetExports } from '../recordings/exports/forget';
import { forgetListening } from '../recordings/listening/sound';
import { indexMissing } from '../watching/words';
import { forgetOldRequests } from '../requests/once';

const HOUR_MS = 3_600_000;

/** What is looked after now and every hour. */
const CHORES: Record<string, (ctx: Context) => Promise<unknown>> = {
  'expiring recordings': expireRecordings,
  'telling of recordings that go': warnOfLeaving,
  'telling of space that ends': warnOfSpace,
  'making recordings searchable': indexMissing,
  'forgetting what was taken along': forgetExports,
  'forgetting what was listened to': forgetListening,
  'forgetting old requests': forgetOldRequests,
};

export function keepHouse(ctx: Context): NodeJS.Timeout {
  const look = () => {
    for (const [name, chore] of Object.entries(CHORES))
      void chore(ctx).catch((error: unknown) => ctx.log.error(error, name));
  };
  look();
  return setInterval(look, HOUR_MS);
}
