import { defineConfig } from '@playwright/test';
import { BASE_URL } from './support/product';

/** One product, one database, one worker: the tests share two cores with a relay and several browsers. */
export default defineConfig({
  testDir: '.',
  outputDir: '../.tmp/test-results',
  globalSetup: './support/globalSetup.ts',
  workers: 1,
  // On a busy machine media may be late; a second try is allowed there, and said.
  retries: process.env.CI ? 1 : 0,
  timeout: 60_000,
  expect: { timeout: 10_000 },
  reporter: [['list', { printSteps: Boolean(process.env.STEPS) }]],
  use: {
    baseURL: BASE_URL,
    viewport: { width: 1280, height: 800 },
    timezoneId: 'America/Halifax',
    locale: 'en-CA',
    permissions: ['camera', 'microphone'],
    actionTimeout: 10_000,
    screenshot: 'only-on-failure',
    launchOptions: {
      executablePath: process.env.CHROMIUM ?? '/usr/bin/chromium',
      args: [
        '--no-sandbox',
        '--use-fake-device-for-media-stream',
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
