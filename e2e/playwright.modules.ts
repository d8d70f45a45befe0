/** Tests of the front end's modules: no browser, no server. */
import { defineConfig } from '@playwright/test';

export default defineConfig({
  testDir: '.',
  tsconfig: './tsconfig.json',
  testMatch: 'modules.test.ts',
  reporter: [['list']],
});
