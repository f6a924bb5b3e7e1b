import { expect, type Locator, type Page } from '@playwright/test';
import type { LetterDetail } from '@nimble-bell/core/api';

/** The letters that a change would cause, as the page shows them before it is saved, by the first of their readers. */
export async function lettersShown(dialog: Locator): Promise<Map<string, string>> {
  await dialog.getByRole('button', { name: 'Read what they get' }).click();
  const kinds = dialog.getByTestId('letters-ahead').getByRole('button');
  await expect(kinds.first()).toBeVisible();
  const shown = new Map<string, string>();
  for (const kind of await kinds.all()) await kind.click();
  for (const paper of await dialog.locator('iframe').all())
    shown.set(
      (await paper.getAttribute('title'))!.replace('The letter to ', ''),
      (await paper.getAttribute('srcdoc'))!,
    );
  return shown;
}

/** A letter in the stand-in mailbox, waited for. */
export async function letterTo(page: Page, address: string, subject: string): Promise<LetterDetail> {
  let id = 0;
  await expect
    .poll(
      async () => {
        const letters = await (await page.request.get('/api/mailbox')).json();
        id = letters.find(
          (l: { to: string; subject: string }) => l.to.startsWith(address) && l.subject === subject,
        )?.id;
        return id;
      },
      { timeout: 20_000 },
    )
    .toBeTruthy();
  return (await page.request.get(`/api/mailbox/${id}`)).json();
}
