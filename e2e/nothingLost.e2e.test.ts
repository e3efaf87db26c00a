import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterAll, expect, it } from 'vitest';
import { unpackFiles } from '@pebble-hall/core/formats';
import { aUser } from './support/aUser';
import { openShelved } from './support/shelf';

const user = aUser();
const folder = mkdtempSync(join(tmpdir(), 'pebble-hall-lost-'));
afterAll(() => rmSync(folder, { recursive: true, force: true }));
const stone = (name: string) => `//nav[@aria-label="Workbenches"]//a[i[.="${name}"]]`;

/** Presses a key on something with a label, as often and as fast as a key that is held repeats. */
const repeat = (label: string, key: string, times: number) =>
  user.driver.executeAsyncScript<void>(
    `const [label, key, times, done] = arguments;
    let left = times;
    const timer = setInterval(() => {
      const on = document.querySelector('[aria-label="' + label + '"]');
      on.dispatchEvent(new KeyboardEvent('keydown', { key, bubbles: true, cancelable: true }));
      if (--left === 0) { clearInterval(timer); done(); }
    }, 33);`,
    label,
    key,
    times,
  );
const valueOf = async (label: string) =>
  Number(await (await user.find(`//*[@aria-label="${label}"]`)).getAttribute('aria-valuenow'));
/** Whether the browser would ask before the tab is left. */
const asksBefore = () =>
  user.driver.executeScript<boolean>(
    `const event = new Event('beforeunload', { cancelable: true }); dispatchEvent(event); return event.defaultPrevented`,
  );
/** Changes what is stored of the open project, behind the page. */
const meddle = (change: string) =>
  user.driver.executeAsyncScript<void>(
    `const done = arguments[0];
    const request = indexedDB.open('pebble-hall');
    request.onsuccess = () => {
      const store = request.result.transaction('projects', 'readwrite').objectStore('projects');
      store.get(sessionStorage.getItem('pebble-hall.project')).onsuccess = (event) => {
        const row = event.target.result;
        const p = row.project;
        ${change};
        store.put(row).onsuccess = () => { request.result.close(); done(); };
      };
    };`,
  );

it('ten presses of an arrow key on a span are ten steps', async () => {
  await openShelved(user, 'Saltmarsh Boathouse, finished', 'the Net Loft');
  await user.visit('/correct');
  await user.until('the span', async () => (await valueOf('Span from')) > 0);
  const before = await valueOf('Span from');
  await repeat('Span from', 'ArrowRight', 10);
  const wanted = before * 2 ** (10 / 12);
  await user.until(
    'ten steps',
    async () => Math.abs((await valueOf('Span from')) / wanted - 1) < 0.02,
    15_000,
  );
  // and they are what is stored
  await user.until('all of it is stored', async () => !(await asksBefore()));
  await user.driver.navigate().refresh();
  await user.until(
    'ten steps after a reload',
    async () => Math.abs((await valueOf('Span from')) / wanted - 1) < 0.02,
    30_000,
  );
});

it('a span whose drag is cancelled stands as it is stored, and does not follow what only hovers', async () => {
  const before = await valueOf('Span from');
  const drag = (kind: string, dx: number) =>
    user.driver.executeScript(
      `const [kind, dx] = arguments;
      const on = document.querySelector('[aria-label="Span from"]');
      const at = on.getBoundingClientRect();
      on.setPointerCapture = () => {};
      on.dispatchEvent(new PointerEvent(kind, { bubbles: true, pointerId: 7, clientX: at.x + at.width / 2 + dx, clientY: at.y + 5 }));`,
      kind,
      dx,
    );
  await drag('pointerdown', 0);
  await drag('pointermove', 60);
  await user.until('it follows the hand', async () => (await valueOf('Span from')) > before * 1.1);
  await drag('pointercancel', 60);
  await user.until('it goes back', async () => Math.abs((await valueOf('Span from')) - before) < 2);
  await drag('pointermove', 90);
  await new Promise((resolve) => setTimeout(resolve, 300));
  expect(Math.abs((await valueOf('Span from')) - before)).toBeLessThan(2);
});

it('workers whose scripts were refused come back, at the next press or by themselves', async () => {
  // as where the server was away for a moment: until it is taken off, every worker is looked for where none is
  await user.driver.sendDevToolsCommand('Page.addScriptToEvaluateOnNewDocument', {
    source: `
      window.__refused = sessionStorage.getItem('refuse') === 'yes';
      window.Worker = class extends Worker {
        constructor(url, options) { super(window.__refused ? '/_astro/none.js' : url, options); }
      };`,
  });
  await user.driver.executeScript(`sessionStorage.setItem('refuse', 'yes')`);
  await user.visit('/traces');
  await user.sees('A computation failed to start');
  await user.driver.executeScript('window.__refused = false');
  await user.until(
    'it comes by itself',
    async () => !(await user.text()).includes('failed to start'),
    30_000,
  );
  await user.visit('/traces#library');
  await user.driver.navigate().refresh();
  const file = join(folder, 'row 4.txt');
  writeFileSync(file, Array.from({ length: 40 }, (_, i) => `${20 * 2 ** (i / 4)}\t-3`).join('\n'));
  await user.chooseFile('Files to import', file);
  await user.reads('row 4.txt', /failed to start/);
  await user.driver.executeScript(`window.__refused = false; sessionStorage.removeItem('refuse')`);
  await user.press('Cancel');
  await user.chooseFile('Files to import', file);
  await user.reads('row 4.txt', /frequency in Hz|Column/i);
  await user.press('Cancel');
});

it('a full disk: what was measured waits in every workbench, is in the project file, and is stored once there is room', async () => {
  await openShelved(user, 'Saltmarsh Boathouse', 'the Net Loft');
  await user.visit('/mic-walk');
  await user.driver.executeScript(`
    const put = IDBObjectStore.prototype.put;
    window.__full = true;
    IDBObjectStore.prototype.put = function (...args) {
      if (window.__full) throw new DOMException('full', 'QuotaExceededError');
      return put.apply(this, args);
    };`);
  await user.click('//button[starts-with(@aria-label, "Left at Home spot:")]');
  await user.press('Take this one');
  await user.sees(
    /The sweep of Left at Home spot could not be stored and is kept in this tab only. The disk is full/,
  );
  await user.click(stone('Plan'));
  await user.find('//main[@aria-label="Plan"]');
  await user.sees('Do not clear the data of this site');
  expect(await asksBefore()).toBe(true);
  await user.press('Save the project file with it');
  const { bytes } = await user.download(/\.pebble\.zip$/);
  const names = Object.keys(unpackFiles(new Uint8Array(bytes), { files: 1000, bytes: 1e9 }));
  expect(names.filter((n) => n.startsWith('traces/')).length).toBeGreaterThan(0);
  await user.driver.executeScript('window.__full = false');
  await user.press('Store again');
  await user.until('it is stored', async () => !(await user.text()).includes('kept in this tab only'));
  await user.click(stone('Mic walk'));
  await user.sees('1 good, of 28');
});

it('a workbench that fails says so; the others go on, and so does it once the reason is gone', async () => {
  await user.visit('/');
  await meddle('row.kept = p.live.generator; p.live.generator = null');
  await user.visit('/live');
  await user.sees('Live could not be shown');
  await user.sees('Everything that was measured is stored');
  await user.click(stone('Plan'));
  await user.find('//main[@aria-label="Plan"]//*[name()="svg"]');
  await user.click(stone('Live'));
  await user.press('Save the project file');
  await meddle('p.live.generator = row.kept');
  await user.visit('/live');
  await user.until('it is there again', async () => !(await user.text()).includes('could not be shown'));
});

it('a project of a newer program is left as it is, and the others are a press away', async () => {
  await meddle('row.was = p.version; p.version = 999');
  await user.driver.get(`${user.url}/plan`);
  await user.sees(/This project could not be opened.*newer Pebble Hall/s);
  await user.press('Saltmarsh Boathouse, finished, the Net Loft');
  await user.sees('Saltmarsh Boathouse, finished, the Net Loft');
  await user.find('//nav[@aria-label="Workbenches"]');
});
