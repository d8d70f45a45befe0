/** Journeys through the built application, in Debian's Chromium. Nothing is downloaded. */
import { execFileSync } from 'node:child_process';
import { defineConfig } from '@playwright/test';
import { executablePath } from './browser';

// A free port, asked for once: workers read this file again and inherit it.
const port = (process.env['CORTE_JOURNEYS_PORT'] ??= execFileSync(process.execPath, [
  '-e',
  "require('net').createServer().listen(0, '127.0.0.1', function () { console.log(this.address().port); this.close(); })",
])
  .toString()
  .trim());

export default defineConfig({
  testDir: '.',
  tsconfig: './tsconfig.json', // for what is read of the front end as well
  fullyParallel: true,
  workers: 2,
  timeout: 90_000,
  // A loaded machine may stall a page for seconds; what is asserted stays the same.
  expect: { timeout: 20_000 },
  reporter: [['list']],
  use: {
    baseURL: `http://127.0.0.1:${port}`,
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
  webServer: {
    command: './demo-server.sh',
    env: { CORTE_LISTEN: `127.0.0.1:${port}` },
    url: `http://127.0.0.1:${port}/api/v1/health`,
    gracefulShutdown: { signal: 'SIGTERM', timeout: 15_000 },
    reuseExistingServer: false,
    stdout: 'ignore',
  },
  projects: [
    { name: 'journeys', testMatch: /.*\.journey\.ts/ },
    { name: 'shots', testMatch: /shots\.ts/ },
    { name: 'trace', testMatch: /.*\.trace\.ts/ },
  ],
});
