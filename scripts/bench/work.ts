import type { CDPSession } from '@playwright/test';

const WORK = ['ScriptDuration', 'RecalcStyleDuration', 'LayoutDuration'];

/** The browser's own count of script, style and layout on a page's main thread so far, ms. */
export async function workMs(client: CDPSession): Promise<number> {
  const { metrics } = await client.send('Performance.getMetrics');
  return metrics.filter((m) => WORK.includes(m.name)).reduce((sum, m) => sum + m.value * 1000, 0);
}
