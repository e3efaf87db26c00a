// Builds the page that holds both rigs and their contract, and serves it on loopback.
import { mkdtempSync, readFileSync, rmSync, existsSync, statSync } from 'node:fs';
import { createServer } from 'node:http';
import { tmpdir } from 'node:os';
import { extname, join, normalize } from 'node:path';
import { fileURLToPath } from 'node:url';
import { build } from 'vite';
import { freePort } from './server.mjs';

const TYPES = { '.html': 'text/html', '.js': 'text/javascript', '.css': 'text/css' };

/** @returns {Promise<{ url: string, stop: () => Promise<void> }>} */
export async function serveContract() {
  const outDir = mkdtempSync(join(tmpdir(), 'pebble-hall-contract-'));
  await build({
    root: fileURLToPath(new URL('../contract', import.meta.url)),
    configFile: false,
    logLevel: 'error',
    resolve: { conditions: ['pebble-source', 'module', 'import', 'browser', 'default'] },
    worker: { format: 'es' },
    build: { outDir, emptyOutDir: true, target: 'es2022' },
  });
  const server = createServer((request, response) => {
    const path = join(outDir, normalize(new URL(request.url ?? '/', 'http://x').pathname));
    const file = existsSync(path) && statSync(path).isDirectory() ? join(path, 'index.html') : path;
    if (!file.startsWith(outDir) || !existsSync(file)) {
      response.writeHead(404).end();
      return;
    }
    const type = TYPES[/** @type {'.js'} */ (extname(file))] ?? 'application/octet-stream';
    response.writeHead(200, { 'content-type': type }).end(readFileSync(file));
  });
  const port = await freePort();
  await new Promise((resolve) => server.listen(port, '127.0.0.1', () => resolve(null)));
  return {
    url: `http://127.0.0.1:${port}`,
    stop: async () => {
      server.closeAllConnections();
      await new Promise((resolve) => server.close(resolve));
      rmSync(outDir, { recursive: true, force: true });
    },
  };
}
