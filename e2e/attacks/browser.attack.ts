import { cpSync, mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { bytesOfText, packFiles, textOfBytes, unpackFiles } from '@pebble-hall/core/formats';
import { afterAll, beforeAll, expect, it } from 'vitest';
import { startServer } from '../support/server.mjs';
import { openShelved } from '../support/shelf';
import { User } from '../support/user';
import { CRAFTED } from './craftedProjects';
import { endlessSet } from './setReader';
import { Tally, times } from './tally';

const PAGES = [
  '/plan',
  '/room-model',
  '/rig',
  '/mic-walk',
  '/live',
  '/traces',
  '/align',
  '/correct',
  '/listen',
  '/hand-over',
  '/',
];
/** What no page may say to a person. */
const NONSENSE = /could not be shown|.{0,30}(\bNaN\b|\bundefined\b|Infinity|\[object).{0,30}/;
const folder = mkdtempSync(join(tmpdir(), 'pebble-hall-attack-'));
const rest = (ms: number) => new Promise((resolve) => setTimeout(resolve, ms));
let server: Awaited<ReturnType<typeof startServer>>;
beforeAll(async () => {
  server = await startServer();
});
afterAll(async () => {
  await server?.stop();
  rmSync(folder, { recursive: true, force: true });
});

it('crafted projects are refused, or every page of them makes sense', { timeout: 1_200_000 }, async () => {
  const tally = new Tally('crafted projects');
  const file = fileURLToPath(
    new URL('../../app/public/demo/saltmarsh-boathouse-finished.pebble.zip', import.meta.url),
  );
  const whole = unpackFiles(new Uint8Array(readFileSync(file)), { files: 1e5, bytes: 2e9 });
  const user = await User.at(server.url);
  await user.visit('/');
  for (const [name, craft] of Object.entries(CRAFTED)) {
    const manifest = JSON.parse(textOfBytes(whole['project.json']!)) as { project: { name: string } };
    craft(manifest.project);
    manifest.project.name = `Crafted ${name}`;
    const path = join(folder, 'crafted.zip');
    writeFileSync(path, packFiles({ ...whole, 'project.json': bytesOfText(JSON.stringify(manifest)) }));
    await user.driver.get(`${server.url}/`);
    await user.sees('Pebble Hall');
    await rest(500);
    await user.chooseFile('Project file', path);
    const said = await user.sees(/was not opened|Crafted/, 60_000);
    if (said !== 'Crafted') {
      tally.attack(name, true);
      continue;
    }
    const wrong: string[] = [];
    for (const page of PAGES) {
      await user.driver.executeScript(`document.querySelector('a[href="${page}"]')?.click()`);
      await rest(700);
      const text = await user.text();
      const found = NONSENSE.exec(text);
      if (found || text.length < 150) wrong.push(`${page}: ${found?.[0] ?? 'blank'}`);
    }
    tally.attack(name, wrong.length === 0, wrong.join('; '));
  }
  await user.close();
  expect(tally.told()).toEqual([]);
});

/** Something that goes up with time while a hand or a walk is at work, as far as the page has told it as stored. */
interface AtWork {
  name: string;
  begin: (user: User) => Promise<void>;
  told: (user: User) => Promise<number>;
  again: (user: User) => Promise<number>;
}

const spanOf = async (user: User) =>
  Number(await (await user.find('//*[@aria-label="Span from"]')).getAttribute('aria-valuenow'));
const good = async (user: User) => Number(/(\d+) good, of/.exec(await user.text())?.[1] ?? -1);
const AT_WORK: AtWork[] = [
  {
    name: 'a walk',
    begin: async (user) => {
      await user.visit('/mic-walk');
      await user.press('Take all that are left');
      await user.sees(/[1-9] good, of/, 60_000);
    },
    told: good,
    again: async (user) => {
      await user.visit('/mic-walk');
      await user.sees(/\d+ good, of/, 60_000);
      return good(user);
    },
  },
  {
    name: 'a span that is moved',
    begin: async (user) => {
      await openShelved(user, 'Saltmarsh Boathouse, finished', 'the Net Loft');
      await user.visit('/correct');
      await user.until('the span', async () => (await spanOf(user)) > 0);
      await user.driver.executeScript(`
        setInterval(() => document.querySelector('[aria-label="Span from"]')
          .dispatchEvent(new KeyboardEvent('keydown', { key: 'ArrowRight', shiftKey: true, bubbles: true, cancelable: true })), 120);`);
    },
    // what the browser would not ask about is stored
    told: (user) =>
      user.driver.executeScript<number>(`
        const event = new Event('beforeunload', { cancelable: true });
        dispatchEvent(event);
        return event.defaultPrevented ? -1 : Number(document.querySelector('[aria-label="Span from"]').getAttribute('aria-valuenow'));`),
    again: async (user) => {
      await user.visit('/correct');
      await user.until('the span', async () => (await spanOf(user)) > 0);
      return spanOf(user);
    },
  },
];

it(
  'a browser that is killed at work has all that it had told as stored',
  { timeout: 1_200_000 },
  async () => {
    const tally = new Tally('browsers killed');
    for (let i = 0; i < times(16); i++) {
      const work = AT_WORK[i % AT_WORK.length]!;
      const profile = mkdtempSync(join(tmpdir(), 'pebble-hall-killed-'));
      const args = [`--user-data-dir=${profile}`];
      const user = await User.at(server.url, { args });
      await work.begin(user);
      const until = Date.now() + tally.random(4000);
      let told = 0;
      do {
        told = Math.max(told, await work.told(user));
        await rest(30);
      } while (Date.now() < until);
      await user.kill();
      const again = await User.at(server.url, { args });
      const kept = await work.again(again);
      tally.attack(`${work.name}, kill ${i}`, kept >= told, `${told} told, ${kept} there`);
      await again.close();
      rmSync(profile, { recursive: true, force: true, maxRetries: 5, retryDelay: 200 });
    }
    expect(tally.told()).toEqual([]);
  },
);

/** What the server's processor says of memory B, asked as the page asks. */
const memoryB = (user: User) =>
  user.driver.executeAsyncScript<{ empty?: boolean; name?: string }>(
    `const done = arguments[0];
     fetch('/api/processor', { headers: { 'content-type': 'application/octet-stream' } })
       .then((r) => r.json())
       .then((state) => done(state.memories.find((m) => m.letter === 'B')));`,
  );

it(
  'a browser that is killed while a memory is loaded: the next one says what the processor holds, and goes on',
  { timeout: 1_800_000 },
  async () => {
    const tally = new Tally('browsers killed in a load');
    // a walk is taken once; each that is killed has a copy of the browser's profile
    const measured = mkdtempSync(join(tmpdir(), 'pebble-hall-measured-'));
    const walker = await User.at(server.url, { args: [`--user-data-dir=${measured}`] });
    await walker.visit('/mic-walk');
    await walker.press('Take all that are left');
    await walker.sees('28 good, of 28', 150_000);
    await walker.visit('/hand-over');
    await walker.reads('Memory A', /active/);
    await walker.close();
    for (let i = 0; i < times(12); i++) {
      const profile = mkdtempSync(join(tmpdir(), 'pebble-hall-killed-'));
      cpSync(measured, profile, { recursive: true });
      const args = [`--user-data-dir=${profile}`];
      const user = await User.at(server.url, { args });
      await user.visit('/');
      // another processor for each
      await user.driver.manage().deleteAllCookies();
      await user.visit('/hand-over');
      await user.press('Load memory B');
      // the browser writes its cookies down only now and then: the next one is given those of this one
      const cookies = await user.driver.manage().getCookies();
      const until = Date.now() + tally.random(7000);
      let told = false;
      while (Date.now() < until) {
        told ||= (await user.text()).includes('read back exactly as they were sent');
        await rest(50);
      }
      await user.kill();
      const again = await User.at(server.url, { args });
      await again.visit('/');
      for (const cookie of cookies) await again.driver.manage().addCookie(cookie);
      await again.visit('/hand-over');
      await again.reads('Memory A', /active|Recall/);
      // what was under way is found out by the page itself
      await rest(1500);
      const held = await memoryB(again);
      const says = await again.textOf('Memory B');
      const what = `kill ${i}, ${told ? 'told as loaded' : held.empty ? 'nothing there' : 'loaded'}`;
      tally.attack(
        `${what}, what it holds`,
        held.empty ? says.includes('empty') : says.includes(held.name!) && !says.includes('not from this'),
        says,
      );
      tally.attack(`${what}, what was told`, !told || !held.empty, 'told as loaded, and is not there');
      if (held.empty) {
        const waits = (await again.text()).includes('A transfer into memory B waits');
        await again.press(waits ? 'Go on' : 'Load memory B');
        const end = await again.sees(/read back exactly as they were sent|was not loaded/, 120_000);
        tally.attack(`${what}, ${waits ? 'gone on with' : 'loaded anew'}`, end.startsWith('read'), end);
      }
      await again.close();
      rmSync(profile, { recursive: true, force: true, maxRetries: 5, retryDelay: 200 });
    }
    expect(tally.told()).toEqual([]);
  },
);

it(
  'a server that is killed at any moment: the page says what the processor holds',
  { timeout: 1_200_000 },
  async () => {
    const tally = new Tally('servers killed');
    const user = await User.at(server.url);
    let own = await startServer();
    for (let i = 0; i < times(6); i++) {
      await user.driver.get(`${own.url}/`);
      await user.sees('Pebble Hall');
      user.url = own.url;
      const { port } = new URL(own.url);
      await user.visit('/hand-over');
      await user.sees('Hand over');
      await rest(tally.random(1500));
      await own.stop();
      await rest(300);
      const away = await user.text();
      tally.attack(
        `away ${i}`,
        away.length > 150 && !NONSENSE.test(away),
        'blank or nonsense without a server',
      );
      own = await startServer({ PORT: port });
      await user.visit('/hand-over');
      const state = JSON.parse(
        await user.driver.executeAsyncScript<string>(
          `fetch('/api/processor').then((r) => r.text()).then(arguments[0])`,
        ),
      ) as { active: string };
      await user.sees(new RegExp(`memory ${state.active}`, 'i'), 30_000);
      tally.attack(`back ${i}`, true);
    }
    await own.stop();
    await user.close();
    expect(tally.told()).toEqual([]);
  },
);

it(
  'workers whose scripts are refused for a moment: every page comes back without a reload',
  { timeout: 600_000 },
  async () => {
    const tally = new Tally('workers refused');
    const user = await User.at(server.url);
    await user.driver.sendDevToolsCommand('Page.addScriptToEvaluateOnNewDocument', {
      source: `
      window.__refused = true;
      window.Worker = class extends Worker {
        constructor(url, options) { super(window.__refused ? '/_astro/none.js' : url, options); }
      };`,
    });
    await openShelved(user, 'Saltmarsh Boathouse, finished', 'the Net Loft');
    const failing = async () => (await user.text()).includes('failed to start');
    for (const page of PAGES) {
      await user.visit(page);
      await rest(1500 + tally.random(1500));
      const was = await failing();
      await user.driver.executeScript('window.__refused = false');
      const until = Date.now() + 20_000;
      while ((await failing()) && Date.now() < until) await rest(200);
      tally.attack(`${page}${was ? ', where it was told' : ''}`, !(await failing()), 'it did not come back');
    }
    await user.close();
    expect(tally.told()).toEqual([]);
  },
);

it(
  'a set that keeps its reader busy without end is given up by a press, and the next file is read',
  { timeout: 600_000 },
  async () => {
    const tally = new Tally('endless sets');
    const user = await User.at(server.url);
    await user.visit('/traces#library');
    const good = join(folder, 'good.txt');
    writeFileSync(good, '100\t0\t0\n1000\t-3\t10\n8000\t-6\t20\n');
    for (let i = 0; i < times(10); i++) {
      const endless = join(folder, `endless ${i}.sofa`);
      writeFileSync(endless, await endlessSet(tally));
      await user.chooseFile('Files to import', endless);
      await rest(tally.random(1500));
      await user.press(`Cancel: Reading endless ${i}.sofa`);
      await user.chooseFile('Files to import', good);
      await user.press('Import 1 trace');
      const there = await user.sees(/good(, \d+)?/, 20_000).catch(() => '');
      tally.attack(`set ${i}`, there !== '', 'the next file was not read');
    }
    await user.close();
    expect(tally.told()).toEqual([]);
  },
);
