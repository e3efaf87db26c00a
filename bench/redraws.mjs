import { By, until } from 'selenium-webdriver';

/** @typedef {import('selenium-webdriver/chrome.js').Driver} Driver */

/**
 * A target handle dragged for three seconds, one move for each frame: how often the chart is drawn, and what each drawing
 * takes of the page's own thread, styles, layout and painting included: in the thread's own time, whatever else the machine does.
 * @param {Driver} driver on Correct
 * @param {string} what size of the project, for the line that is printed
 */
export async function redraws(driver, what) {
  await driver.wait(until.elementLocated(By.css('[aria-label="Target handle 3"]')), 60_000);
  await driver.sendDevToolsCommand('Performance.enable', { timeDomain: 'threadTicks' });
  const before = await busySeconds(driver);
  const { drawn, seconds } = /** @type {{ drawn: number, seconds: number }} */ (
    await driver.executeAsyncScript(`
      const done = arguments[0];
      const canvas = [...document.querySelectorAll('canvas[data-redraws]')].at(-1);
      const handle = document.querySelector('[aria-label="Target handle 3"]');
      const box = handle.getBoundingClientRect();
      const [x, y] = [box.x + box.width / 2, box.y + box.height / 2];
      const send = (type, dy) => handle.dispatchEvent(new PointerEvent(type, { bubbles: true, pointerId: 1, clientX: x, clientY: y + dy, button: 0, buttons: type === 'pointerup' ? 0 : 1 }));
      handle.setPointerCapture = () => {};
      send('pointerdown', 0);
      const before = Number(canvas.dataset.redraws);
      const from = performance.now();
      let i = 0;
      const step = () => {
        const t = performance.now() - from;
        if (t > 3000) {
          const drawn = Number(canvas.dataset.redraws) - before;
          send('pointerup', 0);
          return done({ drawn, seconds: t / 1000 });
        }
        send('pointermove', 60 * Math.sin(i++ / 7));
        requestAnimationFrame(step);
      };
      step();`)
  );
  const busy = (await busySeconds(driver)) - before;
  await driver.sendDevToolsCommand('Performance.disable', {});
  console.log(
    `redraws while a handle is dragged, ${what}, designs recomputed for each: ${(drawn / seconds).toFixed(1)} a second (bar 50), ${((1000 * busy) / drawn).toFixed(1)} ms of the page's thread for each (bar 10)`,
  );
}

/** Seconds for which the page's thread was busy since the page began. @param {Driver} driver */
async function busySeconds(driver) {
  const { metrics } = /** @type {{ metrics: { name: string, value: number }[] }} */ (
    /** @type {unknown} */ (await driver.sendAndGetDevToolsCommand('Performance.getMetrics', {}))
  );
  return metrics.find(({ name }) => name === 'TaskDuration')?.value ?? NaN;
}
