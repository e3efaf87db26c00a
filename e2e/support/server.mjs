// Starts the built application on a free port of its own, for tests, benchmarks and pictures.
import { spawn } from 'node:child_process';
import { existsSync } from 'node:fs';
import { createServer } from 'node:net';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';

const root = fileURLToPath(new URL('../..', import.meta.url));

/** @returns {Promise<number>} a port that is free on loopback */
export function freePort() {
  return new Promise((resolve, reject) => {
    const probe = createServer();
    probe.once('error', reject);
    probe.listen(0, '127.0.0.1', () => {
      const address = probe.address();
      const port = typeof address === 'object' && address ? address.port : 0;
      probe.close(() => resolve(port));
    });
  });
}

/**
 * @param {Record<string, string>} [told] its environment, e. g. where it listens
 * @returns {Promise<{ url: string, stop: () => Promise<void> }>}
 */
export async function startServer(told = {}) {
  const entry = join(root, 'app', 'dist', 'server', 'serve.mjs');
  if (!existsSync(entry)) throw new Error('The application is not built: run "npm run build" first.');
  const host = told['HOST'] ?? '127.0.0.1';
  const port = told['PORT'] ? Number(told['PORT']) : await freePort();
  const server = spawn(process.execPath, [entry], {
    env: { ...process.env, HOST: host, PORT: String(port), ...told },
    stdio: ['ignore', 'ignore', 'pipe'],
  });
  let said = '';
  server.stderr.on('data', (chunk) => (said += chunk));
  const url = `http://${host}:${port}`;
  const started = Date.now();
  for (;;) {
    if (server.exitCode !== null) throw new Error(`The server ended with ${server.exitCode}: ${said}`);
    const answer = await fetch(`${url}/api/processor`).catch(() => null);
    if (answer?.ok) break;
    if (Date.now() - started > 30_000) throw new Error(`The server did not answer in 30 s: ${said}`);
    await new Promise((resolve) => setTimeout(resolve, 100));
  }
  return {
    url,
    stop: () =>
      new Promise((resolve) => {
        server.once('exit', () => resolve());
        server.kill();
      }),
  };
}
