// A live session as it is used: eight transfer functions in the browser, drawn while the page's own thread stays free, without a block
// that is lost; and a library of five thousand traces, searched and gone through.
import { writeFileSync, mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { emptyProject, newPlace, plainView, writeProjectFile } from '@pebble-hall/core/project';
import { Key } from 'selenium-webdriver';
import { User } from '../e2e/support/user';

/** Watches for tasks of the page's own thread that take longer than 50 ms, from now on. */
const WATCH = `
  window.__long = [];
  new PerformanceObserver((list) => {
    for (const entry of list.getEntries()) window.__long.push(entry.duration);
  }).observe({ type: 'longtask' });`;
const longTasks = async (user: User) => {
  const all = await user.driver.executeScript<number[]>('return window.__long.splice(0)');
  return `${all.length} tasks over 50 ms${all.length > 0 ? `, the longest ${Math.round(Math.max(...all))} ms` : ''}`;
};
const redraws = (user: User) =>
  user.driver.executeScript<number>(
    `return Number(document.querySelector('[aria-label="Level of the transfer functions"] canvas').dataset.redraws)`,
  );
const rest = (seconds: number) => new Promise((resolve) => setTimeout(resolve, 1000 * seconds));

/** @param url where the application answers @param seconds for which it is watched */
export async function benchLiveSession(url: string, seconds: number): Promise<void> {
  const user = await User.at(url);
  try {
    await user.visit('/rig#microphones');
    for (let i = 0; i < 6; i++) await user.press('Add a microphone');
    // as fast as sound, as real equipment is
    await user.visit('/rig#connect');
    await user.among('Pace of the stand-in', 'Real time');
    await user.visit('/live');
    for (let i = 0; i < 7; i++) await user.press('Add');
    await user.press('Start the session');
    await user.until('a session', async () =>
      (await user.find('//input[@aria-label="Play the generator"]')).isEnabled(),
    );
    await user.click('//section[@aria-label="Generator"]//label[normalize-space(.)="Play"]');
    await rest(10);
    await user.driver.executeScript(WATCH);
    const [from, began] = [await redraws(user), Date.now()];
    await rest(seconds);
    const took = (Date.now() - began) / 1000;
    const perSecond = ((await redraws(user)) - from) / took;
    const heard = await user.textOf('What is heard');
    const lost = /([\d.]+ m?s) of sound were lost/.exec(heard)?.[1] ?? 'nothing';
    console.log(
      `live in the browser: eight transfer functions for ${took.toFixed(0)} s, ${perSecond.toFixed(1)} redraws a second (bar 20), ${lost} lost (bar nothing), ${await longTasks(user)} (bar none)`,
    );
  } finally {
    await user.close();
  }
}

const TRACES = 5000;

export async function benchLibrary(url: string): Promise<void> {
  const place = newPlace({
    name: 'Bench',
    kind: 'hall',
    size: { x: 20, y: 12, z: 6 },
    layoutId: 'none',
  });
  const project = emptyProject({ id: 'bench', name: 'Five thousand', place, rigKind: 'simulated' });
  project.kept = Array.from({ length: TRACES }, (_, i) => ({
    id: `t${i}`,
    kind: 'transfer function' as const,
    name: `Row ${i % 40}, take ${Math.floor(i / 40)}`,
    keptAt: i,
    note: '',
    folder: `Evening ${i % 25}`,
    tags: i % 3 === 0 ? ['bass'] : [],
    arrayId: null,
    origin: {
      by: 'computed' as const,
      formula: {
        op: 'shapes' as const,
        of: [],
        shapes: [{ kind: 'peaking' as const, hz: 50 + 2 * i, gainDb: 6, q: 2 }],
      },
    },
    view: { ...plainView(), isShown: i >= TRACES - 24 },
  }));
  const folder = mkdtempSync(join(tmpdir(), 'bench-'));
  const path = join(folder, 'bench.pebble.zip');
  writeFileSync(path, writeProjectFile(project, []));
  const user = await User.at(url);
  try {
    await user.visit('/');
    await user.chooseFile('Project file', path);
    await user.sees('Five thousand');
    await user.visit('/traces#library');
    await user.find('//button[@aria-pressed][@title]');
    await rest(3);
    await user.driver.executeScript(WATCH);
    const search = await user.find('//input[@aria-label="Search traces"]');
    const began = Date.now();
    await search.sendKeys('row 33 take 111 evening');
    await user.sees(/\n[1-9] of 5,\d\d\d traces/);
    const found = Date.now() - began;
    const searching = await longTasks(user);
    await search.sendKeys(Key.chord(Key.CONTROL, 'a'), Key.BACK_SPACE);
    await rest(1);
    await user.click('(//button[@aria-pressed][@title])[1]');
    for (let i = 0; i < 40; i++) await user.driver.switchTo().activeElement().sendKeys(Key.ARROW_DOWN);
    console.log(
      `library of ${TRACES} traces, 24 drawn: searched while 23 letters are typed in ${found} ms, ${searching}; forty rows gone down, ${await longTasks(user)} (bar none)`,
    );
  } finally {
    await user.close();
    rmSync(folder, { recursive: true });
  }
}
