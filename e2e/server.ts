/**
 * Servers for the journeys. The demo shop is furnished once (setup.ts); every
 * file of journeys then starts a server of its own on a copy of it, so that no
 * journey sees what one in another file did.
 */
import { execFileSync, spawn } from 'node:child_process';
import { chmodSync, mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';

export interface Server {
  at: string; // its address
  data: string; // its folder
  join: string; // where the first owner comes in; empty where nobody signs in
  stop: () => Promise<void>;
}

/** A folder for a shop's data, which PostgreSQL's user may enter. */
export function folder() {
  const dir = mkdtempSync(path.join(tmpdir(), 'corte-journeys-'));
  chmodSync(dir, 0o755);
  return dir;
}

/** Starts Corte on the folder and waits until it answers. */
export async function start(
  command: 'demo' | 'serve',
  data: string,
  { signIn = false, keep = false } = {},
): Promise<Server> {
  const server = spawn('../bin/corte', [command], {
    env: {
      ...process.env,
      CORTE_DATA: data,
      CORTE_LISTEN: 'localhost:0',
      CORTE_LOG: 'warn',
      CORTE_SIGN_IN: signIn ? 'on' : 'off',
    },
    stdio: ['ignore', 'pipe', 'inherit'],
  });
  const ended = new Promise<number | null>((end) => server.once('exit', end));
  const said = await new Promise<string>((ready, failed) => {
    let text = '';
    server.stdout.on('data', (more: Buffer) => {
      text += more.toString();
      if (/ready: http\S+\s/.test(text) && (!signIn || text.includes('/join/'))) ready(text);
    });
    void ended.then((code) => failed(new Error(`corte ${command} ended with ${code}: ${text}`)));
  });
  return {
    data,
    at: /ready: (http\S+)/.exec(said)![1]!,
    join: /http\S+\/join\/\S+/.exec(said)?.[0] ?? '',
    stop: async () => {
      server.kill('SIGTERM');
      await ended;
      if (!keep) rmSync(data, { recursive: true, force: true });
    },
  };
}

/** Starts the demo shop on a copy of the furnished one. */
export function startDemo(options = {}) {
  const data = folder();
  execFileSync('cp', ['-a', '--reflink=auto', `${process.env['CORTE_FURNISHED']}/.`, data]);
  return start('demo', data, options);
}
