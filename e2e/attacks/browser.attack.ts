import { mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { bytesOfText, packFiles, textOfBytes, unpackFiles } from '@pebble-hall/core/formats';
import { afterAll, beforeAll, expect, it } from 'vitest';
import { startServer } from '../support/server.mjs';
import { openShelved } from '../support/shelf';
import { User } from '../support/user';
import { CRAFTED } from './craftedProjects';
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
