// A large round and a large project: 7 channels x 15 spots analysed on two cores and walked in the browser, a project
// with 2,000 traces opened, and what a sweep takes on the disk.
import { cpus } from 'node:os';
import { isMainThread, parentPort, Worker, workerData } from 'node:worker_threads';
import { By } from 'selenium-webdriver';
import { fileURLToPath } from 'node:url';
import { analyseSweep } from '../core/dist/measure/index.js';
import { exponentialSweep, whiteNoise } from '../core/dist/signal/index.js';
import { startServer } from '../e2e/support/server.mjs';
import { openBrowser } from '../e2e/support/browser.mjs';
import { redraws } from './redraws.mjs';

const SWEEPS = 7 * 15;
const sleep = (/** @type {number} */ ms) => new Promise((resolve) => setTimeout(resolve, ms));

/** Recordings as the application takes them: a sweep of 5 s between silence and decay. */
function analyseSome(/** @type {number} */ count) {
  const sweep = exponentialSweep({ rate: 48000, from: 20, to: 20000, durationS: 5, levelDbfs: -20 });
  const length = 28800 + sweep.samples.length + 57600;
  const noise = whiteNoise(length, 1);
  const play = (/** @type {number} */ delay, /** @type {number} */ gain) =>
    Float32Array.from(
      { length },
      (_, i) => gain * (sweep.samples[i - 28800 - delay] ?? 0) + 1e-4 * (noise[i] ?? 0),
    );
  const recording = { microphone: play(900, 0.3), loopback: play(574, 1), rate: 48000, silenceS: 0.6 };
  const from = performance.now();
  for (let i = 0; i < count; i++) analyseSweep(recording, sweep);
  return performance.now() - from;
}

if (!isMainThread) parentPort?.postMessage(analyseSome(workerData));

/** Both cores at once. */
async function analyseRound() {
  const shares = [Math.ceil(SWEEPS / 2), Math.floor(SWEEPS / 2)];
  const times = await Promise.all(
    shares.map(
      (count) =>
        new Promise((resolve, reject) => {
          const worker = new Worker(fileURLToPath(import.meta.url), { workerData: count });
          worker.once('message', resolve).once('error', reject);
        }),
    ),
  );
  const seconds = Math.max(...times) / 1000;
  console.log(
    `analyse 7 channels x 15 spots, sweeps of 5 s, on 2 of ${cpus().length} cores: ${seconds.toFixed(1)} s, ${(SWEEPS / seconds).toFixed(1)} sweeps a second (bar 30 s)`,
  );
}

export async function benchRounds() {
  await analyseRound();
  const server = await startServer();
  const { driver, close } = await openBrowser();
  // the text of the nodes, not as it is laid out: looking must not keep the page busy
  const page = () =>
    /** @type {Promise<string>} */ (driver.executeScript('return document.body.textContent').catch(() => ''));
  const sees = async (/** @type {RegExp} */ text, ms = 400_000) => {
    for (const end = Date.now() + ms; Date.now() < end; await sleep(200)) if (text.test(await page())) return;
    throw new Error(`never saw ${text}`);
  };
  const press = (/** @type {string} */ name) =>
    driver.findElement(By.xpath(`//button[normalize-space(.)="${name}"]`)).click();
  try {
    await driver.manage().setTimeouts({ script: 600_000 });
    await driver.get(`${server.url}/mic-walk`);
    await sees(/of 28/);
    await press('Spot plan');
    await sleep(500);
    await driver.findElement(By.xpath('//label[contains(normalize-space(.), "Block, 15")]')).click();
    for (const seat of ['Chair by the door', 'Chair by the window'])
      await driver.findElement(By.xpath(`//label[contains(normalize-space(.), "${seat}")]`)).click();
    await press('Lay out 15 spots');
    await sees(/of 105/);
    await driver.executeScript(`
      window.longest = 0;
      new PerformanceObserver((list) => {
        for (const e of list.getEntries()) window.longest = Math.max(window.longest, e.duration);
      }).observe({ type: 'longtask' });`);
    const from = Date.now();
    await press('Take all that are left');
    await sees(/105 good, of 105|\d+ good, .*of 105[\s\S]*Enough to go on/);
    await sees(/spots are in the average/);
    const seconds = (Date.now() - from) / 1000;
    const longest = /** @type {number} */ (await driver.executeScript('return window.longest'));
    console.log(
      `walk 7 channels x 15 spots on the simulated rig, each sweep simulated, analysed and stored: ${seconds.toFixed(0)} s, ${(SWEEPS / seconds).toFixed(2)} sweeps a second; longest task of the page ${longest.toFixed(0)} ms (bar 100 ms)`,
    );
    await driver.get(`${server.url}/correct`);
    await sees(/left out/);
    await redraws(driver, '7 channels x 15 spots, while filters are made');
    await sees(/filters made/);
    await redraws(driver, '7 channels x 15 spots');
    await storedSize(driver);
    await openLarge(driver, server.url, sees);
  } finally {
    await close();
    await server.stop();
  }
}

/** Bytes of one sweep: its samples, its answer to the reference click, and what the project holds of it. */
async function storedSize(/** @type {import('selenium-webdriver').WebDriver} */ driver) {
  const { samples, json } = /** @type {{ samples: number, json: number }} */ (
    await driver.executeAsyncScript(`
      const done = arguments[0];
      const request = indexedDB.open('pebble-hall');
      request.onsuccess = () => {
        const db = request.result;
        const get = db.transaction(['projects', 'arrays']);
        get.objectStore('projects').getAll().onsuccess = ({ target }) => {
          const { sweeps } = target.result[0].project;
          get.objectStore('arrays').getAll().onsuccess = ({ target: arrays }) => {
            const used = new Set(sweeps.flatMap((s) => [s.traceId, s.harmonicsId, s.referenceId]));
            const bytes = arrays.result.filter((a) => used.has(a.id)).reduce((sum, a) => sum + a.samples.byteLength, 0);
            done({ samples: bytes / sweeps.length, json: JSON.stringify(sweeps).length / sweeps.length });
          };
        };
      };`)
  );
  console.log(
    `storage per sweep: ${(samples / 1024).toFixed(0)} KB of samples and ${(json / 1024).toFixed(1)} KB of figures`,
  );
}

/** The project of the walk grown to 2,000 traces, their samples with them, opened anew. */
async function openLarge(
  /** @type {import('selenium-webdriver').WebDriver} */ driver,
  /** @type {string} */ url,
  /** @type {(text: RegExp) => Promise<void>} */ sees,
) {
  const count = await driver.executeAsyncScript(`
    const done = arguments[0];
    const request = indexedDB.open('pebble-hall');
    request.onsuccess = async () => {
      const db = request.result;
      const once = (r) => new Promise((resolve, reject) => { r.onsuccess = () => resolve(r.result); r.onerror = () => reject(r.error); });
      const [row] = await once(db.transaction('projects').objectStore('projects').getAll());
      const taken = row.project.sweeps;
      const sweeps = taken.slice();
      const rounds = row.project.rounds.slice();
      for (let r = 1; sweeps.length < 2000; r++) {
        rounds.push({ id: 'grown-' + r, name: 'Round ' + (r + 1), startedAt: r, note: '' });
        for (const s of taken) {
          if (sweeps.length === 2000) break;
          const traceId = 'grown-' + r + '-' + s.traceId;
          sweeps.push({ ...s, id: 'grown-' + r + '-' + s.id.slice(0, 30), traceId, roundId: 'grown-' + r });
        }
        const store = db.transaction('arrays', 'readwrite').objectStore('arrays');
        const samples = new Float32Array(65536).map(() => Math.random());
        let last;
        for (const s of sweeps) if (s.roundId === 'grown-' + r) last = store.put({ id: s.traceId, kind: 'trace', rate: 48000, zero: 960, samples, projectId: row.id });
        await once(last);
      }
      await once(db.transaction('projects', 'readwrite').objectStore('projects').put({ ...row, project: { ...row.project, sweeps, rounds } }));
      done(sweeps.length);
    };`);
  const times = [];
  for (let i = 0; i < 3; i++) {
    await driver.get('about:blank');
    const from = Date.now();
    await driver.get(`${url}/mic-walk`);
    await sees(/of 105/);
    times.push(Date.now() - from);
  }
  console.log(
    `open a project of ${String(count)} traces: ${(times.sort((a, b) => a - b)[1] ?? NaN) / 1000} s until the walk is there (bar 1 s)`,
  );
}
