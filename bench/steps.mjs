/** @typedef {import('selenium-webdriver/chrome.js').Driver} Driver */

const sleep = (/** @type {number} */ ms) => new Promise((resolve) => setTimeout(resolve, ms));

const STONES = ['Mic walk', 'Traces', 'Correct', 'Listen', 'Hand over', 'Rig'];
const ROUNDS = 3;

/** In every document: when a stone was pressed, and when the workbench behind it was first painted with something to press. */
const WATCH = `
  addEventListener('click', (e) => {
    const stone = e.target.closest?.('a.stone');
    if (stone) sessionStorage.setItem('stepped', JSON.stringify({ at: Date.now(), to: stone.pathname }));
  }, true);
  const look = () => {
    const step = JSON.parse(sessionStorage.getItem('stepped') ?? 'null');
    if (step && !step.ms && location.pathname === step.to) {
      const main = document.querySelector('main[aria-label]');
      if (main?.querySelector('button, canvas, svg') && main.getAttribute('aria-label') !== step.from) {
        step.ms = Date.now() - step.at;
        sessionStorage.setItem('stepped', JSON.stringify(step));
      }
    }
    requestAnimationFrame(look);
  };
  requestAnimationFrame(look);`;

/**
 * Stepping along the stones of a project with a whole round, each three times: from the press to the first painting of
 * the next workbench. The first round is told apart: then its scripts may still be on their way.
 * @param {Driver} driver @param {string} url
 */
export async function steps(driver, url) {
  await driver.sendDevToolsCommand('Page.addScriptToEvaluateOnNewDocument', { source: WATCH });
  await driver.get(`${url}/rig`);
  await sleep(4000);
  /** @type {number[][]} */
  const rounds = [];
  for (let round = 0; round < ROUNDS; round++) {
    const taken = [];
    for (const name of STONES) taken.push(await step(driver, name));
    rounds.push(taken);
  }
  const later = rounds.slice(1).flat();
  for (const [what, times] of /** @type {const} */ ([
    ['first', rounds[0] ?? []],
    ['again', later],
  ])) {
    const sorted = [...times].sort((a, b) => a - b);
    console.log(
      `stepping from stone to stone, ${what}: ${sorted[sorted.length >> 1]} ms to the next workbench, at most ${sorted.at(-1)} ms (bar 150): ${times.join(', ')}`,
    );
  }
}

/** @param {Driver} driver @param {string} name @returns {Promise<number>} milliseconds */
async function step(driver, name) {
  await driver.executeScript(
    `sessionStorage.removeItem('stepped');
    const stone = [...document.querySelectorAll('a.stone')].find((a) => a.querySelector('i').textContent === arguments[0]);
    // told before the press: the name of the workbench that is left
    stone.addEventListener('click', () => {
      const step = JSON.parse(sessionStorage.getItem('stepped'));
      step.from = document.querySelector('main[aria-label]').getAttribute('aria-label');
      sessionStorage.setItem('stepped', JSON.stringify(step));
    }, { once: true });
    stone.click();`,
    name,
  );
  for (const end = Date.now() + 20_000; Date.now() < end; await sleep(50)) {
    const ms = await driver
      .executeScript(`return JSON.parse(sessionStorage.getItem('stepped') ?? 'null')?.ms ?? null`)
      .catch(() => null);
    if (typeof ms === 'number') {
      // what is left of the step is done before the next one
      await sleep(1500);
      return ms;
    }
  }
  throw new Error(`never came to ${name}`);
}
