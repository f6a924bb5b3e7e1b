import { expect, type Browser, type BrowserContext, type Page } from '@playwright/test';

export const PASSWORD = 'saltmarsh';
export const MAREN = 'maren.oduya@saltmarsh.example';
export const TEO = 'teo.vanterpool@saltmarsh.example';
export const INES = 'ines.calloway@saltmarsh.example';

/** Signs in through the entrance's form. */
export async function signIn(page: Page, email: string): Promise<void> {
  await page.goto('/');
  await page.getByLabel('E-mail').fill(email);
  await page.getByLabel('Password').first().fill(PASSWORD);
  await page.getByRole('button', { name: 'Sign in' }).click();
  await expect(page.getByRole('heading', { name: 'Your courses' })).toBeVisible();
}

/** A person at a browser of their own. */
export async function person(
  browser: Browser,
  options: Parameters<Browser['newContext']>[0] = {},
): Promise<[Page, BrowserContext]> {
  const context = await browser.newContext({
    permissions: ['camera', 'microphone'],
    locale: 'en-GB',
    serviceWorkers: 'block',
    ...options,
  });
  return [await context.newPage(), context];
}

export const seat = (page: Page, name: string) => page.locator(`[data-testid=seat][data-name="${name}"]`);

/** The first `count` people of that list as rows of an import. */
export function classRows(count: number, apart = ''): object[] {
  return classList(count)
    .split('\n')
    .slice(1, count + 1)
    .map((line, i) => {
      const [email, zone, name] = line.split(';');
      return { line: i + 2, name, email: email!.replace('@', `${apart}@`), zone, group: null, extra: {} };
    });
}

/** A class list of `count` good rows and two bad ones, semicolons and the columns in another order. */
export function classList(count: number): string {
  const names = ['Ana Lanyon', 'Ben Garrow', 'Student Three', 'Cleo Penhale'];
  const zones = [
    'Atlantic/Azores',
    'Europe/Lisbon',
    'America/Halifax',
    'America/St_Johns',
    'America/Port_of_Spain',
  ];
  const row = (i: number) => {
    const name = names[i] ?? `Tide Reader ${i}`;
    return `${name.toLowerCase().replaceAll(' ', '.')}@saltmarsh.example;${zones[i % zones.length]};${name}`;
  };
  const rows = Array.from({ length: count }, (_, i) => row(i));
  return ['E-mail;Time zone;Name', ...rows, 'nobody at all;Europe/Lisbon;No Body', `${rows[0]}`].join('\n');
}
