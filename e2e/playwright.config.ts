import { defineConfig } from '@playwright/test';
import { BASE_URL } from './support/product';

/** These need the product to themselves: it is killed, what holds in all of it is changed, or it has five browsers' work. */
const ALONE = /(crash|kills|lesson|standing|twoServers)\.spec\.ts$/;

/** One product and one database for all. Pages are tested two files at a time; what needs the product alone, after that. */
export default defineConfig({
  testDir: '.',
  outputDir: '../.tmp/test-results',
  globalSetup: './support/globalSetup.ts',
  workers: 2,
  projects: [
    { name: 'pages', testIgnore: ALONE },
    { name: 'alone', testMatch: ALONE, workers: 1, dependencies: ['pages'] },
  ],
  // On a busy machine media may be late; a second try is allowed there, and said.
  retries: process.env.CI ? 1 : 0,
  timeout: 60_000,
  expect: { timeout: 10_000 },
  reporter: [['list', { printSteps: Boolean(process.env.STEPS) }]],
  use: {
    // Requests are watched and held up on their way: nothing answers them in the server's place, but in its own test.
    serviceWorkers: 'block',
    baseURL: BASE_URL,
    viewport: { width: 1280, height: 800 },
    timezoneId: 'America/Halifax',
    // Days and hours are written as the reader has them: here as the college does.
    locale: 'en-GB',
    permissions: ['camera', 'microphone'],
    // What moves is drawn again and again, by processors that the other tests need.
    contextOptions: { reducedMotion: 'reduce' },
    actionTimeout: 10_000,
    screenshot: 'only-on-failure',
    launchOptions: {
      // Debian's Chromium without its window, toolbars and tabs: a fifth less work for the same pages.
      executablePath: process.env.CHROMIUM ?? '/usr/bin/chromium-headless-shell',
      args: [
        '--no-sandbox',
        '--use-fake-device-for-media-stream=fps=5',
        '--use-fake-ui-for-media-stream',
        '--autoplay-policy=no-user-gesture-required',
        '--allow-loopback-in-peer-connection',
        '--disable-gpu',
        '--disable-quic',
        '--disable-background-networking',
        '--disable-component-update',
        '--disable-sync',
        '--no-first-run',
      ],
    },
  },
});
