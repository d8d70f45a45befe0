/** Journeys through the built application, in Debian's Chromium. Nothing is downloaded. */
import { defineConfig } from '@playwright/test';
import { executablePath } from './browser';

export default defineConfig({
  testDir: '.',
  tsconfig: './tsconfig.json', // for what is read of the front end as well
  globalSetup: './setup.ts',
  workers: 2,
  timeout: 90_000,
  // A loaded machine may stall a page for seconds; what is asserted stays the same.
  expect: { timeout: 20_000 },
  reporter: [['list']],
  use: {
    locale: 'en-GB',
    viewport: { width: 1280, height: 800 },
    serviceWorkers: 'block', // pages come from the server, except where that is what is looked at
    reducedMotion: 'reduce',
    launchOptions: {
      executablePath,
      args: [
        '--no-sandbox',
        '--disable-gpu',
        '--disable-quic',
        '--no-first-run',
        '--disable-background-networking',
        '--disable-component-update',
        '--disable-sync',
      ],
    },
  },
  projects: [
    { name: 'journeys', testMatch: /.*\.journey\.ts/ },
    { name: 'shots', testMatch: /shots\.ts/ },
    { name: 'trace', testMatch: /.*\.trace\.ts/ },
  ],
});
