// Takes the pictures in docs/screenshots from the demo data: goes the whole path once in a headless browser.
import { mkdirSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { By } from 'selenium-webdriver';
import { openBrowser } from '../e2e/support/browser.mjs';
import { startServer } from '../e2e/support/server.mjs';
import { needBrowser, needNode, needPackages, root, run } from './install.mjs';

needNode();
needPackages();
needBrowser();
run('npm', ['run', 'build', '--silent']);
const folder = join(root, 'docs', 'screenshots');
mkdirSync(folder, { recursive: true });
const server = await startServer();
const { driver, close } = await openBrowser();

/** @param {string} path */
const visit = async (path) => {
  await driver.get(server.url + path);
  await sees('Pebble Hall');
  await rest(1200);
};
const rest = (/** @type {number} */ ms) => new Promise((resolve) => setTimeout(resolve, ms));
const text = () => driver.findElement(By.css('body')).getText();
/** @param {string | RegExp} wanted */
const sees = async (wanted) => {
  for (let i = 0; i < 1800; i++) {
    const now = await text().catch(() => '');
    if (typeof wanted === 'string' ? now.includes(wanted) : wanted.test(now)) return;
    await rest(100);
  }
  throw new Error(`never saw ${wanted}`);
};
/** @param {string} xpath */
const click = async (xpath) => {
  await driver.findElement(By.xpath(xpath)).click();
};
/** @param {string} name */
const page = (name) => click(`//*[@aria-label="What is worked on"]//label[normalize-space(.)="${name}"]`);
/** @param {string} name */
const press = (name) => click(`//button[normalize-space(.)="${name}" or @aria-label="${name}"]`);
/** @param {string} name */
const picture = async (name) => {
  await driver.executeScript('document.activeElement?.blur()');
  await rest(5000); // words that go away by themselves have gone
  writeFileSync(join(folder, `${name}.png`), await driver.takeScreenshot(), 'base64');
  console.log(name);
};
const DUSK = 'Dusk: dark look';
const DAYLIGHT = 'Daylight: light look';

try {
  await visit('/');
  await picture('start');
  await visit('/rig');
  await press('Listen to the room');
  await sees('noise of the room');
  await press('Check every channel');
  await sees(/(dB above the noise[\s\S]*){7}/);
  await rest(1500);
  await click('//button[starts-with(normalize-space(.), "Set ")]');
  await sees('The level is right');
  await picture('rig');
  const view = async (/** @type {string} */ name) => {
    await click(`//*[@role="tab"][starts-with(@aria-label, "${name},")]`);
    await rest(1200);
  };
  await view('Connect');
  await press('Speak the name of Surround left');
  await rest(500);
  await picture('rig-connect');
  await sees(/^((?!Speaking the name)[\s\S])*$/);
  await view('Microphones');
  await press('Look it up');
  await sees('90°, new');
  await picture('rig-microphones');
  await view('Level');
  await press('Start the meter');
  await rest(3000);
  await click('//label[normalize-space(.)="on, 94"]');
  await sees('Stable at');
  await press('Set the level by 94 dB');
  await click('//label[normalize-space(.)="on, 114"]');
  await rest(1000);
  await sees('Stable at \u22126');
  await press('Check 114 against 94 dB');
  await sees('114 reads');
  await picture('rig-level');
  await press('Stop the meter');
  await view('Distances');
  await press('Hear from all places that are left');
  await sees('8 of 8 places heard');
  await picture('rig-distances');

  await visit('/mic-walk');
  await press('Take this spot');
  await sees('7 good, of 28');
  await rest(500);
  await driver.executeScript(
    `localStorage.setItem('pebble-hall.practice', JSON.stringify({ doorSlam: true, silentOutputs: [4] }))`,
  );
  await press('Take this spot');
  await sees(/Surround left: nothing arrived/);
  await sees('Take this spot');
  await picture('mic-walk-trouble');
  await driver.executeScript(`localStorage.removeItem('pebble-hall.practice')`);
  await press('Take all that are left');
  await sees('Hold still: sweep 6');
  writeFileSync(join(folder, 'mic-walk.png'), await driver.takeScreenshot(), 'base64');
  await sees('28 good, of 28');

  await press('Phone');
  await rest(500);
  await press('Get a pairing code');
  await sees('End the pairing');
  const code = await driver.findElement(By.xpath('//output[@aria-label="Pairing code"]')).getText();
  const desk = await driver.getWindowHandle();
  await driver.switchTo().newWindow('window');
  await driver.manage().window().setRect({ width: 500, height: 900 });
  await driver.get(`${server.url}/follow`);
  await rest(1000);
  await driver.findElement(By.css('input')).sendKeys(code);
  await press('Follow');
  await sees('spots taken');
  await picture('follow');
  await driver.close();
  await driver.switchTo().window(desk);

  const traces = async (/** @type {string} */ way, /** @type {RegExp} */ seen) => {
    await visit(`/traces#${way}`);
    await driver.navigate().refresh(); // a page that differs in its hash alone is not loaded anew
    await sees(seen);
    await rest(1500);
  };
  await traces('level', /First strong reflection/);
  await picture('traces-level');
  await traces('time', /Reflection \d/);
  await picture('traces-time');
  await visit('/traces?channel=sub-1#distortion');
  await driver.navigate().refresh();
  await sees(/Most at|No harmonic/);
  await picture('traces-distortion');
  await traces('room-figures', /Speech transmission/);
  await picture('traces-figures');
  await press(DUSK);
  await traces('decay', /Hz, \+/);
  await picture('traces-decay-dusk');
  await press(DAYLIGHT);

  await visit('/correct');
  await sees('filters made');
  await picture('correct-daylight');
  await page('Subwoofers');
  await press('Even out the seats');
  await sees('what evenness costs');
  await click('//button[contains(@class, "chip")][starts-with(normalize-space(.), "Sub 1")]');
  await sees('filters made');
  await rest(600);
  await picture('correct-subwoofers');
  await press(DUSK);
  await page('Filter');
  await click('//*[@aria-label="Form of the filter"]//label[normalize-space(.)="Both"]');
  await click('//button[contains(@class, "chip")][starts-with(normalize-space(.), "Left")]');
  await sees('filters made');
  await rest(600);
  await picture('correct-dusk');
  await press(DAYLIGHT);

  await visit('/listen');
  await sees('as one microphone at');
  await press('Play');
  await sees('Matched in loudness:');
  await rest(600);
  await picture('listen');
  await press('Stop');

  await visit('/hand-over');
  await press('Load memory B');
  await sees('read back exactly');
  await press('Put back');
  await sees('as they were meant to be');
  await press('Measure again');
  await sees('All 7 channels were measured again');
  await picture('hand-over');
} finally {
  await close();
  await server.stop();
}
