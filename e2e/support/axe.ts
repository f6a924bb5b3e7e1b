import AxeBuilderSource from 'axe-core';
import type { Page } from '@playwright/test';

interface Violation {
  id: string;
  impact: string;
  nodes: { html: string; failureSummary?: string }[];
}

const RULES = ['wcag2a', 'wcag2aa', 'wcag21aa', 'wcag22aa'];

/**
 * The serious and critical violations of WCAG 2 A and AA that axe finds on a page, in one line each; or in a part of it, where
 * that lies over the rest.
 */
export async function violations(page: Page, within = 'html'): Promise<string[]> {
  if (!(await page.evaluate(() => 'axe' in window))) await page.evaluate(AxeBuilderSource.source);
  const found = await page.evaluate(
    async ({ part, runOnly }) => {
      const { axe } = window as unknown as {
        axe: { run: (context: string, options: object) => Promise<{ violations: Violation[] }> };
      };
      // Of what passes nothing is asked: saying it all takes longer than finding it.
      return (await axe.run(part, { runOnly, resultTypes: ['violations'] })).violations;
    },
    { part: within, runOnly: RULES },
  );
  return found
    .filter((v) => v.impact === 'serious' || v.impact === 'critical')
    .map(
      (v) =>
        `${v.id}: ${v.nodes.map((n) => `${n.html.slice(0, 140)} (${n.failureSummary?.split('\n')[1]?.trim() ?? ''})`).join(' | ')}`,
    );
}
