// The application in a browser: chart redraws, redraw after dropping a handle, first load of each page.
import { startServer } from '../e2e/support/server.mjs';
import { openBrowser } from '../e2e/support/browser.mjs';
import { By } from 'selenium-webdriver';
import { redraws } from './redraws.mjs';
import { steps } from './steps.mjs';

const sleep = (/** @type {number} */ ms) => new Promise((resolve) => setTimeout(resolve, ms));

/** @param {import('selenium-webdriver').WebDriver} driver @param {string} text @param {number} ms */
async function sees(driver, text, ms = 180_000) {
  const end = Date.now() + ms;
  while (Date.now() < end) {
    if (
      (
        await driver
          .findElement(By.css('body'))
          .getText()
          .catch(() => '')
      ).includes(text)
    )
      return;
    await sleep(100);
  }
  throw new Error(`never saw "${text}"`);
}

export async function benchPages() {
  const server = await startServer();
  const { driver, close } = await openBrowser();
  try {
    await driver.get(server.url);
    await sees(driver, 'Start here');
    for (const path of ['/', '/plan', '/rig', '/mic-walk', '/traces', '/correct', '/listen', '/hand-over'])
      await loadOf(driver, server.url, path);

    await driver.get(`${server.url}/mic-walk`);
    await sees(driver, 'Take all that are left');
    await driver.findElement(By.xpath('//button[normalize-space(.)="Take all that are left"]')).click();
    await sees(driver, '28 good, of 28');
    await driver.get(`${server.url}/correct`);
    await sees(driver, 'left out');
    await sleep(3000);
    await redraws(driver, '7 channels x 3 spots');
    await steps(driver, server.url);
    await driver.get(`${server.url}/correct`);
    await sees(driver, 'left out');
    await sleep(3000);
    await drop(driver);
    await driver.get(`${server.url}/listen`);
    await sees(driver, 'as one microphone at');
    await switching(driver);
  } finally {
    await close();
    await server.stop();
  }
}

/** First load with an empty cache on a warm server, until the workbench is there; and the compressed size of its scripts. */
async function loadOf(
  /** @type {import('selenium-webdriver/chrome.js').Driver} */ driver,
  /** @type {string} */ url,
  /** @type {string} */ path,
) {
  await driver.sendDevToolsCommand('Network.clearBrowserCache', {});
  await driver.get('about:blank');
  const from = Date.now();
  await driver.get(url + path);
  for (;;) {
    if ((await driver.findElements(By.css('main[aria-label]'))).length > 0) break;
    await sleep(20);
  }
  const ms = Date.now() - from;
  const scripts = /** @type {string[]} */ (
    await driver.executeScript(
      `return performance.getEntriesByType('resource').map((r) => r.name).filter((n) => n.endsWith('.js'))`,
    )
  );
  const { gzipSync } = await import('node:zlib');
  let bytes = 0;
  for (const script of new Set(scripts))
    bytes += gzipSync(Buffer.from(await (await fetch(script)).arrayBuffer())).length;
  console.log(
    `first load of ${path}: ${ms} ms (bar 2000), ${(bytes / 1024).toFixed(0)} KB of compressed script (bar 400)`,
  );
}

/** From an arrow key on a handle to the redrawn prediction, median of 15. */
async function drop(/** @type {import('selenium-webdriver').WebDriver} */ driver) {
  const ms = /** @type {number} */ (
    await driver.executeAsyncScript(`
      const done = arguments[0];
      const canvas = [...document.querySelectorAll('canvas[data-redraws]')].at(-1);
      const handle = document.querySelector('[aria-label="Target handle 2"]');
      const times = [];
      const once = () => {
        const before = canvas.dataset.redraws;
        const from = performance.now();
        handle.dispatchEvent(new KeyboardEvent('keydown', { key: times.length % 2 ? 'ArrowUp' : 'ArrowDown', bubbles: true }));
        const seen = new MutationObserver(() => {
          if (canvas.dataset.redraws === before) return;
          seen.disconnect();
          times.push(performance.now() - from);
          if (times.length === 15) return done(times.sort((a, b) => a - b)[7]);
          setTimeout(once, 400);
        });
        seen.observe(canvas, { attributes: true });
      };
      once();`)
  );
  console.log(
    `dropping a handle to the redrawn prediction, 7 channels x 3 spots: ${ms.toFixed(0)} ms (bar 50)`,
  );
}

/** From the key that chooses a candidate to its being the chosen one, while two play; the fade of the sound comes on top. */
async function switching(/** @type {import('selenium-webdriver').WebDriver} */ driver) {
  await driver.findElement(By.xpath('//button[normalize-space(.)="Play"]')).click();
  await sees(driver, 'Matched in loudness:');
  const ms = /** @type {number} */ (
    await driver.executeAsyncScript(`
      const done = arguments[0];
      const times = [];
      const chips = () => [...document.querySelectorAll('[aria-label="What is heard"] button.chip')];
      const once = () => {
        const wanted = times.length % 2 ? 0 : 1;
        const from = performance.now();
        document.body.dispatchEvent(new KeyboardEvent('keydown', { key: String(wanted + 1), bubbles: true }));
        const wait = () => {
          if (chips()[wanted].getAttribute('aria-pressed') !== 'true') return setTimeout(wait, 0);
          times.push(performance.now() - from);
          if (times.length === 15) return done(times.sort((a, b) => a - b)[7]);
          setTimeout(once, 100);
        };
        wait();
      };
      once();`)
  );
  console.log(
    `switching in Listen: the other candidate is chosen after ${ms.toFixed(1)} ms and heard after a fade of 12 ms`,
  );
}
