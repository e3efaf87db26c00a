// npm run demo: installs what is missing, builds, starts with the demo data and prints the address.
import { spawn } from 'node:child_process';
import { createServer } from 'node:net';
import { join } from 'node:path';
import { needNode, needPackages, root, run } from './install.mjs';

/** Loopback only, unless told otherwise. */
const host = process.env.HOST ?? '127.0.0.1';
const wanted = Number(process.env.PORT ?? 4173);
const TRIES = 20;

/** @param {number} port */
const isFree = (port) =>
  new Promise((resolve) => {
    const probe = createServer();
    probe.once('error', () => resolve(false));
    probe.listen(port, host, () => probe.close(() => resolve(true)));
  });

needNode();
if (!(Number.isInteger(wanted) && wanted > 0 && wanted < 65536)) {
  console.error(`PORT must be a number from 1 to 65535; it is "${process.env.PORT}".`);
  process.exit(1);
}
needPackages();
run('npm', ['run', 'build', '--silent']);
let port = wanted;
while (!(await isFree(port))) {
  console.log(`Port ${port} is taken, trying ${port + 1}.`);
  if (++port > wanted + TRIES) {
    console.error(
      `Ports ${wanted} to ${wanted + TRIES} are all taken. Choose another with PORT=..., for example PORT=8080 npm run demo.`,
    );
    process.exit(1);
  }
}
const server = spawn(process.execPath, [join(root, 'app', 'dist', 'server', 'serve.mjs')], {
  env: { ...process.env, HOST: host, PORT: String(port) },
  stdio: ['ignore', 'ignore', 'inherit'],
});
server.on('exit', (code) => process.exit(code ?? 0));
for (const signal of /** @type {const} */ (['SIGINT', 'SIGTERM']))
  process.on(signal, () => server.kill(signal));
const url = `http://${host === '0.0.0.0' || host === '::' ? 'localhost' : host}:${port}`;
for (let i = 0; i < 100; i++) {
  if ((await fetch(`${url}/api/processor`).catch(() => null))?.ok) {
    console.log(`\nPebble Hall with the Saltmarsh Boathouse is ready: ${url}\nStop it with Ctrl C.`);
    break;
  }
  await new Promise((resolve) => setTimeout(resolve, 100));
}
