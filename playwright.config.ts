import { defineConfig } from '@playwright/test';
import { UNATTENDED } from './packages/renderer/src/chromium.ts';

const port = Number(process.env.TOVEL_TEST_PORT ?? 4410);
const executablePath = process.env.TOVEL_CHROMIUM ?? '/usr/bin/chromium';

export default defineConfig({
  testDir: 'e2e',
  testMatch: '**/*.pw.ts',
  timeout: 120_000,
  // What appears late on a machine that is busy is no failure.
  expect: { timeout: 20_000 },
  fullyParallel: false,
  workers: 2,
  reporter: [['list']],
  use: {
    baseURL: `http://127.0.0.1:${port}`,
    viewport: { width: 1280, height: 800 },
    // Recording costs a third of the time: asked for when a failure is looked into.
    trace: process.env.TOVEL_TRACE ? 'retain-on-failure' : 'off',
    screenshot: 'only-on-failure',
    launchOptions: {
      executablePath,
      chromiumSandbox: process.getuid?.() !== 0,
      args: [...UNATTENDED],
    },
  },
  webServer: {
    command: 'node packages/server/dist/main.mjs',
    url: `http://127.0.0.1:${port}/api/settings`,
    timeout: 120_000,
    gracefulShutdown: { signal: 'SIGTERM', timeout: 20_000 },
    env: {
      TOVEL_PORT: String(port),
      TOVEL_DATA: process.env.TOVEL_TEST_DATA ?? '.run/e2e',
      TOVEL_DEMO: process.env.TOVEL_DEMO ?? '',
    },
  },
});
