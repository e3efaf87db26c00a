// Plan with a large place: 1,000 seats and 60 loudspeakers, opened, panned, and in 3D.
import { newPlace, newProject, plainLoudspeaker, writeProjectFile } from '@pebble-hall/core/project';
import { mkdtempSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { By, until } from 'selenium-webdriver';
import { openBrowser } from '../e2e/support/browser.mjs';
import { startServer } from '../e2e/support/server.mjs';

/** @returns {string} path of a project file */
function largeProject() {
  const size = { x: 50, y: 36, z: 12 };
  const asked = { name: 'Large hall', kind: /** @type {const} */ ('hall'), size, layoutId: 'none' };
  const project = newProject('large', { ...asked, rig: 'simulated' });
  const place = newPlace(asked);
  const loudspeakers = Array.from({ length: 60 }, (_, i) =>
    plainLoudspeaker({
      id: `l-${i}`,
      name: `Loudspeaker ${i + 1}`,
      role: i % 6 === 5 ? 'subwoofer' : 'full range',
      output: i + 1,
      position: { x: 3 + (i % 12) * 4, y: 3 + Math.floor(i / 12) * 7, z: 4 },
      group: i % 10 === 0 ? { kind: 'row', count: 4, spacingM: 0.8 } : null,
    }),
  );
  const audience = place.audience.map((a) => ({ ...a, rowM: 1.1, seatM: 0.97 }));
  const bytes = writeProjectFile({ ...project, place: { ...place, loudspeakers, audience } }, []);
  const path = join(mkdtempSync(join(tmpdir(), 'pebble-hall-bench-')), 'large.pebble.zip');
  writeFileSync(path, bytes);
  return path;
}

export async function benchPlan() {
  const server = await startServer();
  const { driver, close } = await openBrowser({
    args: ['--use-angle=swiftshader', '--enable-unsafe-swiftshader'],
  });
  try {
    await driver.get(server.url);
    const input = await driver.wait(until.elementLocated(By.css('input[aria-label="Project file"]')), 30_000);
    await input.sendKeys(largeProject());
    await driver.wait(until.elementLocated(By.xpath('//*[contains(., "Large hall")]')), 30_000);
    await driver.get(`${server.url}/plan`);
    const seats = await driver.wait(
      until.elementLocated(By.xpath('//*[contains(text(), " seats, ")]')),
      30_000,
    );
    const said = (await seats.getText()).split(',')[0];
    // from the navigation to the drawing with its last loudspeaker, by the page's own clock
    await driver.get(`${server.url}/plan`);
    const opened = await driver.executeAsyncScript(`
      const done = arguments[0];
      const look = () => document.querySelector('[aria-label="Loudspeaker 60"]') ? done(performance.now()) : requestAnimationFrame(look);
      look();`);
    const frames = /** @type {{ drawn: number, seconds: number }} */ (
      await driver.executeAsyncScript(`
        const done = arguments[0];
        const svg = document.querySelector('svg[aria-label$="from above"]');
        const box = svg.getBoundingClientRect();
        const send = (type, dx) => svg.dispatchEvent(new PointerEvent(type, { bubbles: true, pointerId: 1, clientX: box.x + 30 + dx, clientY: box.y + 30, button: 0, buttons: type === 'pointerup' ? 0 : 1 }));
        send('pointerdown', 0);
        const from = performance.now();
        let drawn = 0;
        const step = () => {
          const t = performance.now() - from;
          if (t > 3000) { send('pointerup', 0); return done({ drawn, seconds: t / 1000 }); }
          send('pointermove', 200 * Math.sin(drawn++ / 20));
          requestAnimationFrame(step);
        };
        step();`)
    );
    const three = await driver.executeAsyncScript(`
      const done = arguments[0];
      const from = performance.now();
      [...document.querySelectorAll('[aria-label="Seen from"] label')].find((l) => l.textContent === '3D').click();
      const look = () => document.querySelector('canvas') ? requestAnimationFrame(() => requestAnimationFrame(() => done(performance.now() - from))) : requestAnimationFrame(look);
      look();`);
    console.log(
      `Plan with ${said} and 60 loudspeakers: there ${Math.round(Number(opened))} ms after the page is asked for (bar 1000), ${(frames.drawn / frames.seconds).toFixed(1)} frames a second while it is shifted (bar 60), first frame in 3D after ${Math.round(Number(three))} ms`,
    );
  } finally {
    await close();
    await server.stop();
  }
}
